import { neverMakes, openCircuit, stuckMade } from './failures'
import type { DeviceType } from './primitives'

export const systemBoiler: DeviceType = {
  id: 'boiler-switched-live',
  version: 1,
  name: 'Boiler with permanent live, switched live and pump output',
  about:
    'Stays under permanent live. The switched live calls it: pump on, self-check, then firing. When the call goes the ' +
    'burner goes out at once and the pump output overruns to carry the heat away.',
  terminals: [
    { id: 'L', legend: 'Permanent live', role: 'permanent-live' },
    { id: 'N', legend: 'Neutral', role: 'neutral' },
    { id: 'E', legend: 'Earth', role: 'earth' },
    { id: 'SL', legend: 'Switched live', role: 'input' },
    { id: 'PL', legend: 'Pump live', role: 'output' },
    { id: 'PN', legend: 'Pump neutral', role: 'output' },
    { id: 'PE', legend: 'Pump earth', role: 'output' },
  ],
  controls: [],
  settings: [
    {
      id: 'self-check',
      label: 'Self-check before firing',
      unit: 's',
      min: 0,
      max: 120,
      default: 8,
      origin: 'usual value',
    },
    { id: 'overrun', label: 'Pump overrun', unit: 'min', min: 0, max: 15, default: 5, origin: 'domain: 3 to 10 min' },
    { id: 'watts', label: 'Own draw', unit: 'W', min: 1, max: 150, default: 40, origin: 'usual value' },
  ],
  inputs: [{ id: 'SL', terminal: 'SL', load: 'call' }],
  primitives: [
    {
      kind: 'load',
      id: 'board',
      label: 'board',
      from: 'L',
      to: 'N',
      watts: { setting: 'watts' },
      failures: [openCircuit('board dead', 1, 'Boiler fault: for the maker or a licensed engineer.')],
    },
    {
      kind: 'load',
      id: 'call',
      label: 'call input',
      from: 'SL',
      to: 'N',
      watts: 1,
      failures: [openCircuit('no answer to a call', 1, 'Boiler fault: for the maker or a licensed engineer.')],
    },
    {
      kind: 'behaviour',
      id: 'sequence',
      label: 'sequence',
      behaviour: 'boiler-sequence',
      watches: { powered: 'board', call: 'call' },
      figures: { selfCheckSeconds: { setting: 'self-check' }, overrunMinutes: { setting: 'overrun' } },
    },
    {
      kind: 'contact',
      id: 'pump-relay',
      label: 'pump relay',
      a: 'L',
      b: 'PL',
      closedWhen: { behaviour: 'sequence', in: ['self-check', 'firing', 'overrun'] },
      failures: [
        neverMakes('pump output dead', 1, 'Boiler fault: for the maker or a licensed engineer.'),
        stuckMade('pump relay welded', 0.7, 'Boiler fault: for the maker or a licensed engineer.'),
      ],
    },
    { kind: 'strap', id: 'neutral-bar', label: 'neutral bar', a: 'N', b: 'PN' },
    { kind: 'strap', id: 'earth-bar', label: 'earth bar', a: 'E', b: 'PE' },
  ],
}
