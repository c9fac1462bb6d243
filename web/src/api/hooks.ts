import { queryOptions, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import type { Finding, JobWrite, PhotoWrite, RevisionWrite } from '@nobbet/contract'
import type { Installation } from '@nobbet/core'
import { call } from './client'

const keys = {
  jobs: ['jobs'] as const,
  job: (job: string) => ['jobs', job] as const,
  draft: (job: string) => ['jobs', job, 'draft'] as const,
  revisions: (job: string) => ['jobs', job, 'revisions'] as const,
  photos: (job: string) => ['jobs', job, 'photos'] as const,
  findings: (job: string) => ['jobs', job, 'findings'] as const,
}

export const useJobs = () => useQuery({ queryKey: keys.jobs, queryFn: () => call('listJobs') })
export const jobQuery = (job: string) =>
  queryOptions({ queryKey: keys.job(job), queryFn: () => call('readJob', { params: { job } }) })
export const useJob = (job: string) => useQuery(jobQuery(job))
export const draftQuery = (job: string) =>
  queryOptions({ queryKey: keys.draft(job), queryFn: () => call('readDraft', { params: { job } }) })
export const useDraft = (job: string) => useQuery(draftQuery(job))
export const useRevisions = (job: string) =>
  useQuery({ queryKey: keys.revisions(job), queryFn: () => call('listRevisions', { params: { job } }) })
export const useFindings = (job: string) =>
  useQuery({ queryKey: keys.findings(job), queryFn: () => call('listFindings', { params: { job } }) })

export interface JobSave {
  job: string
  write: JobWrite
  over: number | 'new'
}

/** Writes a job, with its wiring where that is laid out anew. May be repeated without harm. */
export function useSaveJob() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: ({ job, write, over }: JobSave) => call('writeJob', { params: { job }, body: write, over }),
    onSuccess: (saved, { job }) => queries.setQueryData(keys.job(job), saved),
    onSettled: (_, __, { job }) =>
      queries.invalidateQueries({
        queryKey: ['jobs'],
        predicate: ({ queryKey }) => queryKey.length === 1 || queryKey[1] === job,
      }),
  })
}

export interface DraftSave {
  installation: Installation
  over: number
}

/** Writes a job's installation over a version of it. */
export function useSaveDraft(job: string) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: ({ installation, over }: DraftSave) =>
      call('writeDraft', { params: { job }, body: { installation }, over }),
    onSuccess: (saved) => queries.setQueryData(keys.draft(job), saved),
  })
}

export function useSaveRevision(job: string) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: ({ id, write }: { id: string; write: RevisionWrite }) =>
      call('writeRevision', { params: { job, revision: id }, body: write }),
    onSettled: () => queries.invalidateQueries({ queryKey: keys.revisions(job) }),
  })
}

export const usePhotos = (job: string) =>
  useQuery({ queryKey: keys.photos(job), queryFn: () => call('listPhotos', { params: { job } }) })

/** Pins a photo to a revision, or takes one down. */
export function usePhotoChange(job: string) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: async (change: { id: string; write: PhotoWrite } | { remove: string }) => {
      if ('remove' in change) await call('deletePhoto', { params: { job, photo: change.remove } })
      else await call('writePhoto', { params: { job, photo: change.id }, body: change.write })
    },
    onSettled: () => queries.invalidateQueries({ queryKey: keys.photos(job) }),
  })
}

/** Logs a finding or takes one back. The list shows it at once; what the server refuses is put right again. */
export function useFindingChange(job: string) {
  const queries = useQueryClient()
  const key = keys.findings(job)
  return useMutation({
    mutationFn: async (change: { put: Finding } | { remove: string }) => {
      if ('remove' in change) await call('deleteFinding', { params: { job, finding: change.remove } })
      else {
        const { id, ...write } = change.put
        await call('writeFinding', { params: { job, finding: id }, body: write })
      }
    },
    onMutate: async (change) => {
      await queries.cancelQueries({ queryKey: key })
      const before = queries.getQueryData<Finding[]>(key)
      queries.setQueryData<Finding[]>(key, (list = []) =>
        'remove' in change
          ? list.filter((f) => f.id !== change.remove)
          : [...list.filter((f) => f.id !== change.put.id), change.put],
      )
      return { before }
    },
    onError: (_, __, context) => queries.setQueryData(key, context?.before),
    onSettled: () =>
      Promise.all([
        queries.invalidateQueries({ queryKey: key }),
        queries.invalidateQueries({ queryKey: keys.jobs, exact: true }),
      ]),
  })
}
