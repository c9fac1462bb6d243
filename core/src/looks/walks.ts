import type { Installation } from '../installation'

/** Minutes to another place on the same floor, and for each floor between: trade estimates. */
const [aWalk, aFloor] = [1, 1]

/**
 * Minutes from one place to another, by their ids; nought where it is the same. Where it is not told on which floor a place is, or
 * where somebody comes from, it is taken to be on the same.
 */
export function walkMinutes({ places }: Pick<Installation, 'places'>, from: string | undefined, to: string): number {
  if (from === to) return 0
  const [a, b] = [from, to].map((id) => places.find((place) => place.id === id))
  const floors = a?.floor === undefined || b?.floor === undefined ? 0 : Math.abs(a.floor - b.floor)
  return aWalk + floors * aFloor + (a?.apartMin ?? 0) + (b?.apartMin ?? 0)
}
