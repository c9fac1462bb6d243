import { neverMakes, neverOperates, openCircuit, stuckMade, stuckOperated } from './failures'
import type { DeviceType } from './primitives'

export const roomThermostat: DeviceType = {
  id: 'room-thermostat-neutral',
  version: 1,
  name: 'Room thermostat with neutral',
  about:
    'A bimetal contact between the feed and the switched live. A small accelerator heater between the switched live ' +
    'and neutral warms the bimetal while it calls, so that it lets go sooner; without the neutral the room swings widely.',
  terminals: [
    { id: 'L', legend: 'Feed', role: 'contact-feed' },
    { id: 'SL', legend: 'Switched live', role: 'output' },
    { id: 'N', legend: 'Neutral', role: 'neutral' },
    { id: 'E', legend: 'Earth', role: 'earth' },
  ],
  controls: [
    { kind: 'number', id: 'set', label: 'Set', unit: '°C', min: 5, max: 30, step: 1, initial: 10 },
    { kind: 'number', id: 'room', label: 'Room', unit: '°C', min: -5, max: 40, step: 0.5, initial: 18, ambient: true },
  ],
  settings: [
    {
      id: 'differential',
      label: 'Differential',
      unit: 'K',
      min: 0.5,
      max: 6,
      default: 3,
      origin: 'domain: 2 K and more without the heater',
    },
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
      kind: 'sensor',
      id: 'bimetal',
      label: 'bimetal',
      reads: 'room',
      setPoint: 'set',
      differential: { setting: 'differential' },
      accelerator: { load: 'accelerator', differential: { setting: 'accelerated' } },
    },
    {
      kind: 'contact',
      id: 'contact',
      label: 'contact',
      a: 'L',
      b: 'SL',
      closedWhen: { sensor: 'bimetal' },
      failures: [
        neverMakes('contact does not make', 2, 'Replace the room thermostat.'),
        stuckMade('contact welded', 1, 'Replace the room thermostat.'),
      ],
    },
    {
      kind: 'load',
      id: 'accelerator',
      label: 'accelerator',
      from: 'SL',
      to: 'N',
      watts: 0.3,
      failures: [openCircuit('accelerator open', 0.3, 'Replace the room thermostat.')],
    },
  ],
}

export const cylinderThermostat: DeviceType = {
  id: 'cylinder-thermostat',
  version: 1,
  name: 'Cylinder thermostat',
  about:
    'Strapped to the cylinder about a third of the way up. A changeover: C is joined to DEMAND while the cylinder is ' +
    'cold and to SATISFIED once it is hot.',
  terminals: [
    { id: 'C', legend: 'Common', role: 'contact-feed' },
    { id: 'DEMAND', legend: 'Demand', role: 'output' },
    { id: 'SATISFIED', legend: 'Satisfied', role: 'output' },
    { id: 'E', legend: 'Earth', role: 'earth' },
  ],
  controls: [
    { kind: 'number', id: 'set', label: 'Set', unit: '°C', min: 40, max: 75, step: 1, initial: 60 },
    {
      kind: 'number',
      id: 'cylinder',
      label: 'Cylinder',
      unit: '°C',
      min: 5,
      max: 95,
      step: 1,
      initial: 65,
      ambient: true,
    },
  ],
  settings: [
    { id: 'differential', label: 'Differential', unit: 'K', min: 4, max: 15, default: 8, origin: 'domain: 6 to 10 K' },
  ],
  inputs: [],
  primitives: [
    {
      kind: 'sensor',
      id: 'phial',
      label: 'sensor',
      reads: 'cylinder',
      setPoint: 'set',
      differential: { setting: 'differential' },
    },
    {
      kind: 'changeover',
      id: 'contact',
      label: 'contact',
      common: 'C',
      no: 'DEMAND',
      nc: 'SATISFIED',
      operatedWhen: { sensor: 'phial' },
      failures: [
        neverOperates('contact does not make', 2, 'Replace the cylinder thermostat.'),
        stuckOperated('contact welded at demand', 1, 'Replace the cylinder thermostat.'),
      ],
    },
  ],
}

/** A battery one, or a plain two-wire contact: it needs no neutral and gives no volts of its own. */
export const voltFreeThermostat: DeviceType = {
  id: 'room-thermostat-volt-free',
  version: 1,
  name: 'Room thermostat, volt-free contact',
  about:
    'A battery works the electronics; the contact between the feed and the switched conductor gives no volts of its ' +
    'own and takes mains or extra-low voltage alike.',
  terminals: [
    { id: 'R', legend: 'Feed', role: 'contact-feed' },
    { id: 'W', legend: 'Switched', role: 'output' },
  ],
  controls: [
    { kind: 'number', id: 'set', label: 'Set', unit: '°C', min: 5, max: 30, step: 0.5, initial: 10 },
    { kind: 'number', id: 'room', label: 'Room', unit: '°C', min: -5, max: 40, step: 0.5, initial: 18, ambient: true },
  ],
  settings: [
    {
      id: 'differential',
      label: 'Differential',
      unit: 'K',
      min: 0.2,
      max: 3,
      default: 0.5,
      origin: 'domain: 0.5 to 1 K',
    },
  ],
  inputs: [],
  primitives: [
    {
      kind: 'sensor',
      id: 'electronics',
      label: 'sensor',
      reads: 'room',
      setPoint: 'set',
      differential: { setting: 'differential' },
    },
    {
      kind: 'contact',
      id: 'contact',
      label: 'contact',
      a: 'R',
      b: 'W',
      closedWhen: { sensor: 'electronics' },
      failures: [
        neverMakes('contact does not make', 2, 'Fresh batteries first, then replace the room thermostat.'),
        stuckMade('contact welded', 1, 'Replace the room thermostat.'),
      ],
    },
  ],
}
