import {
  briefShapeSchema,
  planBriefSchema,
  planSystem,
  suggestions,
  type Conflict,
  type Installation,
  type PlanBrief,
  type Suggestion,
} from '@nobbet/core'
import { useQuery } from '@tanstack/react-query'
import { useEffect, useMemo, useState } from 'react'
import { ask } from '../workers/compute'

/** What answers come to: a plan, or why there is none. */
export interface Outcome {
  /** The answers as they were read; undefined while one of them is none. */
  brief?: PlanBrief
  plan?: Installation
  conflict?: Conflict
  /** Every scheme with the other answers. */
  schemes: Suggestion[]
  error: Error | null
}

/** Typing goes on before what it comes to is worked out, ms. */
const pauseMs = 150

function useAfterPause(now: string): string {
  const [settled, setSettled] = useState(now)
  useEffect(() => {
    const timer = setTimeout(() => setSettled(now), pauseMs)
    return () => clearTimeout(timer)
  }, [now])
  return settled
}

/** What answers come to, worked out beside the typing. Names that are still missing are filled in for it. */
export function useOutcome(answers: unknown): Outcome {
  const text = useAfterPause(JSON.stringify(answers))
  const { brief, plan, schemes } = useMemo(() => read(JSON.parse(text)), [text])
  const refused = brief !== undefined && plan === undefined
  const { data, error } = useQuery({
    queryKey: ['conflict', text],
    queryFn: () => ask('brief', (api) => api.conflict(brief!)),
    enabled: refused,
    staleTime: Infinity,
    networkMode: 'always',
    retry: false,
  })
  return { brief, plan, schemes, conflict: refused ? (data ?? undefined) : undefined, error: refused ? error : null }
}

function read(answers: unknown): Pick<Outcome, 'brief' | 'plan' | 'schemes'> {
  const shape = briefShapeSchema.safeParse(named(answers))
  if (!shape.success) return { schemes: [] }
  const brief = shape.data
  const laid = planBriefSchema.safeParse(brief)
  return {
    brief,
    plan: laid.success ? planSystem(laid.data, 'plan', 'Plan') : undefined,
    schemes: suggestions(brief),
  }
}

/** A circuit whose name is still to be typed has a place in the plan all the same. */
function named(answers: unknown): unknown {
  const { circuits, ...rest } = answers as { circuits?: { name: string }[] }
  const all = (circuits ?? []).map((circuit, i) => ({ ...circuit, name: circuit.name.trim() || `Circuit ${i + 1}` }))
  return {
    ...rest,
    circuits: all.map((circuit, i) => {
      const before = all.slice(0, i).some(({ name }) => name.toLowerCase() === circuit.name.toLowerCase())
      return before ? { ...circuit, name: `${circuit.name.slice(0, 34)} (${i + 1})` } : circuit
    }),
  }
}
