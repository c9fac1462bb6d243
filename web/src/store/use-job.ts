import { useEffect, useSyncExternalStore } from 'react'
import type { JobStore } from './job-store'
import type { JobView } from './job-view'
import { storeOf } from './stores'

/** How often a job that is looked at is asked for what others have done, ms. */
const askEveryMs = 15_000

/** A job, with everything that can be done to it. */
export function useJob(job: string): JobView & { store: JobStore } {
  const store = storeOf(job)
  const view = useSyncExternalStore(store.subscribe, store.current)
  useEffect(() => void store.load(), [store])
  return { ...view, store }
}

/** Keeps a job up to date for as long as it is looked at. */
export function useAttended(job: string): void {
  useEffect(() => {
    const store = storeOf(job)
    const timer = setInterval(() => {
      if (document.visibilityState === 'visible') void store.load().then(() => store.catchUp())
    }, askEveryMs)
    return () => clearInterval(timer)
  }, [job])
}
