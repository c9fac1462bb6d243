import type { Instrument } from '../instruments'

/**
 * Something that can be looked at, where, and with what. Devices are named by their ids, terminals as `device.terminal`, pipes by
 * the way that water takes through a device.
 */
export type Look =
  /**
   * An instrument's leads on two points. Without a black lead: against the neutral that is at hand there, or the return of the
   * transformer it hangs on.
   */
  | { at: 'points'; with: Instrument; red: string; black?: string }
  /** The valve by eye or by its lever: open at all, or shut. */
  | { at: 'valve'; device: string }
  /** How its lever answers the hand. */
  | { at: 'lever'; device: string }
  /** What is heard of its motor. */
  | { at: 'motor'; device: string }
  /** How many of its contacts are heard to switch, from a moment on, ms. */
  | { at: 'clicks'; device: string; since: number }
  | { at: 'pump'; device: string }
  /** Does a boiler answer a call? */
  | { at: 'boiler'; device: string }
  /** The phase its display shows. */
  | { at: 'display'; device: string }
  | { at: 'lamps'; device: string }
  /** The time that its clock shows. */
  | { at: 'clock'; device: string }
  | { at: 'flow-temperature'; device: string }
  /** A pipe by hand, at the device's own connection: `valve.A`. */
  | { at: 'pipe'; connection: string }
  /** A radiator, a floor, a cylinder: does it warm? */
  | { at: 'warmth'; device: string }
  | { at: 'fuse'; device: string }
  /** A residual current device: has it tripped? */
  | { at: 'trip'; device: string }
  /** The spindle of a valve by hand, its head taken off. */
  | { at: 'spindle'; device: string }
  /** What is seen of a device or wiring centre, its cover off: water, something burnt, a conductor that has come loose. */
  | { at: 'eyes'; thing: string }
  /** Its conductors, links and set-up beside the drawing. */
  | { at: 'wiring'; thing: string }

/** A word that a look can give. Of each kind of look the positive one stands first. */
export const words = {
  points: ['live', 'dead'],
  valve: ['open', 'shut'],
  lever: ['slack', 'stiff', 'half-way', 'latched', 'fixed'],
  motor: ['hums', 'buzzes', 'silent'],
  clicks: ['one', 'more', 'none'],
  pump: ['running', 'not-running'],
  boiler: ['called', 'not-called'],
  /** As the sequences of the catalogue name their phases. */
  display: [],
  lamps: ['lit', 'dark'],
  clock: ['right', 'wrong', 'dark'],
  'flow-temperature': [],
  pipe: ['hot', 'warm', 'cold'],
  warmth: ['warms', 'stays-cold'],
  fuse: ['whole', 'blown'],
  trip: ['in', 'tripped'],
  spindle: ['turns', 'seized'],
  eyes: ['sound', 'loose', 'burnt', 'water'],
  wiring: ['as-drawn', 'otherwise'],
} as const satisfies Record<Look['at'], readonly string[]>

export type Unit = 'V' | 'Ω' | 'MΩ' | 'W' | '°C'

/**
 * What a look shows: a word, of wiring with the places where it lies otherwise (`centre.7`, `boiler.slider`), in order; one of
 * several, each with how probable it is; a number with its unit (`null` beyond the instrument's range), or nothing that can be known: a
 * conductor there has an end that nobody has found, the test must not be made. Volts say what full volts are there.
 */
export type LookResult =
  | { word: string; at?: string[] }
  | { chances: Readonly<Record<string, number>> }
  | { value: number | null; unit: Exclude<Unit, 'V'> }
  | { value: number; unit: 'V'; full: number }
  | { unknown: 'open-end' | 'refused' | 'nothing-there' }
