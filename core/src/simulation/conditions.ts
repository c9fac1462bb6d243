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

/** A condition of one device made ready: indices instead of names. */
export type Check = (view: View) => boolean

const ready = new WeakMap<CompiledDevice, Map<Condition, Check>>()

/** A condition of this device as a check, made once. */
export function checkOf(condition: Condition, device: CompiledDevice): Check {
  let known = ready.get(device)
  if (!known) ready.set(device, (known = new Map<Condition, Check>()))
  let check = known.get(condition)
  if (!check) known.set(condition, (check = made(condition, device)))
  return check
}

/** Does a condition of this device hold just now? */
export const holds = (condition: Condition, device: CompiledDevice, view: View): boolean =>
  checkOf(condition, device)(view)

function made(condition: Condition, device: CompiledDevice): Check {
  if ('control' in condition) {
    const control = device.controlIndex.get(condition.control)!
    const { is } = condition
    return (view) => is.includes(String(view.controls[control]))
  }
  if ('sensor' in condition) {
    const sensor = device.sensorIndex.get(condition.sensor)!
    return (view) => view.sensing[sensor] === 1
  }
  if ('actuator' in condition) {
    const cam = device.camIndex.get(condition)
    if (cam !== undefined) return (view) => view.cams[cam] === 1
    const i = device.actuatorIndex.get(condition.actuator)!
    const reached = device.amount(condition.reached) - travelTolerance
    return (view) => view.position[i] >= reached && view.velocity[i] >= 0
  }
  if ('energised' in condition) {
    const load = device.loadIndex.get(condition.energised)!
    return (view) => view.energised[load] === 1
  }
  if ('works' in condition) {
    const load = device.loadIndex.get(condition.works)!
    return (view) => view.working[load] === 1
  }
  if ('behaviour' in condition) {
    const behaviour = device.behaviourIndex.get(condition.behaviour)!
    return (view) => condition.in.includes(view.phase(behaviour))
  }
  if ('setting' in condition) {
    const stands = device.amount(condition) === condition.is
    return () => stands
  }
  if ('linked' in condition) {
    const bus = device.busIndex.get(condition.linked)!
    return (view) => view.linked(bus)
  }
  if ('hears' in condition) {
    const bus = device.busIndex.get(condition.hears)!
    return (view) => view.hears(bus, condition.request)
  }
  if ('flows' in condition) {
    const way = device.wayIndex.get(condition.flows)!
    const from = device.amount(condition.from)
    return (view) => view.flow(way) >= from
  }
  if ('timed' in condition) {
    const control = device.controlIndex.get(condition.timed)!
    return (view) => view.timed(control)
  }
  if ('all' in condition) {
    const all = condition.all.map((c) => made(c, device))
    return (view) => all.every((check) => check(view))
  }
  if ('any' in condition) {
    const any = condition.any.map((c) => made(c, device))
    return (view) => any.some((check) => check(view))
  }
  const inner = made(condition.not, device)
  return (view) => !inner(view)
}

/** What a condition looks at on this device, settings taken as they stand: a channel's other knob only where a slider joins them. */
export function leavesThatMatter(condition: Condition, device: CompiledDevice): ConditionLeaf[] {
  if ('any' in condition) return condition.any.flatMap((c) => leavesThatMatter(c, device))
  if ('not' in condition) return leavesThatMatter(condition.not, device)
  if (!('all' in condition)) return [condition]
  const barred = condition.all.some((c) => 'setting' in c && device.amount(c) !== c.is)
  return barred ? [] : condition.all.flatMap((c) => leavesThatMatter(c, device))
}
