/** A house in the figures that matter for heat; shared out evenly among the spaces that are heated. */
export interface House {
  name: string
  /** Watts lost per kelvin between inside and outdoors. */
  lossWPerK: number
  /** Heat held by air, furniture and inner surfaces, Wh/K: what a thermostat feels, not the walls' whole mass. */
  capacityWhPerK: number
  /** Watts from people, light and appliances, day and night. */
  gainsW: number
  cylinderLitres: number
}

/** Usual values: a design loss at 24 K of about 2, 5 and 11 kW. */
export const houses = {
  flat: { name: 'Small flat', lossWPerK: 90, capacityWhPerK: 1600, gainsW: 200, cylinderLitres: 120 },
  semi: { name: 'Semi', lossWPerK: 210, capacityWhPerK: 4000, gainsW: 350, cylinderLitres: 180 },
  large: { name: 'Large house', lossWPerK: 460, capacityWhPerK: 9500, gainsW: 600, cylinderLitres: 300 },
} as const satisfies Record<string, House>
export type HouseId = keyof typeof houses
export const houseIds = Object.keys(houses) as [HouseId, ...HouseId[]]

/** Emitters are sized for this difference between inside and outdoors, K, with some to spare. */
export const designKelvin = 24
export const designMargin = 1.3

/** A day outdoors that repeats: its mean and how far it swings, coldest at 3 in the morning. */
export interface Weather {
  name: string
  mean: number
  swing: number
}
export const weathers = {
  'cold-snap': { name: 'Cold snap', mean: -3, swing: 3 },
  winter: { name: 'Winter', mean: 4, swing: 3 },
  spring: { name: 'Spring', mean: 10, swing: 5 },
  summer: { name: 'Summer', mean: 19, swing: 6 },
} as const satisfies Record<string, Weather>
export type WeatherId = keyof typeof weathers
export const weatherIds = Object.keys(weathers) as [WeatherId, ...WeatherId[]]

/** °C outdoors over the hour that begins at this hour of the day. */
export const outdoors = ({ mean, swing }: Weather, hour: number): number =>
  mean - swing * Math.cos((2 * Math.PI * ((hour % 24) - 3)) / 24)

/** Cold water as it comes in, and the space round a cylinder, °C: usual values. */
export const mainsCelsius = 10
export const cupboardCelsius = 18
