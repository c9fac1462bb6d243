import type { Installation, PlanBrief } from '@nobbet/core'
import { useQuery } from '@tanstack/react-query'
import { ask } from '../workers/compute'
import type { ChangeTold } from './told'

/** A change of controls as far as it is worked out. */
export interface WorkedOut extends ChangeTold {
  error: Error | null
  again(): void
}

/** The moves from a wiring to what a brief asks for, worked out apart from the screen and remembered for its content. */
export function useChange(found: Installation | undefined, brief: PlanBrief | undefined): WorkedOut {
  const { data, error, refetch } = useQuery({
    queryKey: ['change', found, brief],
    queryFn: () => ask('brief', (api) => api.change(found!, brief!)),
    enabled: found !== undefined && brief !== undefined,
    staleTime: Infinity,
    networkMode: 'always',
    retry: false,
  })
  return { ...data, error, again: () => void refetch() }
}
