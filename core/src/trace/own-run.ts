import { leavesOf } from '../catalogue'
import type { ContactRef, Demand } from '../installation'
import type { Simulation } from '../simulation'

/** A run that a device makes by itself, whatever its sensor says: a hygiene run of a cylinder thermostat or receiver. */
export interface OwnRun {
  device: string
  control: string
  /** Minute of the week at which its clock ends it; left out where no clock is set, or nothing ends it. */
  until?: number
}

const weekMinutes = 7 * 24 * 60

/**
 * The run of its own by which a demand is wanted: a control that the device's clock turns, or somebody has left so, stands at a
 * value without which the thermostat or channel would not ask.
 */
export function ownRun(sim: Simulation, { channel, thermostat }: Demand): OwnRun | undefined {
  for (const at of [thermostat, channel]) {
    const run = at && runOf(sim, at)
    if (run) return run
  }
  return undefined
}

function runOf(sim: Simulation, { device, contact }: ContactRef): OwnRun | undefined {
  const { circuit } = sim
  const index = circuit.deviceIndex.get(device)!
  const { type } = circuit.devices[index]
  const thrown = circuit.contacts.findIndex((c) => c.device === index && c.part.id === contact)
  for (const leaf of leavesOf(circuit.contacts[thrown].closedWhen)) {
    if (!('control' in leaf)) continue
    const control = type.controls.find((c) => c.id === leaf.control)!
    const stands = String(sim.control(device, leaf.control))
    if (control.kind !== 'choice' || !control.ambient || !control.timed?.turns || !leaf.is.includes(stands)) continue
    const other = control.values.find((v) => !leaf.is.includes(v.id))
    if (!other || sim.contactAskedWith(thrown, leaf.control, other.id)) continue
    const until = endsAt(sim, device, leaf.control, leaf.is)
    return { device, control: leaf.control, ...(until !== undefined && { until }) }
  }
  return undefined
}

/** Minute of the week at which the clock turns a control to a value that is none of these. */
function endsAt(sim: Simulation, device: string, control: string, values: readonly string[]): number | undefined {
  const now = sim.minuteOfWeek
  if (now === undefined) return undefined
  const steps = sim.programmeOf(device, control)
  const ahead = steps
    .filter((s) => !values.includes(String(s.value)))
    .map((s) => ({ at: s.day * 1440 + s.minute, in: (s.day * 1440 + s.minute - now + weekMinutes) % weekMinutes }))
    .filter((s) => s.in > 0)
    .sort((x, y) => x.in - y.in)
  return ahead[0]?.at
}
