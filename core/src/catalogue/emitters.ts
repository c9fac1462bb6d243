import type { DeviceType, Primitive, Setting } from './primitives'
import { weekOf } from './weeks'

const rise: Setting = {
  id: 'rise',
  label: 'Height above the boiler, where water moves by its warmth',
  unit: 'm',
  min: 0,
  max: 10,
  default: 0,
  origin: '0: piped for a pump',
}
const resistance = (kpa: number, origin = 'usual value'): Setting => ({
  id: 'resistance',
  label: 'Pressure lost at 1000 l/h',
  unit: 'kPa',
  min: 0.5,
  max: 3000,
  default: kpa,
  origin,
})
const output = (watts: number, at: string): Setting => ({
  id: 'output',
  label: `Output with water and room ${at} apart`,
  unit: 'W',
  min: 50,
  max: 60_000,
  default: watts,
  origin: 'by the size of the house, where that is chosen',
})
const capacity = (wattHours: number, of: string): Setting => ({
  id: 'capacity',
  label: `Heat held by its ${of}`,
  unit: 'Wh/K',
  min: 0.1,
  max: 2000,
  default: wattHours,
  origin: 'usual value',
})

/** Water goes in, gives off heat to a room, and comes out cooler. */
const emitter = (kelvin: number): Primitive[] => [
  { kind: 'waterway', id: 'water', label: 'water', from: 'in', to: 'out', kpa: { setting: 'resistance' } },
  {
    kind: 'emitter',
    id: 'heat',
    label: 'heat',
    way: 'water',
    into: 'room',
    watts: { setting: 'output' },
    kelvin,
    capacity: { setting: 'capacity' },
    rise: { setting: 'rise' },
  },
]
const plain = { family: 'circuits', terminals: [], controls: [], inputs: [] } as const

export const radiators: DeviceType = {
  ...plain,
  id: 'radiators',
  version: 1,
  name: 'Radiators of a zone',
  stands: 'Under the windows of the rooms they warm.',
  about:
    'All radiators of one zone taken together. What they give off grows with the difference between their water and the ' +
    'room; rated, as usual, at 50 K.',
  settings: [output(4000, '50 K'), capacity(35, 'water and steel'), resistance(15), rise],
  primitives: emitter(50),
}

export const underfloorLoop: DeviceType = {
  ...plain,
  id: 'underfloor-loop',
  version: 1,
  name: 'Underfloor loop',
  stands: 'In the floor of its room, from the manifold and back.',
  about: 'A long pipe in a heavy floor: it warms slowly, gives its heat off at low temperatures, and cools slowly.',
  settings: [
    output(1500, '15 K'),
    capacity(400, 'floor'),
    resistance(1000, 'throttled at the manifold, so that water of 70 °C leaves at about 40'),
    rise,
  ],
  primitives: emitter(15),
}

export const towelRails: DeviceType = {
  ...plain,
  id: 'towel-rails',
  version: 1,
  name: 'Towel rails',
  stands: 'On the wall of the bathroom.',
  about: 'Towel rails on a circuit of their own, so that they warm in summer too.',
  settings: [output(600, '50 K'), capacity(8, 'water and steel'), resistance(25), rise],
  primitives: emitter(50),
}

export const cylinder: DeviceType = {
  ...plain,
  id: 'cylinder',
  version: 1,
  name: 'Hot water cylinder with a coil',
  stands: 'In the cylinder cupboard, its coil in the lower half.',
  about:
    'Water from the boiler goes through a coil and warms what stands in the cylinder. Drawn off at the top, it is filled up ' +
    'cold. It is taken as mixed through: layers are not told apart.',
  controls: [
    {
      kind: 'choice',
      id: 'draw',
      label: 'Drawn off',
      values: [
        { id: 'none', label: 'Nothing' },
        { id: 'basin', label: 'Basin, 4 l/min' },
        { id: 'bath', label: 'Bath, 10 l/min' },
      ],
      initial: 'none',
      ambient: true,
      timed: {
        turns: true,
        usual: weekOf([
          [7, 0, 'basin'],
          [7, 8, 'none'],
          [19, 30, 'bath'],
          [19, 38, 'none'],
        ]),
      },
    },
  ],
  settings: [
    { id: 'litres', label: 'Holds', unit: 'l', min: 50, max: 1000, default: 180, origin: 'by the size of the house' },
    {
      id: 'coil',
      label: 'Coil with 30 K apart',
      unit: 'W',
      min: 1000,
      max: 60_000,
      default: 15_000,
      origin: 'usual value',
    },
    {
      id: 'loss',
      label: 'Heat lost',
      unit: 'W/K',
      min: 0.2,
      max: 10,
      default: 1.6,
      origin: 'usual: about 1.7 kWh a day',
    },
    capacity(6, 'coil and its water'),
    resistance(8),
    rise,
  ],
  primitives: [
    { kind: 'waterway', id: 'water', label: 'coil', from: 'in', to: 'out', kpa: { setting: 'resistance' } },
    {
      kind: 'emitter',
      id: 'heat',
      label: 'coil',
      way: 'water',
      into: 'cylinder',
      watts: { setting: 'coil' },
      kelvin: 30,
      capacity: { setting: 'capacity' },
      rise: { setting: 'rise' },
    },
    {
      kind: 'store',
      id: 'store',
      label: 'hot water',
      litres: { setting: 'litres' },
      loses: { setting: 'loss' },
      draws: { control: 'draw', litresPerMinute: { none: 0, basin: 4, bath: 10 } },
    },
  ],
}

export const automaticBypass: DeviceType = {
  ...plain,
  id: 'automatic-bypass',
  version: 1,
  name: 'Automatic bypass',
  stands: 'Between flow and return behind the pump, before the first valve.',
  about:
    'A spring holds it shut. When every valve shuts against a running pump the pressure rises and it opens, so that water ' +
    'still goes through the boiler. Set too low it lets water by all day.',
  settings: [
    {
      id: 'opens',
      label: 'Opens from',
      unit: 'kPa',
      min: 5,
      max: 60,
      default: 32,
      origin: 'usual: a little above what the circuits need',
    },
    resistance(10),
  ],
  primitives: [
    {
      kind: 'waterway',
      id: 'water',
      label: 'bypass',
      from: 'in',
      to: 'out',
      kpa: { setting: 'resistance' },
      opensAt: { setting: 'opens' },
      oneWay: true,
    },
  ],
}

/** Lets water one way only. */
export const checkValve: DeviceType = {
  ...plain,
  id: 'check-valve',
  version: 1,
  name: 'Check valve',
  stands: 'In a pipe in which water must not go back, or rise by its warmth.',
  about: 'A flap that water opens in one direction and shuts in the other.',
  settings: [resistance(3)],
  primitives: [
    {
      kind: 'waterway',
      id: 'water',
      label: 'flap',
      from: 'in',
      to: 'out',
      kpa: { setting: 'resistance' },
      oneWay: true,
    },
  ],
}
