import { jammed, leaks, openCircuit } from './failures'
import type { DeviceType } from './primitives'

export const pump: DeviceType = {
  id: 'pump',
  version: 2,
  name: 'Circulating pump',
  family: 'water',
  stands: 'In the flow near the boiler or inside it.',
  about: 'Runs while it has live and neutral. It draws power, and hums, with a seized rotor too.',
  terminals: [
    { id: 'L', legend: 'L', role: 'input' },
    { id: 'N', legend: 'N', role: 'neutral' },
    { id: 'E', legend: 'Earth', role: 'earth' },
  ],
  controls: [],
  settings: [
    { id: 'watts', label: 'Power', unit: 'W', min: 5, max: 60, default: 45, origin: 'domain: 5 to 60 W' },
    {
      id: 'leak',
      label: 'Wet terminals to earth',
      unit: 'Ω',
      min: 1,
      max: 100000,
      default: 10,
      origin: 'usual value: low enough to blow the fuse',
    },
  ],
  inputs: [],
  primitives: [
    {
      kind: 'load',
      id: 'motor',
      label: 'motor',
      from: 'L',
      to: 'N',
      watts: { setting: 'watts' },
      powerFactor: 0.9,
      dcPercent: 40,
      work: 'runs',
      failures: [
        openCircuit('winding open', 2, 'Replace the pump.'),
        jammed('rotor seized', 2, 'Free the rotor with the supply isolated, or replace the pump.'),
      ],
    },
    {
      kind: 'insulation',
      id: 'terminals',
      label: 'terminals',
      a: 'L',
      b: 'E',
      ohms: { setting: 'leak' },
      failures: [leaks('water in its terminals', 1, 'Find the leak and stop it, then replace the pump and the fuse.')],
    },
  ],
}
