import { EARTH, LINE, NEUTRAL, type Branch, type Circuit } from '../circuit'
import type { PartFlags } from '../simulation'

/** Which contacts, of those that can change, decide whether a load is fed. */
export interface Feeding {
  /** By load: sets of contacts of which each, closed, feeds it, whatever the others do. */
  terms: ReadonlyMap<number, readonly number[][]>
  /** Sets of contacts that together can join line to neutral or earth, or to what must stay at extra-low voltage. */
  joint: readonly number[][]
  /** Contacts in the wiring of bus ports. */
  busContacts: readonly number[]
}

/** Steps of one search for ways; beyond, every contact of the block counts together. */
const mostSteps = 20_000
/** What cables couple into a load is left out where it comes to less than this share of what it works from. */
const negligible = 0.9

/**
 * A block is what hangs together between the poles over contacts that can change, and over loads. Where every load in it lies
 * towards neutral or earth, each net is either joined to line by closed contacts or has no volts at all: then a load is fed just
 * when one of the ways from line to it is closed, and the others do not matter. In every other block all contacts count together.
 * Undefined where line is joined to neutral or earth with nothing that can change closed.
 */
export function feedingOf(
  circuit: Circuit,
  flags: PartFlags,
  varying: ReadonlySet<number>,
  closedAtRest: (contact: number) => boolean,
): Feeding | undefined {
  const nets = new Merged(circuit.atoms.length)
  circuit.edges.forEach((edge, i) => {
    const joins =
      flags.brokenEdges[i] === 0 &&
      (edge.kind === 'contact'
        ? !varying.has(edge.contact) && closedAtRest(edge.contact)
        : edge.kind !== 'fuse' || flags.blown[edge.fuse] === 0)
    if (joins) nets.join(edge.a, edge.b)
  })
  const poles = new Map<number, number>()
  const mark = (atom: number, pole: number) => poles.set(nets.of(atom), (poles.get(nets.of(atom)) ?? 0) | pole)
  for (const { line, neutral, earth } of circuit.sources) {
    mark(line, LINE)
    mark(neutral, NEUTRAL)
    mark(earth, EARTH)
  }
  const isLine = (net: number) => ((poles.get(net) ?? 0) & LINE) !== 0
  const isZero = (net: number) => ((poles.get(net) ?? 0) & (NEUTRAL | EARTH)) !== 0
  for (const net of poles.keys()) if (isLine(net) && isZero(net)) return undefined

  const gates = circuit.contacts.flatMap(({ edge }, contact) => {
    if (!varying.has(contact) || flags.brokenEdges[edge]) return []
    return [{ contact, a: nets.of(circuit.edges[edge].a), b: nets.of(circuit.edges[edge].b) }]
  })
  const blocks = new Merged(circuit.atoms.length)
  const free = (net: number) => !poles.has(net)
  const hang = (a: number, b: number) => {
    if (free(a) && free(b)) blocks.join(a, b)
  }
  for (const { a, b } of gates) hang(a, b)
  const parts = circuit.branches.filter((branch) => branch.of.kind !== 'capacitance' && isPresent(branch, flags))
  for (const { a, b } of parts) hang(nets.of(a), nets.of(b))
  for (const { anode, cathode } of circuit.diodes) hang(nets.of(anode), nets.of(cathode))
  const windings = circuit.transformers.map(({ primary, fed, common }) => {
    const { a, b } = circuit.loads[primary]
    return [a, b, fed, common].map((atom) => nets.of(atom))
  })
  for (const [a, ...others] of windings) for (const b of others) hang(a, b)
  // Over a pole no block hangs together; but the windings of one transformer do, whatever pole one of them is on.
  for (const ends of windings) {
    const own = ends.filter(free)
    for (const net of own) blocks.join(own[0], net)
  }

  const blockOf = (net: number) => blocks.of(net)
  const soft = new Set<number>()
  const soften = (...ends: number[]) => ends.filter(free).forEach((net) => soft.add(blockOf(net)))
  for (const { a, b } of parts) {
    const [p, q] = [nets.of(a), nets.of(b)]
    if (p !== q && !(isZero(p) || isZero(q))) soften(p, q)
  }
  for (const { anode, cathode } of circuit.diodes) soften(nets.of(anode), nets.of(cathode))
  for (const ends of windings) soften(...ends)
  for (const net of coupledTooMuch(circuit, nets)) soften(net)

  const inBlock = new Map<number, number[]>()
  for (const { contact, a, b } of gates)
    for (const block of new Set([a, b].filter(free).map(blockOf)))
      inBlock.set(block, [...(inBlock.get(block) ?? []), contact])
  const gatesAt = new Map<number, { contact: number; to: number }[]>()
  for (const { contact, a, b } of gates) {
    gatesAt.set(a, [...(gatesAt.get(a) ?? []), { contact, to: b }])
    gatesAt.set(b, [...(gatesAt.get(b) ?? []), { contact, to: a }])
  }
  /** Sets of contacts on the ways from line to a net; all of its block where it is soft, or there are too many. */
  const waysTo = (net: number): number[][] => {
    const all = inBlock.get(blockOf(net)) ?? []
    if (soft.has(blockOf(net))) return all.length > 0 ? [all] : []
    const found: number[][] = []
    const visited = new Set([net])
    const path: number[] = []
    let steps = 0
    const walk = (at: number): void => {
      for (const { contact, to } of gatesAt.get(at) ?? []) {
        if (++steps > mostSteps || visited.has(to) || isZero(to)) continue
        path.push(contact)
        if (isLine(to)) found.push([...path])
        else {
          visited.add(to)
          walk(to)
          visited.delete(to)
        }
        path.pop()
      }
    }
    walk(net)
    return steps > mostSteps ? [all] : found
  }

  const terms = new Map<number, number[][]>()
  circuit.loads.forEach(({ a, b }, load) => {
    const ends = [nets.of(a), nets.of(b)].filter(free)
    const ways = ends.flatMap(waysTo)
    // Two ends that can both change: neither says anything alone.
    const of = ends.length > 1 ? [[...new Set(ways.flat())]] : ways
    const some = of.filter((contacts) => contacts.length > 0)
    if (some.length > 0) terms.set(load, some)
  })
  const joint: number[][] = []
  for (const [block, contacts] of inBlock) {
    const touches = (is: (net: number) => boolean) =>
      gates.some(({ contact, a, b }) => contacts.includes(contact) && (is(a) || is(b)))
    if (soft.has(block) || (touches(isLine) && touches(isZero))) joint.push(contacts)
  }
  for (const { contact, a, b } of gates) if (!free(a) && !free(b)) joint.push([contact])
  for (const { device, type } of circuit.devices)
    for (const t of type.terminals) {
      if (!t.extraLow) continue
      const net = nets.of(circuit.atomIndex.get(`${device.id}.${t.id}`)!)
      if (free(net)) joint.push(...waysTo(net))
    }
  const busBlocks = new Set(
    circuit.buses.flatMap(({ a, b }) =>
      [a, b]
        .map((x) => nets.of(x))
        .filter(free)
        .map(blockOf),
    ),
  )
  return { terms, joint, busContacts: [...busBlocks].flatMap((block) => inBlock.get(block) ?? []) }
}

/**
 * Nets into which cables can couple more than what a load on them takes no notice of: all the capacitance at the net, driven by
 * the supply's full volts, through the load alone.
 */
function coupledTooMuch({ branches, loads, installation, omega }: Circuit, nets: Merged): number[] {
  const farads = new Map<number, number>()
  for (const { element, of, a, b } of branches) {
    if (of.kind !== 'capacitance' || element.kind !== 'capacitance') continue
    for (const atom of [a, b]) farads.set(nets.of(atom), (farads.get(nets.of(atom)) ?? 0) + element.farads)
  }
  const admittance = new Map<number, number>()
  for (const { of, y, a, b } of branches)
    if (of.kind === 'load')
      for (const atom of [a, b])
        admittance.set(nets.of(atom), (admittance.get(nets.of(atom)) ?? 0) + Math.hypot(y.re, y.im))
  return loads.flatMap(({ a, b, dropsOut }) =>
    [a, b]
      .map((atom) => nets.of(atom))
      .filter((net) => {
        const amps = installation.supply.volts * omega * (farads.get(net) ?? 0)
        return amps / (admittance.get(net) ?? Infinity) > negligible * dropsOut
      }),
  )
}

function isPresent({ of }: Branch, flags: PartFlags): boolean {
  if (of.kind === 'load') return flags.openLoads[of.load] === 0
  return of.kind !== 'insulation' || flags.failedInsulation[of.insulation] === 1
}

/** Things drawn together, each named by one of them. */
class Merged {
  private readonly up: Int32Array

  constructor(size: number) {
    this.up = Int32Array.from({ length: size }, (_, i) => i)
  }

  of(x: number): number {
    while (this.up[x] !== x) x = this.up[x] = this.up[this.up[x]]
    return x
  }

  join(a: number, b: number): void {
    const [p, q] = [this.of(a), this.of(b)]
    if (p !== q) this.up[Math.max(p, q)] = Math.min(p, q)
  }
}
