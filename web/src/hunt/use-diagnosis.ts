import type { Diagnosis, Installation, LoggedFinding } from '@nobbet/core'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { ask } from '../workers/compute'

/** Suspects and next reading, worked out in the worker; the last answer stays in view while the next is on its way. */
export function useDiagnosis(
  installation: Installation,
  findings: readonly LoggedFinding[],
): { diagnosis: Diagnosis | undefined; error: Error | null; working: boolean } {
  const asked = findings.map(({ id, asking, observable, result }) => ({ id, asking, observable, result }))
  const { data, error, isFetching } = useQuery({
    queryKey: ['diagnosis', installation, asked],
    queryFn: () => ask('hunt', (api) => api.diagnose(installation, asked)),
    staleTime: Infinity,
    networkMode: 'always',
    placeholderData: keepPreviousData,
  })
  return { diagnosis: data, error, working: isFetching }
}
