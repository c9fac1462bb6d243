import {
  basisText,
  demandText,
  findingText,
  propertyWords,
  severityWords,
  verdictText,
  type CheckResult,
  type Circuit,
  type FaultEnd,
} from '@nobbet/core'

/** A check as lines: verdict, what it rests on, findings, properties, the demand table. */
export function checkText(circuit: Circuit, result: CheckResult): string[] {
  const { findings, states } = result
  const lines = [verdictText(result), basisText(result, states), '']
  for (const finding of findings) {
    const { title, reason, remedy } = findingText(circuit, finding)
    lines.push(`${severityWords[finding.severity]}: ${title} [${finding.rule}]`, `  ${reason} ${remedy}`)
    if (finding.actions?.length) lines.push(`  ${finding.actions.map((a) => `--do ${a}`).join(' ')}`)
    if (finding.reproduced === false) lines.push('  Not reproduced with the times that parts really take.')
  }
  if (findings.length > 0) lines.push('')
  for (const { id, held } of states.properties) lines.push(`${held ? 'holds ' : 'BROKEN'}  ${propertyWords[id]}`)
  lines.push('')
  for (const row of states.table) {
    const expected = row.expected.calls.length > 0 ? row.expected.calls.join(', ') : 'no call'
    const found = [...new Set(row.found.map((f) => f.calls.join(', ') || 'no call'))].join(' or ')
    lines.push(
      `${row.right ? 'right ' : 'WRONG '}  ${demandText(circuit, row.wanted)}: expected ${expected}; found ${found}`,
    )
  }
  if (states.alike.length > 0)
    lines.push('', `Alike, counted together: ${states.alike.map((g) => g.join(', ')).join('; ')}`)
  return lines
}

/** Which single device faults end in danger. */
export function faultEndsText(ends: readonly FaultEnd[]): string[] {
  const dangers = ends.filter((e) => e.danger)
  return [
    '',
    `${dangers.length} of ${ends.length} single device faults end in danger`,
    ...dangers.map(
      ({ fault, danger }) => `  ${fault.label}: not "${propertyWords[danger!.property].toLowerCase()}" [${fault.name}]`,
    ),
  ]
}
