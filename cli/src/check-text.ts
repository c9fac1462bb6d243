import {
  basisText,
  culpritBasis,
  culpritText,
  deedText,
  demandText,
  fewAtOnceText,
  findingText,
  gapText,
  propertyVerdictWords,
  propertyWords,
  severityWords,
  verdictText,
  type CheckResult,
  type Circuit,
  type FaultEnd,
} from '@nobbet/core'

/** A check as lines: verdict, what it rests on, findings, properties, the demand table. */
export function checkText(circuit: Circuit, result: CheckResult): string[] {
  const { findings, states, known } = result
  const lines = [verdictText(result), basisText(known, states), ...known.gaps.map((g) => `${gapText(circuit, g)}.`), '']
  for (const finding of findings) {
    const { title, reason, remedy } = findingText(circuit, finding)
    const { culprit } = finding
    lines.push(`${severityWords[finding.severity]}: ${title}`)
    if (culprit) lines.push(`  ${culpritText(circuit, culprit)}. ${culpritBasis}`)
    lines.push(`  ${reason}${finding.remedy ? '' : ` ${remedy}`}`)
    if (finding.remedy) lines.push(`  ${deedText(circuit.installation, finding.remedy.deed)}.`)
    if (finding.actions?.length) lines.push(`  ${finding.actions.map((a) => `--do ${a}`).join(' ')}`)
    if (finding.reproduced === false) lines.push('  Not reproduced with the times that parts really take.')
  }
  if (findings.length > 0) lines.push('')
  for (const { id, verdict } of states.properties)
    lines.push(`${propertyWords[id]}: ${verdict === 'broken' ? 'BROKEN' : propertyVerdictWords[verdict]}`)
  lines.push('')
  for (const row of states.table) {
    const expected = row.expected.calls.length > 0 ? row.expected.calls.join(', ') : 'no call'
    const found = [...new Set(row.found.map((f) => f.calls.join(', ') || 'no call'))].join(' or ')
    lines.push(
      `${row.right ? 'right ' : 'WRONG '}  ${demandText(circuit, row.wanted)}: expected ${expected}; found ${found}${row.inPart ? ' (looked at in part)' : ''}`,
    )
  }
  if (states.alike.length > 0)
    lines.push('', `Alike, counted together: ${states.alike.map((g) => g.join(', ')).join('; ')}`)
  if (states.fewAtOnce) lines.push('', `${fewAtOnceText(states.fewAtOnce)}.`)
  return lines
}

/** Which single device faults end in danger. */
export function faultEndsText(ends: readonly FaultEnd[]): string[] {
  const dangers = ends.filter((e) => e.danger)
  const unfinished = ends.filter((e) => !e.complete).length
  return [
    '',
    `${dangers.length} of ${ends.length} single device faults end in danger${unfinished > 0 ? `; ${unfinished} not looked at to their end` : ''}`,
    ...dangers.map(
      ({ fault, danger }) =>
        `  ${fault.label}. No longer so: ${propertyWords[danger!.property].toLowerCase()}. --fault ${fault.name}`,
    ),
  ]
}
