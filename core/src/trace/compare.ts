import { valueAt, type Recording, type Signal } from './recording'

/** Where two histories part: a signal, the moment from which it is otherwise, ms, and what it is in each then. */
export interface Parting {
  signal: Signal
  at: number
  one: number | string
  other: number | string
}

/** Moments this close are the same: contacts that follow each other within milliseconds. */
const sameMs = 20
/** Of temperatures, °C; of travel, of 1. */
const sameAmount = 0.5
const sameTravel = 0.02

/** The signals in which two histories of one installation differ, in the order in which they part. */
export function partingsOf(one: Recording, other: Recording): Parting[] {
  const until = Math.min(one.to, other.to)
  return one.signals
    .flatMap((signal): Parting[] => {
      const twin = other.signals.find((s) => s.id === signal.id)
      if (!twin) return []
      const times = [...new Set([...signal.steps, ...twin.steps].map(({ at }) => at))].sort((x, y) => x - y)
      for (const at of times) {
        if (at > until) break
        const [a, b] = [valueAt(signal, at), valueAt(twin, at)]
        if (a === undefined || b === undefined || isSame(signal, a, b)) continue
        // Each has its own moment for the same thing.
        const later = [valueAt(signal, at + sameMs), valueAt(twin, at + sameMs)]
        if (later[0] !== undefined && later[1] !== undefined && isSame(signal, later[0], later[1])) continue
        return [{ signal, at, one: a, other: b }]
      }
      return []
    })
    .sort((x, y) => x.at - y.at)
}

function isSame({ of }: Signal, a: number | string, b: number | string): boolean {
  if (typeof a === 'string' || typeof b === 'string') return a === b
  const within = of.kind === 'travel' ? sameTravel : of.kind === 'contact' || of.kind === 'load' ? 0 : sameAmount
  return Math.abs(a - b) <= within
}
