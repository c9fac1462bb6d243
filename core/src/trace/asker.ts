import type { Circuit, EdgeId } from '../circuit'
import type { Action, Simulation } from '../simulation'
import type { BesidePlan } from './beside-plan'
import type { Cause } from './claims'

/** What is known besides how things stand just now. */
export interface Background {
  /** The installation as it was meant to be: what departs from it is named. */
  plan?: Circuit
  /** The installation in which that began, where something was put into its wiring since. */
  from?: Circuit
  /** Everything done since the start: what has opened a fuse or locked a boiler out is looked for at that moment. */
  acts?: readonly Action[]
}

/** Asks back from effect to cause, at one moment. */
export interface Asker {
  readonly sim: Simulation
  readonly known: Background
  readonly beside: BesidePlan
  load(load: number): Cause
  travel(actuator: number): Cause
  /** Why an edge conducts, or does not; nothing for a conductor that is whole and where it belongs. */
  edge(edge: EdgeId, conducting: boolean): Cause[]
  /** The same, at an earlier moment, ms; undefined where what was done until then is not known. */
  at(ms: number): Asker | undefined
}
