import {
  leftOpen,
  openVisit,
  recordOf,
  type JobState,
  type LeftOpen,
  type SiteRecord,
  type Visit,
} from '@nobbet/contract'
import { useMemo } from 'react'
import type { JobStore } from '../store/job-store'
import { useJob } from '../store/use-job'

export interface RecordHandle {
  state?: JobState
  store: JobStore
  record?: SiteRecord
  /** The visit that is open. */
  visit?: Visit
  /** What there is to put back. */
  left: readonly LeftOpen[]
}

/** A job's record of visits, and what is left open on it. */
export function useRecord(job: string): RecordHandle {
  const { state, store } = useJob(job)
  const record = useMemo(() => state && recordOf(state), [state])
  const left = useLeft(state)
  return { state, store, record, visit: record && openVisit(record), left }
}

/** What there is to put back: worked out anew only where something of it may be otherwise. */
function useLeft(state: JobState | undefined): readonly LeftOpen[] {
  const { document, findings, hunt, record } = (state ?? {}) as Partial<JobState>
  const wiring = document?.wiring
  return useMemo(
    () => (state && wiring ? leftOpen(state) : []),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- of the state only these are looked at
    [wiring, findings, hunt, record],
  )
}

/** The stamp that what is written down bears: now, on the visit that is open, if one is. */
export const stampOf = (visit: Visit | undefined): { at: string; visit: string } => ({
  at: new Date().toISOString(),
  visit: visit?.id ?? '',
})
