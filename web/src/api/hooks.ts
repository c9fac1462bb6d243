import {
  headingOf,
  huntOf,
  recordOf,
  standingOf,
  type JobHeading,
  type JobList,
  type JobListQuery,
} from '@nobbet/contract'
import { keepPreviousData, useInfiniteQuery, useQuery } from '@tanstack/react-query'
import { here, openStores, storeOf } from '../store/stores'
import { ApiError, call, errorText } from './client'

/** Which jobs are asked for. */
export interface Wanted {
  status: 'open' | 'all' | 'deleted'
  find: string
  /** Only those at this site; any, where empty. */
  site: string
  kind: JobListQuery['kind']
}

export interface JobPage extends Pick<JobList, 'jobs' | 'next'> {
  counts?: JobList['counts']
  /** When the server told it, ms since 1970. */
  readAt: number
  /** Why it is not newer, where the server could not be asked. */
  stale?: string
}

/** Jobs by pages, as the server has them; where it cannot be asked, as they were told last, and since when. */
export const useJobs = ({ status, find, site, kind }: Wanted) =>
  useInfiniteQuery({
    queryKey: ['jobs', status, find, site, kind],
    refetchInterval: 15_000,
    networkMode: 'always',
    retry: false,
    placeholderData: keepPreviousData,
    initialPageParam: '',
    getNextPageParam: (page: JobPage) => page.next,
    queryFn: async ({ pageParam }): Promise<JobPage> => {
      try {
        const page = await call('listJobs', { query: { status, find, site, kind, after: pageParam } })
        if (!pageParam && !find && !site && kind === 'all' && status !== 'deleted')
          await here.keepList(page.jobs, Date.now()).catch(() => undefined)
        return { ...page, readAt: Date.now() }
      } catch (error) {
        const known = await here.list()
        if (!known || status === 'deleted' || (error instanceof ApiError && error.status < 500)) throw error
        const sought = find.toLowerCase()
        const jobs = known.jobs.filter(
          (job) =>
            `${job.site}\n${job.symptom}`.toLowerCase().includes(sought) &&
            (site === '' || job.site === site) &&
            (kind === 'all' || job.kind === kind),
        )
        return { jobs, readAt: known.readAt, stale: errorText(error as Error) }
      }
    },
  })

/** A job as it stands here, where the server’s list does not say so yet. */
export interface LocalJob {
  job: string
  summary: JobHeading
  /** Number of the last entry that the server is known to have. */
  number: number
  /** Something of it is not sent yet. */
  unsent: boolean
}

/** Jobs that stand otherwise here than in a list that was read at that time; where there is no list, all that are known here. */
export const useLocalJobs = (listReadAt: number | undefined) =>
  useQuery({
    queryKey: ['local-jobs', listReadAt],
    placeholderData: keepPreviousData,
    refetchInterval: 1000,
    networkMode: 'always',
    queryFn: async (): Promise<LocalJob[]> => {
      const unsent = await here.unsent()
      const stores =
        listReadAt === undefined
          ? (await here.jobs()).map(storeOf)
          : new Set([
              ...unsent.map(storeOf),
              ...openStores().filter((store) => (store.current().deliveredAt ?? 0) > listReadAt),
            ])
      const views = await Promise.all(
        [...stores].map(async (store) => {
          await store.load()
          return { job: store.job, state: store.current().state, unsent: unsent.includes(store.job) }
        }),
      )
      return views.flatMap(({ state, ...rest }) =>
        state
          ? [
              {
                ...rest,
                number: state.number,
                summary: headingOf(
                  state.document,
                  standingOf(state.findings.length, huntOf(state), recordOf(state), state.ticks.length),
                ),
              },
            ]
          : [],
      )
    },
  })

/** A job’s photos as the server has them; asked for anew whenever another number of them waits here. */
export const usePhotos = (job: string, waiting: number) =>
  useQuery({
    queryKey: ['photos', job, waiting],
    placeholderData: keepPreviousData,
    queryFn: () => call('listPhotos', { params: { job } }),
  })

/** How the server stands: who asks it, where it is in the network, whether its data can be written. */
export const useServer = () =>
  useQuery({
    queryKey: ['server'],
    queryFn: () => call('server'),
    refetchInterval: 30_000,
    retry: false,
    networkMode: 'always',
  })
