import { type EdgeId, type NetId, type AtomId, conducts, type Circuit, type Joins } from '../circuit'
import { gateGraph, wiredTo } from './gates'
import { gatesOf, wayBetween, type Station, type Way } from './paths'

const cache = new WeakMap<Circuit, Map<string, Way | undefined>>()

/** {@link wayBetween}, remembered for as long as the circuit lives. */
export function wayOf(circuit: Circuit, from: AtomId, to: AtomId): Way | undefined {
  let ways = cache.get(circuit)
  if (!ways) cache.set(circuit, (ways = new Map<string, Way | undefined>()))
  const key = `${from} ${to}`
  if (!ways.has(key)) ways.set(key, wayBetween(circuit, from, to))
  return ways.get(key)
}

/** The ways from each of several origins to one atom. */
export const waysFrom = (circuit: Circuit, origins: readonly AtomId[], to: AtomId): Way[] =>
  origins.map((origin) => wayOf(circuit, origin, to)).filter((way) => way !== undefined)

/** Does the station conduct from end to end just now? */
export function stationConducts(circuit: Circuit, joins: Joins, station: Station): boolean {
  switch (station.kind) {
    case 'gate':
      return conducts(circuit, joins, station.edge)
    case 'leg':
      return (
        station.steps.every((step) => conducts(circuit, joins, step.edge)) ||
        wiredTo(circuit, station.from, (edge) => conducts(circuit, joins, edge)).has(station.to)
      )
    case 'split':
      return station.branches.some((branch) => wayConducts(circuit, joins, branch))
    case 'tangle':
      return reachedInTangle(circuit, joins, station.edges, station.from).has(gateGraph(circuit).netOf[station.to])
  }
}

export const wayConducts = (circuit: Circuit, joins: Joins, way: Way): boolean =>
  way.every((station) => stationConducts(circuit, joins, station))

/** Nets of a tangle that its conducting contacts join to where it begins. */
function reachedInTangle(circuit: Circuit, joins: Joins, gates: readonly EdgeId[], from: AtomId): Set<NetId> {
  const { netOf } = gateGraph(circuit)
  const reached = new Set([netOf[from]])
  for (let grown = true; grown;) {
    grown = false
    for (const gate of gates) {
      const a = netOf[circuit.edges[gate].a]
      const b = netOf[circuit.edges[gate].b]
      if (reached.has(a) === reached.has(b) || !conducts(circuit, joins, gate)) continue
      reached.add(a).add(b)
      grown = true
    }
  }
  return reached
}

/**
 * The first open points of a way: the edges at which the signal stops on its way along it, one for each branch that
 * could have carried it. Empty where it gets through.
 */
export function openPointsOf(circuit: Circuit, joins: Joins, way: Way): EdgeId[] {
  const stop = way.find((station) => !stationConducts(circuit, joins, station))
  switch (stop?.kind) {
    case undefined:
      return []
    case 'gate':
      return [stop.edge]
    case 'leg':
      return [stop.steps.find((step) => !conducts(circuit, joins, step.edge))!.edge]
    case 'split':
      return stop.branches.flatMap((branch) => openPointsOf(circuit, joins, branch))
    case 'tangle': {
      const { netOf } = gateGraph(circuit)
      const reached = reachedInTangle(circuit, joins, stop.edges, stop.from)
      const has = (atom: AtomId) => reached.has(netOf[atom])
      return stop.edges.filter((gate) => has(circuit.edges[gate].a) !== has(circuit.edges[gate].b))
    }
  }
}

/** The part of a way that goes through some contacts where it has a choice: of every split the branches with most of them. */
export function through(circuit: Circuit, way: Way, own: ReadonlySet<number>): Way {
  const count = (w: Way) =>
    gatesOf(w).filter((edge) => {
      const e = circuit.edges[edge]
      return e.kind === 'contact' && own.has(e.contact)
    }).length
  return way.flatMap((station): Way => {
    if (station.kind !== 'split') return [station]
    const counts = station.branches.map(count)
    const most = Math.max(...counts)
    if (most === 0) return [station]
    const chosen = station.branches.filter((_, i) => counts[i] === most).map((branch) => through(circuit, branch, own))
    return chosen.length === 1 ? chosen[0] : [{ ...station, branches: chosen }]
  })
}
