import { compile, same, type Action, type Background, type Circuit, type Installation } from '@nobbet/core'
import { useMemo } from 'react'

/** What is known behind the picture: the plan as far as the wiring is another, and everything done. */
export function useBackground(circuit: Circuit, plan: Installation | undefined, acts: readonly Action[]): Background {
  const planned = useMemo(
    () => (plan && !same(plan, circuit.installation) ? compile(plan) : undefined),
    [plan, circuit],
  )
  return { plan: planned, acts }
}
