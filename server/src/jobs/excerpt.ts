/** The words that are looked for: letters and digits only. */
export const soughtIn = (find: string): string[] => find.match(/[\p{L}\p{N}]+/gu) ?? []

/** How much of the text stands before the first word that is found, and how long the whole is, characters. */
const [before, longest] = [30, 110]

/** Small letters without their accents, letter for letter where they stand. */
const plain = (text: string): string =>
  [...text]
    .map((letter) => {
      const bare = letter.normalize('NFD')[0]?.toLowerCase() ?? letter
      return bare.length === letter.length ? bare : letter
    })
    .join('')

/** The stretch of a text in which the words stand, or words that begin so, each between ⟦ and ⟧. */
export function excerptOf(text: string, sought: readonly string[]): string {
  const beginnings = sought.map(plain)
  const hits = [...plain(text).matchAll(/[\p{L}\p{N}]+/gu)].flatMap(({ 0: word, index }) =>
    beginnings.filter((one) => word.startsWith(one)).map((one) => ({ from: index, to: index + one.length, one })),
  )
  // The line that has most of the words: what was looked for is likeliest meant there.
  const inLine = (at: number) => {
    const end = text.indexOf('\n', at)
    const [from, to] = [text.lastIndexOf('\n', at - 1) + 1, end < 0 ? text.length : end]
    return {
      from,
      to,
      words: new Set(hits.filter((hit) => hit.from >= from && hit.to <= to).map(({ one }) => one)).size,
    }
  }
  const lines = hits.slice(0, 200).map((hit) => ({ hit, line: inLine(hit.from) }))
  const best = lines.reduce<(typeof lines)[number] | undefined>(
    (most, one) => (!most || one.line.words > most.line.words ? one : most),
    undefined,
  )
  if (!best) return ''
  const from = Math.max(best.line.from, best.hit.from - before)
  const to = Math.min(best.line.to, from + longest)
  let told = from > best.line.from ? '…' : ''
  let at = from
  for (const hit of hits.filter((one) => one.from >= from && one.to <= to)) {
    if (hit.from < at) continue
    told += `${text.slice(at, hit.from)}⟦${text.slice(hit.from, hit.to)}⟧`
    at = hit.to
  }
  return told + text.slice(at, to) + (to < best.line.to ? '…' : '')
}
