import type { AtomId, NetId } from './ids'
import type { Branch, Circuit } from './circuit'
import { diodePorts, drivenPorts, halfWave, type DiodePort, type HalfWave } from './half-wave'
import { admittance, type Complex, type Element } from './impedance'
import { emptyNets, mergeNets, type CircuitState, type Nets } from './nets'
import { Equations, leakConductance, networkOf, type Network } from './network'

/** Volts or amperes between or through two points: an r.m.s. phasor against the supply, and a mean where one stands. */
export interface Phasor {
  re: number
  im: number
  /** Direct part; 0 but where a diode conducts. */
  mean: number
}

export const magnitude = ({ re, im }: Phasor): number => Math.hypot(re, im)

/**
 * The electrical answer for one state of the contacts and parts: potentials of all nets, solved once. Everything else
 * (impedances, powers) is worked out when asked. Immutable; simulations that come to the same state share one.
 */
export class Electrics {
  readonly nets: Nets
  readonly network: Network
  /** Harmonics in which diodes take part; undefined where none conducts by halves. */
  readonly halfWave: HalfWave | undefined
  /** Volts across each load at the supply's frequency: what drives it. */
  readonly loadVolts: Float64Array
  /** Mean volts across each load: what holds a rotor. */
  readonly loadMeans: Float64Array
  private readonly re: Float64Array
  private readonly im: Float64Array
  private readonly impedances = new Map<number, Complex>()
  /** Of windings that half-waves have saturated, what is left of each. */
  private readonly saturated: ReadonlyMap<number, Element>

  constructor(
    readonly circuit: Circuit,
    readonly state: CircuitState,
    probe?: Branch,
  ) {
    this.nets = mergeNets(circuit, state, emptyNets(circuit))
    const withShorted = state.shortedDiodes.some((x) => x) ? shortedAsResistors(circuit, state) : circuit
    let network = networkOf(withShorted, this.nets, state, probe)
    let equations = new Equations(network, 1)
    equations.solve(equations.re, equations.im)
    const ports = circuit.diodes.length > 0 ? diodePorts(network, state) : []
    const driven = drivenPorts(network, ports, equations.re, equations.im)
    this.saturated = saturatedBy(driven, network, state)
    if (this.saturated.size > 0) {
      network = networkOf(withSaturated(withShorted, this.saturated), this.nets, state, probe)
      equations = new Equations(network, 1)
      equations.solve(equations.re, equations.im)
    }
    this.network = network
    this.re = equations.re
    this.im = equations.im
    this.halfWave = driven.length > 0 ? halfWave(network, ports, this.re, this.im) : undefined
    if (this.halfWave) {
      const { re, im } = this.halfWave
      for (let i = 0; i < this.re.length; i++) {
        this.re[i] += re[1][i]
        this.im[i] += im[1][i]
      }
    }
    const { loads } = circuit
    this.loadVolts = new Float64Array(loads.length)
    this.loadMeans = new Float64Array(loads.length)
    for (let i = 0; i < loads.length; i++) {
      const across = this.between(loads[i].a, loads[i].b)
      this.loadVolts[i] = magnitude(across)
      this.loadMeans[i] = Math.abs(across.mean)
    }
  }

  /** Potential of a net against the origin's neutral, volts. */
  potential(net: NetId): Phasor {
    const { row, fixed } = this.network
    const i = row[net]
    if (i < 0) return { re: fixed[net], im: 0, mean: 0 }
    return { re: this.re[i], im: this.im[i], mean: this.halfWave ? this.halfWave.re[0][i] : 0 }
  }

  /** Volts from one atom to another. */
  between(a: AtomId, b: AtomId): Phasor {
    return difference(this.potential(this.nets.netOf[a]), this.potential(this.nets.netOf[b]))
  }

  /**
   * Impedance, ohms, seen between two nets with the supply taken as a short and diodes left out; `null` for earth and
   * neutral. 0 between nets that are fixed.
   */
  impedance(net: NetId, against: number | null = null): Complex {
    const key = net * (this.nets.netOf.length + 1) + (against ?? this.nets.netOf.length)
    const known = this.impedances.get(key)
    if (known) return known
    const { row, apart } = this.network
    if (net !== against && (apart[net] || (against !== null && apart[against])))
      return { re: 1 / leakConductance, im: 0 }
    const i = row[net]
    const j = against === null ? -1 : row[against]
    const found = { re: 0, im: 0 }
    if (net !== against && (i >= 0 || j >= 0)) {
      const xr = new Float64Array(this.re.length)
      const xi = new Float64Array(this.re.length)
      if (i >= 0) xr[i] += 1
      if (j >= 0) xr[j] -= 1
      factorsOf(this.network).solve(xr, xi)
      found.re = (i >= 0 ? xr[i] : 0) - (j >= 0 ? xr[j] : 0)
      found.im = (i >= 0 ? xi[i] : 0) - (j >= 0 ? xi[j] : 0)
    }
    this.impedances.set(key, found)
    return found
  }

  /** Ohms between two nets for direct current, diodes left out: what a resistance meter sends through. */
  dcOhms(net: NetId, against: number): number {
    const { row, apart } = this.network
    if (net !== against && (apart[net] || apart[against])) return 1 / leakConductance
    const [i, j] = [row[net], row[against]]
    const re = new Float64Array(this.re.length)
    if (i >= 0) re[i] += 1
    if (j >= 0) re[j] -= 1
    new Equations(this.network, 0).solve(re, new Float64Array(re.length))
    return (i >= 0 ? re[i] : 0) - (j >= 0 ? re[j] : 0)
  }

  /** What a load is just now: itself, or what half-waves have left of its winding. */
  elementOf(load: number): Element {
    return this.saturated.get(load) ?? this.circuit.loads[load].element
  }

  /** Amperes through a branch from its a to its b, as a phasor and a mean. */
  branchCurrent(branch: Branch): Phasor {
    const v = this.between(branch.a, branch.b)
    const element = branch.of.kind === 'load' ? this.elementOf(branch.of.load) : branch.element
    const dc = v.mean === 0 ? 0 : v.mean * admittance(element, 0, this.circuit.omega, { re: 0, im: 0 }).re
    const y = element === branch.element ? branch.y : admittance(element, 1, this.circuit.omega, { re: 0, im: 0 })
    const { re, im } = y
    return { re: re * v.re - im * v.im, im: re * v.im + im * v.re, mean: dc }
  }

  /** Amperes out of a transformer's fed terminal. */
  secondaryCurrent(index: number): Phasor {
    const { primary, fed, common, ratio, seriesOhms } = this.circuit.transformers[index]
    if (this.state.openTransformers[index]) return { re: 0, im: 0, mean: 0 }
    const { a, b } = this.circuit.loads[primary]
    const vp = this.between(a, b)
    const vs = this.between(fed, common)
    return {
      re: (ratio * vp.re - vs.re) / seriesOhms,
      im: (ratio * vp.im - vs.im) / seriesOhms,
      mean: -vs.mean / seriesOhms,
    }
  }

  /** Electromotive force of a secondary, volts: is its primary supplied? */
  secondaryEmf(index: number): number {
    if (this.state.openTransformers[index]) return 0
    const { primary, ratio } = this.circuit.transformers[index]
    return this.loadVolts[primary] * ratio
  }

  /** Amperes through a diode from anode to cathode; a shorted one counts as its resistor. */
  diodeCurrent(index: number): Phasor {
    const { anode, cathode, ohms } = this.circuit.diodes[index]
    if (this.state.shortedDiodes[index]) {
      const v = this.between(anode, cathode)
      return { re: v.re / ohms, im: v.im / ohms, mean: v.mean / ohms }
    }
    const p = this.halfWave?.ports.findIndex((port) => port.diode === index) ?? -1
    if (!this.halfWave || p < 0) return { re: 0, im: 0, mean: 0 }
    const { currentRe, currentIm } = this.halfWave
    return { re: currentRe[1][p], im: currentIm[1][p], mean: currentRe[0][p] }
  }

  /** Amperes r.m.s. through a diode, all harmonics together, and the watts its resistor turns into heat. */
  diodeHeat(index: number): { amps: number; watts: number } {
    const { ohms } = this.circuit.diodes[index]
    if (this.state.shortedDiodes[index]) {
      const amps = magnitude(this.diodeCurrent(index))
      return { amps, watts: amps * amps * ohms }
    }
    const p = this.halfWave?.ports.findIndex((port) => port.diode === index) ?? -1
    if (!this.halfWave || p < 0) return { amps: 0, watts: 0 }
    const { currentRe, currentIm } = this.halfWave
    const squared = currentRe.reduce((sum, re, k) => sum + re[p] * re[p] + currentIm[k][p] * currentIm[k][p], 0)
    return { amps: Math.sqrt(squared), watts: squared * ohms }
  }

  /** Complex power a load takes, VA: active and reactive. All harmonics count towards the active part. */
  loadPower(load: number): Complex {
    const { a, b } = this.circuit.loads[load]
    const element = this.elementOf(load)
    if (this.state.openLoads[load]) return { re: 0, im: 0 }
    const v = this.between(a, b)
    const y = admittance(element, 1, this.circuit.omega, { re: 0, im: 0 })
    const squared = v.re * v.re + v.im * v.im
    const power = { re: squared * y.re, im: -squared * y.im }
    if (!this.halfWave) return power
    const [i, j] = [this.network.row[this.nets.netOf[a]], this.network.row[this.nets.netOf[b]]]
    const { re, im } = this.halfWave
    for (let k = 0; k < re.length; k++) {
      if (k === 1) continue
      const vr = (i < 0 ? 0 : re[k][i]) - (j < 0 ? 0 : re[k][j])
      const vi = (i < 0 ? 0 : im[k][i]) - (j < 0 ? 0 : im[k][j])
      power.re += (vr * vr + vi * vi) * admittance(element, k, this.circuit.omega, y).re
    }
    return power
  }
}

let lastFactored: { network: Network; equations: Equations } | undefined

/**
 * The factored equations of a network. Only the last are kept: a state is asked for many impedances one after the other, and
 * factors kept for every state would take most of the memory there is.
 */
function factorsOf(network: Network): Equations {
  if (lastFactored?.network !== network) lastFactored = { network, equations: new Equations(network, 1) }
  return lastFactored.equations
}

/**
 * A motor whose rotor half-waves hold gets a direct current: its core saturates, and what is left of its winding is its DC
 * resistance. Measured on one valve of the common kind: 7 W driving, about 3 W held behind 6.75 kΩ, which a winding that kept its
 * inductance would not come to.
 */
function saturatedBy(
  driven: readonly DiodePort[],
  { circuit, nets, row }: Network,
  state: CircuitState,
): ReadonlyMap<number, Element> {
  const found = new Map<number, Element>()
  if (driven.length === 0) return found
  const behind = new Set(driven.flatMap(({ anode, cathode }) => [anode, cathode]).filter((net) => row[net] >= 0))
  circuit.loads.forEach(({ a, b, element, holdsOn }, i) => {
    if (element.kind !== 'winding' || holdsOn === Infinity || state.openLoads[i]) return
    if (behind.has(nets.netOf[a]) || behind.has(nets.netOf[b]))
      found.set(i, { kind: 'resistance', ohms: element.dcOhms })
  })
  return found
}

const withSaturated = (circuit: Circuit, saturated: ReadonlyMap<number, Element>): Circuit => ({
  ...circuit,
  branches: circuit.branches.map((branch) => {
    const element = branch.of.kind === 'load' ? saturated.get(branch.of.load) : undefined
    return element ? { ...branch, element, y: admittance(element, 1, circuit.omega, { re: 0, im: 0 }) } : branch
  }),
})

export const difference = (a: Phasor, b: Phasor): Phasor => ({
  re: a.re - b.re,
  im: a.im - b.im,
  mean: a.mean - b.mean,
})

/** A shorted diode leaves its resistor, conducting both ways. */
function shortedAsResistors(circuit: Circuit, state: CircuitState): Circuit {
  const resistors = circuit.diodes.flatMap(({ device, part, anode, cathode, ohms }, i): Branch[] =>
    state.shortedDiodes[i]
      ? [
          {
            a: anode,
            b: cathode,
            element: { kind: 'resistance', ohms },
            y: { re: 1 / ohms, im: 0 },
            of: { kind: 'suppressor', device, part: part.id },
          },
        ]
      : [],
  )
  return { ...circuit, branches: [...circuit.branches, ...resistors] }
}
