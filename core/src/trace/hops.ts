import {
  type AtomId,
  type EdgeId,
  across,
  conductingPath,
  feedsOf,
  secondaryLive,
  type Circuit,
  type Edge,
} from '../circuit'
import type { Colour } from '../installation'
import type { Simulation } from '../simulation'

/** What carries the signal from one terminal to the next. */
export type Via =
  | { kind: 'core'; cable: string; core: string; colour: Colour; sleeve?: Colour }
  | { kind: 'link'; link: string }
  | { kind: 'strap'; device: string; part: string }
  | { kind: 'contact'; device: string; part: string; throw: 'made' | 'no' | 'nc' }
  | { kind: 'fuse'; device: string; part: string }

export interface Hop {
  from: string
  via: Via
  to: string
}

export function viaOf(circuit: Circuit, edge: Edge): Via {
  const id = (device: number) => circuit.devices[device].device.id
  switch (edge.kind) {
    case 'core':
      return {
        kind: 'core',
        cable: edge.cable.id,
        core: edge.core.id,
        colour: edge.core.colour,
        ...(edge.core.sleeve && { sleeve: edge.core.sleeve }),
      }
    case 'link':
      return { kind: 'link', link: edge.link.id }
    case 'strap':
      return { kind: 'strap', device: id(edge.device), part: edge.part }
    case 'contact': {
      const { device, part, throw: name } = circuit.contacts[edge.contact]
      return { kind: 'contact', device: id(device), part: part.id, throw: name }
    }
    case 'fuse': {
      const { device, part } = circuit.fuses[edge.fuse]
      return { kind: 'fuse', device: id(device), part: part.id }
    }
  }
}

/** The live path to a terminal, hop by hop from where it is fed; undefined where nothing live reaches it. */
export function livePath(sim: Simulation, atom: AtomId): Hop[] | undefined {
  for (const { line, transformer } of feedsOf(sim.circuit)) {
    if (transformer !== undefined && !secondaryLive(sim.electrics, transformer)) continue
    const edges = conductingPath(sim.circuit, sim.electrics.state, line, (reached) => reached === atom)
    if (edges) return hops(sim.circuit, line, edges)
  }
  return undefined
}

export function hops(circuit: Circuit, from: AtomId, edges: readonly EdgeId[]): Hop[] {
  let at = from
  return edges.map((edge) => {
    const start = at
    at = across(circuit.edges[edge], at)
    return { from: circuit.atoms[start].ref, via: viaOf(circuit, circuit.edges[edge]), to: circuit.atoms[at].ref }
  })
}
