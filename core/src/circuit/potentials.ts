import type { Circuit } from './circuit'
import { EARTH, LINE, NEUTRAL, type Nets } from './nets'

/**
 * What stands on a terminal, from what it is joined to, not from volts alone:
 * live, neutral, earth: joined to that pole · dead: 0 V, held there through a load · partial: line reaches it only
 * through a load · floating: joined to nothing · unknown: a conductor here has an end nobody has found.
 */
export type StateWord = 'live' | 'partial' | 'dead' | 'neutral' | 'earth' | 'floating' | 'unknown'

export interface Potential {
  state: StateWord
  /** Volts to neutral, r.m.s.; null where joins alone do not decide it. */
  volts: number | null
}

/**
 * The potential of every atom. Loads that are broken (`openLoads`, 1 each) join nothing. Volts are given where joins
 * decide them: on a pole, or through a load to one pole with no way back.
 */
export function potentials(circuit: Circuit, nets: Nets, openLoads: Uint8Array): Potential[] {
  const { netOf, poles } = nets
  const neighbours = new Map<number, number[]>()
  const join = (from: number, to: number) => {
    const list = neighbours.get(from)
    if (list) list.push(to)
    else neighbours.set(from, [to])
  }
  circuit.loads.forEach((load, i) => {
    const a = netOf[load.a]
    const b = netOf[load.b]
    if (openLoads[i] || a === b) return
    join(a, b)
    join(b, a)
  })
  const uncertain = new Set<number>()
  circuit.atoms.forEach((atom, i) => {
    if (atom.uncertain) uncertain.add(netOf[i])
  })

  /** Poles that reach a net through loads; a net on a pole passes nothing on. */
  const polesThroughLoads = (net: number): number => {
    let found = 0
    const seen = new Set([net])
    const queue = [net]
    for (let head = 0; head < queue.length; head++) {
      for (const next of neighbours.get(queue[head]) ?? []) {
        if (seen.has(next)) continue
        seen.add(next)
        if (poles[next]) found |= poles[next]
        else queue.push(next)
      }
    }
    return found
  }

  const volts = circuit.installation.supply.volts
  const byNet = new Map<number, Potential>()
  const of = (net: number): Potential => {
    const joined = poles[net]
    // While a short lasts, line and neutral are one net and neither word is true.
    if (joined & LINE) return joined & (NEUTRAL | EARTH) ? { state: 'partial', volts: null } : { state: 'live', volts }
    if (joined & NEUTRAL) return { state: 'neutral', volts: 0 }
    if (joined & EARTH) return { state: 'earth', volts: 0 }
    if (uncertain.has(net)) return { state: 'unknown', volts: null }
    const through = polesThroughLoads(net)
    if (through & LINE) return { state: 'partial', volts: through === LINE ? volts : null }
    if (through) return { state: 'dead', volts: 0 }
    return { state: 'floating', volts: null }
  }
  return circuit.atoms.map((_, i) => {
    const net = netOf[i]
    let potential = byNet.get(net)
    if (!potential) byNet.set(net, (potential = of(net)))
    return potential
  })
}

/** Is a load under full voltage: line on one side, neutral or earth on the other? */
export function energised(circuit: Circuit, nets: Nets, load: number): boolean {
  const { a, b } = circuit.loads[load]
  const pa = nets.poles[nets.netOf[a]]
  const pb = nets.poles[nets.netOf[b]]
  const returns = NEUTRAL | EARTH
  return (pa === LINE && (pb & returns) !== 0 && !(pb & LINE)) || (pb === LINE && (pa & returns) !== 0 && !(pa & LINE))
}
