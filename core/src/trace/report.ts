import type { Potential } from '../circuit'
import type { Heat } from '../heat'
import type { Rig } from '../hypotheses'
import type { SimEvent, Simulation } from '../simulation'
import type { Feel } from '../water'
import type { Background } from './asker'
import { explained, unaskedCalls, type Effect } from './causes'
import { endsOf, failedIn, once, type Claim } from './claims'
import { callLoad, demandStates, type DemandWord, type OpenPoint } from './demands'
import { livePath, type Hop } from './hops'
import type { OwnRun } from './own-run'
import { signsOf } from './signs'
import { wayStates } from './water-picture'

export interface DeviceReport {
  type: string
  name: string
  controls: Record<string, string | number>
  contacts: Record<string, boolean>
  travel?: { position: number; motion: string }
  phase?: string
  loads: Record<string, { energised: boolean; working?: boolean }>
  fuses?: Record<string, 'whole' | 'blown'>
}

export interface CallReport {
  boiler: string
  input: string
  called: boolean
  /** Called with no demand that owns the call. */
  unasked: boolean
  /** Parts named as the cause of an unasked call. */
  because: Claim[]
  /** Live path to the input, hop by hop, while line reaches it. */
  path: Hop[] | null
}

/** Everything that can be said of an installation at one moment: the JSON of `nobbet trace`. */
export interface TraceReport {
  installation: string
  /** Seconds since the start. */
  time: number
  settled: boolean
  hunting: boolean
  short: boolean
  faults: string[]
  terminals: Record<string, Potential>
  devices: Record<string, DeviceReport>
  demands: {
    demand: string
    name: string
    state: DemandWord
    openPoints: OpenPoint[]
    /** Devices of the valves that travel for it, while it is on its way. */
    travelling?: string[]
    /** The run of a device's own that asks for it, and the minute of the week at which it ends. */
    run?: OwnRun
  }[]
  calls: CallReport[]
  /** What is not as the demands would have it: what is wrong behind it, and how else things stand that lead there. */
  why: { effect: Effect; wrong: Claim[]; stands: Claim[] }[]
  /** Demands whose circuits warm. */
  warm: string[]
  /** Pumps that move nothing, by device; and does water go round and warm nothing? */
  deadHeads: string[]
  roundOnly: boolean
  /** By `device.part`: l/h through it, and how a hand feels the pipe before and behind it. */
  water: Record<string, { flow: number; before: Feel; behind: Feel }>
  /** Where temperatures go their own way: the time of the week, and °C. */
  heat?: {
    minuteOfWeek: number
    outdoors: number
    rooms: Record<string, number>
    cylinders: Record<string, number>
    boilers: Record<string, number>
  }
  /** Devices whose display is dark, in which a fuse has blown, whose bus is not answered. */
  dark: string[]
  blown: string[]
  unlinked: string[]
  events: (Omit<SimEvent, 'time'> & { time: number })[]
}

/** `known`: the plan, and what was done, where they are. */
export function traceReport(rig: Rig, known?: Background): TraceReport {
  const sim = rig.simulation
  const { circuit } = sim
  const seconds = (ms: number) => ms / 1000
  const potentials = sim.potentials()
  const signs = signsOf(sim)
  const terminals: Record<string, Potential> = {}
  circuit.atoms.forEach((atom, i) => {
    if (atom.kind !== 'internal') terminals[atom.ref] = potentials[i]
  })
  return {
    installation: circuit.installation.id,
    time: seconds(sim.time),
    settled: sim.nextEventAt() === Infinity,
    hunting: sim.hunting,
    short: sim.shortNow,
    faults: rig.faultsIn.map((f) => f.name),
    terminals,
    devices: Object.fromEntries(circuit.devices.map((d, i) => [d.device.id, deviceReport(sim, i)])),
    demands: demandStates(sim).map(({ demand, word, openPoints, travelling, run }) => ({
      demand: demand.id,
      name: demand.name,
      state: word,
      openPoints,
      ...(travelling && {
        travelling: travelling.map((a) => circuit.devices[circuit.actuators[a].device].device.id),
      }),
      ...(run && { run }),
    })),
    calls: callReports(sim, known),
    why: explained(sim, known).map(({ effect, because }) => {
      const ends = once(because.flatMap(endsOf))
      return {
        effect,
        wrong: ends.filter((c) => c.failed).map((c) => c.claim),
        stands: ends.filter((c) => !c.failed).map((c) => c.claim),
      }
    }),
    warm: signs.warm,
    deadHeads: signs.deadHeads.map((load) => circuit.devices[circuit.loads[load].device].device.id),
    roundOnly: signs.roundOnly,
    water: waterReport(sim),
    ...(sim.heat ? { heat: heatReport(sim, sim.heat) } : {}),
    dark: signs.dark,
    blown: signs.blown,
    unlinked: signs.unlinked,
    events: sim.history.map((event) => ({ ...event, time: seconds(event.time) })),
  }
}

function waterReport(sim: Simulation): TraceReport['water'] {
  const { ways } = sim.circuit.water
  return Object.fromEntries(
    wayStates(sim).map(({ flow, before, behind }, i) => [
      `${sim.circuit.devices[ways[i].device].device.id}.${ways[i].part.id}`,
      { flow: Math.round(flow), before, behind },
    ]),
  )
}

function heatReport(sim: Simulation, heat: Heat): TraceReport['heat'] {
  const { water, devices } = sim.circuit
  const { rooms, stores, sourceLump } = heat.lumps
  const tenths = (lump: number) => Math.round(heat.celsius[lump] * 10) / 10
  const idOf = (device: number) => devices[device].device.id
  return {
    minuteOfWeek: sim.minuteOfWeek ?? 0,
    outdoors: Math.round(heat.outdoorsAt(sim.time) * 10) / 10,
    rooms: Object.fromEntries(rooms.map((r) => [r.place, tenths(r.lump)])),
    cylinders: Object.fromEntries(water.stores.map((s, i) => [idOf(s.device), tenths(stores[i].lump)])),
    boilers: Object.fromEntries(
      water.sources.flatMap((s, i) => {
        const lump = sourceLump[i]
        return lump === undefined ? [] : [[idOf(s.device), tenths(lump)]]
      }),
    ),
  }
}

function deviceReport(sim: Simulation, index: number): DeviceReport {
  const { circuit } = sim
  const { device, type, loadIndex, actuatorIndex, behaviourIndex } = circuit.devices[index]
  const report: DeviceReport = { type: type.id, name: device.name, controls: {}, contacts: {}, loads: {} }
  for (const control of type.controls) report.controls[control.id] = sim.control(device.id, control.id)
  circuit.contacts.forEach((contact, i) => {
    if (contact.device !== index) return
    const key = contact.throw === 'made' ? contact.part.id : `${contact.part.id}.${contact.throw}`
    report.contacts[key] = sim.contactClosed(i)
  })
  for (const [part, load] of loadIndex) {
    report.loads[part] = { energised: sim.loadEnergised(load) }
    if (circuit.loads[load].part.work) report.loads[part].working = sim.loadWorking(load)
  }
  for (const actuator of actuatorIndex.values())
    report.travel = { position: sim.actuatorPosition(actuator), motion: sim.actuatorMotion(actuator) }
  for (const behaviour of behaviourIndex.values()) report.phase = sim.phase(behaviour).phase
  circuit.fuses.forEach((fuse, i) => {
    if (fuse.device === index) (report.fuses ??= {})[fuse.part.id] = sim.fuseBlown(i) ? 'blown' : 'whole'
  })
  return report
}

function callReports(sim: Simulation, known?: Background): CallReport[] {
  const { circuit } = sim
  const unasked = unaskedCalls(sim, known)
  return circuit.devices.flatMap(({ device, type }) =>
    type.inputs.map((input) => {
      const stray = unasked.find((u) => u.boiler === device.id && u.input === input.id)
      return {
        boiler: device.id,
        input: input.id,
        called: sim.loadEnergised(callLoad(circuit, { boiler: device.id, input: input.id })),
        unasked: stray !== undefined,
        because: stray ? failedIn(stray.cause).map((c) => c.claim) : [],
        path: livePath(sim, circuit.atomIndex.get(`${device.id}.${input.terminal}`)!) ?? null,
      }
    }),
  )
}
