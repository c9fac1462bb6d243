import type { HuntEntry } from '../hunt'
import type { Found, WrittenLook } from '../looks'

/** A row as it was done: what was set, how long was waited, what was found where. */
export interface RowDone {
  /** At most 36 letters, digits and hyphens: entries are named after it. */
  id: string
  acts: readonly string[]
  waitMs: number
  looks: readonly { see: WrittenLook; found: Found }[]
}

/** A hunt takes no more lines. */
const mostEntries = 280

/**
 * What rows have shown, as the log of a hunt: the acts of all of them, since the state in which something was seen comes of them, and
 * what was seen; of more than a hunt takes, what was seen last.
 */
export function evidenceOf(rows: readonly RowDone[]): HuntEntry[] {
  const made = rows.map(({ id, acts, waitMs, looks }) => {
    let n = 0
    const named = () => `${id}+${++n}`
    const done: HuntEntry[] = [...acts, ...(waitMs > 0 ? [`wait=${waitMs / 1000}s`] : [])].map((act) => ({
      id: named(),
      do: act,
    }))
    return { done, seen: looks.map(({ see, found }): HuntEntry => ({ id: named(), see, found })) }
  })
  let room = mostEntries - made.reduce((sum, { done }) => sum + done.length, 0)
  for (const row of made.toReversed()) {
    row.seen = row.seen.slice(0, Math.max(0, room))
    room -= row.seen.length
  }
  return made.flatMap(({ done, seen }) => [...done, ...seen])
}
