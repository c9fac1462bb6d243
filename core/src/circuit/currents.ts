import type { EdgeId, AtomId, NetId } from './ids'
import { assumedLengthM } from './capacitance'
import { edgesAt, type Circuit, type Edge } from './circuit'
import type { Electrics, Phasor } from './electrics'
import { LinearSystem } from './linear-system'
import { conducts, EARTH, LINE, NEUTRAL } from './nets'

/** Ohms of one metre of copper of 1 mm²: 0.75 mm² of flexible core has at most 26 Ω per kilometre (IEC 60228, class 5). */
const copperOhms = 0.0195
/** Joints and closed contacts, ohms. Usual values: a good contact stays well below a tenth of an ohm. */
const jointOhms = 0.001
const contactOhms = 0.02
/** A cartridge fuse of rating I drops about a quarter of a volt at I: usual value. */
const fuseVolts = 0.25

/** Resistance of what joins two atoms, ohms. */
function edgeOhms(circuit: Circuit, edge: Edge): number {
  switch (edge.kind) {
    case 'core':
      return (copperOhms * (edge.cable.lengthM ?? assumedLengthM)) / edge.core.areaMm2
    case 'contact':
      return contactOhms
    case 'fuse':
      return fuseVolts / circuit.fuses[edge.fuse].amps
    default:
      return jointOhms
  }
}

/** What loads and other elements put into each atom of a net, amperes. */
function injections(electrics: Electrics): Map<AtomId, Phasor> {
  const { circuit, network } = electrics
  const into = new Map<AtomId, Phasor>()
  const put = (atom: AtomId, { re, im, mean }: Phasor, sign: number) => {
    const before = into.get(atom) ?? { re: 0, im: 0, mean: 0 }
    into.set(atom, { re: before.re + sign * re, im: before.im + sign * im, mean: before.mean + sign * mean })
  }
  for (const branch of network.branches) {
    const current = electrics.branchCurrent(branch)
    put(branch.a, current, -1)
    put(branch.b, current, 1)
  }
  for (const index of network.transformers) {
    const { primary, fed, common, ratio } = circuit.transformers[index]
    const { a, b } = circuit.loads[primary]
    const current = electrics.secondaryCurrent(index)
    put(fed, current, 1)
    put(common, current, -1)
    const drawn = { re: current.re * ratio, im: current.im * ratio, mean: 0 }
    put(a, drawn, -1)
    put(b, drawn, 1)
  }
  electrics.halfWave?.ports.forEach(({ diode }) => {
    const { anode, cathode } = circuit.diodes[diode]
    const current = electrics.diodeCurrent(diode)
    put(anode, current, -1)
    put(cathode, current, 1)
  })
  return into
}

/** The conductances of what joins some atoms of one net to each other and to the rest of it, which is held. */
function wiringOf(electrics: Electrics, free: readonly AtomId[]) {
  const { circuit, state } = electrics
  const row = new Map(free.map((atom, i) => [atom, i]))
  const system = new LinearSystem(free.length)
  const edges = [...new Set(free.flatMap((atom) => edgesAt(circuit, atom)))].filter((e) => {
    const { a, b } = circuit.edges[e]
    return a !== b && conducts(circuit, state, e)
  })
  for (const index of edges) {
    const edge = circuit.edges[index]
    const g = 1 / edgeOhms(circuit, edge)
    const [i, j] = [row.get(edge.a), row.get(edge.b)]
    if (i !== undefined) system.add(i, i, g, 0)
    if (j !== undefined) system.add(j, j, g, 0)
    if (i !== undefined && j !== undefined) system.add(i, j, -g, 0)
  }
  return { row, system, edges }
}

/**
 * Currents through the conductors, links, contacts and fuses of one net, amperes by edge, from its a to its b. The net
 * is one potential to the rest of the circuit; within it the currents divide by the resistances of what joins it. Where
 * line meets neutral or earth in it, the source drives it through its loop resistance.
 */
export function currentsWithin(electrics: Electrics, net: NetId): Map<EdgeId, Phasor> {
  const { circuit, nets } = electrics
  const atoms: AtomId[] = []
  nets.netOf.forEach((n, atom) => {
    if (n === net) atoms.push(atom as AtomId)
  })
  const rowOf = new Map(atoms.map((atom, i) => [atom, i]))
  const held = new Set<number>()
  const driven: { atom: AtomId; conductance: number }[] = []
  const shorted = nets.poles[net] & LINE && nets.poles[net] & (NEUTRAL | EARTH)
  for (const { line, neutral, earth, loopOhms } of circuit.sources) {
    for (const pole of [neutral, earth]) if (rowOf.has(pole)) held.add(pole)
    if (!rowOf.has(line)) continue
    if (shorted) driven.push({ atom: line, conductance: 1 / loopOhms })
    else held.add(line)
  }
  if (held.size === 0) held.add(atoms[0])

  const free = atoms.filter((atom) => !held.has(atom))
  const { row, system, edges } = wiringOf(electrics, free)
  const re = new Float64Array(free.length)
  const im = new Float64Array(free.length)
  // Direct and alternating current are solved as real systems of the same matrix, two in one complex solution each.
  const mean = new Float64Array(free.length)
  const none = new Float64Array(free.length)
  for (const [atom, current] of injections(electrics)) {
    const i = row.get(atom)
    if (i === undefined) continue
    re[i] += current.re
    im[i] += current.im
    mean[i] += current.mean
  }
  for (const { atom, conductance } of driven) {
    const i = row.get(atom)
    if (i === undefined) continue
    system.add(i, i, conductance, 0)
    re[i] += conductance * circuit.installation.supply.volts
  }
  system.solve(re, im)
  if (electrics.halfWave) system.solve(mean, none)
  const at = (of: Float64Array, atom: AtomId) => (row.has(atom) ? of[row.get(atom)!] : 0)
  return new Map(
    edges.map((index) => {
      const edge = circuit.edges[index]
      const g = 1 / edgeOhms(circuit, edge)
      const through = (of: Float64Array) => g * (at(of, edge.a) - at(of, edge.b))
      return [index, { re: through(re), im: through(im), mean: through(mean) }]
    }),
  )
}

/** Ohms between two atoms of one net, over what joins them just now. */
export function ohmsWithin(electrics: Electrics, from: AtomId, to: AtomId): number {
  const { nets } = electrics
  const net = nets.netOf[from]
  if (from === to) return 0
  const free: AtomId[] = []
  nets.netOf.forEach((n, atom) => {
    if (n === net && atom !== to) free.push(atom as AtomId)
  })
  const { row, system } = wiringOf(electrics, free)
  const re = new Float64Array(free.length)
  re[row.get(from)!] = 1
  system.solve(re, new Float64Array(free.length))
  return re[row.get(from)!]
}

/** An upper bound, in amperes, of the current in any part of each net: everything that enters or leaves it. */
export function currentBounds(electrics: Electrics): Float64Array {
  const bounds = new Float64Array(electrics.circuit.atoms.length)
  for (const [atom, { re, im, mean }] of injections(electrics))
    bounds[electrics.nets.netOf[atom]] += Math.hypot(re, im) + Math.abs(mean)
  return bounds
}
