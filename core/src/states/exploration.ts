import type { Input } from '../inputs'
import type { FoundBreach } from './happenings'
import { breachKey, type PropertyId } from './properties'

/** What was found in the settled states in which just these demands are wanted. */
export interface Settled {
  wanted: string[]
  /** Boiler inputs that are called, circuits that stand open, and what runs or heats; one entry per outcome. */
  outcomes: { calls: string[]; open: string[]; runs: string[] }[]
  /** Devices of inputs beside the demands that do not stand as they did to begin with. */
  disturbed: string[]
  /** Was everything as it should be in all of them? */
  right: boolean
}

export type Outcome = Settled['outcomes'][number]

export interface Exploration {
  states: number
  /** Of them, those in which nothing moves. */
  settled: number
  /** Everything reachable was looked at; false where it was left before its end, or stopped at its bound. */
  complete: boolean
  breaches: FoundBreach[]
  /** How often each property had something to judge by; one that is not in it was not looked at. */
  looked: ReadonlyMap<PropertyId, number>
  table: Settled[]
  /** Zones counted together: demands, and for each its own devices in one order. */
  alike: { demands: string[]; devices: string[][] }[]
  /**
   * Circuits that act on each other only through what any of them calls were looked at so many at once in every order, of which
   * one stands in for the rest, and all together once. Left out where everything was looked at together. What is broken is then
   * all found. Rows hold the outcomes that were met; those in which fewer demands are wanted than were looked at beside the
   * stand-in are judged as all states would judge them.
   */
  fewAtOnce?: { circuits: number; atOnce: number }
  inputs: Input[]
}

/** What was found of circuits that share nothing, as of one installation. */
export function summedUp(found: readonly Exploration[], all: boolean): Exploration {
  const sum = (of: (e: Exploration) => number) => found.reduce((n, e) => n + of(e), 0)
  const looked = new Map<PropertyId, number>()
  for (const e of found) for (const [property, n] of e.looked) looked.set(property, (looked.get(property) ?? 0) + n)
  const breaches = new Map(found.flatMap((e) => e.breaches).map((b) => [breachKey(b.breach), b]))
  const rows = new Map<string, Settled>()
  for (const row of found.flatMap((e) => e.table)) {
    const key = `${row.wanted.join(' ')}|${row.disturbed.join(' ')}`
    const known = rows.get(key)
    const outcomes = new Map([...(known?.outcomes ?? []), ...row.outcomes].map((o) => [JSON.stringify(o), o]))
    rows.set(key, { ...row, right: row.right && (known?.right ?? true), outcomes: [...outcomes.values()] })
  }
  const few = found.flatMap((e) => (e.fewAtOnce ? [e.fewAtOnce] : []))
  return {
    states: sum((e) => e.states),
    settled: sum((e) => e.settled),
    complete: all && found.every((e) => e.complete),
    breaches: [...breaches.values()],
    looked,
    table: [...rows.values()],
    alike: found[0].alike,
    inputs: found[0].inputs,
    ...(few.length > 0 && {
      fewAtOnce: {
        circuits: few.reduce((n, f) => n + f.circuits, 0),
        atOnce: Math.max(...few.map((f) => f.atOnce)),
      },
    }),
  }
}
