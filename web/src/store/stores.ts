import { call } from '../api/client'
import { keeper } from './browser'
import { JobStore } from './job-store'
import type { Keeper } from './kept'
import type { Server } from './sending'
import { browserTabs } from './tabs'

const server: Server = {
  readJob: (job) => call('readJob', { params: { job } }),
  readLog: (job, after) => call('readLog', { params: { job }, query: { after } }),
  writeLog: (job, body) => call('writeLog', { params: { job }, body }),
  writePhoto: (job, photo, body) => call('writePhoto', { params: { job, photo }, body }),
  deletePhoto: (job, photo) => call('deletePhoto', { params: { job, photo } }),
}

const opened = keeper()
/** Does this browser keep things longer than the page lives? */
export const keepsThings: Promise<boolean> = opened.then(({ lasting }) => lasting)

/** What keeps things here, whether it is open already or not. */
export const here: Keeper = {
  read: async (job) => (await opened).keeper.read(job),
  keep: async (job, keeping) => (await opened).keeper.keep(job, keeping),
  rework: async (job, work) => (await opened).keeper.rework(job, work),
  picture: async (photo) => (await opened).keeper.picture(photo),
  jobs: async () => (await opened).keeper.jobs(),
  unsent: async () => (await opened).keeper.unsent(),
  list: async () => (await opened).keeper.list(),
  keepList: async (jobs, readAt) => (await opened).keeper.keepList(jobs, readAt),
  sitting: async (job) => (await opened).keeper.sitting(job),
  keepSitting: async (job, sitting) => (await opened).keeper.keepSitting(job, sitting),
}

const tabs = browserTabs()
const stores = new Map<string, JobStore>()

/** The one store of a job in this page. */
export function storeOf(job: string): JobStore {
  let store = stores.get(job)
  if (!store) {
    store = new JobStore(job, { keeper: here, server, tabs })
    stores.set(job, store)
  }
  return store
}

/** The stores that are open in this page. */
export const openStores = (): JobStore[] => [...stores.values()]

/** Sends what an earlier page has left, whichever job it belongs to. */
export async function sendWhatWasLeft(): Promise<void> {
  for (const job of await here.unsent()) void storeOf(job).load()
}

/** The connection is back, or the page is looked at again. */
export function wakeAll(): void {
  for (const store of stores.values()) store.wake()
}
