import { hygieneControl } from './cylinder-thermostats'
import { changeover, changeoverTerminals, electronics, mainsSupply, ownDraw } from './electronics'
import { neverAsks, openCircuit, silentPort } from './failures'
import type { Condition, Control, DeviceType, Sensor } from './primitives'
import { electronicDifferential, roomDial, sensorOf, timedDial } from './thermostat-parts'
import { hotWaterWeek } from './weeks'

const replace = 'Replace the receiver.'
const stands = 'In the plant cupboard, at the distance from pipes and metal that its maker asks for.'
const board = electronics('lamps', replace)
const relay = (id: string, label: string, prefix: string, operatedWhen: Condition) =>
  changeover({ id, label, prefix, remedy: replace, operatedWhen })

/** What its lamp says of the radio link to its thermostat. */
const radio: Control = {
  kind: 'choice',
  id: 'link',
  label: 'Radio link',
  values: [
    { id: 'heard', label: 'Heard' },
    { id: 'lost', label: 'Lost' },
    { id: 'fallback', label: 'Lost, fallback on' },
  ],
  initial: 'heard',
  ambient: true,
}
/** The quickest way to raise a demand. */
const button = (id: string, label: string): Control => ({
  kind: 'choice',
  id,
  label,
  values: [
    { id: 'auto', label: 'Auto' },
    { id: 'on', label: 'Pressed on' },
  ],
  initial: 'auto',
  ambient: true,
})
const probe: Sensor = {
  ...sensorOf('probe', 'wireless thermostat', 'room'),
  failures: [neverAsks('battery of the wireless thermostat flat', 2, 'Fresh batteries, then pair it again.')],
}
/** The wireless thermostat asks and is heard; or, with the link lost, the fallback duty is in its on part. */
const calls: Condition = {
  any: [
    { all: [{ sensor: 'probe' }, { control: 'link', is: ['heard'] }] },
    { control: 'link', is: ['fallback'] },
    { control: 'button', is: ['on'] },
  ],
}

export const wirelessReceiver: DeviceType = {
  id: 'wireless-receiver',
  version: 1,
  name: 'Wireless receiver with its thermostat',
  family: 'timing',
  stands,
  about:
    'The receiver listens for its thermostat and works one volt-free changeover; COM needs a feed, by a link in the receiver ' +
    'or on a core of its own. Link lost, the contact drops out, or goes on and off on a fallback duty. Lamps show link and ' +
    'call; the button raises a demand on the spot.',
  terminals: [...mainsSupply, ...changeoverTerminals()],
  controls: [...roomDial, radio, button('button', 'Button')],
  settings: [electronicDifferential, ownDraw(2)],
  inputs: [],
  primitives: [board, probe, relay('contact', 'contact', '', { all: [calls, { energised: 'electronics' }] })],
}

const hotWaterTimes: Control = {
  kind: 'choice',
  id: 'hot-water',
  label: 'Hot water',
  values: [
    { id: 'off', label: 'Off' },
    { id: 'timed', label: 'Timed', seldom: true },
    { id: 'on', label: 'On' },
  ],
  initial: 'off',
  timed: { usual: hotWaterWeek },
}
const hotWaterOn: Condition = {
  any: [
    { control: 'hot-water', is: ['on'] },
    { all: [{ control: 'hot-water', is: ['timed'] }, { timed: 'hot-water' }] },
  ],
}
/** Whether its own week turns the set-point. */
const weekMode: Control = {
  kind: 'choice',
  id: 'week',
  label: 'Set-point',
  values: [
    { id: 'hand', label: 'By hand' },
    { id: 'followed', label: 'By its week' },
  ],
  initial: 'hand',
  ambient: true,
}

/** Times and controls heating; hot water it only times. */
export const smartReceiver: DeviceType = {
  id: 'smart-receiver-two-channel',
  version: 1,
  name: 'Two-channel smart receiver with its thermostat',
  family: 'timing',
  stands,
  about:
    'Two volt-free changeovers, both commons linked from L by hand. Heating it times and controls by its thermostat; hot ' +
    'water it only times: that NO goes to the cylinder thermostat’s common. Two extra-low-voltage terminals take a wired ' +
    'thermostat, never mains. Scheduled hygiene runs look like a call nobody made: switched off for a test, they must be ' +
    'put back.',
  terminals: [
    ...mainsSupply,
    ...changeoverTerminals('H-', 'Heating'),
    ...changeoverTerminals('W-', 'Hot water'),
    { id: 'T1', legend: 'Wired thermostat', role: 'output', extraLow: true },
    { id: 'T2', legend: 'Wired thermostat', role: 'input', extraLow: true },
  ],
  controls: [
    hotWaterTimes,
    weekMode,
    ...timedDial({ control: 'week', is: ['followed'] }),
    radio,
    button('button', 'Heating button'),
    hygieneControl(),
  ],
  settings: [electronicDifferential, ownDraw(2)],
  inputs: [],
  primitives: [
    board,
    {
      kind: 'transformer',
      id: 'supply',
      label: 'thermostat supply',
      primary: 'electronics',
      fed: 'T1',
      common: 'N',
      volts: 5,
      va: 0.5,
      regulation: 40,
    },
    {
      kind: 'load',
      id: 'wired',
      label: 'wired thermostat input',
      from: 'T2',
      to: 'N',
      ohms: 2200,
      volts: 5,
      withstands: 30,
      failures: [openCircuit('wired thermostat input burnt', 0.3, replace)],
    },
    probe,
    relay('heating', 'heating relay', 'H-', {
      all: [{ any: [...('any' in calls ? calls.any : []), { energised: 'wired' }] }, { energised: 'electronics' }],
    }),
    relay('water', 'hot water relay', 'W-', {
      all: [
        {
          any: [hotWaterOn, { control: 'hygiene', is: ['running'] }],
        },
        { energised: 'electronics' },
      ],
    }),
  ],
}

/** Talks to the boiler; while it is answered its own relays stay out. */
export const busReceiver: DeviceType = {
  id: 'bus-receiver',
  version: 1,
  name: 'Receiver with a digital bus, and its thermostat',
  family: 'timing',
  stands: 'Beside the boiler, two wires away from its bus terminals.',
  about:
    'Asks the boiler over two extra-low-voltage wires, either way round, for the flow temperature it wants, and reads flow, ' +
    'return, flame, hot water and fault. While it is answered its relays are disabled. Answers take seconds. It has to be ' +
    'told what kind of system it is on.',
  terminals: [
    ...mainsSupply,
    { id: 'B1', legend: 'Bus', role: 'input', extraLow: true },
    { id: 'B2', legend: 'Bus', role: 'input', extraLow: true },
    ...changeoverTerminals('H-', 'Heating'),
    ...changeoverTerminals('W-', 'Hot water'),
  ],
  controls: [
    hotWaterTimes,
    weekMode,
    ...timedDial({ control: 'week', is: ['followed'] }),
    radio,
    button('button', 'Heating button'),
    {
      kind: 'number',
      id: 'flow',
      label: 'Flow wanted',
      unit: '°C',
      min: 25,
      max: 80,
      step: 1,
      initial: 55,
      ambient: true,
    },
  ],
  settings: [
    electronicDifferential,
    ownDraw(2),
    { id: 'answer', label: 'Answers take', unit: 's', min: 1, max: 30, default: 4, origin: 'domain: seconds' },
    {
      id: 'system',
      label: 'Kind of system',
      unit: '0 or 1',
      min: 0,
      max: 1,
      default: 0,
      origin: 'domain: set-up matters',
      choices: [
        { value: 0, label: 'heating only' },
        { value: 1, label: 'heating and hot water' },
      ],
    },
  ],
  inputs: [],
  primitives: [
    board,
    probe,
    {
      kind: 'load',
      id: 'port',
      label: 'bus input',
      from: 'B1',
      to: 'B2',
      watts: 0.1,
      volts: 24,
      withstands: 60,
      failures: [openCircuit('bus input burnt', 0.4, replace)],
    },
    {
      kind: 'bus',
      id: 'bus',
      label: 'bus',
      a: 'B1',
      b: 'B2',
      powered: 'electronics',
      heard: 'port',
      role: 'controller',
      requests: {
        heating: calls,
        'hot-water': {
          all: [hotWaterOn, { setting: 'system', is: 1 }],
        },
      },
      flow: 'flow',
      answerSeconds: { setting: 'answer' },
      failures: [silentPort('bus silent', 0.8, replace)],
    },
    relay('heating', 'heating relay', 'H-', {
      all: [calls, { energised: 'electronics' }, { not: { linked: 'bus' } }],
    }),
    relay('water', 'hot water relay', 'W-', {
      all: [hotWaterOn, { energised: 'electronics' }, { not: { linked: 'bus' } }],
    }),
  ],
}
