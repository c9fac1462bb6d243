/** A figure of a primitive: fixed, or one of the device's settings by name. */
export type Amount = number | { setting: string }

/** When a contact stands operated. Conditions see only their own device. */
export type Condition =
  | { control: string; is: readonly string[] }
  /** The sensor asks for heat. */
  | { sensor: string }
  /**
   * Travel has reached this fraction of full opening. A switch on the gear lets go again at `releasedAt`, a little
   * below; one that only feels the end of travel (no `releasedAt`) lets go as closing begins.
   */
  | { actuator: string; reached: Amount; releasedAt?: Amount }
  | { energised: string }
  /** A load that does work does it: a fan turns. */
  | { works: string }
  | { behaviour: string; in: readonly string[] }
  /** A setting of the device stands at this value: a jumper, a choice made at set-up. */
  | { setting: string; is: number }
  /** The bus port has a boiler that answers. */
  | { linked: string }
  /** Over the bus port somebody asks for this. */
  | { hears: string; request: BusRequest }
  /** At least this many l/h go through this waterway. */
  | { flows: string; from: Amount }
  /** The device's clock says on for this control, by its programme. */
  | { timed: string }
  | { all: readonly Condition[] }
  | { any: readonly Condition[] }
  | { not: Condition }

export type BusRequest = 'heating' | 'hot-water'

/** How a part can fail, as the simulator knows it. */
export type FailureMode =
  | 'held-closed'
  | 'held-open'
  | 'held-operated'
  | 'held-released'
  /** One throw of a changeover no longer conducts: burnt away. */
  | 'made-throw-open'
  | 'rest-throw-open'
  /** Nothing reaches its common: neither throw conducts, nor do those of its fellows with the same common. */
  | 'feed-open'
  | 'open-circuit'
  | 'short-circuit'
  | 'jammed'
  | 'seized-shut'
  | 'seized-open'
  | 'seized-part-way'
  /** Stays where it was driven: nothing takes it back. */
  | 'no-return'
  /** The head is fitted turned on its body: each end is the other's. */
  | 'turned'
  | 'blown'
  /** Makes at every other operation only. */
  | 'makes-sometimes'
  /** An input that is taken for energised whatever reaches it. */
  | 'held-energised'
  /** A sensor that never asks: flat battery, broken probe. */
  | 'never-asks'
  /** A sequence that has stopped itself and waits for a reset. */
  | 'locked-out'
  /** A bus port that neither asks nor answers. */
  | 'silent'
  /** A port that lets water by while it is shut. */
  | 'passes'

export interface Failure {
  id: string
  mode: FailureMode
  /** What has failed, in the trade's words, to stand behind the device's name. */
  label: string
  /** Relative weight among all failures, without unit; trade experience, editable later. */
  prior: number
  /** What cures it. */
  remedy: string
}

export interface Part {
  id: string
  /** The part in the trade's words, to stand behind the device's name. */
  label: string
  failures?: readonly Failure[]
}
