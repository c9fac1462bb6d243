import type { BusRequest, Condition, ConditionLeaf } from '../catalogue'
import type { CompiledDevice } from '../circuit'
import { travelTolerance } from './travel'

/** What a condition can see of the state. */
export interface View {
  controls: readonly (string | number)[]
  energised: Uint8Array
  working: Uint8Array
  sensing: Uint8Array
  position: Float64Array
  velocity: Float64Array
  /** Which switches on the gear stand operated. */
  cams: Uint8Array
  phase(behaviour: number): string
  /** Of bus ports: has a controller a boiler that answers, does a boiler hear this asked? */
  linked(bus: number): boolean
  hears(bus: number, request: BusRequest): boolean
  /** Flow through a way, l/h in the direction it is named in. */
  flow(way: number): number
  /** Does the clock say on for this control? */
  timed(control: number): boolean
}

/** Does a condition of this device hold just now? */
export function holds(condition: Condition, device: CompiledDevice, view: View): boolean {
  if ('control' in condition)
    return condition.is.includes(String(view.controls[device.controlIndex.get(condition.control)!]))
  if ('sensor' in condition) return view.sensing[device.sensorIndex.get(condition.sensor)!] === 1
  if ('actuator' in condition) {
    const cam = device.camIndex.get(condition)
    if (cam !== undefined) return view.cams[cam] === 1
    const i = device.actuatorIndex.get(condition.actuator)!
    return view.position[i] >= device.amount(condition.reached) - travelTolerance && view.velocity[i] >= 0
  }
  if ('energised' in condition) return view.energised[device.loadIndex.get(condition.energised)!] === 1
  if ('works' in condition) return view.working[device.loadIndex.get(condition.works)!] === 1
  if ('behaviour' in condition)
    return condition.in.includes(view.phase(device.behaviourIndex.get(condition.behaviour)!))
  if ('setting' in condition) return device.amount(condition) === condition.is
  if ('linked' in condition) return view.linked(device.busIndex.get(condition.linked)!)
  if ('hears' in condition) return view.hears(device.busIndex.get(condition.hears)!, condition.request)
  if ('flows' in condition) return view.flow(device.wayIndex.get(condition.flows)!) >= device.amount(condition.from)
  if ('timed' in condition) return view.timed(device.controlIndex.get(condition.timed)!)
  if ('all' in condition) return condition.all.every((c) => holds(c, device, view))
  if ('any' in condition) return condition.any.some((c) => holds(c, device, view))
  return !holds(condition.not, device, view)
}

/** What a condition looks at on this device, settings taken as they stand: a channel's other knob only where a slider joins them. */
export function leavesThatMatter(condition: Condition, device: CompiledDevice): ConditionLeaf[] {
  if ('any' in condition) return condition.any.flatMap((c) => leavesThatMatter(c, device))
  if ('not' in condition) return leavesThatMatter(condition.not, device)
  if (!('all' in condition)) return [condition]
  const barred = condition.all.some((c) => 'setting' in c && device.amount(c) !== c.is)
  return barred ? [] : condition.all.flatMap((c) => leavesThatMatter(c, device))
}
