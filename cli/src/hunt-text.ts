import { lookText, shownText, type Circuit, type HuntAnswer, type HuntEntry } from '@nobbet/core'

const percent = (share: number) => `${share < 0.0995 ? (100 * share).toFixed(1) : Math.round(100 * share)} %`
const mostSuspects = 12

/** A hunt as lines: what may be the case, what does not go together, what to do next, whether to stop. */
export function huntText(circuit: Circuit, log: readonly HuntEntry[], answer: HuntAnswer): string[] {
  const { suspects, unlikely, contradictions, next, decision } = answer
  const found = (id: string): string => {
    const entry = log.find((e) => e.id === id)
    return entry && 'see' in entry ? `${id} (${lookText(circuit, entry.see)})` : id
  }
  const lines = suspects
    .slice(0, mostSuspects)
    .map(({ share, label, id }) => `${percent(share).padStart(6)}  ${label}  [${id}]`)
  const more = suspects.length - Math.min(suspects.length, mostSuspects)
  lines.push(`        ${more + unlikely} others with less`, '')
  for (const { id, probability, against } of contradictions)
    lines.push(
      `Perhaps mistaken: ${found(id)}, ${percent(probability)} likely after the rest; against it: ${against.map(found).join(', ') || 'all of it together'}`,
    )
  if (decision.remedy)
    lines.push(
      decision.stop
        ? `Enough is known. ${decision.remedy.text || 'Explain how it works.'} Cures with ${percent(decision.remedy.share)}.`
        : `More looks pay. Likeliest so far: ${decision.remedy.text || 'explain how it works'} (${percent(decision.remedy.share)})`,
    )
  for (const look of next) {
    const acts = look.acts.length > 0 ? `${look.acts.map((a) => `--do ${a}`).join(' ')}, then ` : ''
    const isolate = look.isolateFirst ? `, isolate and open ${look.isolateFirst} first` : ''
    lines.push(
      `${look.bits.toFixed(2)} bit in ${look.minutes} min: ${acts}${lookText(circuit, look.see)}${look.live ? ', live' : ''}${isolate}`,
    )
    for (const { answer: word, probability, remaining } of [...look.outcomes].sort(
      (x, y) => y.probability - x.probability,
    ))
      lines.push(`    ${percent(probability).padStart(6)}  ${shownText({ word })}, then ${remaining} stay above 1 %`)
  }
  return lines
}
