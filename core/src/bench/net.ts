import type { AtomId, Circuit } from '../circuit'
import { wiredTo } from '../trace'

/** Everything joined to one point by wiring alone. */
export interface WiredNet {
  /** Terminals and connectors, in document order. */
  terminals: string[]
  /** Conductors, as `cable.core`. */
  conductors: string[]
  links: string[]
}

/** The whole net of a terminal, or of a conductor's (`cable.core`), over wiring alone; undefined where there is no such point. */
export function netAt(circuit: Circuit, ref: string): WiredNet | undefined {
  const start = circuit.atomIndex.get(ref) ?? edgeOf(circuit, ref)
  if (start === undefined) return undefined
  const atoms = wiredTo(circuit, start, () => true)
  const net: WiredNet = { terminals: [], conductors: [], links: [] }
  circuit.atoms.forEach((atom, i) => {
    if (atoms.has(i as AtomId) && atom.kind !== 'internal' && atom.kind !== 'free-end') net.terminals.push(atom.ref)
  })
  for (const edge of circuit.edges) {
    if (!atoms.has(edge.a)) continue
    if (edge.kind === 'core') net.conductors.push(`${edge.cable.id}.${edge.core.id}`)
    if (edge.kind === 'link') net.links.push(edge.link.id)
  }
  return net
}

const edgeOf = (circuit: Circuit, ref: string): AtomId | undefined =>
  circuit.edges.find((e) => e.kind === 'core' && `${e.cable.id}.${e.core.id}` === ref)?.a
