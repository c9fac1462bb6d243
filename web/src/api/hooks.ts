import type { JobSummary } from '@nobbet/contract'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { here, openStores, storeOf } from '../store/stores'
import { ApiError, call, errorText } from './client'

export interface JobList {
  jobs: JobSummary[]
  /** When the server told it, ms since 1970. */
  readAt: number
  /** Why it is not newer, where the server could not be asked. */
  stale?: string
}

/** All jobs, as the server has them; where it cannot be asked, as they were told last, and since when. */
export const useJobs = () =>
  useQuery({
    queryKey: ['jobs'],
    refetchInterval: 15_000,
    networkMode: 'always',
    retry: false,
    queryFn: async (): Promise<JobList> => {
      try {
        const jobs = await call('listJobs')
        await here.keepList(jobs, Date.now()).catch(() => undefined)
        return { jobs, readAt: Date.now() }
      } catch (error) {
        const known = await here.list()
        if (!known || (error instanceof ApiError && error.status < 500)) throw error
        return { ...known, stale: errorText(error as Error) }
      }
    },
  })

/** A job as it stands here, where the server’s list does not say so yet. */
export interface LocalJob {
  job: string
  summary: Pick<JobSummary, 'brief' | 'status' | 'findings'>
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
                summary: {
                  brief: state.document.brief,
                  status: state.document.status,
                  findings: state.findings.length,
                },
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
