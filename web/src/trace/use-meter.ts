import { isInstrument, type Instrument } from '@nobbet/core'
import { useState } from 'react'
import type { Desk } from './desk'

export type Lead = 'red' | 'black'

export interface MeterHandle {
  open: boolean
  instrument: Instrument
  /** Terminal each lead is on. */
  leads: Partial<Record<Lead, string>>
  /** The lead that goes on the next terminal touched. */
  armed?: Lead
  toggle(): void
  choose(instrument: Instrument): void
  arm(lead: Lead | undefined): void
  /** Puts the armed lead on a terminal; false where none is armed. */
  put(terminal: string): boolean
  swap(): void
}

/** An instrument and where its leads are: on the desk, so that a link shows the same reading. */
export function useMeter(desk: Desk): MeterHandle {
  const text = desk.one('meter')
  const [name = '', red, black] = text?.split(',') ?? []
  const instrument = isInstrument(name) ? name : 'tester'
  const leads = { red: red || undefined, black: black || undefined }
  const [armed, setArmed] = useState<Lead>()
  const open = text !== undefined

  const write = (next: { instrument: Instrument; red?: string; black?: string }) =>
    desk.put('meter', [next.instrument, next.red ?? '', next.black ?? ''].join(','))
  return {
    open,
    instrument,
    leads,
    armed: open ? armed : undefined,
    toggle() {
      if (open) desk.put('meter', undefined)
      else write({ instrument })
      setArmed(open ? undefined : 'red')
    },
    choose: (next) => write({ instrument: next, ...leads }),
    arm: setArmed,
    put(terminal) {
      if (!open || !armed) return false
      const next = { ...leads, [armed]: terminal }
      write({ instrument, ...next })
      setArmed(armed === 'red' && !next.black ? 'black' : undefined)
      return true
    },
    swap: () => write({ instrument, red: leads.black, black: leads.red }),
  }
}
