import { lookText, shownText, type Circuit, type HuntAnswer, type HuntEntry, type AtOnce } from '@nobbet/core'

const percent = (share: number) => `${share < 0.0995 ? (100 * share).toFixed(1) : Math.round(100 * share)} %`
const mostSuspects = 12

function concluded({ text, done, share }: NonNullable<HuntAnswer['decision']['remedy']>): string {
  if (done) return `It is mended, with ${percent(share)}.`
  return text === ''
    ? `Enough is known. Nothing to mend with ${percent(share)}: explain how it works.`
    : `Enough is known. ${text} Cures with ${percent(share)}.`
}

/** Several causes at once, as lines. */
export const atOnceText = ({ best, share, pairs, threes, restAtMost }: AtOnce): string[] => [
  '',
  `${threes ? 'Two or three' : 'Two'} causes at once: ${percent(share)} of all weight, of ${pairs.done} pairs out of ${pairs.of} (${percent(pairs.lookedAt)} of their weight)${
    threes ? `, and ${threes.done} threes` : ''
  }`,
  `Pairs that were not looked at have at most ${percent(restAtMost)} of the weight`,
  ...best.map(({ labels, share: own }) => `${percent(own).padStart(6)}  ${labels.join(', and ')}`),
]

/** A hunt as lines: what may be the case, what does not go together, what to do next, whether to stop. */
export function huntText(circuit: Circuit, log: readonly HuntEntry[], answer: HuntAnswer): string[] {
  const { suspects, unlikely, contradictions, next, decision, groups, putBack } = answer
  const found = (id: string): string => {
    const entry = log.find((e) => e.id === id)
    return entry && 'see' in entry ? `${id} (${lookText(circuit, entry.see)})` : id
  }
  const lines = suspects
    .slice(0, mostSuspects)
    .map(
      ({ share, label, id, like = [] }) =>
        `${percent(share).padStart(6)}  ${label}  [${id}]${like.length > 0 ? `, most like ${like.join(', ')}` : ''}`,
    )
  const more = suspects.length - Math.min(suspects.length, mostSuspects)
  lines.push(`        ${more + unlikely} others with less`, '')
  for (const { id, probability, against } of contradictions)
    lines.push(
      `Perhaps mistaken: ${found(id)}, ${percent(probability)} likely after the rest; against it: ${against.map(found).join(', ') || 'all of it together'}`,
    )
  for (const group of groups) lines.push(`No look tells these apart: ${group.join(', ')}`)
  if (putBack.length > 0) lines.push(`To be put back: ${putBack.join(', ')}`)
  if (decision.stop && !decision.remedy)
    lines.push('No look pays any more, and nothing on the list is likely enough to be worth doing.')
  if (decision.remedy)
    lines.push(
      decision.stop
        ? concluded(decision.remedy)
        : `More looks pay. Likeliest so far: ${decision.remedy.text || 'explain how it works'} (${percent(decision.remedy.share)})`,
    )
  for (const look of next) {
    const acts = look.acts.length > 0 ? `${look.acts.map((a) => `--do ${a}`).join(' ')}, then ` : ''
    const isolate = look.isolateFirst ? `, isolate and open ${look.isolateFirst} first` : ''
    lines.push(
      `${look.bits.toFixed(2)} bit in ${Math.round(look.minutes * 10) / 10} min: ${acts}${lookText(circuit, look.see)}${look.live ? ', live' : ''}${isolate}`,
    )
    for (const { answer: word, probability, remaining } of [...look.outcomes].sort(
      (x, y) => y.probability - x.probability,
    ))
      lines.push(`    ${percent(probability).padStart(6)}  ${shownText({ word })}, then ${remaining} stay above 1 %`)
  }
  return lines
}
