/**
 * How finely a document is taken apart when two states of it are compared. What a shape does not name is one thing, changed and
 * disputed as a whole.
 */
export type Shape =
  /** One thing, whatever is in it. */
  | 'whole'
  /** A record: every field by itself; those not named are whole. */
  | { fields: Record<string, Shape> }
  /** Entries that have an id, in an order; where `optional`, none is the same as no list. */
  | { list: Shape; optional?: true }
  /** Values under keys; where `optional`, none is the same as no map. */
  | { map: 'kept' | 'optional' }
  /** A fixed number of values, each by its place. */
  | 'tuple'

export type Entry = { id: string } & Record<string, unknown>

/** What stands one step further along a path, and its shape. */
export function step(shape: Shape, node: unknown, key: string): { shape: Shape; node: unknown } {
  if (shape === 'whole') throw new Error(`nothing inside a whole can be named: "${key}"`)
  if (shape === 'tuple') return { shape: 'whole', node: (node as unknown[])[Number(key)] }
  if ('fields' in shape)
    return {
      shape: Object.hasOwn(shape.fields, key) ? shape.fields[key] : 'whole',
      node: ownValue(node, key),
    }
  if ('list' in shape) return { shape: shape.list, node: entriesOf(node).find((entry) => entry.id === key) }
  return { shape: 'whole', node: ownValue(node, key) }
}

export const entriesOf = (list: unknown): readonly Entry[] => (list as Entry[] | undefined) ?? []

function ownValue(node: unknown, key: string): unknown {
  return node !== undefined && node !== null && Object.hasOwn(node, key)
    ? (node as Record<string, unknown>)[key]
    : undefined
}

/** The value at a path; `missing` where an entry on the way to it is not there. */
export function valueAt(shape: Shape, doc: unknown, path: readonly string[]): { value: unknown; missing?: string[] } {
  let at = { shape, node: doc }
  for (const [i, key] of path.entries()) {
    const within = at.shape
    // A way into something that has no inside: nothing stands there, whoever thinks so.
    if (within === 'whole' || (within === 'tuple' && !Array.isArray(at.node)))
      return { value: undefined, missing: path.slice(0, i + 1) }
    at = step(within, at.node, key)
    const inList = typeof within === 'object' && 'list' in within
    if (inList && at.node === undefined && i < path.length - 1)
      return { value: undefined, missing: path.slice(0, i + 1) }
  }
  return { value: at.node }
}

/** The document with another value at a path; undefined takes it away. */
export function withValue(shape: Shape, node: unknown, path: readonly string[], value: unknown): unknown {
  const [key, ...rest] = path
  if (key === undefined) return value
  const inner = step(shape, node, key)
  const next = withValue(inner.shape, inner.node, rest, value)
  if (shape === 'tuple') return (node as unknown[]).map((x, i) => (i === Number(key) ? next : x))
  if (typeof shape === 'object' && 'list' in shape)
    return entriesOf(node).flatMap((entry) => (entry.id === key ? (next === undefined ? [] : [next]) : [entry]))
  if (next === undefined || isNothing(inner.shape, next))
    return Object.fromEntries(Object.entries(node ?? {}).filter(([name]) => name !== key))
  // An own field of that name, whatever the name.
  return { ...(node as object), [key]: next }
}

/** Is this an optional list or map with nothing in it? */
export function isNothing(shape: Shape, node: unknown): boolean {
  if (typeof shape !== 'object' || 'fields' in shape) return false
  if ('list' in shape) return shape.optional === true && entriesOf(node).length === 0
  return shape.map === 'optional' && Object.keys(node ?? {}).length === 0
}

/** Do two values say the same? A field that is undefined is not there; the order of fields is nothing. */
export function same(a: unknown, b: unknown): boolean {
  if (a === b) return true
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false
  if (Array.isArray(a) !== Array.isArray(b)) return false
  if (Array.isArray(a) && Array.isArray(b)) return a.length === b.length && a.every((x, i) => same(x, b[i]))
  const [x, y] = [a as Record<string, unknown>, b as Record<string, unknown>]
  const keys = (of: Record<string, unknown>) => Object.keys(of).filter((key) => of[key] !== undefined)
  const [of, other] = [keys(x), keys(y)]
  return of.length === other.length && of.every((key) => Object.hasOwn(y, key) && same(x[key], y[key]))
}
