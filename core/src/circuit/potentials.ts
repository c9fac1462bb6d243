import type { AtomId, NetId } from './ids'
import { magnitude, type Electrics } from './electrics'
import { EARTH, FED, LINE, NEUTRAL, RETURN } from './nets'

/**
 * What stands on a terminal, from what it is joined to and through what, not from volts alone:
 * live, neutral, earth: joined to that pole · dead: held at 0 V through a load · partial: line reaches it only through
 * a load · floating: nothing holds it closer than a low-impedance tester would, or only capacitance gives it its volts · unknown: a conductor here has an end
 * nobody has found. Behind a transformer live is its fed side and neutral its return.
 */
export type StateWord = 'live' | 'partial' | 'dead' | 'neutral' | 'earth' | 'floating' | 'unknown'

export interface Potential {
  state: StateWord
  /** Volts, r.m.s., with nothing but the installation itself connected; null where it is not known what is joined here. */
  volts: number | null
  /** Mean volts beside them, where a diode makes half-waves. */
  mean?: number
  /** The transformer whose return the volts are against; left out, they are against neutral. */
  against?: string
}

/** What holds a net no closer than this leaves it floating, ohms: the impedance of a low-impedance tester. */
const holdingOhms = 300_000

/** Dead is next to nothing: at most this share of the supply's volts. What has more without line is induced. */
const deadShare = 0.05

/** A secondary stands under its volts from this share of nominal. */
const suppliedShare = 0.3

/** DemandView a transformer's secondary under voltage? */
export const secondaryLive = (electrics: Electrics, transformer: number): boolean =>
  electrics.secondaryEmf(transformer) >= suppliedShare * electrics.circuit.transformers[transformer].nominal

const potentialsByState = new WeakMap<Electrics, Potential[]>()

/** The potential of every atom. */
export function potentials(electrics: Electrics): Potential[] {
  const found = potentialsByState.get(electrics)
  if (found) return found
  const { circuit, nets } = electrics
  const words = new Words(electrics)
  const byNet = new Map<NetId, Potential>()
  const all = circuit.atoms.map((_, i) => {
    const net = nets.netOf[i as AtomId]
    let potential = byNet.get(net)
    if (!potential) byNet.set(net, (potential = words.of(net)))
    return potential
  })
  potentialsByState.set(electrics, all)
  return all
}

/** Rounded to a tenth of a millivolt: what lies below is the arithmetic, not the circuit. */
const rounded = (volts: number) => Math.round(volts * 1e4) / 1e4

class Words {
  private readonly neighbours = new Map<NetId, NetId[]>()
  private readonly uncertain = new Set<NetId>()

  constructor(private readonly electrics: Electrics) {
    const { circuit, nets, network, state } = electrics
    const join = (a: NetId, b: NetId) => {
      if (a === b) return
      this.neighbours.set(a, [...(this.neighbours.get(a) ?? []), b])
      this.neighbours.set(b, [...(this.neighbours.get(b) ?? []), a])
    }
    // A capacitor holds nothing: what hangs on it alone floats.
    for (const { a, b, element } of network.branches)
      if (element.kind !== 'capacitance') join(nets.netOf[a], nets.netOf[b])
    circuit.diodes.forEach(({ anode, cathode }, i) => {
      if (!state.openDiodes[i]) join(nets.netOf[anode], nets.netOf[cathode])
    })
    circuit.atoms.forEach((atom, i) => {
      if (atom.uncertain) this.uncertain.add(nets.netOf[i as AtomId])
    })
  }

  of(net: NetId): Potential {
    const { electrics } = this
    const joined = electrics.nets.poles[net]
    const { volts } = electrics.circuit.installation.supply
    // While a short lasts, line and neutral are one net and neither word is true.
    if (joined & LINE) return joined & (NEUTRAL | EARTH) ? { state: 'partial', volts: null } : { state: 'live', volts }
    if (joined & NEUTRAL) return { state: 'neutral', volts: 0 }
    if (joined & EARTH && !(joined & FED)) return { state: 'earth', volts: 0 }
    if (this.uncertain.has(net)) return { state: 'unknown', volts: null }
    const reached = this.polesThroughLoads(net)
    const mains = (reached | joined) & (LINE | NEUTRAL | EARTH)
    const reading = this.reading(net, mains & (LINE | NEUTRAL) ? undefined : this.transformerAt(net))
    if (joined & (FED | RETURN)) return { state: this.secondaryWord(net, joined), ...reading }
    if (!reached || this.floats(net, reading.against)) return { state: 'floating', ...reading }
    const fed = reached & LINE || (reached & FED && this.fedLive(net))
    if (fed) return { state: 'partial', ...reading }
    // Volts that no line brings through a load come by capacitance from what lies beside it.
    const induced = (reading.volts ?? 0) > deadShare * electrics.circuit.installation.supply.volts
    return { state: induced ? 'floating' : 'dead', ...reading }
  }

  private secondaryWord(net: NetId, joined: number): StateWord {
    const { circuit, nets } = this.electrics
    const live = circuit.transformers.some(({ fed }, i) => nets.netOf[fed] === net && secondaryLive(this.electrics, i))
    // Both sides of a secondary in one net: a short behind the transformer.
    if (joined & FED && joined & RETURN) return live ? 'partial' : 'dead'
    if (joined & FED) return live ? 'live' : 'dead'
    return 'neutral'
  }

  private reading(net: NetId, transformer: number | undefined): Omit<Potential, 'state'> {
    const { circuit, nets } = this.electrics
    const own = this.electrics.potential(net)
    if (transformer === undefined) {
      const mean = rounded(own.mean)
      return { volts: rounded(magnitude(own)), ...(Math.abs(mean) > 0.5 && { mean }) }
    }
    const { common, device } = circuit.transformers[transformer]
    const base = this.electrics.potential(nets.netOf[common])
    return {
      volts: rounded(Math.hypot(own.re - base.re, own.im - base.im)),
      against: circuit.devices[device].device.id,
    }
  }

  /** Does nothing hold the net closer than a low-impedance tester does? */
  private floats(net: NetId, against: string | undefined): boolean {
    const { circuit, nets } = this.electrics
    const transformer = circuit.transformers.find((t) => circuit.devices[t.device].device.id === against)
    const z = this.electrics.impedance(net, transformer ? nets.netOf[transformer.common] : null)
    // A rotor on half-waves is held through a diode, which a linear impedance does not see.
    return Math.hypot(z.re, z.im) >= holdingOhms && Math.abs(this.electrics.potential(net).mean) < 1
  }

  /** The transformer whose secondary the net hangs on, directly or through loads. */
  private transformerAt(net: NetId): number | undefined {
    const { circuit, nets } = this.electrics
    const island = this.through(net)
    const at = circuit.transformers.findIndex(
      ({ fed, common }) => island.has(nets.netOf[fed]) || island.has(nets.netOf[common]),
    )
    return at < 0 ? undefined : at
  }

  private fedLive(net: NetId): boolean {
    const { circuit, nets } = this.electrics
    const island = this.through(net)
    return circuit.transformers.some(({ fed }, i) => island.has(nets.netOf[fed]) && secondaryLive(this.electrics, i))
  }

  private polesThroughLoads(net: NetId): number {
    let found = 0
    for (const other of this.through(net)) if (other !== net) found |= this.electrics.nets.poles[other]
    return found
  }

  /** Nets reached through loads; one that is on a pole passes nothing on. */
  private through(net: NetId): Set<NetId> {
    const seen = new Set([net])
    for (const at of seen) {
      if (at !== net && this.electrics.nets.poles[at]) continue
      for (const next of this.neighbours.get(at) ?? []) seen.add(next)
    }
    return seen
  }
}
