import { z } from 'zod'
import { jobStateSchema, logTailSchema, logWriteSchema } from './log'
import {
  healthSchema,
  jobSummarySchema,
  ownTypeSchema,
  ownTypeWriteSchema,
  photoSchema,
  photoWriteSchema,
} from './schemas'

interface Endpoint {
  method: 'get' | 'put' | 'delete'
  /** With `{name}` for what varies. */
  path: string
  summary: string
  query?: z.ZodObject
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
  readJob: {
    method: 'get',
    path: '/api/jobs/{job}',
    summary: 'One job as its log makes it: brief, wiring, findings, revisions',
    response: jobStateSchema,
  },
  readLog: {
    method: 'get',
    path: '/api/jobs/{job}/log',
    summary: 'What was recorded, in the order in which it came in',
    query: z.object({
      /** Only what came in after this number. */
      after: z.coerce.number({ error: 'is no number' }).int().min(0).default(0),
    }),
    response: logTailSchema,
  },
  writeLog: {
    method: 'put',
    path: '/api/jobs/{job}/log',
    summary: 'Record entries, in order: all or none. One that is there already is not recorded twice',
    request: logWriteSchema,
    response: logTailSchema,
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
} as const satisfies Record<string, Endpoint>

export type Operation = keyof typeof endpoints
