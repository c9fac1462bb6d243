import { v4 as newId } from 'uuid'
import type { JobStore } from '../store/job-store'
import { ownName } from '../store/who'

/** Begins a visit, by whoever uses this browser. Resolves with its id once it is kept. */
export async function beginVisit(store: JobStore, why = ''): Promise<string> {
  const id = newId()
  const who = ownName() || (store.current().state?.document.brief.engineer ?? '')
  await store.record({ do: 'visit', visit: { id, who, why, at: new Date().toISOString() } })
  return id
}
