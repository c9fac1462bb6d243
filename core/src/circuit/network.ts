import type { AtomId } from './ids'
import type { Branch, Circuit } from './circuit'
import { admittance, type Complex } from './impedance'
import { LinearSystem } from './linear-system'
import { LINE, type CircuitState, type Nets, NEUTRAL, EARTH } from './nets'

/**
 * Leak of every terminal and conductor end to earth, 1/Ω: 100 GΩ each, so that a house of a hundred of them reads
 * 1 GΩ to earth. It gives every floating island a potential; nothing else is made of it.
 */
export const leakConductance = 1e-11

/** A network of linear elements between nets: what is left of a circuit once everything joined is one net. */
export interface Network {
  circuit: Circuit
  nets: Nets
  /** Row of each net in the system of equations; −1 where a pole of the mains fixes its potential, or nothing but capacitance holds it. */
  row: Int32Array
  /** Net of each row. */
  unknown: Int32Array
  /** Volts, r.m.s. and in phase, of the nets that a pole fixes; 0 elsewhere. */
  fixed: Float64Array
  /** 1 for a net in an island of cables alone: nothing feeds it and nothing but capacitance joins it. It stands at 0 V, unsolved. */
  apart: Uint8Array
  /** Branches that take part: present, and with ends in different nets. */
  branches: Branch[]
  /** Transformers with whole windings, by number. */
  transformers: number[]
  /** Terminals and conductor ends in each net. */
  atoms: Int32Array
}

export function networkOf(circuit: Circuit, nets: Nets, state: CircuitState, probe?: Branch): Network {
  const { netOf, poles } = nets
  const size = circuit.atoms.length
  const atoms = new Int32Array(size)
  for (let i = 0; i < size; i++) atoms[netOf[i]]++
  const branches: Branch[] = []
  const degree = new Int32Array(size)
  const take = (branch: Branch) => {
    const a = netOf[branch.a]
    const b = netOf[branch.b]
    if (a === b) return
    branches.push(branch)
    degree[a]++
    degree[b]++
  }
  for (const branch of circuit.branches) if (present(branch, state)) take(branch)
  if (probe) take(probe)
  const transformers: number[] = []
  circuit.transformers.forEach(({ fed, common, primary }, i) => {
    if (state.openTransformers[i]) return
    transformers.push(i)
    const { a, b } = circuit.loads[primary]
    for (const atom of [fed, common, a, b]) degree[netOf[atom]] += 3
  })
  // A net is named by one of its atoms, and all of them lie in one island.
  // With an instrument's leads across two nets, neither is apart from the other.
  const apart = probe ? new Uint8Array(size) : islandsApart(circuit)
  const row = new Int32Array(size).fill(-1)
  const fixed = new Float64Array(size)
  const free: number[] = []
  for (let net = 0; net < size; net++) {
    if (atoms[net] === 0) continue
    const joined = poles[net] & (LINE | NEUTRAL | EARTH)
    if (apart[net]) continue
    if (!joined) free.push(net)
    // A line that is joined to neutral or earth is held down by the short for the moment that it lasts.
    else fixed[net] = joined === LINE ? circuit.installation.supply.volts : 0
  }
  // Nets with few neighbours first: eliminating them fills in little.
  free.sort((x, y) => degree[x] - degree[y] || x - y)
  free.forEach((net, i) => (row[net] = i))
  return { circuit, nets, row, unknown: Int32Array.from(free), fixed, apart, branches, transformers, atoms }
}

const apartByEdges = new WeakMap<Circuit['edges'], Uint8Array>()

/**
 * Atoms that nothing can ever feed, whatever contacts do: islands without a pole in which only capacitance lies between the nets.
 * Unused cables, and cables whose ends nobody has found. Hundreds of them would make a large system of equations whose
 * answer is known: nothing drives them. Worked out once for a circuit, with every contact shut.
 */
function islandsApart(circuit: Circuit): Uint8Array {
  const before = apartByEdges.get(circuit.edges)
  if (before) return before
  const { atoms, edges, branches, diodes, transformers, sources, loads } = circuit
  const size = atoms.length
  const island = new Int32Array(size)
  for (let i = 0; i < size; i++) island[i] = i
  const find = (x: number): number => {
    while (island[x] !== x) x = island[x] = island[island[x]]
    return x
  }
  const join = (a: number, b: number) => void (island[find(a)] = find(b))
  for (const { a, b } of edges) join(a, b)
  for (const { a, b } of branches) join(a, b)
  for (const { anode, cathode } of diodes) join(anode, cathode)
  const held = new Uint8Array(size)
  const hold = (atom: AtomId) => void (held[find(atom)] = 1)
  for (const { line, neutral, earth } of sources) [line, neutral, earth].forEach(hold)
  for (const t of transformers) [t.fed, t.common, loads[t.primary].a, loads[t.primary].b].forEach(hold)
  for (const { element, a } of branches) if (element.kind !== 'capacitance') hold(a)
  const apart = new Uint8Array(size)
  for (let i = 0; i < size; i++) apart[i] = 1 - held[find(i)]
  apartByEdges.set(edges, apart)
  return apart
}

function present({ of }: Branch, state: CircuitState): boolean {
  switch (of.kind) {
    case 'load':
      return state.openLoads[of.load] === 0
    case 'insulation':
      return state.failedInsulation[of.insulation] === 1
    default:
      return true
  }
}

/** The equations of a network at one harmonic of the supply, and the currents its fixed nets drive into the others. */
export class Equations {
  readonly re: Float64Array
  readonly im: Float64Array
  private readonly system: LinearSystem

  /** `driven` false leaves the supply out, as for every harmonic but the first. */
  constructor(
    private readonly network: Network,
    readonly harmonic: number,
    driven = harmonic === 1,
  ) {
    const { circuit, nets, unknown, atoms } = network
    const n = unknown.length
    this.system = new LinearSystem(n)
    this.re = new Float64Array(n)
    this.im = new Float64Array(n)
    for (let i = 0; i < n; i++) this.system.add(i, i, leakConductance * atoms[unknown[i]], 0)
    const y: Complex = { re: 0, im: 0 }
    const { netOf } = nets
    const { branches } = network
    for (let i = 0; i < branches.length; i++) {
      const branch = branches[i]
      const { re, im } = harmonic === 1 ? branch.y : admittance(branch.element, harmonic, circuit.omega, y)
      this.couple(netOf[branch.a], netOf[branch.b], re, im, driven)
    }
    for (const i of network.transformers) this.transform(i, harmonic, driven)
  }

  /** Solves for the unknown nets, in row order, in place. */
  solve(re: Float64Array, im: Float64Array): void {
    this.system.solve(re, im)
  }

  /** Two nets joined by an admittance. Written out: this is where most of the time of a solution goes. */
  private couple(a: number, b: number, re: number, im: number, driven: boolean): void {
    const i = this.network.row[a]
    const j = this.network.row[b]
    const { size, re: matrixRe, im: matrixIm } = this.system
    if (i >= 0) {
      matrixRe[i * size + i] += re
      matrixIm[i * size + i] += im
      if (j < 0 && driven) this.drive(i, b, re, im)
    }
    if (j >= 0) {
      matrixRe[j * size + j] += re
      matrixIm[j * size + j] += im
      if (i < 0 && driven) this.drive(j, a, re, im)
      else if (i >= 0) {
        const at = i < j ? i * size + j : j * size + i
        matrixRe[at] -= re
        matrixIm[at] -= im
      }
    }
  }

  private drive(row: number, from: number, re: number, im: number): void {
    const volts = this.network.fixed[from]
    this.re[row] += re * volts
    this.im[row] += im * volts
  }

  /**
   * An ideal transformer behind its internal resistance R: secondary current (fed, out) (n · Vp − Vs) / R, primary
   * current n times that; as admittances a rank-one stamp over the four nets with the weights n, −n, −1, 1.
   * Direct current is not transformed: each winding is then its own resistance.
   */
  private transform(index: number, harmonic: number, driven: boolean): void {
    const { circuit, nets, row, fixed } = this.network
    const { primary, fed, common, ratio, seriesOhms } = circuit.transformers[index]
    const g = 1 / seriesOhms
    const secondary = [nets.netOf[fed], nets.netOf[common]]
    if (harmonic === 0) return this.couple(secondary[0], secondary[1], g, 0, driven)
    const { a, b } = circuit.loads[primary]
    const ends = [nets.netOf[a], nets.netOf[b], ...secondary]
    const weights = [ratio, -ratio, -1, 1]
    ends.forEach((p, x) => {
      if (row[p] < 0) return
      ends.forEach((q, y) => {
        const value = g * weights[x] * weights[y]
        if (row[q] < 0) {
          if (driven) this.re[row[p]] -= value * fixed[q]
        } else if (row[p] === row[q] || row[p] < row[q]) this.system.add(row[p], row[q], value, 0)
      })
    })
  }
}
