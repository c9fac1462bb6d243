import { useQueryClient, type QueryClient } from '@tanstack/react-query'
import { useEffect, useMemo, useSyncExternalStore } from 'react'
import { draftQuery, useDraft } from '../api/hooks'
import { WiringStore, type WiringState } from './store'

const stores = new Map<string, WiringStore>()

function storeOf(job: string, queries: QueryClient): WiringStore {
  let store = stores.get(job)
  if (!store) {
    const { queryKey } = draftQuery(job)
    store = new WiringStore(
      job,
      (draft) => queries.setQueryData(queryKey, draft),
      (installation) => queries.setQueryData(queryKey, (draft) => draft && { ...draft, installation }),
    )
    stores.set(job, store)
  }
  return store
}

/** The wiring of a job, with everything that can be done to it. */
export function useWiring(job: string): WiringState & { store: WiringStore } {
  const queries = useQueryClient()
  const store = useMemo(() => storeOf(job, queries), [job, queries])
  const state = useSyncExternalStore(store.subscribe, store.current)
  const { data } = useDraft(job)
  useEffect(() => void store.load(), [store])
  useEffect(() => {
    if (data) store.adopt(data)
  }, [store, data])
  return { ...state, store }
}
