import type { JobStore as Store } from '../src/store/job-store'
import { JobStore } from '../src/store/job-store'
import { MemoryKeeper } from '../src/store/memory'
import { documentOf, FakeServer, FakeTabs } from '.'

/** Stands in for the stores of the page in tests of components: each job on a server of its own, kept in memory. */
export const here = new MemoryKeeper()
export const keepsThings = Promise.resolve(true)
const tabs = new FakeTabs()
const stores = new Map<string, { store: Store; server: FakeServer }>()

function made(job: string) {
  let found = stores.get(job)
  if (!found) {
    const server = new FakeServer(job, job.startsWith('job-') ? documentOf() : undefined)
    found = { store: new JobStore(job, { keeper: here, server, tabs: tabs.tab() }), server }
    stores.set(job, found)
  }
  return found
}
export const storeOf = (job: string): Store => made(job).store
export const serverOf = (job: string): FakeServer => made(job).server
export const openStores = (): Store[] => [...stores.values()].map(({ store }) => store)
export const wakeAll = (): void => undefined
export const sendWhatWasLeft = (): void => undefined
