/** A map with a value at a number; without one there, where it is undefined. */
export function put<T>(map: ReadonlyMap<number, T>, at: number, value: T | undefined): Map<number, T> {
  const next = new Map(map)
  if (value === undefined) next.delete(at)
  else next.set(at, value)
  return next
}
