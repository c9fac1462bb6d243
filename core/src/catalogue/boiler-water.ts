import type { Amount, Condition, Control, HeatSource, Primitive, Setting } from './primitives'

/** A boiler that locked itself out waits for a hand. */
export const resetControl: Control = {
  kind: 'choice',
  id: 'reset',
  label: 'Lockout',
  values: [
    { id: 'clear', label: 'Clear' },
    { id: 'locked', label: 'Locked out' },
  ],
  initial: 'clear',
  ambient: true,
}

/** Heat of a burner, a compressor or elements: the figures that differ. */
export const heatSettings = (most: number, least: number): Setting[] => [
  { id: 'most', label: 'Most heat', unit: 'W', min: 500, max: 100_000, default: most, origin: 'usual value' },
  {
    id: 'least',
    label: 'Least heat it turns down to',
    unit: 'W',
    min: 500,
    max: 100_000,
    default: least,
    origin: 'usual value',
  },
  {
    id: 'own-water',
    label: 'Heat held by its own water and metal',
    unit: 'Wh/K',
    min: 1,
    max: 500,
    default: 5,
    origin: 'usual value: some litres and the exchanger',
  },
  { id: 'limit', label: 'Overheat limit', unit: '°C', min: 80, max: 120, default: 95, origin: 'usual value' },
]
export const flowTemperature = (celsius: number, label = 'Flow temperature', id = 'flow'): Setting => ({
  id,
  label,
  unit: '°C',
  min: 25,
  max: 85,
  default: celsius,
  origin: 'set on its front',
})
/** How long a boiler waits for flow before it locks itself out. */
export const flowProving: Setting = {
  id: 'proving',
  label: 'Waits for flow',
  unit: 's',
  min: 5,
  max: 300,
  default: 30,
  origin: 'usual value; domain: flow is proven before it fires',
}
export const compensation: Setting[] = [
  {
    id: 'compensation',
    label: 'Outdoor sensor',
    unit: '0 or 1',
    min: 0,
    max: 1,
    default: 0,
    origin: 'domain: sets the heating flow temperature, ignored on a hot water call',
    choices: [
      { value: 0, label: 'not fitted' },
      { value: 1, label: 'sets the heating flow temperature' },
    ],
  },
]

/** The way through it. */
export const boilerWay = (pump?: { load: string; head: Amount; most: Amount }): Primitive => ({
  kind: 'waterway',
  id: 'water',
  label: 'heat exchanger',
  from: 'return',
  to: 'flow',
  // A usual exchanger takes about 8 kPa at 1000 l/h.
  kpa: 8,
  ...(pump ? { pump } : {}),
})

/** Its heat into that way. */
export const boilerHeat = (when: Condition, aims: HeatSource['aims'], mindsItself?: true): HeatSource => ({
  kind: 'heat-source',
  id: 'heat',
  label: 'heat',
  way: 'water',
  when,
  most: { setting: 'most' },
  least: { setting: 'least' },
  capacity: { setting: 'own-water' },
  limit: { setting: 'limit' },
  aims,
  ...(mindsItself ? { mindsItself } : {}),
})

/** From this flow a boiler takes it as proven, l/h: a usual value. */
export const provenFrom = 120
