import type { HuntOptions } from '@nobbet/core'
import { storeOf } from '../store/stores'
import type { HuntScreen } from './hunt-screen'

/** How the hunt is led: what is at hand, where one gets, in what order; kept with the job. */
export function useOptions({ job, record }: HuntScreen): {
  options: HuntOptions
  change: (changes: Partial<HuntOptions>) => void
} {
  const { options } = record
  return {
    options,
    change: (changes) => void storeOf(job).record({ do: 'hunt-with', options: { ...options, ...changes } }),
  }
}
