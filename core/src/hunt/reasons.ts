import type { Circuit } from '../circuit'
import type { Demand } from '../installation'
import { nth } from '../lists'
import { Simulation } from '../simulation'
import { asked, circuitOpen, goesFirst, ownRun, portsOf, wanted, type OwnRun } from '../trace'
import type { HuntEntry } from './case'
import { Course } from './course'
import { asksBesides, type AsksBesides } from './asks-besides'
import { complainedOf } from './standing'

/** Why an installation in order does what somebody complained of: by what it is told from a fault. */
export type Reason =
  | { why: 'satisfied'; demand: string; thermostat: string }
  | { why: 'channel-off'; demand: string; channel: string }
  | { why: 'waits'; demand: string; first: string }
  | { why: 'own-run'; demand: string; run: OwnRun }
  | { why: 'stays-over'; demand: string; valve: string }
  | { why: 'overrun'; boiler: string }
  | { why: 'waits-off'; boiler: string }
  | AsksBesides

/** A reason, and the findings at whose moments it held. */
export interface HeldReason {
  reason: Reason
  findings: string[]
}

/**
 * What an installation with nothing wrong would have been doing at each finding of a log that is not simply what was asked of it: of
 * the services that were complained of, where any was, in the order in which it was come to.
 */
export function reasonsOf(circuit: Circuit, log: readonly HuntEntry[]): HeldReason[] {
  const told = complainedOf(log)
  const demands = circuit.installation.intent.demands.filter(({ id }) => told.size === 0 || told.has(id))
  const course = new Course(new Simulation(circuit))
  const held = new Map<string, HeldReason>()
  for (const entry of log) {
    if ('do' in entry) course.act(entry.do)
    if (!('see' in entry)) continue
    for (const reason of [
      ...demands.flatMap((demand) => reasonsAt(course.sim, demand)),
      ...burnersOff(course.sim),
      ...asksBesides(course.sim),
    ]) {
      const key = JSON.stringify(reason)
      held.set(key, { reason, findings: [...(held.get(key)?.findings ?? []), entry.id] })
    }
  }
  return [...held.values()]
}

function reasonsAt(sim: Simulation, demand: Demand): Reason[] {
  const { id, channel, thermostat } = demand
  const run = ownRun(sim, demand)
  if (run) return [{ why: 'own-run', demand: id, run }]
  if (wanted(sim, demand)) {
    const first = goesFirst(sim, demand)
    return first && !circuitOpen(sim, demand) ? [{ why: 'waits', demand: id, first: first.id }] : []
  }
  const over = staysOver(sim, demand)
  if (over !== undefined) return [{ why: 'stays-over', demand: id, valve: over }]
  if (channel && !asked(sim, channel)) return [{ why: 'channel-off', demand: id, channel: channel.device }]
  return thermostat ? [{ why: 'satisfied', demand: id, thermostat: thermostat.device }] : []
}

/** A valve whose way to a service stands open though nobody asks for that, and nothing drives it elsewhere. */
function staysOver(sim: Simulation, demand: Demand): string | undefined {
  return demand.circuit.valves.find((valve) =>
    portsOf(sim.circuit, valve).some(
      ({ actuator, part }) =>
        part.openFrom > 0 &&
        sim.actuatorPosition(actuator) >= part.openFrom &&
        sim.actuatorMotion(actuator) !== 'closing',
    ),
  )?.device
}

/** Boilers whose burner has gone out a while ago: that run on, or wait before they fire again. */
function burnersOff(sim: Simulation): Reason[] {
  const { circuit } = sim
  return circuit.behaviours.flatMap(({ device }, i): Reason[] => {
    const { phase } = sim.phase(i)
    const boiler = nth(circuit.devices, device).device.id
    return phase === 'overrun' || phase === 'waits-off' ? [{ why: phase, boiler }] : []
  })
}
