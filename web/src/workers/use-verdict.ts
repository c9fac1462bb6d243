import type { AllStates, Finding, Installation, Known } from '@nobbet/core'
import { togetherOf } from '@nobbet/core'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { proxy } from 'comlink'
import { useMemo, useState } from 'react'
import { compute } from './compute'

export interface Verdict {
  /** Findings of rules at once; with those of all states when these are there. */
  findings?: Finding[]
  known?: Known
  states?: AllStates
  /** States looked at so far, while it goes on. */
  progress?: number
  stopped: boolean
  error: Error | null
  stop(): void
  again(): void
}

/** Rules and all states of an installation, worked out off the main thread and remembered for its content. */
export function useVerdict(installation: Installation | undefined): Verdict {
  const queries = useQueryClient()
  const [progress, setProgress] = useState(0)
  const [stopped, setStopped] = useState<Installation>()
  const enabled = installation !== undefined
  const forever = { staleTime: Infinity, networkMode: 'always', retry: false, enabled } as const
  const rules = useQuery({
    ...forever,
    queryKey: ['rules', installation],
    queryFn: () => compute().rules(installation!),
  })
  const key = ['states', installation]
  const states = useQuery({
    ...forever,
    enabled: enabled && stopped !== installation,
    queryKey: key,
    queryFn: async ({ signal }) => {
      const run = await compute().newRun()
      signal.addEventListener('abort', () => void compute().leave(run))
      const found = await compute().states(run, installation!, proxy(setProgress))
      if (!found) throw new Error('left')
      return found
    },
  })
  const findings = useMemo(
    () => rules.data && (states.data ? togetherOf(rules.data.findings, states.data) : rules.data.findings),
    [rules.data, states.data],
  )
  return {
    findings,
    known: rules.data?.known,
    states: states.data,
    progress: states.isFetching ? progress : undefined,
    stopped: stopped === installation && !states.data,
    error: rules.error ?? (states.error?.message === 'left' ? null : states.error),
    stop() {
      setStopped(installation)
      void queries.cancelQueries({ queryKey: key })
    },
    again: () => setStopped(undefined),
  }
}
