import { otherwiseText, runRowText, type Circuit, type RowFound } from '@nobbet/core'

/** A commissioning run as lines: row by row what to do and what to expect; carried out, what was otherwise. */
export function commissionText(circuit: Circuit, found: readonly RowFound[], carried: boolean): string[] {
  const minutes = found.reduce((sum, { row }) => sum + row.minutes, 0)
  const lines = [`${found.length} steps, about ${Math.round(minutes)} minutes`]
  found.forEach(({ row, otherwise }, i) => {
    const { title, acts, expects } = runRowText(circuit, row)
    lines.push('', `${String(i + 1).padStart(3)}  ${title}`)
    for (const act of acts) lines.push(`     do: ${act}`)
    for (const expect of expects) lines.push(`     expect: ${expect}`)
    if (!carried) return
    if (otherwise.length === 0) lines.push('     as expected')
    for (const one of otherwise) lines.push(`     NOT AS EXPECTED: ${otherwiseText(circuit, one)}`)
  })
  if (carried) {
    const failed = found.filter(({ otherwise }) => otherwise.length > 0).length
    lines.push('', failed === 0 ? 'Every step as expected' : `${failed} of ${found.length} steps not as expected`)
  }
  return lines
}
