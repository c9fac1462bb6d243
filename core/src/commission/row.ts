import type { Found, WrittenLook } from '../looks'
import type { Action } from '../simulation'

/** What a row of the run is for. */
export const rowKinds = [
  /** How the controls stand before anybody touches them. */
  'as-it-stood',
  /** Isolated, the box open: links counted, cables held on their sheath. */
  'box',
  /** Isolated: earth continuity at each earthed part. */
  'earths',
  /** Isolated: line to line and neutral to neutral. */
  'polarity',
  /** Isolated: insulation of both poles to earth. */
  'insulation',
  /** Covers on, before power goes on. */
  'covers',
  /** Everything off. */
  'rest',
  /** Its valve is on its way: the boiler is not called yet. */
  'before-travel-ends',
  'alone',
  'thermostat-down',
  'thermostat-up',
  'channel-off',
  'together',
  'dropped-from-together',
  /** Everything off: what runs on. */
  'all-off',
  /** And has stopped. */
  'overrun-over',
  'isolated',
  /** Power and settings as they were before the run. */
  'put-back',
  /** Who lives there is told. */
  'told',
] as const
export type RowKind = (typeof rowKinds)[number]

/** Rows that are done isolated, with covers off. */
const deadKinds: ReadonlySet<RowKind> = new Set(['box', 'earths', 'polarity', 'insulation'])
export const isDeadRow = ({ kind }: Pick<RunRow, 'kind'>): boolean => deadKinds.has(kind)

/** One thing to look at, and what is to be found there. */
export interface RowLook {
  see: WrittenLook
  expect: Found
  /** Where volts are looked at: full volts there, V. */
  full?: number
}

/** Something for hand and eye that no simulation shows. */
export type HandCheck =
  /** Written down: how a control stands. */
  | { check: 'stands'; device: string; control: string }
  /** Each link of a wiring centre is there, and no other: pairs of its terminals' numbers. */
  | { check: 'links'; centre: string; links: [string, string][] }
  /** Each cable that comes into a wiring centre is held on its sheath, by label. */
  | { check: 'clamped'; centre: string; cables: string[] }
  /** Its cover is on, with nothing trapped under its edge. */
  | { check: 'cover'; owner: string }
  /** A control stands as its user wants it: nobody wrote down how it stood. */
  | { check: 'as-wanted'; device: string; control: string }
  /** Power is on again: its display shows something. */
  | { check: 'lit'; device: string }
  /** Users were told what is otherwise than it was. */
  | { check: 'told' }

/** A step of a commissioning run: what to do, how long to wait, what to expect. */
export interface RunRow {
  /** What names it: the same for the same row of the same installation. */
  id: string
  kind: RowKind
  /** The demand it is about, where it is about one. */
  demand?: string
  /** Demands that ask while it is looked at. */
  wanted: string[]
  acts: Action[]
  /** From the acts until it is looked at. */
  waitMs: number
  looks: RowLook[]
  byHand: HandCheck[]
  /**
   * By the installation as it is drawn a demand is not served then, or a boiler is called that nobody asked for: expected is only what its
   * demands say of the call.
   */
  amiss?: true
  /** Of the engineer's time: the way, the controls, the wait, the looks. */
  minutes: number
}
