import { jammed, neverMakes, openCircuit, stuckMade } from './failures'
import type { DeviceType, TerminalType } from './primitives'
import { contactOf, differential, sensorOf } from './thermostat-parts'

const terminals = (live: string): TerminalType[] => [
  { id: 'L', legend: live, role: 'input' },
  { id: 'N', legend: 'Neutral', role: 'neutral' },
  { id: 'E', legend: 'Earth', role: 'earth' },
]

/** A fan over a water coil. It waits until the water is warm. */
export const fanConvector: DeviceType = {
  id: 'fan-convector',
  version: 1,
  name: 'Fan convector with a low-limit thermostat',
  family: 'water',
  stands: 'In the room it warms, at the plinth or on the wall.',
  about:
    'A fan blows over a coil of hot water. Its low-limit thermostat keeps the fan still until the water in the coil is ' +
    'warm, so that no cold air is blown.',
  terminals: [
    ...terminals('Switched live'),
    { id: 'warm', legend: 'Behind the low limit', role: 'output', internal: true },
  ],
  controls: [
    { kind: 'number', id: 'set', label: 'Low limit', unit: '°C', min: 20, max: 50, step: 1, initial: 35 },
    {
      kind: 'number',
      id: 'coil',
      label: 'Coil',
      unit: '°C',
      min: 5,
      max: 90,
      step: 1,
      initial: 55,
      ambient: true,
      feels: 'emitter',
    },
  ],
  settings: [
    { id: 'watts', label: 'Fan', unit: 'W', min: 10, max: 200, default: 45, origin: 'usual value' },
    differential(2, 15, 6, 'usual value'),
    {
      id: 'output',
      label: 'Output with water and room 50 K apart',
      unit: 'W',
      min: 200,
      max: 20_000,
      default: 3000,
      origin: 'by the size of the house',
    },
  ],
  inputs: [],
  primitives: [
    { kind: 'waterway', id: 'water', label: 'coil', from: 'in', to: 'out', kpa: 20 },
    {
      kind: 'emitter',
      id: 'heat',
      label: 'coil',
      way: 'water',
      into: 'room',
      watts: { setting: 'output' },
      kelvin: 50,
      capacity: 3,
      when: { works: 'fan' },
      rise: 0,
    },
    sensorOf('low-limit', 'low limit', 'coil'),
    {
      kind: 'contact',
      id: 'low-limit-contact',
      label: 'low-limit thermostat',
      a: 'L',
      b: 'warm',
      closedWhen: { not: { sensor: 'low-limit' } },
      failures: [
        neverMakes('low-limit thermostat does not make', 1.5, 'Replace the low-limit thermostat.'),
        stuckMade('low-limit thermostat welded: blows cold air', 0.7, 'Replace the low-limit thermostat.'),
      ],
    },
    {
      kind: 'load',
      id: 'fan',
      label: 'fan',
      from: 'warm',
      to: 'N',
      watts: { setting: 'watts' },
      powerFactor: 0.7,
      dcPercent: 30,
      work: 'runs',
      failures: [
        openCircuit('fan winding open', 1.5, 'Replace the fan motor.'),
        jammed('fan seized', 1.5, 'Clean it; replace the fan motor.'),
      ],
    },
  ],
}

/** Heats the cylinder from a supply of its own, called or not. */
export const immersionHeater: DeviceType = {
  id: 'immersion-heater',
  version: 1,
  name: 'Immersion heater with its thermostat',
  family: 'water',
  stands: 'In the cylinder; its thermostat may lie under the same cover as the cylinder thermostat.',
  about:
    'An element and its thermostat on a supply and switch of their own. The hot water is hot, and neither circuit was ever ' +
    'called; and isolating the heating controls leaves it live.',
  terminals: [
    ...terminals('Line').map((t) => (t.id === 'L' ? { ...t, role: 'permanent-live' as const } : t)),
    { id: 'SL', legend: 'Behind its thermostat', role: 'output', internal: true },
  ],
  controls: [
    { kind: 'number', id: 'set', label: 'Set', unit: '°C', min: 40, max: 75, step: 1, initial: 55 },
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
      feels: 'cylinder',
    },
  ],
  settings: [
    { id: 'watts', label: 'Element', unit: 'W', min: 500, max: 6000, default: 3000, origin: 'usual value' },
    differential(4, 15, 8, 'usual value'),
  ],
  inputs: [],
  primitives: [
    sensorOf('rod', 'rod thermostat', 'cylinder'),
    contactOf('L', 'SL', { sensor: 'rod' }, 'Replace the rod thermostat.'),
    {
      kind: 'load',
      id: 'element',
      label: 'element',
      work: 'heats',
      from: 'SL',
      to: 'N',
      watts: { setting: 'watts' },
      failures: [openCircuit('element open', 2, 'Drain down and replace the element.')],
    },
    {
      kind: 'heat-source',
      id: 'heat',
      label: 'element',
      when: { works: 'element' },
      most: { setting: 'watts' },
      least: { setting: 'watts' },
    },
  ],
}
