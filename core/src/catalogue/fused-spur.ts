import { blown } from './failures'
import type { DeviceType } from './primitives'

export const fusedSpur: DeviceType = {
  id: 'fused-spur',
  version: 1,
  name: 'Double-pole fused spur',
  about:
    'The one point of isolation. A double-pole switch breaks line and neutral together; a 3 A fuse stands in the line. ' +
    'Upstream of it is the breaker of the circuit that feeds it.',
  terminals: [
    { id: 'L', legend: 'Load L', role: 'output' },
    { id: 'N', legend: 'Load N', role: 'output' },
    { id: 'E', legend: 'Earth', role: 'output' },
    { id: 'origin-L', legend: 'Origin L', role: 'output', internal: true },
    { id: 'origin-N', legend: 'Origin N', role: 'output', internal: true },
    { id: 'feed-L', legend: 'Feed L', role: 'output', internal: true },
    { id: 'switched-L', legend: 'Behind the switch', role: 'output', internal: true },
  ],
  controls: [
    {
      kind: 'choice',
      id: 'switch',
      label: 'Spur switch',
      values: [
        { id: 'off', label: 'Off' },
        { id: 'on', label: 'On' },
      ],
      initial: 'on',
    },
  ],
  settings: [
    { id: 'fuse', label: 'Fuse', unit: 'A', min: 1, max: 13, default: 3, origin: 'usual for heating controls' },
    {
      id: 'breaker',
      label: 'Breaker upstream',
      unit: 'A',
      min: 6,
      max: 40,
      default: 32,
      origin: 'usual socket circuit',
    },
  ],
  inputs: [],
  primitives: [
    { kind: 'source', id: 'supply', label: 'supply', line: 'origin-L', neutral: 'origin-N', earth: 'E' },
    {
      kind: 'fuse',
      id: 'breaker',
      label: 'breaker upstream',
      a: 'origin-L',
      b: 'feed-L',
      amps: { setting: 'breaker' },
    },
    {
      kind: 'contact',
      id: 'pole-L',
      label: 'line pole',
      a: 'feed-L',
      b: 'switched-L',
      closedWhen: { control: 'switch', is: ['on'] },
    },
    {
      kind: 'contact',
      id: 'pole-N',
      label: 'neutral pole',
      a: 'origin-N',
      b: 'N',
      closedWhen: { control: 'switch', is: ['on'] },
    },
    {
      kind: 'fuse',
      id: 'fuse',
      label: 'fuse',
      a: 'switched-L',
      b: 'L',
      amps: { setting: 'fuse' },
      failures: [blown('fuse blown', 2, 'Find what blew it (pump, boiler, trapped cable) before a new fuse goes in.')],
    },
  ],
}
