import type { AllStates, CheckFinding, Installation, Known } from '@nobbet/core'
import { togetherOf } from '@nobbet/core'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { proxy } from 'comlink'
import { useMemo } from 'react'
import { ask, longRun } from './compute'

export interface Verdict {
  /** Findings of rules at once; with those of all states when these are there. */
  findings?: CheckFinding[]
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
  const enabled = installation !== undefined
  const forever = { staleTime: Infinity, networkMode: 'always', retry: false, enabled } as const
  const rules = useQuery({
    ...forever,
    queryKey: ['rules', installation],
    queryFn: () => ask('checks', (api) => api.rules(installation!)),
  })
  const key = ['states', installation]
  // Several screens look at one run: how far it is, and that it was stopped, is said to all of them.
  const said = { progress: ['states', 'progress', installation], stopped: ['states', 'stopped', installation] }
  const nothing = () => Promise.resolve(null)
  const { data: progress } = useQuery<number | null>({ queryKey: said.progress, queryFn: nothing, enabled: false })
  const { data: stopped } = useQuery<boolean | null>({ queryKey: said.stopped, queryFn: nothing, enabled: false })
  const states = useQuery({
    ...forever,
    enabled: enabled && !stopped,
    queryKey: key,
    queryFn: async ({ signal }) => {
      const tell = (states: number) => queries.setQueryData(said.progress, states)
      const found = await longRun('checks', (api, run) => api.states(run, installation!, proxy(tell)), signal)
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
    progress: states.isFetching ? (progress ?? 0) : undefined,
    stopped: stopped === true && !states.data,
    error: rules.error ?? (states.error?.message === 'left' ? null : states.error),
    stop() {
      queries.setQueryData(said.stopped, true)
      void queries.cancelQueries({ queryKey: key })
    },
    again: () => queries.setQueryData(said.stopped, false),
  }
}

/** What is behind findings, and what cures them: looked for by trying, once all states are there. */
export interface Cures {
  /** The findings again, as far as anything was found out about them. */
  findings?: CheckFinding[]
  /** It is being looked for. */
  trying: boolean
}

/** Looks for culprits and remedies of a whole verdict, off the main thread; remembered for what it was looked for. */
export function useCures(
  installation: Installation | undefined,
  verdict: Verdict,
  plan: Installation | undefined,
): Cures {
  const { findings, states } = verdict
  const enabled = installation !== undefined && states !== undefined && (findings?.length ?? 0) > 0
  const { data, isFetching } = useQuery({
    staleTime: Infinity,
    networkMode: 'always',
    retry: false,
    enabled,
    queryKey: ['cures', installation, plan],
    queryFn: async ({ signal }) => {
      const silent = proxy(() => undefined)
      const found = await longRun(
        'checks',
        (api, run) => api.cures(run, installation!, findings!, plan, silent),
        signal,
      )
      if (!found) throw new Error('left')
      return found
    },
  })
  return { findings: enabled ? data : undefined, trying: enabled && isFetching }
}
