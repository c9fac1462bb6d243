import { otherwiseText, runRowTexts, type Circuit, type RowFound } from '@nobbet/core'

/** A commissioning run as lines: row by row what to do and what to expect; carried out, what was otherwise. */
export function commissionText(circuit: Circuit, found: readonly RowFound[], carried: boolean): string[] {
  const minutes = found.reduce((sum, { row }) => sum + row.minutes, 0)
  const texts = runRowTexts(
    circuit,
    found.map(({ row }) => row),
  )
  const lines = [`${found.length} steps, about ${Math.round(minutes)} minutes`]
  found.forEach(({ otherwise }, i) => {
    const { title, acts, expects, byHand, amiss } = texts[i]
    lines.push('', `${String(i + 1).padStart(3)}  ${title}`)
    if (amiss !== undefined) lines.push(`     ${amiss}`)
    for (const act of acts) lines.push(`     do: ${act}`)
    for (const { at, is } of expects) lines.push(`     expect: ${at}: ${is}`)
    for (const check of byHand) lines.push(`     see to: ${check}`)
    if (!carried) return
    if (otherwise.length === 0 && expects.length > 0) lines.push('     as expected')
    for (const one of otherwise) lines.push(`     NOT AS EXPECTED: ${otherwiseText(circuit, one)}`)
  })
  if (carried) {
    const failed = found.filter(({ otherwise }) => otherwise.length > 0).length
    lines.push('', failed === 0 ? 'Every step as expected' : `${failed} of ${found.length} steps not as expected`)
  }
  return lines
}
