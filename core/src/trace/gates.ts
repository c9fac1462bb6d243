import { type AtomId, type NetId, type NetOfAtom, type EdgeId, across, edgesAt, type Circuit } from '../circuit'

/** The circuit with everything that no switch interrupts drawn together: nets of wiring, joined by contacts and fuses. */
export interface GateGraph {
  /** Net of each atom, by the lowest atom in it. */
  netOf: NetOfAtom
  /** Contact and fuse edges at each net. */
  gatesAt: Map<NetId, EdgeId[]>
}

export const isGate = (circuit: Circuit, edge: EdgeId): boolean => {
  const { kind } = circuit.edges[edge]
  return kind === 'contact' || kind === 'fuse'
}

const graphs = new WeakMap<Circuit, GateGraph>()

export function gateGraph(circuit: Circuit): GateGraph {
  const known = graphs.get(circuit)
  if (known) return known
  const netOf = new Int32Array(circuit.atoms.length).fill(-1) as NetOfAtom
  for (let start = 0 as AtomId; start < netOf.length; start++)
    if (netOf[start] < 0)
      for (const atom of wiredTo(circuit, start, () => true).keys()) netOf[atom] = start as number as NetId
  const gatesAt = new Map<NetId, EdgeId[]>()
  circuit.edges.forEach((edge, index) => {
    const i = index as EdgeId
    if (!isGate(circuit, i)) return
    for (const net of new Set([netOf[edge.a], netOf[edge.b]])) gatesAt.set(net, [...(gatesAt.get(net) ?? []), i])
  })
  const graph = { netOf, gatesAt }
  graphs.set(circuit, graph)
  return graph
}

/** Every atom reached from one over wiring alone, with the edge it was reached by (none for the first). */
export function wiredTo(
  circuit: Circuit,
  start: AtomId,
  whole: (edge: EdgeId) => boolean,
): Map<AtomId, EdgeId | undefined> {
  const cameBy = new Map<AtomId, EdgeId | undefined>([[start, undefined]])
  for (const atom of cameBy.keys()) {
    for (const edge of edgesAt(circuit, atom)) {
      if (isGate(circuit, edge) || !whole(edge)) continue
      const next = across(circuit.edges[edge], atom)
      if (!cameBy.has(next)) cameBy.set(next, edge)
    }
  }
  return cameBy
}

/** The wiring between two atoms of one net, in order. */
export function wiringBetween(circuit: Circuit, from: AtomId, to: AtomId): { edge: EdgeId; to: AtomId }[] {
  const cameBy = wiredTo(circuit, from, () => true)
  const steps: { edge: EdgeId; to: AtomId }[] = []
  for (let at = to; at !== from;) {
    const edge = cameBy.get(at)
    if (edge === undefined) throw new Error('the two atoms are not in one net')
    steps.push({ edge, to: at })
    at = across(circuit.edges[edge], at)
  }
  return steps.reverse()
}
