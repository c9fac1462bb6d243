/** What can be put on two points. The first two read live circuits; the dead tests refuse one. */
export const instruments = [
  'tester',
  'meter',
  'polarity',
  'power',
  'continuity',
  'resistance',
  'insulation',
  'earth',
] as const
export type Instrument = (typeof instruments)[number]

/** Impedance between the leads of the two voltage instruments, ohms. */
export const leadOhms = {
  /** Low impedance, under 300 kΩ: draws induced voltage down to next to nothing. */
  tester: 100_000,
  /** High impedance: shows what an open core picks up. */
  meter: 10_000_000,
} as const

export const isInstrument = (text: string): text is Instrument => (instruments as readonly string[]).includes(text)

/** A dead test needs the circuit isolated. */
export const deadTests: ReadonlySet<Instrument> = new Set(['continuity', 'resistance', 'insulation', 'earth'])

export type PolarityVerdict =
  | 'correct'
  /** Line and neutral exchanged. */
  | 'reversed'
  | 'no-neutral'
  | 'no-earth'
  | 'dead'
  /** None of the above fits: something shares the conductors. */
  | 'unclear'

export type Refusal =
  /** The leads' own circuit is under voltage. */
  | { reason: 'live'; sources: string[] }
  /** Only one pole is open: the neutral is still joined to the supply. */
  | { reason: 'neutral-joined'; sources: string[] }
  /** Something else in the enclosure under the leads is under voltage. */
  | { reason: 'live-beside'; owner: string; terminal: string }
  /** The test voltage would reach extra-low-voltage terminals. */
  | { reason: 'extra-low'; terminal: string }
  /** A short stands: nothing can be read before a protective device has opened. */
  | { reason: 'short' }

export type Reading =
  /** Volts r.m.s. from black to red, and the mean beside them where half-waves stand; `phase` in degrees to the supply. */
  | { kind: 'volts'; volts: number; mean: number; phase: number }
  /** Ohms; null above the range. `closed`: little enough to be a closed contact or a whole conductor. */
  | { kind: 'ohms'; ohms: number | null; closed: boolean }
  /** Megohms; null above the range. */
  | { kind: 'insulation'; megohms: number | null }
  | { kind: 'polarity'; verdict: PolarityVerdict; lineNeutral: number; lineEarth: number; neutralEarth: number }
  | { kind: 'power'; watts: number; va: number; amps: number }
  | { kind: 'refused'; refusal: Refusal }
  /** A conductor here has an end nobody has found: what would be read cannot be known. */
  | { kind: 'unknown' }
