import { leavesOf, type Condition } from '../catalogue'
import type { Circuit } from '../circuit'
import type { Input } from '../inputs'
import type { PartFlags } from '../simulation'
import { AT_TIMES } from '../simulation'
import { feedingOf, type Feeding } from './feeding'

/**
 * What can change by what, in an installation of which the inputs are free: for every part, on which inputs it depends. A load
 * that many callers work, each alone (a boiler's call, a relay), is a signal: what lies behind it depends on the signal, not on
 * the callers one by one.
 */
export interface Influence {
  /** Sets of inputs and signals that something depends on jointly. */
  joint: ReadonlySet<string>[]
  /** By signal: the sets of inputs and signals of which each alone works it. */
  signals: ReadonlyMap<string, ReadonlySet<string>[]>
  /** On what a contact, an actuator, or any other part depends. */
  of(node: string): ReadonlySet<string>
}

/** A load that at least so many callers of different inputs work is told as a signal. */
const fewestCallers = 3
export const WATER = 'water'
const BUS = 'bus'

/**
 * Works out the influence from a plant at rest, of which it needs how each contact stands; undefined where a pole of the supply is
 * joined to another even at rest.
 */
export function influenceOf(
  circuit: Circuit,
  flags: PartFlags,
  inputs: readonly Input[],
  closedAtRest: (contact: number) => boolean,
): Influence | undefined {
  let varying = new Set<number>()
  for (;;) {
    const feeding = feedingOf(circuit, flags, varying, closedAtRest)
    if (!feeding) return undefined
    const graph = new Graph(circuit, flags, inputs, feeding)
    const found = new Set(circuit.contacts.flatMap((_, i) => (graph.of(`contact ${i}`).size > 0 ? [i] : [])))
    // What can change may part what was one net: looked at again until nothing more can.
    if (found.size === varying.size) return graph.influence()
    varying = found
  }
}

class Graph {
  private readonly depends = new Map<string, Set<string>>()
  private readonly signals = new Set<string>()

  constructor(
    private readonly circuit: Circuit,
    private readonly flags: PartFlags,
    private readonly inputs: readonly Input[],
    private readonly feeding: Feeding,
  ) {
    for (;;) {
      this.spread()
      const more = [...this.callers()].filter(
        ([node, sets]) => !this.signals.has(node) && distinct(sets) >= fewestCallers,
      )
      if (more.length === 0) return
      for (const [node] of more) this.signals.add(node)
      this.depends.clear()
    }
  }

  of(node: string): ReadonlySet<string> {
    return this.depends.get(node) ?? new Set()
  }

  influence(): Influence {
    const signals = new Map([...this.callers()].filter(([node]) => this.signals.has(node)))
    const joint = [...this.depends].flatMap(([node, set]) => (this.signals.has(node) ? [] : [set]))
    const parts = this.feeding.joint.map((contacts) => union(contacts.map((c) => this.of(`contact ${c}`))))
    return { joint: [...joint, ...parts, ...[...signals.values()].flat()], signals, of: (node) => this.of(node) }
  }

  /** Of every load, and of the water, by which contacts, or valves, it can be worked: each set alone. */
  private *callers(): Generator<[string, ReadonlySet<string>[]]> {
    for (const [load, terms] of this.feeding.terms)
      yield [`load ${load}`, terms.map((contacts) => union(contacts.map((c) => this.of(`contact ${c}`))))]
    const { actuators, ports, water } = this.circuit
    const moved = actuators.flatMap((_, i) => (ports.some((p) => p.actuator === i) ? [this.of(`actuator ${i}`)] : []))
    const pumped = water.ways.flatMap(({ pump }) => (pump ? [this.of(`load ${pump.load}`)] : []))
    const warm = water.emitters.some((e) => e.rise > 0)
      ? water.sources.map(({ when, device }) => union(this.leaves(when, device).map((n) => this.of(n))))
      : []
    yield [WATER, [...moved, ...pumped, ...warm].filter((set) => set.size > 0)]
  }

  /** Lets every part depend on what it looks at, until nothing more comes to it. */
  private spread(): void {
    const { circuit, depends, signals } = this
    const parents = this.parents()
    this.inputs.forEach(({ leaves }, i) => {
      for (const leaf of leaves) {
        const node = leaf.kind === 'choice' ? `control ${leaf.control}` : `sensor ${leaf.sensor}`
        depends.set(node, new Set([...(depends.get(node) ?? []), `input ${i}`]))
      }
    })
    for (const signal of signals) depends.set(signal, new Set([signal]))
    circuit.contacts.forEach((_, i) => {
      // One that makes at times only does so of its own accord.
      if (this.flags.heldContacts[i] === AT_TIMES) depends.set(`contact ${i}`, new Set([`chance ${i}`]))
    })
    for (let grew = true; grew;) {
      grew = false
      for (const [node, from] of parents) {
        if (signals.has(node)) continue
        const before = depends.get(node)
        const size = before?.size ?? 0
        const set = union([...(before ? [before] : []), ...from.map((n) => this.of(n))])
        if (set.size === size) continue
        depends.set(node, set)
        grew = true
      }
    }
  }

  /** What each part looks at. */
  private parents(): Map<string, string[]> {
    const { circuit, feeding, flags } = this
    const all = new Map<string, string[]>()
    const add = (node: string, from: readonly string[]) => all.set(node, [...(all.get(node) ?? []), ...from])
    circuit.contacts.forEach(({ closedWhen, device }, i) => {
      const held = flags.heldContacts[i]
      if (held !== 0 && held !== 1) add(`contact ${i}`, this.leaves(closedWhen, device))
    })
    for (const [load, terms] of feeding.terms)
      add(
        `load ${load}`,
        terms.flat().map((c) => `contact ${c}`),
      )
    circuit.actuators.forEach(({ device, part, drivenBy, movedBy }, i) => {
      const latch = part.latch && circuit.devices[device].controlIndex.get(part.latch.control)
      add(`actuator ${i}`, [
        `load ${drivenBy}`,
        ...(movedBy === undefined ? [] : [`load ${movedBy}`]),
        ...(latch === undefined ? [] : [`control ${latch}`]),
      ])
      if (latch !== undefined) add(`control ${latch}`, [`actuator ${i}`])
    })
    circuit.behaviours.forEach(({ device, watches, throws }, i) => {
      add(
        `behaviour ${i}`,
        Object.values(watches).flatMap((c) => this.leaves(c, device)),
      )
      if (throws) add(`control ${throws.control}`, [`behaviour ${i}`])
    })
    circuit.sensors.forEach(({ throws }, i) => {
      if (throws) add(`control ${throws.control}`, [`sensor ${i}`])
    })
    circuit.buses.forEach(({ part, device, powered, heard }) =>
      add(BUS, [
        `load ${powered}`,
        ...(heard === undefined ? [] : [`load ${heard}`]),
        ...Object.values(part.requests ?? {}).flatMap((c) => this.leaves(c, device)),
      ]),
    )
    if (circuit.buses.length > 0)
      add(
        BUS,
        feeding.busContacts.map((c) => `contact ${c}`),
      )
    const { water, actuators } = circuit
    add(
      WATER,
      actuators.map((_, i) => `actuator ${i}`),
    )
    for (const { pump } of water.ways) if (pump) add(WATER, [`load ${pump.load}`])
    if (water.emitters.some((e) => e.rise > 0))
      for (const { when, device } of water.sources) add(WATER, this.leaves(when, device))
    return all
  }

  private leaves(condition: Condition, device: number): string[] {
    const own = this.circuit.devices[device]
    return leavesOf(condition).flatMap((leaf): string[] => {
      if ('control' in leaf) return [`control ${own.controlIndex.get(leaf.control)!}`]
      if ('sensor' in leaf) return [`sensor ${own.sensorIndex.get(leaf.sensor)!}`]
      if ('actuator' in leaf) return [`actuator ${own.actuatorIndex.get(leaf.actuator)!}`]
      if ('energised' in leaf) return [`load ${own.loadIndex.get(leaf.energised)!}`]
      if ('works' in leaf) return [`load ${own.loadIndex.get(leaf.works)!}`]
      if ('behaviour' in leaf) return [`behaviour ${own.behaviourIndex.get(leaf.behaviour)!}`]
      if ('linked' in leaf || 'hears' in leaf) return [BUS]
      if ('flows' in leaf) return [WATER]
      // Settings stand as they are, and no clock is set.
      return []
    })
  }
}

export const union = (sets: readonly ReadonlySet<string>[]): Set<string> => new Set(sets.flatMap((set) => [...set]))

const distinct = (sets: readonly ReadonlySet<string>[]): number =>
  new Set(sets.map((set) => [...set].sort().join())).size
