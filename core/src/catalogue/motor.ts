import {
  jammed,
  makesSometimes,
  neverMakes,
  openCircuit,
  passes,
  seizedOpen,
  seizedPartWay,
  seizedShut,
  springBroken,
  stuckMade,
} from './failures'
import type { Actuator, Contact, Control, Failure, Load, Port, Primitive, Setting } from './primitives'

const head = 'Replace the head.'

/** How a spring-return head and its body fail: priors and remedies of the trade, the same for every such valve. */
export const motorFailures: readonly Failure[] = [
  openCircuit('motor open', 5, 'Replace the head, or the motor alone where it is sold.'),
  jammed('gear stripped: hums and does not move', 1.5, head),
]
const travelFailures = (ends: Actuator['ends']): Failure[] => [
  seizedShut(`spindle seized ${ends?.shut ?? 'shut'}`, 3, 'Replace the whole valve: the body is seized.'),
  seizedOpen(
    `bound ${ends?.open ?? 'open'}`,
    1,
    'Head off, turn the spindle by hand: free, replace the head; stiff, the valve.',
  ),
  seizedPartWay('seized part way', 0.8, 'Replace the whole valve: the body is seized.'),
  springBroken('spring broken', 0.5, head),
]
const endSwitchFailures: readonly Failure[] = [
  neverMakes('end switch never makes', 5, head),
  makesSometimes('end switch makes at times only', 2, head),
  stuckMade('end switch stuck made', 4, head),
]

/** The settings of a valve's synchronous motor: what it draws, and the resistance of its winding. */
export const motorSettings = (watts: number, origin: string, dcPercent = 35): Setting[] => [
  { id: 'watts', label: 'Motor', unit: 'W', min: 2, max: 12, default: watts, origin },
  {
    id: 'winding',
    label: 'DC resistance of the winding',
    unit: '% of its impedance',
    min: 10,
    max: 70,
    default: dcPercent,
    origin: 'domain: winding 2 to 3 kΩ at 230 V',
  },
]

/** Its electrical figures. A power factor of 0.8 is usual for so small a synchronous motor. */
export const motorWinding = {
  watts: { setting: 'watts' },
  powerFactor: 0.8,
  dcPercent: { setting: 'winding' },
  // A synchronous motor falls out of step soon after its volts no longer start it: half-waves hold it, never drive it.
  dropsOut: 70,
} as const satisfies Partial<Load>

/** Driving and return times of a spring-return valve, beside the settings of its motor. */
export const springSettings = (watts: number, origin: string, drivingSeconds = 15): Setting[] => [
  {
    id: 'open',
    label: 'Driving time',
    unit: 's',
    min: 5,
    max: 60,
    default: drivingSeconds,
    origin: 'domain: 10 to 20 s',
  },
  { id: 'return', label: 'Return time', unit: 's', min: 1, max: 20, default: 5, origin: 'domain: 4 to 6 s' },
  ...motorSettings(watts, origin),
]

/** The manual lever, latched part open for filling and draining; a usual place of the latch is half way. */
export const lever: Control = {
  kind: 'choice',
  id: 'lever',
  label: 'Lever',
  values: [
    { id: 'free', label: 'Free' },
    { id: 'latched', label: 'Latched' },
  ],
  initial: 'free',
  ambient: true,
}
export const leverLatch: Actuator['latch'] = { control: 'lever', latched: 'latched', free: 'free', at: 0.5 }

/** A port that may fail to shut tight. */
export const port = (
  id: string,
  label: string,
  openFrom: number,
  openTo: number,
  [from, to]: readonly [string, string] = ['in', 'out'],
): Port => ({
  kind: 'port',
  id,
  label,
  actuator: 'travel',
  from,
  to,
  // A valve of 22 mm passes 1000 l/h at a kilopascal or two: a usual value.
  kpa: 1.5,
  openFrom,
  openTo,
  failures: [passes(`${label} passes when shut`, 0.8, 'Replace the whole valve: the seat is worn or dirty.')],
})

/** A motor that drives against a spring, between two terminals of its head. */
export const springDrive = (
  from: string,
  to: string,
  { load, ends, manual = true }: { load?: Partial<Load>; manual?: boolean } & Pick<Actuator, 'ends'> = {},
): Primitive[] => [
  { kind: 'load', id: 'motor', label: 'motor', from, to, ...motorWinding, ...load, failures: motorFailures },
  {
    kind: 'actuator',
    id: 'travel',
    label: 'travel',
    drivenBy: 'motor',
    openSeconds: { setting: 'open' },
    returnSeconds: { setting: 'return' },
    ends,
    ...(manual ? { lever: true, latch: leverLatch } : {}),
    failures: travelFailures(ends),
  },
]

/** Where in its travel an end switch makes. */
export const endSwitchSetting: Setting = {
  id: 'makes',
  label: 'End switch makes at',
  unit: 'of travel',
  min: 0.85,
  max: 1,
  default: 0.85,
  origin: 'domain: 85 %, never earlier',
}

/** A volt-free switch near the driven end of travel. */
export const endSwitch = (a: string, b: string): Contact => ({
  kind: 'contact',
  id: 'end-switch',
  label: 'end switch',
  a,
  b,
  closedWhen: { actuator: 'travel', reached: { setting: 'makes' } },
  failures: endSwitchFailures,
})
