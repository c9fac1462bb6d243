import { changeover, changeoverTerminals, electronics, mainsSupply, ownDraw } from './electronics'
import { neverAsks, openCircuit } from './failures'
import type { DeviceType, TerminalType } from './primitives'
import {
  contactOf,
  differential,
  electronicDifferential,
  onTheWall,
  roomDial,
  sensorOf,
  timedDial,
} from './thermostat-parts'

const replace = 'Replace the room thermostat.'
const feed: TerminalType = { id: 'L', legend: 'Feed', role: 'contact-feed' }
const switched: TerminalType = { id: 'SL', legend: 'Switched live', role: 'output' }
const earth: TerminalType = { id: 'E', legend: 'Earth', role: 'earth' }
export const roomThermostat: DeviceType = {
  id: 'room-thermostat-neutral',
  version: 2,
  name: 'Room thermostat with neutral',
  family: 'thermostats',
  stands: onTheWall,
  about:
    'A bimetal contact between the feed and the switched live. A small accelerator heater between the switched live ' +
    'and neutral warms the bimetal while it calls, so that it lets go sooner; without the neutral the room swings widely.',
  terminals: [feed, switched, { id: 'N', legend: 'Neutral', role: 'neutral' }, earth],
  controls: roomDial.map((c) => ({ ...c, ...(c.id === 'set' ? { step: 1 } : {}) })),
  settings: [
    differential(0.5, 6, 3, 'domain: 2 K and more without the heater'),
    {
      id: 'accelerated',
      label: 'Differential with accelerator',
      unit: 'K',
      min: 0.2,
      max: 3,
      default: 1,
      origin: 'usual value',
    },
  ],
  inputs: [],
  primitives: [
    {
      ...sensorOf('bimetal', 'bimetal', 'room'),
      accelerator: { load: 'accelerator', differential: { setting: 'accelerated' } },
    },
    contactOf('L', 'SL', { sensor: 'bimetal' }, replace),
    {
      kind: 'load',
      id: 'accelerator',
      label: 'accelerator',
      from: 'SL',
      to: 'N',
      watts: 0.3,
      failures: [openCircuit('accelerator open', 0.3, replace)],
    },
  ],
}

/** A plain bimetal in the line. */
export const twoWireThermostat: DeviceType = {
  id: 'room-thermostat-two-wire',
  version: 1,
  name: 'Room thermostat, two-wire',
  family: 'thermostats',
  stands: onTheWall,
  about:
    'A bimetal contact and nothing else: it clicks, needs no neutral, and swings by two kelvin and more. It passes mains or ' +
    'extra-low voltage alike.',
  terminals: [feed, switched, earth],
  controls: roomDial.map((c) => ({ ...c, ...(c.id === 'set' ? { step: 1 } : {}) })),
  settings: [differential(1, 6, 2.5, 'domain: 2 K and more')],
  inputs: [],
  primitives: [sensorOf('bimetal', 'bimetal', 'room'), contactOf('L', 'SL', { sensor: 'bimetal' }, replace)],
}

/** A battery one: it needs no neutral and gives no volts of its own. */
export const voltFreeThermostat: DeviceType = {
  id: 'room-thermostat-volt-free',
  version: 2,
  name: 'Room thermostat, volt-free contact',
  family: 'thermostats',
  stands: onTheWall,
  about:
    'A battery works the electronics; the contact between the feed and the switched conductor gives no volts of its ' +
    'own and takes mains or extra-low voltage alike.',
  terminals: [
    { id: 'R', legend: 'Feed', role: 'contact-feed' },
    { id: 'W', legend: 'Switched', role: 'output' },
  ],
  controls: roomDial,
  settings: [electronicDifferential],
  inputs: [],
  primitives: [
    { ...sensorOf('electronics', 'sensor', 'room'), failures: [neverAsks('battery flat', 2, 'Fresh batteries.')] },
    contactOf('R', 'W', { sensor: 'electronics' }, replace),
  ],
}

const board = electronics('display', replace)

export const poweredThermostat: DeviceType = {
  id: 'room-thermostat-powered',
  version: 1,
  name: 'Room thermostat, mains powered',
  family: 'thermostats',
  stands: onTheWall,
  about:
    'Permanent live and neutral work the electronics; a changeover contact stands apart and needs a feed of its own, often ' +
    'a link from L.',
  terminals: [...mainsSupply, ...changeoverTerminals()],
  controls: roomDial,
  settings: [electronicDifferential, ownDraw(1.5)],
  inputs: [],
  primitives: [
    sensorOf('probe', 'sensor', 'room'),
    board,
    changeover({ remedy: replace, operatedWhen: { all: [{ sensor: 'probe' }, { energised: 'electronics' }] } }),
  ],
}

/** Keeps its own times; fed from permanent live, or through the programmer's heating channel. */
export const programmableThermostat: DeviceType = {
  ...poweredThermostat,
  id: 'room-thermostat-programmable',
  version: 1,
  name: 'Programmable room thermostat',
  about:
    'Its own clock changes the temperature it asks for. Fed from permanent live, the programmer’s heating channel does ' +
    'nothing any more: tell the user and label it. Fed through that channel, both have to be on.',
  controls: [
    {
      kind: 'choice',
      id: 'mode',
      label: 'Mode',
      values: [
        { id: 'off', label: 'Off' },
        { id: 'on', label: 'Heat' },
        { id: 'timed', label: 'By its week', seldom: true },
      ],
      initial: 'on',
    },
    ...timedDial({ control: 'mode', is: ['timed'] }),
  ],
  // Its live may come through a channel: it needs a feed, not a permanent one.
  terminals: [{ id: 'L', legend: 'Live', role: 'contact-feed' }, mainsSupply[1], ...changeoverTerminals()],
  primitives: [
    sensorOf('probe', 'sensor', 'room'),
    board,
    changeover({
      remedy: replace,
      operatedWhen: {
        all: [{ control: 'mode', is: ['on', 'timed'] }, { sensor: 'probe' }, { energised: 'electronics' }],
      },
    }),
  ],
}

/** Starts heating before the pipes freeze, whatever the programmer says. */
export const frostThermostat: DeviceType = {
  id: 'frost-thermostat',
  version: 1,
  name: 'Frost thermostat',
  family: 'thermostats',
  stands: 'In the coldest place with pipes in it: garage, loft, boiler room.',
  about:
    'A bimetal contact that closes in the cold, from permanent live past the programmer to the heating valve’s motor. In ' +
    'series with a pipe thermostat it lets go once the pipes are warm. With several zones it back-feeds the common ' +
    'heating ON through thermostats that are closed.',
  terminals: [feed, switched, earth],
  controls: [
    { kind: 'number', id: 'set', label: 'Set', unit: '°C', min: 0, max: 15, step: 1, initial: 5 },
    {
      kind: 'number',
      id: 'air',
      label: 'Air',
      unit: '°C',
      min: -20,
      max: 30,
      step: 1,
      initial: 12,
      ambient: true,
      feels: 'room',
    },
  ],
  settings: [differential(0.5, 4, 2, 'usual value')],
  inputs: [],
  primitives: [sensorOf('bimetal', 'bimetal', 'air'), contactOf('L', 'SL', { sensor: 'bimetal' }, 'Replace it.')],
}

export const pipeThermostat: DeviceType = {
  id: 'pipe-thermostat',
  version: 1,
  name: 'Pipe thermostat',
  family: 'thermostats',
  stands: 'Strapped to the return, in series with the frost thermostat.',
  about: 'Closed while the pipe it is strapped to is cold; lets go once water at the set temperature comes back.',
  terminals: [feed, switched, earth],
  controls: [
    { kind: 'number', id: 'set', label: 'Set', unit: '°C', min: 5, max: 60, step: 1, initial: 25 },
    {
      kind: 'number',
      id: 'pipe',
      label: 'Pipe',
      unit: '°C',
      min: -10,
      max: 95,
      step: 1,
      initial: 15,
      ambient: true,
      feels: 'return',
    },
  ],
  settings: [differential(1, 10, 6, 'usual value')],
  inputs: [],
  primitives: [sensorOf('phial', 'sensor', 'pipe'), contactOf('L', 'SL', { sensor: 'phial' }, 'Replace it.')],
}
