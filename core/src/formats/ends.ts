import { provenanceSchema, type End } from '../installation'

/** One end of a conductor in words: `wc.7`, `parked wc.9`, `connector joint-1`, `cut back`, `loose`, `unknown`. */
export function endCode(end: End): string {
  switch (end.at) {
    case 'terminal':
      return end.terminal
    case 'parked':
      return `parked ${end.terminal}`
    case 'connector':
      return `connector ${end.connector}`
    case 'cut-back':
      return 'cut back'
    default:
      return end.at
  }
}

/** Reads {@link endCode}; a string that says why it cannot. */
export function readEnd(text: string, known: string): End | string {
  const provenance = known === '' ? undefined : provenanceSchema.safeParse(known)
  if (provenance && !provenance.success) return `"${known}" is not assumed, planned, seen or tested`
  const rest = provenance ? { provenance: provenance.data } : {}
  const words = text.trim()
  if (words === 'cut back') return { at: 'cut-back', ...rest }
  if (words === 'loose' || words === 'unknown') return { at: words, ...rest }
  const [first, second] = words.split(/\s+/)
  if (first === 'parked' && second) return { at: 'parked', terminal: second, ...rest }
  if (first === 'connector' && second) return { at: 'connector', connector: second, ...rest }
  if (/^[A-Za-z0-9+-]+\.[A-Za-z0-9+-]+$/.test(words)) return { at: 'terminal', terminal: words, ...rest }
  return `"${words}" is no end: write owner.terminal, "parked wc.9", "connector NAME", "cut back", "loose" or "unknown"`
}
