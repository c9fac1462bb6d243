import type { AtomId, EdgeId } from '../circuit'
import type { Demand } from '../installation'
import type { Asker } from './asker'
import type { BesidePlan } from './beside-plan'
import { ownContacts, wanted } from './demands'
import { wiredTo } from './gates'
import type { Station, Way } from './paths'
import { through } from './ways'

/** Of ways that part: those that are one demand's own, those of the demands that are wanted, or all. */
export type Branches = Demand | 'wanted' | 'all'

/** Where a planned way stops here: at an edge that does not conduct, or at one of the plan that is not there. */
export type Stop = { edge: EdgeId } | { missing: EdgeId }

type At = Pick<Asker, 'sim' | 'beside'>

/** Of ways that part: the branches of the demand in question, else of those that are wanted, if any are. */
export function ownBranches({ sim, beside }: At, ways: readonly Way[], branches: Branches): readonly Way[] {
  if (branches === 'all') return ways
  const { plan } = beside
  const here = sim.circuit.installation.intent.demands
  const ids = new Set((branches === 'wanted' ? here.filter((d) => wanted(sim, d)) : [branches]).map((d) => d.id))
  const asking = plan.installation.intent.demands.filter((d) => ids.has(d.id))
  if (asking.length === 0) return ways
  return asking.flatMap((demand) => ways.map((way) => through(plan, way, ownContacts(plan, demand))))
}

/** Are two terminals joined just now, whatever joins them? */
export function joined({ sim }: Pick<Asker, 'sim'>, a: AtomId | undefined, b: AtomId | undefined): boolean {
  const { netOf } = sim.electrics.nets
  return a !== undefined && b !== undefined && netOf[a] === netOf[b]
}

/** The first places at which a planned way does not conduct here, one for each branch. */
export function stopsOf(at: At, way: Way, beside: BesidePlan): Stop[] {
  for (const station of way) {
    if (joined(at, beside.atomOf(station.from), beside.atomOf(station.to))) continue
    const stops = stopsAt(at, station, beside)
    if (stops.length > 0) return stops
  }
  return []
}

function stopsAt(at: At, station: Station, beside: BesidePlan): Stop[] {
  const here = (atom: AtomId) => beside.atomOf(atom)
  const stop = (edge: EdgeId): Stop => {
    const found = beside.edgeOf(edge)
    return found === undefined ? { missing: edge } : { edge: found }
  }
  switch (station.kind) {
    case 'gate':
      return [stop(station.edge)]
    case 'leg': {
      let from = station.from
      for (const { edge, to } of station.steps) {
        if (!joined(at, here(from), here(to))) return [stop(edge)]
        from = to
      }
      return []
    }
    case 'split':
      return station.branches.flatMap((branch) => stopsOf(at, branch, beside))
    case 'tangle': {
      const { plan } = beside
      // Wiring between contacts that fit no line counts by what it joins here.
      const reached = (atom: AtomId) => joined(at, here(station.from), here(atom))
      const closed = station.edges.filter((e) => {
        const { a, b } = plan.edges[e]
        return reached(a) !== reached(b)
      })
      if (closed.length > 0) return closed.map(stop)
      const wiring = [...wiredTo(plan, station.from, () => true).values()].filter((e) => e !== undefined)
      return wiring.filter((e) => beside.edgeOf(e) === undefined).map(stop)
    }
  }
}
