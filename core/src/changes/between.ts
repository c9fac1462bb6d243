import type { FieldChange } from './change'
import { entriesOf, isNothing, same, step, type Shape } from './shape'

/** The smallest changes that make one state of a document of the other; applied in order they give it exactly. */
export function changesBetween(shape: Shape, before: unknown, after: unknown): FieldChange[] {
  const changes: FieldChange[] = []
  compare(shape, before, after, [], changes)
  return changes
}

function compare(shape: Shape, before: unknown, after: unknown, path: string[], changes: FieldChange[]): void {
  if (before === after || (isNothing(shape, before) && isNothing(shape, after))) return
  const each = (keys: Iterable<string>) => {
    for (const key of keys) {
      const [was, now] = [step(shape, before, key), step(shape, after, key)]
      compare(was.shape, was.node, now.node, [...path, key], changes)
    }
  }
  if (shape === 'whole') {
    if (same(before, after)) return
    changes.push({
      do: 'set',
      path,
      ...(before !== undefined && { was: before }),
      ...(after !== undefined && { now: after }),
    })
  } else if (shape === 'tuple') each(Object.keys(after as unknown[]))
  else if ('list' in shape) {
    compareEntries(before, after, path, changes)
    const were = new Set(entriesOf(before).map((entry) => entry.id))
    each(entriesOf(after).flatMap((entry) => (were.has(entry.id) ? [entry.id] : [])))
  } else each(new Set([...Object.keys(before ?? {}), ...Object.keys(after ?? {})]))
}

/** Entries that went, entries that came, and another order of those that stayed. */
function compareEntries(before: unknown, after: unknown, path: string[], changes: FieldChange[]): void {
  const order = entriesOf(before).map((entry) => entry.id)
  const wanted = entriesOf(after).map((entry) => entry.id)
  const stays = new Set(wanted)
  for (const was of entriesOf(before)) {
    if (stays.has(was.id)) continue
    const i = order.indexOf(was.id)
    changes.push({ do: 'drop', path, was, after: order[i - 1] ?? null })
    order.splice(i, 1)
  }
  const there = new Set(order)
  entriesOf(after).forEach((value, i) => {
    if (there.has(value.id)) return
    const behind = wanted[i - 1] ?? null
    changes.push({ do: 'add', path, value, after: behind })
    order.splice(behind === null ? 0 : order.indexOf(behind) + 1, 0, value.id)
  })
  if (order.some((id, i) => id !== wanted[i])) changes.push({ do: 'order', path, was: order, now: wanted })
}
