import type { Circuit } from '../circuit'
import type { ContactRef, Demand } from '../installation'
import type { Simulation } from '../simulation'
import { viaOf, type Via } from './hops'
import { openPointsOf, through, waysFrom } from './ways'

/** Where a signal stops: at something that could carry it and does not, or at a load that has it and does nothing. */
export type OpenPoint =
  | { at: 'edge'; edge: number; from: string; via: Via; to: string }
  | { at: 'load'; device: string; part: string; reason: 'open' | 'no-neutral' | 'no-way-in' }

/** The four words for a demand. */
export type DemandWord = 'satisfied' | 'calling' | 'held-up' | 'not-asked'

export interface DemandState {
  demand: Demand
  word: DemandWord
  /** Where it is held up, first the valve's motor, then the boiler's call. */
  openPoints: OpenPoint[]
}

/** The load that hears the call of a demand. */
export function callLoad(circuit: Circuit, call: { boiler: string; input: string }): number {
  const boiler = circuit.devices[circuit.deviceIndex.get(call.boiler)!]
  return boiler.loadIndex.get(boiler.type.inputs.find((i) => i.id === call.input)!.load)!
}

/** The motors that open a demand's circuit. */
export function valveMotors(circuit: Circuit, demand: Demand): number[] {
  const devices = valveDevices(circuit, demand)
  return circuit.actuators.filter((a) => devices.includes(a.device)).map((a) => a.drivenBy)
}

const valveDevices = (circuit: Circuit, demand: Demand): number[] =>
  demand.circuit.valves.map(({ device }) => circuit.deviceIndex.get(device)!)

/** Does the contact's device ask for it to be made? Where there is no such contact, nothing stands in the way. */
function asked(sim: Simulation, at: ContactRef | null): boolean {
  if (!at) return true
  const device = sim.circuit.deviceIndex.get(at.device)!
  return sim.contactAsked(sim.circuit.contacts.findIndex((c) => c.device === device && c.part.id === at.contact))
}

/** Is the demand wanted just now: its channel on and its thermostat asking? */
export const wanted = (sim: Simulation, demand: Demand): boolean =>
  asked(sim, demand.channel) && asked(sim, demand.thermostat)

export function demandStates(sim: Simulation): DemandState[] {
  return sim.circuit.installation.intent.demands.map((demand) => {
    if (!asked(sim, demand.channel)) return { demand, word: 'not-asked', openPoints: [] }
    if (!asked(sim, demand.thermostat)) return { demand, word: 'satisfied', openPoints: [] }
    const openPoints = demandOpenPoints(sim, demand)
    return { demand, word: openPoints.length > 0 ? 'held-up' : 'calling', openPoints }
  })
}

/** First open points of a demand: of its valve's motor while that is not driven, else of its call through its own valve. */
export function demandOpenPoints(sim: Simulation, demand: Demand): OpenPoint[] {
  const { circuit } = sim
  const stopped = valveMotors(circuit, demand).flatMap((motor) => loadOpenPoints(sim, motor))
  if (stopped.length > 0) return stopped
  return loadOpenPoints(sim, callLoad(circuit, demand.call), valveDevices(circuit, demand))
}

/** Where the signal to a load stops; empty while the load works. `by` narrows the way to branches through those devices. */
export function loadOpenPoints(sim: Simulation, load: number, by: readonly number[] = []): OpenPoint[] {
  const { circuit } = sim
  const { device, part, a, b } = circuit.loads[load]
  const stop = (reason: 'open' | 'no-neutral' | 'no-way-in'): OpenPoint[] => [
    { at: 'load', device: circuit.devices[device].device.id, part: part.id, reason },
  ]
  const ways = waysFrom(
    circuit,
    circuit.sources.map((s) => s.line),
    a,
  )
  if (ways.length === 0) return stop('no-way-in')
  const edges = ways.flatMap((way) => openPointsOf(circuit, sim.joins, through(circuit, way, by)))
  if (edges.length > 0) return edges.map((edge) => openEdge(circuit, edge))
  if (sim.loadEnergised(load)) return []
  if (sim.loadOpen(load)) return stop('open')
  const returns = waysFrom(
    circuit,
    circuit.sources.map((s) => s.neutral),
    b,
  )
  const broken = returns.flatMap((way) => openPointsOf(circuit, sim.joins, way))
  return broken.length > 0 ? broken.map((edge) => openEdge(circuit, edge)) : stop('no-neutral')
}

function openEdge(circuit: Circuit, index: number): OpenPoint {
  const edge = circuit.edges[index]
  const { a, b } = edge
  return { at: 'edge', edge: index, from: circuit.atoms[a].ref, via: viaOf(circuit, edge), to: circuit.atoms[b].ref }
}
