import type { BusRequest } from '../catalogue'
import type { Departed } from '../departures'
import type { Motion } from '../simulation'

/** One link in the chain of causes, as references; wording is elsewhere. */
export type Claim =
  /** Does this pole of a supply reach it, whatever volts may stand on it? */
  | { is: 'terminal'; ref: string; pole: 'line' | 'neutral'; reached: boolean }
  | { is: 'contact'; device: string; part: string; throw: 'made' | 'no' | 'nc'; closed: boolean }
  | { is: 'conductor'; cable: string; core: string }
  /** What stands otherwise than it is planned; `tried` where no way shows it, and putting it right took the effect away. */
  | { is: 'departure'; what: Departed; tried?: true }
  | { is: 'fuse'; device: string; part: string }
  /** A pole of the supply joined to another: it was so when protection opened, or is so now. */
  | { is: 'short'; device: string; poles: 'line-neutral' | 'line-earth' | 'neutral-earth' | 'secondary' }
  | { is: 'insulation'; device: string; part: string }
  | { is: 'travel'; device: string; part: string; motion: Motion; position: number; driven: boolean; turned: boolean }
  | { is: 'port'; device: string; part: string }
  | { is: 'load'; device: string; part: string; energised: boolean; open: boolean; jammed: boolean }
  /** The current comes through this load, which has no way back of its own. */
  | { is: 'through'; device: string; part: string }
  | { is: 'sensor'; device: string; part: string; asks: boolean; temperature: number; set: number }
  | { is: 'control'; device: string; control: string; value: string }
  /** A control that no hand set so: the device's own part threw it. */
  | { is: 'thrown'; device: string; control: string; value: string }
  | { is: 'setting'; device: string; setting: string; value: number }
  | { is: 'bus'; device: string; part: string; what: 'link' | BusRequest; heard: boolean; joined: boolean }
  | { is: 'flow'; device: string; part: string; flows: boolean }
  | { is: 'phase'; device: string; part: string; phase: string }
  | { is: 'transformer'; device: string; part: string; supplied: boolean; open: boolean }
  | { is: 'unconnected'; ref: string; pole: 'line' | 'neutral' }
  /** Volts that no conductor brings: picked up in these cables from what lies beside. */
  | { is: 'induced'; ref: string; volts: number; cables: string[]; actsFrom: number }

export interface Cause {
  claim: Claim
  /** It is not as its own device, or the plan, would have it. */
  failed: boolean
  because: Cause[]
}

const textOf = (cause: Cause) => JSON.stringify(cause.claim)

/** Each thing once, in order. */
export const once = (causes: readonly Cause[]): Cause[] => {
  const seen = new Set<string>()
  return causes.filter((cause) => !seen.has(textOf(cause)) && seen.add(textOf(cause)))
}

/** Parts in the chain that are not as their devices would have them, and what departs from the plan, each once. */
export const failedIn = (cause: Cause): Cause[] =>
  once([...(cause.failed ? [cause] : []), ...cause.because.flatMap(failedIn)])

/** Where the chain ends: what needs no further reason, or has none that is known. */
export const endsOf = (cause: Cause): Cause[] =>
  once(cause.because.length === 0 ? [cause] : cause.because.flatMap(endsOf))
