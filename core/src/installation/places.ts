import type { End, Installation } from './schema'

/** Where a conductor's end is: a terminal, a connector; undefined where it is in none. */
export const placeOf = (end: End): string | undefined =>
  end.at === 'terminal' || end.at === 'parked' ? end.terminal : end.at === 'connector' ? end.connector : undefined

/** Whose terminal an address is; a connector's id is its own. */
export const ownerOf = (ref: string): string => (ref.includes('.') ? ref.slice(0, ref.indexOf('.')) : ref)

/** An id that no link of this document has. */
export function freeLinkId(doc: Pick<Installation, 'links'>): string {
  const taken = new Set(doc.links.map((l) => l.id))
  for (let n = taken.size + 1; ; n++) if (!taken.has(`link-${n}`)) return `link-${n}`
}
