import { actText, compile, toPutBack } from '@nobbet/core'
import { huntOf, linesOf, weighed } from './hunt-lines'
import { recordOf } from './job-state'
import type { JobState } from './log'
import { openMeasures, unsettled } from './site-record'

/** Something that is otherwise than it should stay. */
export interface LeftOpen {
  /** The act of a hunt that puts it back, or the id of what was disturbed. */
  id: string
  by: 'hunt' | 'wiring' | 'hand'
  /** In words: of a hunt's, what is to be done; else what is the case. */
  text: string
}

/** Everything that has been disturbed, and is neither put back, meant to stay, nor left until a day. */
export function leftOpen(state: JobState): LeftOpen[] {
  const record = recordOf(state)
  const left = new Set(openMeasures(record).flatMap(({ puts }) => puts ?? []))
  const noted = unsettled(record).map(({ id, by, what }): LeftOpen => ({ id, by, text: what }))
  return [...ofHunt(state).filter(({ id }) => !left.has(id)), ...noted]
}

function ofHunt(state: JobState): LeftOpen[] {
  // Nothing was done on a hunt that has no lines: the circuit need not be compiled for it.
  if (state.findings.length + huntOf(state).lines.length === 0) return []
  const circuit = compile(state.document.wiring)
  const entries = weighed(linesOf(circuit, state))
  return toPutBack(circuit, entries).map((act) => ({ id: act, by: 'hunt', text: actText(circuit, act, entries) }))
}
