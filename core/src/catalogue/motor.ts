import {
  jammed,
  neverMakes,
  openCircuit,
  seizedOpen,
  seizedPartWay,
  seizedShut,
  springBroken,
  stuckMade,
} from './failures'
import type { Failure, Load, Setting } from './primitives'

const head = 'Replace the head.'

/** How a spring-return head and its body fail: priors and remedies of the trade, the same for every such valve. */
export const motorFailures: Failure[] = [
  openCircuit('motor open', 5, 'Replace the head, or the motor alone where it is sold.'),
  jammed('gear stripped: hums and does not move', 1.5, head),
]
export const travelFailures: Failure[] = [
  seizedShut('spindle seized shut', 3, 'Replace the whole valve: the body is seized.'),
  seizedOpen('bound open', 1, 'Head off, turn the spindle by hand: free, replace the head; stiff, the valve.'),
  seizedPartWay('seized part way', 0.8, 'Replace the whole valve: the body is seized.'),
  springBroken('spring broken', 0.5, head),
]
export const endSwitchFailures: Failure[] = [
  neverMakes('end switch never makes', 5, head),
  stuckMade('end switch stuck made', 4, head),
]

/** The settings of a valve's synchronous motor: what it draws, and the resistance of its winding. */
export const motorSettings = (watts: number, origin: string): Setting[] => [
  { id: 'watts', label: 'Motor', unit: 'W', min: 2, max: 12, default: watts, origin },
  {
    id: 'winding',
    label: 'DC resistance of the winding',
    unit: '% of its impedance',
    min: 10,
    max: 70,
    default: 35,
    origin: 'domain: winding 2 to 3 kΩ at 230 V and 6 W',
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
