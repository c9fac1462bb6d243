import { type EdgeId, type AtomId, across, edgesAt, type Circuit } from '../circuit'

/** Of one feed, the terminal of each owner at which its return can be reached. */
type AtHand = ReadonlyMap<string, AtomId>
const returnsByCircuit = new WeakMap<Circuit, Map<AtomId, AtHand>>()

/**
 * Where somebody puts the black lead: the terminal in the same box, or at the same device, to which the return is brought by
 * conductors, whether it still comes there or not. Where none is brought, the return's own point, for which the lead has to be
 * long. `point` is the neutral of a supply or the common of a transformer.
 */
export function returnAtHand(circuit: Circuit, atom: AtomId, point: AtomId): AtomId {
  let byPoint = returnsByCircuit.get(circuit)
  if (!byPoint) returnsByCircuit.set(circuit, (byPoint = new Map<AtomId, AtHand>()))
  let at = byPoint.get(point)
  if (!at) byPoint.set(point, (at = broughtFrom(circuit, point)))
  return at.get(circuit.atoms[atom].owner) ?? point
}

/** Goes from a return over conductors, links and fuses, and over the switches of a supply's own device, nearest first. */
function broughtFrom(circuit: Circuit, point: AtomId): AtHand {
  const isolators = new Set(circuit.sources.map(({ device }) => device))
  const carries = (index: EdgeId): boolean => {
    const edge = circuit.edges[index]
    return edge.kind !== 'contact' || isolators.has(circuit.contacts[edge.contact].device)
  }
  const found = new Map<string, AtomId>()
  const seen = new Set([point])
  for (const atom of seen) {
    const { owner, kind } = circuit.atoms[atom]
    if (kind !== 'internal' && kind !== 'free-end' && !found.has(owner)) found.set(owner, atom)
    for (const edge of edgesAt(circuit, atom)) if (carries(edge)) seen.add(across(circuit.edges[edge], atom))
  }
  return found
}
