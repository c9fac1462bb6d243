import { nth } from '../lists'
import type { Condition, Control } from '../catalogue'
import type { Circuit } from '../circuit'
import type { ContactRef } from '../installation'
import type { Action } from '../simulation'

/** One knob of an input: a choice with the values it is free between, or a sensor that may ask at any time. */
export type Leaf =
  { kind: 'choice'; control: number; asking: string; resting: string } | { kind: 'sensor'; sensor: number }

/**
 * Something that may change at any time, whatever the installation does: a channel, a thermostat, a limit. It asks or it
 * does not.
 */
export interface Input {
  device: string
  leaves: Leaf[]
  /**
   * It belongs to no demand: a limit, a thermostat in series with another. How it stands to begin with; while it stands
   * otherwise, nothing is expected of demands.
   */
  ofNoDemand?: { asks: boolean }
}

/** The control of that id on a device, by its number. */
const controlAt = (circuit: Circuit, device: number, id: string): number =>
  nth(circuit.devices, device).controlIndex.get(id)!

const controlOf = (circuit: Circuit, device: number, id: string): Control =>
  nth(circuit.devices, device).type.controls.find((c) => c.id === id)!

/** What a contact's condition leaves free: of several ways to ask, the first; the others are there for other reasons. */
export function leavesOfContact(circuit: Circuit, { device: id, contact }: ContactRef): Leaf[] {
  const device = circuit.deviceIndex.get(id)!
  const part = nth(circuit.devices, device).type.primitives.find((p) => p.id === contact)!
  const condition =
    part.kind === 'contact' ? part.closedWhen : part.kind === 'changeover' ? part.operatedWhen : undefined
  const leaves: Leaf[] = []
  const visit = (c: Condition): void => {
    if ('control' in c) {
      const control = controlOf(circuit, device, c.control)
      // How things stand with the device is not for the user of the heating to set.
      if (control.kind !== 'choice' || control.ambient) return
      const resting = control.values.find((v) => !c.is.includes(v.id))!.id
      leaves.push({ kind: 'choice', control: controlAt(circuit, device, c.control), asking: nth(c.is, 0), resting })
    } else if ('sensor' in c)
      leaves.push({ kind: 'sensor', sensor: nth(circuit.devices, device).sensorIndex.get(c.sensor)! })
    else if ('all' in c) c.all.forEach(visit)
    else if ('any' in c) visit(nth(c.any, 0))
  }
  if (condition) visit(condition)
  return leaves
}

/** The input that works one contact of a demand. */
export const inputOf = (circuit: Circuit, at: ContactRef): Input => ({
  device: at.device,
  leaves: leavesOfContact(circuit, at),
})

/** The actions that make an input ask, or stop asking: a knob turned; for a sensor, its dial to one of its end stops. */
export function inputActions(circuit: Circuit, { leaves }: Input, asking: boolean): Action[] {
  const set = (control: number, value: string): Action => {
    const { device, id } = nth(circuit.controls, control)
    return { do: 'set', device: nth(circuit.devices, device).device.id, control: id, value }
  }
  return leaves.flatMap((leaf): Action[] => {
    if (leaf.kind === 'choice') return [set(leaf.control, asking ? leaf.asking : leaf.resting)]
    const { device, setPoint, throws } = nth(circuit.sensors, leaf.sensor)
    if (throws) return []
    const knob = controlOf(circuit, device, nth(circuit.controls, setPoint).id)
    return knob.kind === 'number' ? [set(setPoint, String(asking ? knob.max : knob.min))] : []
  })
}
