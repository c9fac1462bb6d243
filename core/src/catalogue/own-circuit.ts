import { neverMakes, stuckMade } from './failures'
import type { DeviceType } from './primitives'

const offOn = [
  { id: 'off', label: 'Off' },
  { id: 'on', label: 'On' },
] as const

/** A second supply: a circuit of its own for a load too large for the controls' spur. */
export const ownCircuit: DeviceType = {
  id: 'own-circuit',
  version: 2,
  name: 'Circuit of its own with a double-pole switch',
  family: 'supply',
  stands: 'Beside the load it feeds: an immersion heater, an electric boiler.',
  about:
    'A breaker at the board and a double-pole switch at the load. Nothing in the spur of the controls isolates it: where ' +
    'both meet in one box, both are switched off and locked.',
  terminals: [
    { id: 'L', legend: 'Load L', role: 'output' },
    { id: 'N', legend: 'Load N', role: 'output' },
    { id: 'E', legend: 'Earth', role: 'output' },
    { id: 'origin-L', legend: 'Origin L', role: 'output', internal: true },
    { id: 'origin-N', legend: 'Origin N', role: 'output', internal: true },
    { id: 'feed-L', legend: 'Feed L', role: 'output', internal: true },
  ],
  controls: [{ kind: 'choice', id: 'switch', label: 'Switch', values: offOn, initial: 'on' }],
  settings: [
    { id: 'breaker', label: 'Breaker', unit: 'A', min: 6, max: 63, default: 32, origin: 'usual for 6 kW' },
    { id: 'loop', label: 'Loop resistance', unit: 'Ω', min: 0.05, max: 20, default: 0.5, origin: 'usual value' },
  ],
  inputs: [],
  primitives: [
    {
      kind: 'source',
      id: 'supply',
      label: 'supply',
      line: 'origin-L',
      neutral: 'origin-N',
      earth: 'E',
      loopOhms: { setting: 'loop' },
    },
    { kind: 'fuse', id: 'breaker', label: 'breaker', a: 'origin-L', b: 'feed-L', amps: { setting: 'breaker' } },
    ...(
      [
        ['pole-L', 'line pole', 'feed-L', 'L'],
        ['pole-N', 'neutral pole', 'origin-N', 'N'],
      ] as const
    ).map(([id, label, a, b]) => ({
      kind: 'contact' as const,
      id,
      label,
      a,
      b,
      closedWhen: { control: 'switch', is: ['on'] },
      failures: [
        neverMakes(`${label} burnt open`, 0.3, 'Replace the switch.'),
        stuckMade(
          `${label} welded: switched off it stays joined`,
          0.1,
          'Replace the switch; isolate before it meanwhile.',
        ),
      ],
    })),
  ],
}
