import { blown, openCircuit } from './failures'
import { endSwitch, endSwitchSetting, lever, port, springDrive, springSettings } from './motor'
import type { DeviceType } from './primitives'

/** Extra-low-voltage windings and electronics stand about this much before they burn out, V: a usual value. */
const withstands = 60

export const transformer: DeviceType = {
  id: 'transformer-24',
  version: 1,
  name: 'Transformer, 24 V',
  family: 'relays',
  stands: 'In the plant cupboard, on a box or beside the panel.',
  about:
    'Two windings: nothing joins the 24 V side to the mains, so it floats. Loaded beyond its rating its voltage falls, ' +
    'until its own fuse opens.',
  terminals: [
    { id: 'L', legend: 'Mains L', role: 'permanent-live' },
    { id: 'N', legend: 'Mains N', role: 'neutral' },
    { id: 'E', legend: 'Earth', role: 'earth' },
    { id: 'V', legend: '24 V fed', role: 'output', extraLow: true },
    { id: 'C', legend: '24 V common', role: 'output', extraLow: true },
    { id: 'winding', legend: 'Secondary', role: 'output', extraLow: true, internal: true },
  ],
  controls: [],
  settings: [
    { id: 'va', label: 'Rating', unit: 'VA', min: 5, max: 100, default: 40, origin: 'domain: 40 VA usual' },
    { id: 'volts', label: 'Secondary at full load', unit: 'V', min: 12, max: 48, default: 24, origin: 'domain: 24 V' },
    {
      id: 'regulation',
      label: 'Rise from full load to none',
      unit: '%',
      min: 2,
      max: 60,
      default: 20,
      origin: 'usual for so small a transformer',
    },
    { id: 'fuse', label: 'Its own fuse', unit: 'A', min: 0.5, max: 8, default: 2, origin: 'usual for 40 VA' },
  ],
  inputs: [],
  primitives: [
    { kind: 'load', id: 'primary', label: 'primary', from: 'L', to: 'N', watts: 3, powerFactor: 0.4, dcPercent: 10 },
    {
      kind: 'transformer',
      id: 'windings',
      label: 'windings',
      primary: 'primary',
      fed: 'winding',
      common: 'C',
      volts: { setting: 'volts' },
      va: { setting: 'va' },
      regulation: { setting: 'regulation' },
      failures: [openCircuit('winding open', 2, 'Add up the loads first; then replace the transformer.')],
    },
    {
      kind: 'fuse',
      id: 'fuse',
      label: 'secondary fuse',
      a: 'winding',
      b: 'V',
      amps: { setting: 'fuse' },
      failures: [blown('secondary fuse blown', 2, 'Find the short or the load too many before a new fuse goes in.')],
    },
  ],
}

const load = { volts: 24, withstands, ratedMinutes: { setting: 'rated' } }

export const lowVoltageValve: DeviceType = {
  id: 'zone-valve-24',
  version: 2,
  name: 'Zone valve, 24 V',
  family: 'valves',
  stands: 'In the plant cupboard, on the pipe it serves.',
  about:
    'Two motor leads take 24 V, either way round; the motor drives open against a spring and stalls. Two more leads are ' +
    'the end switch, joined to nothing else in the valve.',
  terminals: [
    { id: 'M1', legend: 'Motor', role: 'input', lead: 'yellow', extraLow: true },
    { id: 'M2', legend: 'Motor', role: 'input', lead: 'yellow', extraLow: true },
    { id: 'S1', legend: 'End switch', role: 'output', lead: 'red' },
    { id: 'S2', legend: 'End switch', role: 'output', lead: 'red' },
  ],
  controls: [lever],
  settings: [
    ...springSettings(5.6, 'domain: about 7 VA; 0.8 of it'),
    endSwitchSetting,
    {
      id: 'rated',
      label: 'Rated for without a pause',
      unit: 'min',
      min: 0,
      max: 240,
      default: 0,
      origin: 'domain: about 7 VA continuous; those without a continuous rating overheat. 0 is continuous',
    },
  ],
  inputs: [],
  primitives: [...springDrive('M1', 'M2', { load }), port('outlet', 'outlet', 0.02, 1), endSwitch('S1', 'S2')],
}

/** Screws instead of leads: one of the three is only a tie point. */
export const threeScrewValve: DeviceType = {
  ...lowVoltageValve,
  id: 'zone-valve-24-three-screw',
  version: 1,
  name: 'Zone valve, 24 V, three screws',
  about:
    'As the valve with leads, but with three screws: the fed end of the motor, its other end, and a bare tie point that is ' +
    'joined to nothing within the valve. Through the tie point the transformer’s other side may pass on to the thermostat.',
  terminals: [
    { id: 'F', legend: 'Motor, fed end', role: 'input', extraLow: true },
    { id: 'M', legend: 'Motor, other end', role: 'input', extraLow: true },
    { id: 'TIE', legend: 'Tie point', role: 'output', extraLow: true, bare: true },
    ...lowVoltageValve.terminals.filter((t) => t.id.startsWith('S')),
  ],
  primitives: [
    ...springDrive('F', 'M', { load }),
    ...lowVoltageValve.primitives.filter((p) => p.kind !== 'load' && p.kind !== 'actuator'),
  ],
}
