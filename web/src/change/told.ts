import {
  CannotChange,
  changedTo,
  movesOf,
  tallyOf,
  type Installation,
  type Move,
  type PlanBrief,
  type Tally,
} from '@nobbet/core'

/** A change of controls worked out; or why it cannot be, with what to do first. */
export interface ChangeTold {
  change?: { to: Installation; moves: Move[]; tally: Tally }
  refused?: string
}

/** The moves that make of what is found what a brief asks for. */
export function changeTold(found: Installation, brief: PlanBrief): ChangeTold {
  try {
    const change = changedTo(found, brief)
    const moves = movesOf(change)
    return { change: { to: change.to, moves, tally: tallyOf(change, moves) } }
  } catch (error) {
    if (error instanceof CannotChange) return { refused: error.message }
    throw error
  }
}
