import type { Installation, Recording } from '@nobbet/core'
import { useQuery, type UseQueryResult } from '@tanstack/react-query'
import { proxy } from 'comlink'
import { longRun } from '../workers/compute'

/**
 * What every part does over some acts, worked out apart and remembered for them; of none while they change at every moment, and then
 * what was there before stays.
 */
export const useRecording = (
  installation: Installation,
  acts: readonly string[] | undefined,
): UseQueryResult<Recording> =>
  useQuery<Recording>({
    staleTime: Infinity,
    networkMode: 'always',
    retry: false,
    enabled: acts !== undefined,
    queryKey: ['recording', installation, acts],
    queryFn: async ({ signal }) => {
      const silent = proxy(() => undefined)
      const found = await longRun('week', (api, run) => api.recording(run, installation, acts!, silent), signal)
      if (!found) throw new Error('left')
      return found
    },
    placeholderData: (before) => (acts === undefined ? before : undefined),
  })
