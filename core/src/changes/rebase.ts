import { fits, put } from './apply'
import { inverted, type FieldChange, type ListChange } from './change'
import { entriesOf, same, valueAt, type Shape } from './shape'

/** Changes of mine that meet something of theirs: what I wanted, and what stands there. */
export interface Clash {
  /** In the order in which they have to be made. */
  mine: FieldChange[]
  /** What stands there by their hand; left out where there is nothing. */
  theirs?: unknown
  /**
   * `both`: each of us changed it. `gone`: it is in something they took out. `senseless`: theirs and mine cannot stand together,
   * for example a conductor of mine on a terminal they took out.
   */
  why: 'both' | 'gone' | 'senseless'
  /** What has to be put back first, where they took out what mine needs. */
  restore: FieldChange[]
}

/** An id of a new entry of mine that they had given away meanwhile. */
export interface Renaming {
  path: string[]
  from: string
  to: string
}

/** What rebasing has to know of the kind of document. */
export interface Ground<T> {
  shape: Shape
  /** Does the document make sense as a whole? */
  sensible(doc: T): boolean
  /**
   * An id for an entry of mine whose own is taken, and none of those `reserved`; undefined where the id is what the entry is
   * about.
   */
  freeId(doc: T, path: readonly string[], id: string, reserved: ReadonlySet<string>): string | undefined
  /** A change that speaks of the entry by its new id. */
  renamed(change: FieldChange, renaming: Renaming): FieldChange
}

export interface Rebased<T> {
  doc: T
  /** What is left of the changes, fitting the document exactly. */
  changes: FieldChange[]
  clashes: Clash[]
  renamings: Renaming[]
}

/**
 * Makes changes that were made on one state of a document on another one. Theirs is left alone: what both have touched is not
 * changed but told as a clash. `theirs` is what was changed from the one state to the other; `reserved` are ids that further
 * changes of mine will need for entries of their own.
 */
export function rebased<T>(
  ground: Ground<T>,
  doc: T,
  changes: readonly FieldChange[],
  theirs: readonly FieldChange[] = [],
  reserved: ReadonlySet<string> = idsAdded(changes),
): Rebased<T> {
  const clashes: Clash[] = []
  const renamings: Renaming[] = []
  const made: FieldChange[] = []
  let now = doc
  let rest = [...changes]
  while (rest.length > 0) {
    const [change, ...others] = rest
    rest = others
    const { value: stands, missing } = valueAt(ground.shape, now, change.path)
    if (missing) {
      // What I took out of something that is gone is out.
      if (change.do !== 'drop') clashes.push(clash(change, undefined, 'gone', restoring(theirs, missing)))
      continue
    }
    if (already(change, stands)) continue
    if (fits(change, stands)) {
      made.push(change)
      now = put(ground.shape, now, change)
    } else if (change.do === 'order') {
      const moved: FieldChange = { ...change, was: entriesOf(stands).map((entry) => entry.id) }
      const ordered = put(ground.shape, now, change)
      const after = entriesOf(valueAt(ground.shape, ordered, change.path).value).map((entry) => entry.id)
      made.push({ ...moved, now: after })
      now = ordered
    } else if (change.do === 'add') {
      const to = ground.freeId(now, change.path, change.value.id, reserved)
      const there = entriesOf(stands).find((entry) => entry.id === change.value.id)
      if (to === undefined) {
        const path = [...change.path, change.value.id]
        clashes.push(clash({ do: 'set', path, was: there, now: change.value }, there, 'both'))
        continue
      }
      const renaming: Renaming = { path: change.path, from: change.value.id, to }
      renamings.push(renaming)
      rest = [{ ...change, value: { ...change.value, id: to } }, ...rest.map((c) => ground.renamed(c, renaming))]
    } else {
      const there = change.do === 'drop' ? entriesOf(stands).find((entry) => entry.id === change.was.id) : stands
      clashes.push(clash(change, there, 'both'))
    }
  }
  if (made.length === 0 || ground.sensible(now)) return { doc: now, changes: made, clashes, renamings }
  // Theirs and mine each fit, and do not stand together: mine is put aside as a whole, for half of it would be nobody's wish.
  const back = missingOf(ground, now, theirs)
  return { doc, changes: [], clashes: [{ mine: [...changes], why: 'senseless', restore: back }], renamings: [] }
}

/** Ids of entries that changes bring. */
export const idsAdded = (changes: readonly FieldChange[]): ReadonlySet<string> =>
  new Set(changes.flatMap((change) => (change.do === 'add' ? [change.value.id] : [])))

const clash = (change: FieldChange, theirs: unknown, why: Clash['why'], restore: FieldChange[] = []): Clash => ({
  mine: [change],
  ...(theirs !== undefined && { theirs }),
  why,
  restore,
})

/** Has somebody done the very same already? */
function already(change: FieldChange, stands: unknown): boolean {
  if (change.do === 'set') return same(stands, change.now)
  const entry = (id: string) => entriesOf(stands).find((e) => e.id === id)
  if (change.do === 'add') return same(entry(change.value.id), change.value)
  return change.do === 'drop' && entry(change.was.id) === undefined
}

/** What puts back an entry that they have taken out. */
function restoring(theirs: readonly FieldChange[], path: readonly string[]): FieldChange[] {
  const drop = theirs.findLast(
    (c): c is ListChange =>
      c.do === 'drop' && c.path.length === path.length - 1 && same([...c.path, c.was.id], [...path]),
  )
  return drop ? inverted([drop]) : []
}

/** The one thing they took out without which mine makes no sense. */
function missingOf<T>(ground: Ground<T>, doc: T, theirs: readonly FieldChange[]): FieldChange[] {
  for (const drop of theirs) {
    if (drop.do !== 'drop') continue
    const back = inverted([drop])
    const stands = valueAt(ground.shape, doc, drop.path)
    if (stands.missing || !fits(back[0], stands.value)) continue
    if (ground.sensible(put(ground.shape, doc, back[0]))) return back
  }
  return []
}

/**
 * Makes changes of mine over whatever stands there, as somebody who has seen both has chosen. Undefined where the document would
 * then make no sense.
 */
export function insisted<T>(
  ground: Ground<T>,
  doc: T,
  { mine, restore }: Pick<Clash, 'mine' | 'restore'>,
): T | undefined {
  let now = doc
  for (const change of [...restore, ...mine]) {
    const { value: stands, missing } = valueAt(ground.shape, now, change.path)
    if (missing) return undefined
    if (already(change, stands)) continue
    const taken = change.do === 'add' && entriesOf(stands).some((entry) => entry.id === change.value.id)
    now = taken
      ? put(ground.shape, now, { do: 'set', path: [...change.path, change.value.id], now: change.value })
      : put(ground.shape, now, change)
  }
  return ground.sensible(now) ? now : undefined
}
