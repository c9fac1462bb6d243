import type { FieldChange } from '../changes'
import type { Colour } from '../installation'

/** What a hand does in one move. */
export type MoveKind =
  | 'take-off'
  | 'cut-back'
  | 'move'
  | 'land'
  | 'park'
  /** A conductor stays where it is, joined with nothing any more. */
  | 'leave'
  | 'unlink'
  | 'cut-link'
  | 'link'
  | 'remove'
  | 'fit'
  | 'exchange'
  | 'lay'
  | 'terminal'
  | 'label'
  | 'finish'

/** Something that has to be said with a move. */
export type MoveNote =
  /** The pipework has to be opened for it. */
  | { is: 'water' }
  /** A head that goes on the body that is there, if it is made for it. */
  | { is: 'head' }
  /** Why a cable is needed: there is none, it has too few conductors, or extra-low voltage may not share it. */
  | { is: 'no-cable' | 'too-few' | 'extra-low' }
  /** A conductor that may be alive is to be safe where it is parked. */
  | { is: 'alive' }

/** One move of a change of controls: what, where, from where to where, and what it alters in the document. */
export interface Move {
  /** The same for the same move, however often it is worked out. */
  id: string
  do: MoveKind
  /** Where one stands for it. */
  place: string
  /** The conductor, in words; of a link its two terminals, of a device its name, of a cable its label. */
  what: string
  colour?: Colour
  sleeve?: Colour
  from?: string
  to?: string
  note?: MoveNote
  changes: FieldChange[]
}

/** Moves at one place in one go. */
export interface MoveStage {
  place: string
  moves: Move[]
}
