import type { Load, Setting } from './primitives'

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
