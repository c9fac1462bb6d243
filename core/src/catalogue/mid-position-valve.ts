import {
  madeThrowOpen,
  neverOperates,
  openCircuit,
  restThrowOpen,
  seizedOpen,
  seizedPartWay,
  seizedShut,
  shortCircuited,
  springBroken,
  stuckOperated,
} from './failures'
import { lever, leverLatch, motorFailures, motorSettings, motorWinding, port } from './motor'
import type { DeviceType } from './primitives'

const head = 'Replace the head.'

/**
 * Travel 0 is B (hot water), 0.5 the middle, 1 is A (heating). Two changeovers stand on the gear: S1 moves the motor
 * from white to grey at the middle; S2, near A, moves white from the holding supply to orange.
 */
export const midPositionValve: DeviceType = {
  id: 'mid-position-valve',
  version: 3,
  name: 'Three-port valve, mid-position',
  family: 'valves',
  stands: 'In the cylinder cupboard, where the flow divides.',
  about:
    'Rests open to B. White drives it to the middle, where a switch on the gear hands the motor over to grey; if grey is ' +
    'dead, half-waves from white through a diode and resistor hold it there. With grey live too it goes on to A, stalls ' +
    'against its stop and passes white on to orange. Grey alone moves it only from the middle onwards.',
  terminals: [
    { id: 'W', legend: 'Heating', role: 'input', lead: 'white' },
    { id: 'G', legend: 'Hot water off', role: 'input', lead: 'grey' },
    { id: 'O', legend: 'Boiler', role: 'output', lead: 'orange' },
    { id: 'N', legend: 'Neutral', role: 'neutral', lead: 'blue' },
    { id: 'E', legend: 'Earth', role: 'earth', lead: 'green-yellow' },
    { id: 'node', legend: 'Motor', role: 'input', internal: true },
    { id: 'hold', legend: 'Holding supply', role: 'output', internal: true },
  ],
  controls: [lever],
  settings: [
    { id: 'open', label: 'Travel from B to A', unit: 's', min: 5, max: 60, default: 20, origin: 'domain: 10 to 20 s' },
    { id: 'return', label: 'Return from A to B', unit: 's', min: 1, max: 20, default: 6, origin: 'domain: 4 to 6 s' },
    ...motorSettings(7, 'measured on one valve of the common kind: 7 W driving and stalled, power factor 0.75', 40),
    {
      id: 'hold',
      label: 'Resistor of the holding supply',
      unit: 'Ω',
      min: 500,
      max: 20000,
      default: 6750,
      origin: 'measured on one valve of the common kind: the whole valve then takes about 3 W held',
    },
  ],
  inputs: [],
  primitives: [
    {
      kind: 'load',
      id: 'motor',
      label: 'motor',
      from: 'node',
      to: 'N',
      ...motorWinding,
      powerFactor: 0.75,
      holdsOn: 8,
      failures: motorFailures,
    },
    {
      kind: 'actuator',
      id: 'travel',
      label: 'travel',
      drivenBy: 'motor',
      openSeconds: { setting: 'open' },
      returnSeconds: { setting: 'return' },
      ends: { shut: 'at B', open: 'at A', part: 'at mid' },
      lever: true,
      latch: leverLatch,
      failures: [
        seizedShut('seized at B', 2, 'Replace the whole valve: the body is seized.'),
        seizedOpen('seized at A', 1, 'Head off, turn the spindle by hand: free, replace the head; stiff, the valve.'),
        seizedPartWay('seized half way', 0.7, 'Replace the whole valve: the body is seized.'),
        springBroken('spring broken', 0.5, head),
      ],
    },
    // A paddle shuts a port only on its seat: on the way between its ends both are open, more or less.
    port('A', 'heating port', 0.05, 1, ['AB', 'A']),
    port('B', 'hot water port', 0, 0.94, ['AB', 'B']),
    {
      kind: 'changeover',
      id: 's1',
      label: 'middle switch',
      common: 'node',
      nc: 'W',
      no: 'G',
      operatedWhen: { actuator: 'travel', reached: 0.5, releasedAt: 0.45 },
      failures: [
        neverOperates('middle switch stuck on white', 1.5, head),
        stuckOperated('middle switch stuck on grey', 1.5, head),
        madeThrowOpen('middle switch: grey contact open', 1, head),
        restThrowOpen('middle switch: white contact open', 1, head),
      ],
    },
    {
      kind: 'changeover',
      id: 's2',
      label: 'end switch',
      common: 'W',
      nc: 'hold',
      no: 'O',
      operatedWhen: { actuator: 'travel', reached: 0.95, releasedAt: 0.9 },
      failures: [
        neverOperates('end switch never makes', 4, head),
        stuckOperated('end switch stuck at A', 4, head),
        madeThrowOpen('end switch: orange contact burnt', 1, head),
        restThrowOpen('end switch: contact to the holding supply open', 0.5, head),
      ],
    },
    {
      kind: 'diode',
      id: 'hold-path',
      label: 'holding supply',
      anode: 'hold',
      cathode: 'node',
      ohms: { setting: 'hold' },
      failures: [openCircuit('holding supply open', 1, head), shortCircuited('diode short', 0.5, head)],
    },
  ],
}
