import { z } from 'zod'
import {
  draftSchema,
  draftWriteSchema,
  findingSchema,
  findingWriteSchema,
  healthSchema,
  jobSchema,
  jobSummarySchema,
  jobWriteSchema,
  ownTypeSchema,
  ownTypeWriteSchema,
  photoSchema,
  photoWriteSchema,
  revisionSchema,
  revisionWriteSchema,
} from './schemas'

interface Endpoint {
  method: 'get' | 'put' | 'delete'
  /** With `{name}` for what varies. */
  path: string
  summary: string
  request?: z.ZodType
  response?: z.ZodType
  /** Answers with an ETag; a write wants If-Match, or If-None-Match: * where nothing is there yet. */
  versioned?: boolean
}

/** Every endpoint of the API, once: the server routes by this table and the OpenAPI document is made from it. */
export const endpoints = {
  health: {
    method: 'get',
    path: '/api/health',
    summary: 'Is the server well and its data whole?',
    response: healthSchema,
  },
  listJobs: {
    method: 'get',
    path: '/api/jobs',
    summary: 'All jobs, newest change first',
    response: z.array(jobSummarySchema),
  },
  readJob: { method: 'get', path: '/api/jobs/{job}', summary: 'One job', response: jobSchema, versioned: true },
  writeJob: {
    method: 'put',
    path: '/api/jobs/{job}',
    summary: 'Make or change a job',
    request: jobWriteSchema,
    response: jobSchema,
    versioned: true,
  },
  readDraft: {
    method: 'get',
    path: '/api/jobs/{job}/draft',
    summary: 'The job’s installation as it stands',
    response: draftSchema,
    versioned: true,
  },
  writeDraft: {
    method: 'put',
    path: '/api/jobs/{job}/draft',
    summary: 'Replace the job’s installation',
    request: draftWriteSchema,
    response: draftSchema,
    versioned: true,
  },
  listRevisions: {
    method: 'get',
    path: '/api/jobs/{job}/revisions',
    summary: 'Named states of the installation, oldest first',
    response: z.array(revisionSchema),
  },
  writeRevision: {
    method: 'put',
    path: '/api/jobs/{job}/revisions/{revision}',
    summary: 'Keep a named state; it never changes again',
    request: revisionWriteSchema,
    response: revisionSchema,
  },
  listPhotos: {
    method: 'get',
    path: '/api/jobs/{job}/photos',
    summary: 'Photos pinned to revisions, oldest first',
    response: z.array(photoSchema),
  },
  writePhoto: {
    method: 'put',
    path: '/api/jobs/{job}/photos/{photo}',
    summary: 'Pin a photo to a revision',
    request: photoWriteSchema,
    response: photoSchema,
  },
  deletePhoto: { method: 'delete', path: '/api/jobs/{job}/photos/{photo}', summary: 'Take a photo down' },
  listFindings: {
    method: 'get',
    path: '/api/jobs/{job}/findings',
    summary: 'Findings from site, in the order in which they were made',
    response: z.array(findingSchema),
  },
  writeFinding: {
    method: 'put',
    path: '/api/jobs/{job}/findings/{finding}',
    summary: 'Log a finding',
    request: findingWriteSchema,
    response: findingSchema,
  },
  listTypes: {
    method: 'get',
    path: '/api/types',
    summary: 'Device types of one’s own, by name',
    response: z.array(ownTypeSchema),
  },
  writeType: {
    method: 'put',
    path: '/api/types/{type}',
    summary: 'Make or change a device type; its version goes up by one',
    request: ownTypeWriteSchema,
    response: ownTypeSchema,
    versioned: true,
  },
  deleteType: {
    method: 'delete',
    path: '/api/types/{type}',
    summary: 'Take a device type out of Kit; installations keep theirs',
  },
  deleteFinding: { method: 'delete', path: '/api/jobs/{job}/findings/{finding}', summary: 'Take a finding back' },
} as const satisfies Record<string, Endpoint>

export type Operation = keyof typeof endpoints
