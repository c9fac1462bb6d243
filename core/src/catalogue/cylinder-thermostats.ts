import { electronics, mainsSupply, ownDraw } from './electronics'
import { feedLost, madeThrowOpen, neverMakes, neverOperates, restThrowOpen, stuckMade, stuckOperated } from './failures'
import type { Changeover, Condition, DeviceType, TerminalType } from './primitives'
import { hygieneWeek } from './weeks'
import { cylinderDial, differential, sensorOf } from './thermostat-parts'

const replace = 'Replace the cylinder thermostat.'
const stands = 'Strapped to the cylinder at about a third of its height.'
const terminals: TerminalType[] = [
  { id: 'C', legend: 'Common', role: 'contact-feed' },
  { id: 'DEMAND', legend: 'Demand', role: 'output' },
  { id: 'SATISFIED', legend: 'Satisfied', role: 'output' },
  { id: 'E', legend: 'Earth', role: 'earth' },
]
const usual = differential(4, 15, 8, 'domain: 6 to 10 K')

const contact = (operatedWhen: Condition): Changeover => ({
  kind: 'changeover',
  id: 'contact',
  label: 'contact',
  common: 'C',
  no: 'DEMAND',
  nc: 'SATISFIED',
  operatedWhen,
  failures: [
    neverOperates('contact does not leave satisfied', 2, replace),
    stuckOperated('contact welded at demand', 1, replace),
    madeThrowOpen('DEMAND contact burnt', 1, replace),
    restThrowOpen('SATISFIED contact burnt', 1, replace),
    feedLost('common contact open', 0.4, replace),
  ],
})

export const cylinderThermostat: DeviceType = {
  id: 'cylinder-thermostat',
  version: 1,
  name: 'Cylinder thermostat',
  family: 'thermostats',
  stands,
  about:
    'Strapped to the cylinder about a third of the way up. A changeover: C is joined to DEMAND while the cylinder is ' +
    'cold and to SATISFIED once it is hot.',
  terminals,
  controls: cylinderDial,
  settings: [usual],
  inputs: [],
  primitives: [sensorOf('phial', 'sensor', 'cylinder'), contact({ sensor: 'phial' })],
}

/** May run a hygiene cycle of its own, but only while its common is fed. */
export const poweredCylinderThermostat: DeviceType = {
  id: 'cylinder-thermostat-powered',
  version: 1,
  name: 'Cylinder thermostat, mains powered',
  family: 'thermostats',
  stands,
  about:
    'Needs permanent live and neutral. Besides its set temperature it may ask for a hygiene run, whatever the cylinder’s ' +
    'temperature, but only while its common is fed. A run looks like a call nobody made: switch it off for a test, and put ' +
    'it back.',
  terminals: [...mainsSupply, ...terminals],
  controls: [...cylinderDial, hygieneControl()],
  settings: [usual, ownDraw(1.5)],
  inputs: [],
  primitives: [
    sensorOf('probe', 'sensor', 'cylinder'),
    electronics('display', replace),
    // The common is felt by the electronics: without a feed there is nothing to run for.
    { kind: 'load', id: 'common', label: 'common sense', from: 'C', to: 'N', ohms: 470_000 },
    contact({
      all: [
        {
          any: [{ sensor: 'probe' }, { all: [{ control: 'hygiene', is: ['running'] }, { energised: 'common' }] }],
        },
        { energised: 'electronics' },
      ],
    }),
  ],
}

/** Whether hygiene runs are allowed, and whether one is under way. */
export function hygieneControl() {
  return {
    kind: 'choice',
    id: 'hygiene',
    label: 'Hygiene run',
    values: [
      { id: 'off', label: 'Switched off' },
      { id: 'waiting', label: 'Waiting' },
      { id: 'running', label: 'Running' },
    ],
    initial: 'waiting',
    ambient: true,
    timed: { turns: true, leaves: ['off'], usual: hygieneWeek },
  } as const
}

/** Shuts the primary of an unvented cylinder that grows too hot, until somebody resets it. */
export const highLimit: DeviceType = {
  id: 'cylinder-high-limit',
  version: 1,
  name: 'High-limit cut-out, manual reset',
  family: 'thermostats',
  stands: 'In the unvented cylinder’s pocket, under the cover of its thermostat.',
  about:
    'In the line to a spring-return valve that closes without power. Above its set temperature it opens and stays open ' +
    'until the cylinder has cooled and the button is pressed. It trips for a reason: find it first.',
  terminals: [
    { id: 'IN', legend: 'Feed', role: 'contact-feed' },
    { id: 'OUT', legend: 'To the valve', role: 'output' },
    { id: 'E', legend: 'Earth', role: 'earth' },
  ],
  controls: [
    {
      kind: 'choice',
      id: 'reset',
      label: 'Reset button',
      values: [
        { id: 'in', label: 'In' },
        { id: 'tripped', label: 'Tripped' },
      ],
      initial: 'in',
      ambient: true,
    },
    { kind: 'number', id: 'set', label: 'Trips at', unit: '°C', min: 70, max: 95, step: 1, initial: 80 },
    {
      kind: 'number',
      id: 'cylinder',
      label: 'Cylinder',
      unit: '°C',
      min: 5,
      max: 99,
      step: 1,
      initial: 60,
      ambient: true,
      feels: 'cylinder',
    },
  ],
  settings: [differential(2, 30, 10, 'usual value')],
  inputs: [],
  primitives: [
    { ...sensorOf('phial', 'limit', 'cylinder'), throws: { control: 'reset', to: 'tripped' } },
    {
      kind: 'contact',
      id: 'contact',
      label: 'contact',
      a: 'IN',
      b: 'OUT',
      closedWhen: { control: 'reset', is: ['in'] },
      failures: [
        neverMakes('contact does not make', 1, 'Replace the high limit.'),
        stuckMade('contact welded: the limit cannot act', 0.3, 'Isolate and replace the high limit at once.'),
      ],
    },
  ],
}
