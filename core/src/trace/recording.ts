import { leavesOf } from '../catalogue'
import type { Circuit } from '../circuit'
import { Rig } from '../hypotheses'
import { firingPhases, type Action, type Simulation } from '../simulation'
import { callLoad } from './demands'

/** What one part did over a time: a value from each moment on, ms since the start. Travel and temperatures go straight from one to the next. */
export interface Signal {
  /** `device.part`, or the place of a room. */
  id: string
  of:
    | { kind: 'contact' | 'load' | 'travel' | 'phase'; device: string; part: string }
    | { kind: 'room' | 'cylinder' | 'water'; of: string }
  steps: { at: number; value: number | string }[]
}

/** Everything that happened to an installation over a time, as signals, and what it comes to. */
export interface Recording {
  /** ms of simulated time. */
  to: number
  signals: Signal[]
  /** By boiler: how often its burner or circulator began, and how long it ran, ms. */
  boilers: { boiler: string; starts: number; ranMs: number }[]
  /** By pump, fan or heater: how long it ran, ms. */
  ran: { device: string; part: string; ms: number }[]
  /** What motors took while they only held their valves, Wh. */
  heldWh: number
  /** It was found to go round and round, and left there. */
  hunting: boolean
}

/** Temperatures are taken this many times over the whole, and not more often than every ten seconds. */
const temperatureSamples = 400
const leastSampleMs = 10_000

interface Probe {
  signal: Signal
  read: (sim: Simulation) => number | string
}

/**
 * Does some actions from the start and writes down what everything does. Yields how much of the time has passed, 0 to 1. Throws
 * ActionError where an action does not fit.
 */
export function* recorded(circuit: Circuit, acts: readonly Action[]): Generator<number, Recording> {
  const rig = new Rig(circuit)
  const total = acts.reduce((sum, act) => sum + (act.do === 'wait' ? act.ms : 0), 0)
  const every = Math.max(leastSampleMs, total / temperatureSamples)
  const probes = probesOf(circuit)
  let warmth: Probe[] = []
  const boilers = circuit.behaviours.map(({ device }) => ({
    boiler: circuit.devices[device].device.id,
    starts: 0,
    ranMs: 0,
  }))
  const works = circuit.loads.flatMap(({ device, part }, load) =>
    part.work ? [{ load, device: circuit.devices[device].device.id, part: part.id, ms: 0 }] : [],
  )
  const motors = [...new Set(circuit.actuators.map((a) => a.movedBy ?? a.drivenBy))]
  const held = (sim: Simulation) =>
    motors.reduce((watts, load) => {
      const moves = circuit.actuators.some(
        (a, i) => (a.movedBy ?? a.drivenBy) === load && ['opening', 'closing'].includes(sim.actuatorMotion(i)),
      )
      return watts + (moves || !sim.loadEnergised(load) ? 0 : sim.electrics.loadPower(load).re)
    }, 0)
  let wattMs = 0
  let fired = boilers.map(() => false)
  const sample = () => {
    const sim = rig.simulation
    for (const { signal, read } of [...probes, ...warmth]) note(signal, sim.time, read(sim))
    fired = boilers.map((boiler, i) => {
      const on = firingPhases.has(sim.phase(i).phase)
      if (on && !fired[i]) boiler.starts++
      return on
    })
  }
  /** Between two samples nothing switches: what is on stays on. */
  const pass = (ms: number) => {
    const sim = rig.simulation
    const from = sim.time
    const watts = held(sim)
    const running = works.filter(({ load }) => sim.loadWorking(load))
    rig.perform({ do: 'wait', ms })
    const passed = rig.simulation.time - from
    wattMs += watts * passed
    for (const work of running) work.ms += passed
    boilers.forEach((boiler, i) => fired[i] && (boiler.ranMs += passed))
    return passed === ms
  }
  sample()
  for (const act of acts) {
    if (act.do !== 'wait') rig.perform(act)
    else {
      const end = rig.simulation.time + act.ms
      while (rig.simulation.time < end) {
        const sim = rig.simulation
        const step = Math.min(end, sim.nextAt(), sim.heat ? sim.time + every : Infinity) - sim.time
        if (!pass(Math.max(1, Math.ceil(step)))) break
        sample()
        if (total > 0) yield rig.simulation.time / total
      }
    }
    if (warmth.length === 0 && rig.simulation.heat) warmth = warmthOf(rig.simulation)
    sample()
    if (rig.simulation.hunting) break
  }
  const { time, hunting } = rig.simulation
  return {
    to: time,
    signals: [...probes, ...warmth].map(({ signal }) => signal),
    boilers,
    ran: works.map(({ device, part, ms }) => ({ device, part, ms })),
    heldWh: wattMs / 3_600_000,
    hunting,
  }
}

/** A value that stays is written once, and again where it changes; what goes in straight lines at both ends of each. */
function note({ of, steps }: Signal, at: number, value: number | string): void {
  const last = steps.at(-1)
  if (last?.value === value && of.kind !== 'travel' && !isWarmth(of)) return
  if (last?.at === at) last.value = value
  // Of three in a row that are the same, the one between says nothing.
  else if (last?.value === value && steps.at(-2)?.value === value) last.at = at
  else steps.push({ at, value })
}

const isWarmth = (of: Signal['of']): boolean => of.kind === 'room' || of.kind === 'cylinder' || of.kind === 'water'

function probesOf(circuit: Circuit): Probe[] {
  const { demands } = circuit.installation.intent
  const idOf = (device: number) => circuit.devices[device].device.id
  const probe = (
    kind: 'contact' | 'load' | 'travel' | 'phase',
    device: number,
    part: string,
    read: Probe['read'],
  ): Probe => ({
    signal: { id: `${idOf(device)}.${part}`, of: { kind, device: idOf(device), part }, steps: [] },
    read,
  })
  const asks = demands.flatMap(({ channel, thermostat }) => [channel, thermostat].flatMap((at) => (at ? [at] : [])))
  const contacts = circuit.contacts.flatMap((c, i): Probe[] => {
    if (c.inverted) return []
    const named = asks.some((at) => at.device === idOf(c.device) && at.contact === c.part.id)
    const onGear = leavesOf(c.closedWhen).some((leaf) => 'actuator' in leaf)
    return named || onGear ? [probe('contact', c.device, c.part.id, (sim) => Number(sim.contactClosed(i)))] : []
  })
  const calls = [...new Set(demands.map((d) => callLoad(circuit, d.call)))]
  const inOrder = [
    ...contacts.filter(({ signal }) => asks.some((at) => `${at.device}.${at.contact}` === signal.id)),
    ...circuit.actuators.map(({ device, part }, i) =>
      probe('travel', device, part.id, (sim) => sim.actuatorPosition(i)),
    ),
    ...contacts.filter(({ signal }) => !asks.some((at) => `${at.device}.${at.contact}` === signal.id)),
    ...calls.map((load) =>
      probe('load', circuit.loads[load].device, circuit.loads[load].part.id, (sim) => Number(sim.loadEnergised(load))),
    ),
    ...circuit.behaviours.map(({ device, part }, i) => probe('phase', device, part.id, (sim) => sim.phase(i).phase)),
    ...circuit.loads.flatMap(({ device, part }, load) =>
      part.work ? [probe('load', device, part.id, (sim) => Number(sim.loadWorking(load)))] : [],
    ),
  ]
  return inOrder.filter((p, i) => inOrder.findIndex((q) => q.signal.id === p.signal.id) === i)
}

function warmthOf({ heat, circuit }: Simulation): Probe[] {
  const { lumps } = heat!
  const probe = (kind: 'room' | 'cylinder' | 'water', of: string, lump: number): Probe => ({
    signal: { id: `${kind} ${of}`, of: { kind, of }, steps: [] },
    read: (sim) => Math.round((sim.heat?.celsius[lump] ?? 0) * 100) / 100,
  })
  const idOf = (device: number) => circuit.devices[device].device.id
  return [
    ...lumps.rooms.map((r) => probe('room', r.place, r.lump)),
    ...circuit.water.stores.map((s, i) => probe('cylinder', idOf(s.device), lumps.stores[i].lump)),
    ...circuit.water.sources.flatMap((s, i) => {
      const lump = lumps.sourceLump[i]
      return lump === undefined ? [] : [probe('water', idOf(s.device), lump)]
    }),
  ]
}

/** The value of a signal at a moment, ms; between two that go in a straight line, the one before. */
export const valueAt = ({ steps }: Signal, ms: number): number | string | undefined =>
  steps.findLast(({ at }) => at <= ms)?.value
