import type { Programme } from './primitives'

/** Times of a day, and from each on what. */
type Day = readonly (readonly [hour: number, minute: number, value: string | number])[]

const weekdays = [0, 1, 2, 3, 4]
const weekend = [5, 6]

/** A week whose working days are alike, and whose two last. */
export const weekOf = (working: Day, free: Day = working): Programme =>
  [...weekdays.map((day) => [day, working] as const), ...weekend.map((day) => [day, free] as const)].flatMap(
    ([day, times]) => times.map(([hour, minute, value]) => ({ day, minute: hour * 60 + minute, value })),
  )

/** As delivered: mornings and evenings, longer at the weekend. Usual values. */
export const heatingWeek = weekOf(
  [
    [6, 30, 'on'],
    [8, 30, 'off'],
    [16, 30, 'on'],
    [22, 30, 'off'],
  ],
  [
    [7, 30, 'on'],
    [23, 0, 'off'],
  ],
)
export const hotWaterWeek = weekOf([
  [6, 0, 'on'],
  [7, 30, 'off'],
  [17, 0, 'on'],
  [19, 0, 'off'],
])
/** Set-points of a room thermostat with a clock of its own, °C. */
export const setPointWeek = weekOf(
  [
    [6, 30, 20],
    [8, 30, 16],
    [16, 30, 20],
    [22, 30, 16],
  ],
  [
    [7, 30, 20],
    [23, 0, 16],
  ],
)
/** Sunday night, for an hour: hot enough that nothing grows in it. */
export const hygieneWeek: Programme = [
  { day: 6, minute: 2 * 60, value: 'running' },
  { day: 6, minute: 3 * 60, value: 'waiting' },
]
