import type { Circuit } from '../circuit'
import type { Demand } from '../installation'
import { calledPhases, type Simulation } from '../simulation'
import { runsItself, wanted, waterPasses } from './demands'

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
  /** Demands whose circuits warm: water gets through, what must run runs, and there is heat. */
  warm: string[]
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
    warm: circuit.installation.intent.demands.filter((d) => warms(sim, d)).map((d) => d.id),
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

/** Is there heat in the water of this boiler: does it fire, and do its elements, where it has any, get their supply? */
function hot(sim: Simulation, boiler: string): boolean {
  const { circuit } = sim
  const at = circuit.deviceIndex.get(boiler)!
  const fires = circuit.behaviours.some(
    (b, i) => b.device === at && calledPhases.has(sim.phase(i).phase) && sim.phase(i).phase !== 'self-check',
  )
  return fires && circuit.loads.every((l, i) => l.device !== at || l.part.work !== 'heats' || sim.loadEnergised(i))
}

/** Pumps that serve every circuit: all but those that a demand names as its own. */
function commonPumps(circuit: Circuit): number[] {
  const own = new Set(circuit.installation.intent.demands.flatMap((d) => d.circuit.runs ?? []))
  return circuit.loads.flatMap((l, i) =>
    l.part.work === 'runs' && !own.has(circuit.devices[l.device].device.id) ? [i] : [],
  )
}

/**
 * Does this demand's circuit warm? Simple water, until pipes are modelled: its valves pass, its pumps run (without any pump
 * the water moves by gravity), and the boiler is hot. Where the boiler's own water is the circuit, its own call decides.
 */
function warms(sim: Simulation, demand: Demand): boolean {
  const { circuit } = sim
  const pumps = commonPumps(circuit)
  const flows = pumps.length === 0 || pumps.some((p) => sim.loadWorking(p))
  if (!flows || !waterPasses(sim, demand) || !runsItself(sim, demand) || !hot(sim, demand.call.boiler)) return false
  if (demand.circuit.valves.length > 0) return true
  const { type, loadIndex } = circuit.devices[circuit.deviceIndex.get(demand.call.boiler)!]
  return sim.loadEnergised(loadIndex.get(type.inputs.find((i) => i.id === demand.call.input)!.load)!)
}
