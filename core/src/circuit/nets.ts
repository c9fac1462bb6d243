import { across, edgesAt, type Circuit } from './circuit'
import type { AtomId, EdgeId, NetOfAtom } from './ids'

/** What stands open or shut just now: the part of the state that decides which atoms are joined. */
export interface Joins {
  /** 1 where the contact throw is closed. */
  closed: Uint8Array
  /** 1 where the fuse has blown. */
  blown: Uint8Array
  /** 1 where the edge is broken. */
  brokenEdges: Uint8Array
}

/** Everything about the parts that decides what stands on a terminal, besides the supply. 1 where it is so. */
export interface CircuitState extends Joins {
  /** Loads burnt out or open inside. */
  openLoads: Uint8Array
  /** Transformers with an open winding. */
  openTransformers: Uint8Array
  /** Insulation that has failed and lets current through. */
  failedInsulation: Uint8Array
  openDiodes: Uint8Array
  /** Diodes that conduct both ways. */
  shortedDiodes: Uint8Array
}

export const wholeState = (circuit: Circuit): CircuitState => ({
  closed: new Uint8Array(circuit.contacts.length),
  blown: new Uint8Array(circuit.fuses.length),
  brokenEdges: new Uint8Array(circuit.edges.length),
  openLoads: new Uint8Array(circuit.loads.length),
  openTransformers: new Uint8Array(circuit.transformers.length),
  failedInsulation: new Uint8Array(circuit.insulations.length),
  openDiodes: new Uint8Array(circuit.diodes.length),
  shortedDiodes: new Uint8Array(circuit.diodes.length),
})

export const LINE = 1
export const NEUTRAL = 2
export const EARTH = 4
/** The fed side and the return of a transformer's secondary: extra-low voltage, joined to no pole of the mains. */
export const FED = 8
export const RETURN = 16

export interface Nets {
  /** Net number of each atom. A net is named by one of its atoms. */
  netOf: NetOfAtom
  /** By net number: which poles of the supply, or of a secondary, are joined to it without a load between. */
  poles: Uint8Array
}

/** Does this edge conduct just now? */
export function conducts(circuit: Circuit, joins: Joins, edge: EdgeId): boolean {
  if (joins.brokenEdges[edge]) return false
  const e = circuit.edges[edge]
  if (e.kind === 'contact') return joins.closed[e.contact] === 1
  if (e.kind === 'fuse') return joins.blown[e.fuse] === 0
  return true
}

/**
 * Merges atoms into nets: union–find with path halving, atoms being few enough that rank buys nothing.
 * Writes into `nets` so that a simulation allocates nothing while it runs.
 */
export function mergeNets(circuit: Circuit, joins: Joins, nets: Nets): Nets {
  const { netOf: parent, poles } = nets
  const n = circuit.atoms.length
  for (let i = 0; i < n; i++) parent[i] = i
  const find = (x: number): number => {
    while (parent[x] !== x) {
      parent[x] = parent[parent[x]]
      x = parent[x]
    }
    return x
  }
  const edges = circuit.edges
  for (let i = 0 as EdgeId; i < edges.length; i++) {
    if (!conducts(circuit, joins, i)) continue
    const a = find(edges[i].a)
    const b = find(edges[i].b)
    // The lower number names the net: results do not depend on the order in which edges were added.
    if (a < b) parent[b] = a
    else if (b < a) parent[a] = b
  }
  for (let i = 0; i < n; i++) parent[i] = find(i)
  poles.fill(0)
  for (const source of circuit.sources) {
    poles[parent[source.line]] |= LINE
    poles[parent[source.neutral]] |= NEUTRAL
    poles[parent[source.earth]] |= EARTH
  }
  for (const { fed, common } of circuit.transformers) {
    poles[parent[fed]] |= FED
    poles[parent[common]] |= RETURN
  }
  return nets
}

export const emptyNets = (circuit: Circuit): Nets => ({
  netOf: new Int32Array(circuit.atoms.length) as NetOfAtom,
  poles: new Uint8Array(circuit.atoms.length),
})

/** Is a pole of the supply joined to another: line to neutral, or line to earth? */
export function shortCircuit(circuit: Circuit, nets: Nets): boolean {
  for (const source of circuit.sources) {
    const poles = nets.poles[nets.netOf[source.line]]
    if (poles & (NEUTRAL | EARTH)) return true
  }
  return false
}

/** Edges of a shortest conducting path between an atom and the first that `reached` accepts, or undefined. */
export function conductingPath(
  circuit: Circuit,
  joins: Joins,
  from: AtomId,
  reached: (atom: AtomId) => boolean,
): EdgeId[] | undefined {
  const cameBy = new Map<AtomId, EdgeId | undefined>([[from, undefined]])
  const queue = [from]
  for (let head = 0; head < queue.length; head++) {
    const atom = queue[head]
    if (reached(atom)) {
      const path: EdgeId[] = []
      for (let at = atom; at !== from;) {
        const edge = cameBy.get(at)!
        path.push(edge)
        at = across(circuit.edges[edge], at)
      }
      return path.reverse()
    }
    for (const edge of edgesAt(circuit, atom)) {
      if (!conducts(circuit, joins, edge)) continue
      const next = across(circuit.edges[edge], atom)
      if (cameBy.has(next)) continue
      cameBy.set(next, edge)
      queue.push(next)
    }
  }
  return undefined
}
