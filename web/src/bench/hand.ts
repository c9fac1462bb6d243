import type { Command, EndRef, Installation, Step, WiredNet } from '@nobbet/core'
import { createContext, useContext } from 'react'

/** What is picked up: an end of a conductor, or a terminal. */
export type Picked = { kind: 'end'; end: EndRef } | { kind: 'terminal'; ref: string }

/** What everything on the bench can do. */
export interface Hand {
  doc: Installation
  picked: Picked | undefined
  pick(picked: Picked | undefined): void
  /** Everything joined to what is picked, by wiring alone. */
  net: WiredNet | undefined
  /** A tap on a terminal: where an end is picked it goes there, while linking it is linked, else the terminal is picked. */
  tap(terminal: string): void
  /** Does a step; before the first of a visit the isolation step is asked for. */
  alter(step: Step | Command | undefined): void
  linking: boolean
  setLinking(linking: boolean): void
}

export const HandContext = createContext<Hand | undefined>(undefined)

export function useHand(): Hand {
  const hand = useContext(HandContext)
  if (!hand) throw new Error('not on the bench')
  return hand
}

export const endKey = ({ cable, core, end }: EndRef): string => `${cable}.${core}.${end}`
export function endOfKey(key: string): EndRef {
  const [cable, core, end] = key.split('.')
  return { cable, core, end: end === '1' ? 1 : 0 }
}
export const isPicked = (picked: Picked | undefined, end: EndRef): boolean =>
  picked?.kind === 'end' && endKey(picked.end) === endKey(end)
