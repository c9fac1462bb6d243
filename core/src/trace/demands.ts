import { leavesOf } from '../catalogue'
import { type AtomId, type EdgeId, feedsOf, type Circuit } from '../circuit'
import type { ContactRef, Demand } from '../installation'
import type { Simulation } from '../simulation'
import { viaOf, type Via } from './hops'
import { gatesOf } from './paths'
import { ownRun, type OwnRun } from './own-run'
import { openPointsOf, through, waysFrom } from './ways'

/**
 * Where a signal stops: at something that could carry it and does not, at a load that has it and does nothing, or at
 * another demand that goes first.
 */
export type OpenPoint =
  | { at: 'priority'; demand: string }
  | { at: 'edge'; edge: EdgeId; from: string; via: Via; to: string }
  | { at: 'load'; device: string; part: string; reason: 'open' | 'no-neutral' | 'no-way-in' }

/** The four words for a demand. */
export type DemandWord = 'satisfied' | 'calling' | 'held-up' | 'not-asked'

export interface DemandState {
  demand: Demand
  word: DemandWord
  /** Where it is held up, first the valve's motor, then the boiler's call. */
  openPoints: OpenPoint[]
  /** While it is on its way: the valves that travel for it, by their actuators. */
  travelling?: number[]
  /** What asks for it in place of a thermostat that senses cold: a run of the device's own, and when its clock ends it. */
  run?: OwnRun
}

/** What judging a moment by intent needs to know of it: whoever can say this can be judged. */
export interface DemandView {
  readonly circuit: Circuit
  contactAsked(contact: number): boolean
  loadEnergised(load: number): boolean
  actuatorPosition(actuator: number): number
}

/** The load that hears the call of a demand. */
export function callLoad(circuit: Circuit, call: { boiler: string; input: string }): number {
  const boiler = circuit.devices[circuit.deviceIndex.get(call.boiler)!]
  return boiler.loadIndex.get(boiler.type.inputs.find((i) => i.id === call.input)!.load)!
}

/** The loads that open a demand's circuit by driving: of a port that is open at rest, none. */
function drivingLoads(circuit: Circuit, demand: Demand): number[] {
  const ports = demand.circuit.valves.flatMap((valve) => portsOf(circuit, valve))
  const motors = ports
    .filter(({ part }) => part.openTo === 1)
    .map(({ actuator }) => circuit.actuators[actuator].drivenBy)
  return [...motors, ...runningLoads(circuit, demand)]
}

/** The pumps and fans that have to run for a demand, besides what the boiler runs itself. */
export function runningLoads(circuit: Circuit, demand: Demand): number[] {
  const devices = (demand.circuit.runs ?? []).map((id) => circuit.deviceIndex.get(id)!)
  return circuit.loads.flatMap((l, i) => (l.part.work && devices.includes(l.device) ? [i] : []))
}

/** The ports by which a valve serves a circuit. */
export function portsOf(circuit: Circuit, { device, port }: Demand['circuit']['valves'][number]) {
  const at = circuit.deviceIndex.get(device)!
  return circuit.ports.filter((p) => p.device === at && (port === undefined || p.part.id === port))
}

const valveDevices = (circuit: Circuit, demand: Demand): number[] =>
  demand.circuit.valves.map(({ device }) => circuit.deviceIndex.get(device)!)

/** Does the contact's device ask for it to be made? Where there is no such contact, nothing stands in the way. */
export function asked(sim: DemandView, at: ContactRef | null): boolean {
  if (!at) return true
  const device = sim.circuit.deviceIndex.get(at.device)!
  return sim.contactAsked(sim.circuit.contacts.findIndex((c) => c.device === device && c.part.id === at.contact))
}

/** Is the demand wanted just now: its channel on and its thermostat asking? */
export const wanted = (sim: DemandView, demand: Demand): boolean =>
  asked(sim, demand.channel) && asked(sim, demand.thermostat)

export function demandStates(sim: Simulation): DemandState[] {
  return sim.circuit.installation.intent.demands.map((demand) => {
    if (!asked(sim, demand.channel)) return { demand, word: 'not-asked', openPoints: [] }
    if (!asked(sim, demand.thermostat)) return { demand, word: 'satisfied', openPoints: [] }
    const openPoints = demandOpenPoints(sim, demand)
    const run = ownRun(sim, demand)
    // What is on its way is not held up; what goes round and round gets nowhere.
    const way = sim.hunting ? undefined : onItsWay(sim, openPoints)
    if (openPoints.length > 0 && way)
      return { demand, word: 'calling', openPoints: [], travelling: way, ...(run && { run }) }
    return { demand, word: openPoints.length > 0 ? 'held-up' : 'calling', openPoints, ...(run && { run }) }
  })
}

/**
 * The actuators that travel towards closing what stands open; an empty list where only contacts are about to switch. Undefined
 * where anything stands open that nothing is about to close.
 */
function onItsWay(sim: Simulation, points: readonly OpenPoint[]): number[] | undefined {
  const { circuit } = sim
  const travelling: number[] = []
  for (const point of points) {
    const edge = point.at === 'edge' ? circuit.edges[point.edge] : undefined
    if (edge?.kind !== 'contact' || sim.contactHeld(edge.contact)) return undefined
    if (sim.contactShouldBeClosed(edge.contact)) continue
    const { device, closedWhen, inverted } = circuit.contacts[edge.contact]
    const moving = leavesOf(closedWhen).flatMap((leaf) => {
      if (!('actuator' in leaf)) return []
      const actuator = circuit.devices[device].actuatorIndex.get(leaf.actuator)!
      return sim.actuatorMotion(actuator) === (inverted ? 'closing' : 'opening') ? [actuator] : []
    })
    if (moving.length === 0) return undefined
    travelling.push(...moving)
  }
  return travelling
}

/** Does a valve stand where it lets water through this port? */
export const portOpen = (sim: DemandView, { actuator, part }: Circuit['ports'][number]): boolean => {
  const position = sim.actuatorPosition(actuator)
  return position >= part.openFrom && position <= part.openTo
}

/** Has every valve of the demand's circuit a port that the model knows? Else nobody can say whether its circuit opens. */
export const circuitKnown = (circuit: Circuit, demand: Demand): boolean =>
  demand.circuit.valves.every((valve) => portsOf(circuit, valve).length > 0)

/** Can water pass every valve of the demand's circuit, at the port that serves it, and does what has to run for it run? */
export const circuitOpen = (sim: DemandView, demand: Demand): boolean =>
  demand.circuit.valves.every((valve) => portsOf(sim.circuit, valve).every((port) => portOpen(sim, port))) &&
  runningLoads(sim.circuit, demand).every((load) => sim.loadEnergised(load))

/**
 * Can a demand be held off for one that goes first: does its circuit stand open without power, to be shut by the other? What a
 * valve of its own opens, and nothing else shuts, runs beside it.
 */
const canBeHeldOff = (circuit: Circuit, demand: Demand): boolean =>
  demand.circuit.valves.some((valve) =>
    portsOf(circuit, valve).some(({ part }) => part.openFrom === 0 && part.openTo < 1),
  )

/** Of these demands, those that go before this one, since the scheme cannot serve both. */
export const goingFirst = (circuit: Circuit, demand: Demand, among: readonly Demand[]): Demand[] =>
  canBeHeldOff(circuit, demand) ? among.filter((other) => other.priority < demand.priority) : []

/** Another demand that is wanted and goes before this one, where the scheme cannot serve both. */
export const goesFirst = (sim: DemandView, demand: Demand): Demand | undefined =>
  goingFirst(sim.circuit, demand, sim.circuit.installation.intent.demands).find((other) => wanted(sim, other))

/** First open points of a demand: of its valve's motor while its circuit is shut, else of its own way to its call. */
export function demandOpenPoints(sim: Simulation, demand: Demand): OpenPoint[] {
  const { circuit } = sim
  const open = circuitOpen(sim, demand)
  const first = goesFirst(sim, demand)
  if (!open && first) return [{ at: 'priority', demand: first.id }]
  const stopped = open ? [] : drivingLoads(circuit, demand).flatMap((motor) => loadOpenPoints(sim, motor, demand))
  if (stopped.length > 0) return stopped
  const call = callLoad(circuit, demand.call)
  const points = loadOpenPoints(sim, call, demand)
  // A valve held half way serves two circuits at once, and the other one's call is its call too.
  return sim.loadEnergised(call) ? points.filter((point) => !heldShortOf(sim, point)) : points
}

/** Is the open point a switch on the gear of a valve that is held short of where it would make? */
function heldShortOf(sim: Simulation, point: OpenPoint): boolean {
  const { circuit } = sim
  if (point.at !== 'edge') return false
  const edge = circuit.edges[point.edge]
  if (edge.kind !== 'contact') return false
  const { closedWhen, device } = circuit.contacts[edge.contact]
  if (!('actuator' in closedWhen)) return false
  return sim.actuatorMotion(circuit.devices[device].actuatorIndex.get(closedWhen.actuator)!) === 'held'
}

/** Loads that do nothing but move contacts of their own device: relay coils. Those fed inside their device are its own affair. */
export const coilsOf = (circuit: Circuit): number[] =>
  circuit.loads.flatMap(({ device, part, a }, load) =>
    circuit.atoms[a].kind !== 'internal' &&
    circuit.contacts.some(
      (c) => c.device === device && 'energised' in c.closedWhen && c.closedWhen.energised === part.id,
    )
      ? [load]
      : [],
  )

interface Own {
  circuit: Circuit
  contacts: ReadonlySet<number>
  coils: readonly number[]
}
const ownByDemand = new WeakMap<Demand, Own>()

function ownOf(circuit: Circuit, demand: Demand): Own {
  const before = ownByDemand.get(demand)
  if (before?.circuit === circuit) return before
  const valves = valveDevices(circuit, demand)
  const named = [demand.channel, demand.thermostat].flatMap((at) => (at ? [at] : []))
  const contacts = new Set<number>()
  circuit.contacts.forEach(({ device, part }, i) => {
    const { id } = circuit.devices[device].device
    if (valves.includes(device) || named.some((at) => at.device === id && at.contact === part.id)) contacts.add(i)
  })
  const lines = feedsOf(circuit).map((f) => f.line)
  const coils = coilsOf(circuit).filter((coil) =>
    waysFrom(circuit, lines, loadEnds(circuit, coil).fed).some((way) =>
      gatesOf(way).some((edge) => {
        const e = circuit.edges[edge]
        return e.kind === 'contact' && contacts.has(e.contact)
      }),
    ),
  )
  const moves = (coil: number, { device, closedWhen }: Circuit['contacts'][number]) =>
    circuit.loads[coil].device === device &&
    leavesOf(closedWhen).some((leaf) => 'energised' in leaf && leaf.energised === circuit.loads[coil].part.id)
  circuit.contacts.forEach((contact, i) => {
    if (coils.some((coil) => moves(coil, contact))) contacts.add(i)
  })
  const own: Own = { circuit, contacts, coils }
  ownByDemand.set(demand, own)
  return own
}

/**
 * The contacts that are a demand's own: its channel, its thermostat, those on its valves, and those that a relay moves
 * which its thermostat pulls in.
 */
export const ownContacts = (circuit: Circuit, demand: Demand): ReadonlySet<number> => ownOf(circuit, demand).contacts

/** The relay coils that a demand's own contacts pull in. */
export const ownCoils = (circuit: Circuit, demand: Demand): readonly number[] => ownOf(circuit, demand).coils

/** The end of a load at which a signal can reach it, and the other. A winding works either way round. */
export function loadEnds(circuit: Circuit, load: number): { fed: AtomId; back: AtomId } {
  const { a, b } = circuit.loads[load]
  const lines = feedsOf(circuit).map((f) => f.line)
  const turned = waysFrom(circuit, lines, a).length === 0 && waysFrom(circuit, lines, b).length > 0
  return turned ? { fed: b, back: a } : { fed: a, back: b }
}

/** Where the signal to a load stops; empty while the load works. For a demand, on the branches that are its own. */
export function loadOpenPoints(sim: Simulation, load: number, demand?: Demand): OpenPoint[] {
  const { circuit } = sim
  const { device, part } = circuit.loads[load]
  const { fed, back } = loadEnds(circuit, load)
  const stop = (reason: 'open' | 'no-neutral' | 'no-way-in'): OpenPoint[] => [
    { at: 'load', device: circuit.devices[device].device.id, part: part.id, reason },
  ]
  const feeds = feedsOf(circuit)
  const ways = waysFrom(
    circuit,
    feeds.map((f) => f.line),
    fed,
  )
  if (ways.length === 0) return stop('no-way-in')
  const own = demand ? ownContacts(circuit, demand) : new Set<number>()
  const stops = ways.map((way) => openPointsOf(circuit, sim.electrics.state, through(circuit, way, own)))
  // Of several supplies that could bring it, one is enough.
  const edges = sim.loadEnergised(load) && stops.some((stop) => stop.length === 0) ? [] : stops.flat()
  if (edges.length > 0) return edges.map((edge) => openEdge(circuit, edge))
  if (sim.loadEnergised(load)) return []
  if (sim.loadOpen(load)) return stop('open')
  const returns = waysFrom(
    circuit,
    feeds.map((f) => f.neutral),
    back,
  )
  const broken = returns.flatMap((way) => openPointsOf(circuit, sim.electrics.state, way))
  return broken.length > 0 ? broken.map((edge) => openEdge(circuit, edge)) : stop('no-neutral')
}

function openEdge(circuit: Circuit, index: EdgeId): OpenPoint {
  const edge = circuit.edges[index]
  const { a, b } = edge
  return { at: 'edge', edge: index, from: circuit.atoms[a].ref, via: viaOf(circuit, edge), to: circuit.atoms[b].ref }
}
