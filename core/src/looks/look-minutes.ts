import { ownerOf } from '../installation'
import type { Look } from './look'
import type { WrittenLook } from './look-schema'

/** Minutes of the engineer's time for a look, for somebody who stands there: trade estimates. */
export const lookMinutes: Record<Look['at'], number> = {
  points: 0.5,
  valve: 1,
  lever: 1,
  motor: 0.5,
  clicks: 0.5,
  pump: 0.5,
  boiler: 0.5,
  display: 0.5,
  lamps: 0.5,
  clock: 0.5,
  'flow-temperature': 0.5,
  pipe: 1,
  warmth: 1,
  fuse: 1.5,
  trip: 0.5,
  spindle: 4,
  eyes: 1,
  wiring: 1,
}

/** Minutes beside a look and the way to it: what has to be set, opened and waited for. Trade estimates. */
export const siteMinutes = {
  setControl: 0.5,
  plateOfControl: 1,
  casingOfBoiler: 5,
  deadTest: 1.5,
  insulationTest: 3,
  /** Each conductor, link and setting that is compared with the drawing. */
  compared: 0.15,
  /** Until a pipe or what it warms can be told by hand. */
  warms: 5,
} as const

/** The device or wiring centre that a look is made at; of two points, the one of the red lead. */
export const thingLookedAt = (see: Look | WrittenLook): string =>
  'thing' in see ? see.thing : ownerOf(see.at === 'points' ? see.red : see.at === 'pipe' ? see.connection : see.device)
