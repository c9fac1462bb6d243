import { neverMakes, openCircuit, stuckMade } from './failures'
import type { Condition, Contact, DeviceType, Load, TerminalType } from './primitives'

const replace = 'Replace the relay.'
const coilSetting = (watts: number) =>
  ({ id: 'watts', label: 'Coil', unit: 'W', min: 0.3, max: 10, default: watts, origin: 'usual value' }) as const

/** A relay's winding: a power factor of 0.6 and two fifths of its impedance in the wire are usual. */
const coil = (more: Partial<Load>): Load => ({
  kind: 'load',
  id: 'coil',
  label: 'coil',
  from: 'A1',
  to: 'A2',
  watts: { setting: 'watts' },
  powerFactor: 0.6,
  dcPercent: 40,
  failures: [openCircuit('coil open', 2, replace)],
  ...more,
})
const pole = (n: number, [a, b]: readonly [string, string], closedWhen: Condition, remedy: string): Contact => ({
  kind: 'contact',
  id: `pole-${n}`,
  label: `pole ${n}`,
  a,
  b,
  closedWhen,
  failures: [neverMakes(`pole ${n} does not make`, 1.5, remedy), stuckMade(`pole ${n} welded`, 1.5, remedy)],
})
const poles: TerminalType[] = [
  { id: '11', legend: 'Pole 1 common', role: 'contact-feed' },
  { id: '14', legend: 'Pole 1 make', role: 'output' },
  { id: '21', legend: 'Pole 2 common', role: 'output' },
  { id: '24', legend: 'Pole 2 make', role: 'output' },
]
const twoPoles = (remedy: string): Contact[] => [
  pole(1, ['11', '14'], { energised: 'coil' }, remedy),
  pole(2, ['21', '24'], { energised: 'coil' }, remedy),
]

/** One coil, two poles that make together: one to the valve, one to the boiler call. */
export const zoneRelay: DeviceType = {
  id: 'zone-relay-24',
  version: 1,
  name: 'Zone relay, 24 V, two poles',
  family: 'relays',
  stands: 'In the relay panel beside the boiler.',
  about:
    'A 24 V coil pulls two volt-free contacts in together. As a zone relay one pole feeds the valve and the other calls ' +
    'the boiler: the call then proves the relay, not the valve.',
  terminals: [
    { id: 'A1', legend: 'Coil', role: 'input', extraLow: true },
    { id: 'A2', legend: 'Coil common', role: 'input', extraLow: true },
    ...poles,
  ],
  controls: [],
  settings: [coilSetting(1.2)],
  inputs: [],
  primitives: [coil({ volts: 24, withstands: 60 }), ...twoPoles(replace)],
}

/** A coil under mains and two poles apart from it: turns a mains signal into a volt-free one. */
export const mainsRelay: DeviceType = {
  id: 'relay-mains',
  version: 1,
  name: 'Relay, mains coil, two poles',
  family: 'relays',
  stands: 'In the wiring centre or a box beside it.',
  about:
    'A coil under mains volts pulls two volt-free contacts in. It turns a switched live into a volt-free call, or keeps ' +
    'two supplies apart.',
  terminals: [
    { id: 'A1', legend: 'Coil, line', role: 'input' },
    { id: 'A2', legend: 'Coil, neutral', role: 'neutral' },
    ...poles,
  ],
  controls: [],
  settings: [coilSetting(1.5)],
  inputs: [],
  primitives: [coil({}), ...twoPoles(replace)],
}

/** Poles for loads that a relay's would weld at. */
export const contactor: DeviceType = {
  ...mainsRelay,
  id: 'contactor',
  version: 1,
  name: 'Contactor, mains coil, two poles',
  stands: 'On a rail in an enclosure beside the load it switches.',
  about: 'A larger coil and two heavy poles: for elements, large pumps, several fans at once.',
  settings: [coilSetting(4)],
  primitives: [
    coil({ failures: [openCircuit('coil open', 1.5, 'Replace the contactor.')] }),
    ...twoPoles('Replace the contactor.'),
  ],
}

/** Its own transformer feeds a 24 V thermostat and whatever hangs on it; its relay starts a mains fan. */
export const switchingRelay: DeviceType = {
  id: 'switching-relay',
  version: 1,
  name: 'Switching relay with its own 24 V',
  family: 'relays',
  stands: 'On a junction box at the fan convector or the circulator it starts.',
  about:
    'A transformer inside gives 24 V at R and C. A thermostat between R and W pulls in the relay, which passes L on to the ' +
    'switched live; a 24 V zone valve between W and C opens with it.',
  terminals: [
    { id: 'L', legend: 'Mains L', role: 'permanent-live' },
    { id: 'N', legend: 'Mains N', role: 'neutral' },
    { id: 'E', legend: 'Earth', role: 'earth' },
    { id: 'SL', legend: 'Switched live', role: 'output' },
    { id: 'SN', legend: 'Load neutral', role: 'output' },
    { id: 'SE', legend: 'Load earth', role: 'output' },
    { id: 'R', legend: '24 V fed', role: 'output', extraLow: true },
    { id: 'W', legend: 'From the thermostat', role: 'input', extraLow: true },
    { id: 'C', legend: '24 V common', role: 'output', extraLow: true },
  ],
  controls: [],
  settings: [
    { id: 'va', label: 'Rating of its 24 V', unit: 'VA', min: 5, max: 60, default: 40, origin: 'usual value' },
    coilSetting(1.2),
  ],
  inputs: [],
  primitives: [
    { kind: 'load', id: 'primary', label: 'primary', from: 'L', to: 'N', watts: 3, powerFactor: 0.4, dcPercent: 10 },
    {
      kind: 'transformer',
      id: 'windings',
      label: 'windings',
      primary: 'primary',
      fed: 'R',
      common: 'C',
      volts: 24,
      va: { setting: 'va' },
      regulation: 20,
      failures: [openCircuit('winding open', 2, 'Add up the loads first; then replace the relay.')],
    },
    coil({ from: 'W', to: 'C', volts: 24, withstands: 60 }),
    pole(1, ['L', 'SL'], { energised: 'coil' }, replace),
    { kind: 'strap', id: 'neutral-bar', label: 'neutral bar', a: 'N', b: 'SN' },
    { kind: 'strap', id: 'earth-bar', label: 'earth bar', a: 'E', b: 'SE' },
  ],
}
