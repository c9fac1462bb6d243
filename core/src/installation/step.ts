import type { Change } from './edits'
import type { Colour, Core, End, Provenance } from './schema'

/** One conductor, and which of its ends. */
interface CoreEnd {
  cable: string
  core: string
  end: 0 | 1
}
type CoreOf = Omit<CoreEnd, 'end'>

/** What a step of work is, for whoever says it in words: names are said as they stand before it. */
export type Deed =
  | { do: 'place-end'; core: CoreOf; to: End }
  | { do: 'put-back'; core: CoreOf; to: string }
  | { do: 'put-in'; core: CoreOf; to: string }
  | { do: 'exchange'; cores: [CoreOf, CoreOf] }
  | { do: 'exchange-at'; device: string; colours: [Colour, Colour] }
  | { do: 'cut-back'; core: CoreOf }
  | { do: 'own-terminal'; core: CoreOf }
  | { do: 'mark-end'; core: CoreOf; provenance: Provenance }
  | { do: 'sleeve'; core: CoreOf; colour: Core['sleeve']; found: boolean }
  | { do: 'recolour'; core: CoreOf; colour: Colour }
  | { do: 'bring'; what: { pole: 'line' | 'neutral' | 'earth' } | { legend: string }; to: string }
  | { do: 'link'; between: readonly [string, string] }
  | { do: 'fit-link'; between: readonly [string, string] }
  | { do: 'unlink'; between: readonly [string, string] }
  | { do: 'take-link-out'; between: readonly [string, string] }
  | { do: 'factory-link'; between: readonly [string, string]; now: 'cut' | 'left-in' }
  | { do: 'cut-factory-link'; between?: readonly [string, string] }
  | { do: 'restore-factory-link'; between: readonly [string, string] }
  | { do: 'add'; name: string }
  | { do: 'take-out'; name: string }
  | { do: 'add-terminal' | 'remove-terminal' | 'change-terminal'; terminal: string; centre: string }
  | { do: 'settings'; name: string }
  | { do: 'set'; name: string; setting: string; choice: string }
  | { do: 'duplicate'; name: string; like: string }

/** A step of work: what it is, and the changes that carry it out, in order. */
export interface Step {
  deed: Deed
  changes: Change[]
}
