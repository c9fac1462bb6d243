import { jammed, openCircuit } from './failures'
import type { DeviceType } from './primitives'

export const pump: DeviceType = {
  id: 'pump',
  version: 1,
  name: 'Circulating pump',
  about: 'Runs while it has live and neutral. It draws power, and hums, with a seized rotor too.',
  terminals: [
    { id: 'L', legend: 'L', role: 'input' },
    { id: 'N', legend: 'N', role: 'neutral' },
    { id: 'E', legend: 'Earth', role: 'earth' },
  ],
  controls: [],
  settings: [{ id: 'watts', label: 'Power', unit: 'W', min: 5, max: 60, default: 45, origin: 'domain: 5 to 60 W' }],
  inputs: [],
  primitives: [
    {
      kind: 'load',
      id: 'motor',
      label: 'motor',
      from: 'L',
      to: 'N',
      watts: { setting: 'watts' },
      work: 'runs',
      failures: [
        openCircuit('winding open', 2, 'Replace the pump.'),
        jammed('rotor seized', 2, 'Free the rotor with the supply isolated, or replace the pump.'),
      ],
    },
  ],
}
