import { neverMakes, openCircuit, stuckMade } from './failures'
import type { DeviceType } from './primitives'

/** One coil, two poles that make together: one to the valve, one to the boiler call. */
export const zoneRelay: DeviceType = {
  id: 'zone-relay-24',
  version: 1,
  name: 'Zone relay, 24 V, two poles',
  about:
    'A 24 V coil pulls two volt-free contacts in together. As a zone relay one pole feeds the valve and the other calls ' +
    'the boiler: the call then proves the relay, not the valve.',
  terminals: [
    { id: 'A1', legend: 'Coil', role: 'input', extraLow: true },
    { id: 'A2', legend: 'Coil common', role: 'input', extraLow: true },
    { id: '11', legend: 'Pole 1 common', role: 'contact-feed' },
    { id: '14', legend: 'Pole 1 make', role: 'output' },
    { id: '21', legend: 'Pole 2 common', role: 'output' },
    { id: '24', legend: 'Pole 2 make', role: 'output' },
  ],
  controls: [],
  settings: [{ id: 'watts', label: 'Coil', unit: 'W', min: 0.3, max: 5, default: 1.2, origin: 'usual value' }],
  inputs: [],
  primitives: [
    {
      kind: 'load',
      id: 'coil',
      label: 'coil',
      from: 'A1',
      to: 'A2',
      watts: { setting: 'watts' },
      volts: 24,
      powerFactor: 0.6,
      dcPercent: 40,
      withstands: 60,
      failures: [openCircuit('coil open', 2, 'Replace the relay.')],
    },
    ...(['11', '21'] as const).map((common, i) => ({
      kind: 'contact' as const,
      id: `pole-${i + 1}`,
      label: `pole ${i + 1}`,
      a: common,
      b: common === '11' ? '14' : '24',
      closedWhen: { energised: 'coil' },
      failures: [
        neverMakes(`pole ${i + 1} does not make`, 1.5, 'Replace the relay.'),
        stuckMade(`pole ${i + 1} welded`, 1.5, 'Replace the relay.'),
      ],
    })),
  ],
}
