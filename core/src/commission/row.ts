import type { Look, LookResult } from '../looks'
import type { Action } from '../simulation'

/** What a row of the run is for. */
export type RowKind =
  /** Isolated: earth continuity at each earthed part. */
  | 'earths'
  /** Power on, everything off: line and neutral the right way round. */
  | 'polarity'
  /** Everything off. */
  | 'rest'
  /** Its valve is on its way: the boiler is not called yet. */
  | 'before-travel-ends'
  | 'alone'
  | 'thermostat-down'
  | 'thermostat-up'
  | 'channel-off'
  | 'together'
  | 'dropped-from-together'
  /** Everything off: what runs on. */
  | 'all-off'
  /** And has stopped. */
  | 'overrun-over'
  | 'isolated'

/** One thing to look at, and what is to be seen there. */
export interface RowLook {
  see: Look
  expect: LookResult
}

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
  /** Of the engineer's time: the way, the controls, the wait, the looks. */
  minutes: number
}
