import type { Demand } from '../installation'
import type { Simulation } from '../simulation'
import { feltFlow, sharesOf } from '../water'
import { wanted } from './demands'

/** How a lever answers the hand: it resists, has no resistance, is latched part open, or does not move at all. */
export type LeverFeel = 'stiff' | 'slack' | 'latched' | 'fixed'

export interface ValveSigns {
  device: string
  actuator: number
  place: 'rest' | 'part' | 'driven'
  /** Its motor can be heard: driving, stalled or held. */
  hums: boolean
  /** Undefined where it has no lever. */
  lever?: LeverFeel
}
export interface BoilerSigns {
  device: string
  /** Inputs that hear a call. */
  calls: string[]
  /** What its display shows. */
  phase: string
}

/** What a person sees, hears and feels of an installation without a tool. */
export interface Signs {
  hunting: boolean
  valves: ValveSigns[]
  boilers: BoilerSigns[]
  /** Loads that run or heat. */
  working: number[]
  /** Devices whose display or lamps are dark. */
  dark: string[]
  /** Devices with a fuse blown in them. */
  blown: string[]
  /** Controllers whose bus is not answered. */
  unlinked: string[]
  /** Demands whose circuits warm: hot water goes through what they warm. */
  warm: string[]
  /** Pumps that run against shut valves. */
  deadHeads: number[]
  /** Water goes round through the boiler and warms nothing. */
  roundOnly: boolean
}

/**
 * Demands whose circuits warm though nobody wants them, and though no demand that is wanted declares them as companions.
 */
export function warmUnasked(sim: Simulation): Demand[] {
  const { demands } = sim.circuit.installation.intent
  const asked = demands.filter((d) => wanted(sim, d))
  const allowed = new Set(asked.flatMap((d) => [d.id, ...d.companions]))
  const { warm } = signsOf(sim)
  return demands.filter((d) => warm.includes(d.id) && !allowed.has(d.id))
}

/** Within this of an end of travel a valve stands at that end. */
const endTolerance = 0.02

export function signsOf(sim: Simulation): Signs {
  const { circuit } = sim
  const idOf = (device: number) => circuit.devices[device].device.id
  const working = circuit.loads.flatMap((l, i) => (l.part.work && sim.loadWorking(i) ? [i] : []))
  const warmed = new Set(warmEmitters(sim).map((e) => idOf(circuit.water.emitters[e].device)))
  const dark = circuit.loads.flatMap((l, i) => (l.part.lights && !sim.loadEnergised(i) ? [idOf(l.device)] : []))
  return {
    hunting: sim.hunting,
    valves: circuit.actuators.map((_, i) => valveSigns(sim, i)),
    boilers: circuit.behaviours.map(({ device }, i) => {
      const { type, loadIndex } = circuit.devices[device]
      const calls = type.inputs
        .filter((input) => sim.loadEnergised(loadIndex.get(input.load)!))
        .map((input) => input.id)
      return { device: idOf(device), calls, phase: sim.phase(i).phase }
    }),
    working,
    dark: [...new Set(dark)],
    blown: [...new Set(circuit.fuses.flatMap((f, i) => (sim.fuseBlown(i) ? [idOf(f.device)] : [])))],
    unlinked: sim.busReadings().flatMap((r) => (r.linked ? [] : [idOf(circuit.buses[r.controller].device)])),
    warm: circuit.installation.intent.demands
      .filter((d) => d.circuit.emitters?.some((id) => warmed.has(id)))
      .map((d) => d.id),
    deadHeads: deadHeads(sim),
    roundOnly: roundOnly(sim),
  }
}

/** What one valve shows. */
export function valveSigns(sim: Simulation, actuator: number): ValveSigns {
  const { circuit } = sim
  const { device, part, drivenBy, movedBy } = circuit.actuators[actuator]
  const position = sim.actuatorPosition(actuator)
  const motion = sim.actuatorMotion(actuator)
  const place = position <= endTolerance ? 'rest' : position >= 1 - endTolerance ? 'driven' : 'part'
  const motor = movedBy ?? drivenBy
  const wound = circuit.loads[motor].part.dcPercent !== undefined
  // One driven both ways stops its motor at the end; one against a spring stalls and hums on.
  const turning = movedBy === undefined || motion === 'opening' || motion === 'closing'
  const hums = wound && turning && (sim.loadEnergised(motor) || sim.loadHolds(motor))
  const signs: ValveSigns = { device: circuit.devices[device].device.id, actuator, place, hums }
  if (!part.lever) return signs
  const free = place === 'rest' ? 'stiff' : motion === 'latched' ? 'latched' : 'slack'
  return { ...signs, lever: sim.actuatorSeized(actuator) ? 'fixed' : free }
}

/** The share of hot water in an emitter's water that is felt there. */
const feltShare = 0.2

/** What telling warm circuits and pumps that move nothing needs to know of a moment. */
export type WaterView = Pick<Simulation, 'circuit' | 'flows' | 'sourceHot' | 'emitterGives' | 'loadWorking'>

/** Emitters that hot water goes through and that give off its heat. */
export function warmEmitters(sim: WaterView): number[] {
  const { water } = sim.circuit
  const shares = sharesOf(water, sim.flows)
  const hot = water.sources.map((s, i) => s.way !== undefined && sim.sourceHot(i))
  return water.emitters.flatMap(({ way }, e) =>
    sim.emitterGives(e) &&
    Math.abs(sim.flows[way]) >= feltFlow &&
    shares[e].some((share, s) => hot[s] && share >= feltShare)
      ? [e]
      : [],
  )
}

/** Pumps that run and move nothing: every way is shut to them, or there is none. */
export const deadHeads = (sim: WaterView): number[] =>
  sim.circuit.water.ways.flatMap(({ pump }, i) =>
    pump && sim.loadWorking(pump.load) && Math.abs(sim.flows[i]) < feltFlow ? [pump.load] : [],
  )

/** Does water go through a boiler and through nothing that it could warm: round by a bypass only? */
function roundOnly(sim: Simulation): boolean {
  const { water } = sim.circuit
  const flows = (way: number | undefined) => way !== undefined && Math.abs(sim.flows[way]) >= feltFlow
  return water.sources.some((s) => flows(s.way)) && !water.emitters.some((e) => flows(e.way))
}
