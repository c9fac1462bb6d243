import type { Circuit } from '../circuit'
import type { Demand } from '../installation'
import { explore, properties, replay, type Breach, type Exploration, type PropertyId, type Replay } from '../states'
import { goingFirst } from '../trace'
import type { Severity } from './finding'
import { knownOf } from './gaps'

/** How badly it hurts when a property is broken. */
const propertySeverity: Record<PropertyId, Severity> = {
  'no-short': 'danger',
  'extra-low-stays-low': 'danger',
  'no-call-without-demand': 'danger',
  'all-off-ends-calls': 'danger',
  'water-moves': 'danger',
  isolates: 'danger',
  'demand-served': 'will-not-work',
  'no-heat-without-demand': 'will-not-work',
  'valves-rest': 'will-not-work',
  'runs-when-wanted': 'will-not-work',
  settles: 'will-not-work',
}

/** How badly a breach hurts: water that does not move is no danger in itself, a pump against closed valves is. */
export const severityOf = ({ property, demands }: Breach): Severity =>
  property === 'water-moves' && demands.length > 0 ? 'will-not-work' : propertySeverity[property]

/** What is to be expected, and was found, while just these demands are wanted. */
export interface DemandRow {
  wanted: string[]
  /** Inputs that must be called, and circuits that must be open. */
  expected: { calls: string[]; open: string[] }
  /** Demands that wait for one that goes first. */
  waits: string[]
  found: Exploration['table'][number]['outcomes']
  right: boolean
  /** More circuits are wanted than were looked at in every order: what was found is right, what else there is was not looked at. */
  inPart?: true
}

/** A property broken: by what, by which actions, and whether it then shows in time. */
export interface Counterexample extends Replay {
  breach: Breach
  severity: Severity
}

/**
 * What all states say of a property. `held`: it was judged and never broken. `assumed`: the same, on pipes that nobody has
 * recorded. `unfinished`: not broken as far as was looked. `not-looked-at`: there was nothing to judge it by.
 */
export type PropertyVerdict = 'held' | 'assumed' | 'broken' | 'unfinished' | 'not-looked-at'

/** What all states together say. */
export interface AllStates {
  states: number
  settled: number
  complete: boolean
  /** Demands that were counted together since their zones are alike. */
  alike: string[][]
  /** Circuits that act on each other only through what they call were looked at so many at once. */
  fewAtOnce?: { circuits: number; atOnce: number }
  properties: { id: PropertyId; verdict: PropertyVerdict; broken: Counterexample[] }[]
  table: DemandRow[]
}

/** Examines every reachable state. A generator: each pause gives the number of states so far; leave it to cancel. */
export function* allStates(circuit: Circuit, mostStates?: number): Generator<number, AllStates> {
  const found = yield* explore(circuit, { mostStates })
  const pipesAssumed = knownOf(circuit).gaps.some((g) => g.gap === 'pipes-assumed')
  const broken = found.breaches.map((b): Counterexample => ({
    breach: b.breach,
    severity: severityOf(b.breach),
    ...replay(circuit, b),
  }))
  return {
    states: found.states,
    settled: found.settled,
    complete: found.complete,
    alike: found.alike.map((zones) => zones.demands),
    ...(found.fewAtOnce && { fewAtOnce: found.fewAtOnce }),
    properties: properties.map((id) => {
      const of = broken.filter((b) => b.breach.property === id)
      return { id, verdict: verdictOf(found, pipesAssumed, id, of.length > 0), broken: of }
    }),
    table: found.table
      .filter((row) => row.disturbed.length === 0)
      .map((row) => ({
        ...expectedOf(circuit, row.wanted),
        wanted: row.wanted,
        found: row.outcomes,
        right: row.right,
        ...(found.fewAtOnce && row.wanted.length >= found.fewAtOnce.atOnce - 1 && { inPart: true as const }),
      }))
      .sort((x, y) => x.wanted.length - y.wanted.length || (x.wanted.join() < y.wanted.join() ? -1 : 1)),
  }
}

/** Properties that rest on where the pipes go. */
const byPipes: ReadonlySet<PropertyId> = new Set(['water-moves', 'no-heat-without-demand'])

function verdictOf(found: Exploration, pipesAssumed: boolean, id: PropertyId, broken: boolean): PropertyVerdict {
  if (broken) return 'broken'
  if (!found.looked.has(id)) return 'not-looked-at'
  if (!found.complete) return 'unfinished'
  return byPipes.has(id) && pipesAssumed ? 'assumed' : 'held'
}

function expectedOf(circuit: Circuit, wanted: readonly string[]): Pick<DemandRow, 'expected' | 'waits'> {
  const demands = circuit.installation.intent.demands.filter((d) => wanted.includes(d.id))
  const waits = demands.filter((d) => goingFirst(circuit, d, demands).length > 0)
  const runs = demands.filter((d) => !waits.includes(d))
  const call = (d: Demand) => `${d.call.boiler}.${d.call.input}`
  return {
    waits: waits.map((d) => d.id),
    expected: {
      calls: [...new Set(runs.map(call))],
      open: runs.filter((d) => d.circuit.valves.length > 0).map((d) => d.id),
    },
  }
}
