import type { HuntRecord, JobState } from '@nobbet/contract'
import { actText, compile, toPutBack, type Circuit, type HuntEntry } from '@nobbet/core'
import { huntOf } from '../store/hunt-of'
import { linesOf, weighed } from './hunt-log'

/** What tests have disturbed, and is neither put back nor left until a day, as the acts that put it back. */
export const leftToPutBack = (circuit: Circuit, entries: readonly HuntEntry[], { measures }: HuntRecord): string[] =>
  toPutBack(circuit, entries).filter((act) => !measures.some(({ puts }) => puts === act))

/** The same of a whole job, in words. */
export function leftBehind(state: JobState): string[] {
  const circuit = compile(state.document.wiring)
  const entries = weighed(linesOf(circuit, state))
  return leftToPutBack(circuit, entries, huntOf(state)).map((act) => actText(circuit, act, entries))
}
