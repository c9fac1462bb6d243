import { compile, same, type Background, type Installation } from '@nobbet/core'
import { useMemo } from 'react'
import type { TraceSession } from './session'

/** What is known behind the picture: the plan as far as the wiring is another, and everything done. */
export function useBackground({ circuit, rig, actions }: TraceSession, plan: Installation | undefined): Background {
  const planned = useMemo(
    () => (plan && !same(plan, circuit.installation) ? compile(plan) : undefined),
    [plan, circuit],
  )
  // What was put into the wiring departs from the wiring there was.
  return { plan: planned ?? (rig.isRewired ? circuit : undefined), from: circuit, acts: actions }
}
