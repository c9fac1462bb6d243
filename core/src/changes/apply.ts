import type { FieldChange } from './change'
import { entriesOf, same, valueAt, withValue, type Entry, type Shape } from './shape'

/** A change that does not fit what stands there; nothing has then been changed. */
export class ChangeError extends Error {
  constructor(
    readonly change: FieldChange,
    /** What stands there instead. */
    readonly stands: unknown,
  ) {
    super(`"${change.path.join('.')}" is not as it was when this was changed`)
    this.name = 'ChangeError'
  }
}

/** The document after changes, each of which must find exactly what it says stood there. Throws {@link ChangeError}. */
export const applied = <T>(shape: Shape, doc: T, changes: readonly FieldChange[]): T =>
  changes.reduce((at, change) => {
    const { value, missing } = valueAt(shape, at, change.path)
    const noList = change.do !== 'set' && value !== undefined && !Array.isArray(value)
    if (missing || noList || !fits(change, value)) throw new ChangeError(change, value)
    return put(shape, at, change)
  }, doc)

/** Does a change find what it says stood there, `stands` being what is at its path? */
export function fits(change: FieldChange, stands: unknown): boolean {
  if (change.do === 'set') return same(stands, change.was)
  const entries = entriesOf(stands)
  if (change.do === 'order') return same(idsOf(entries), change.was)
  if (change.do === 'add') return !entries.some((entry) => entry.id === change.value.id)
  return same(
    entries.find((entry) => entry.id === change.was.id),
    change.was,
  )
}

const idsOf = (entries: readonly Entry[]) => entries.map((entry) => entry.id)

/** The document with a change made, whatever stood there before. */
export function put<T>(shape: Shape, doc: T, change: FieldChange): T {
  if (change.do === 'set') return withValue(shape, doc, change.path, change.now) as T
  const entries = entriesOf(valueAt(shape, doc, change.path).value)
  return withValue(shape, doc, change.path, changedList(entries, change)) as T
}

function changedList(entries: readonly Entry[], change: Exclude<FieldChange, { do: 'set' }>): Entry[] {
  if (change.do === 'drop') return entries.filter((entry) => entry.id !== change.was.id)
  if (change.do === 'add') {
    const behind = entries.findIndex((entry) => entry.id === change.after)
    // Where the entry it stood behind is gone, it stands last.
    const at = change.after === null ? 0 : behind < 0 ? entries.length : behind + 1
    return [...entries.slice(0, at), change.value, ...entries.slice(at)]
  }
  return inOrder(entries, change.now)
}

/** Entries in the order of their ids; those the order does not name stay behind the one they stood behind. */
function inOrder(entries: readonly Entry[], order: readonly string[]): Entry[] {
  const named = new Set(order)
  const result = order.flatMap((id) => entries.filter((entry) => entry.id === id))
  entries.forEach((entry, i) => {
    if (named.has(entry.id)) return
    const behind = i === 0 ? -1 : result.indexOf(entries[i - 1])
    result.splice(behind + 1, 0, entry)
  })
  return result
}
