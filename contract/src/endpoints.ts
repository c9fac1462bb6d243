import { z } from 'zod'
import { clientIdSchema } from './basics'
import { jobStateSchema, logTailSchema, logWriteSchema } from './log'
import {
  healthSchema,
  jobListQuerySchema,
  jobListSchema,
  ownTypeSchema,
  ownTypeWriteSchema,
  photoListSchema,
  photoSchema,
  photoWriteSchema,
} from './schemas'
import { dueSchema } from './site-record'
import {
  backupListSchema,
  checkedSchema,
  contentSchema,
  deviceSchema,
  pairingSchema,
  restoredSchema,
  serverSchema,
} from './server'

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
  /** Bytes instead of JSON: what it takes in where it is a write, what it answers where it is a read. */
  file?: boolean
  /** Only at the server’s own machine. */
  hostOnly?: boolean
}

/** A write that says all it has to by its address. */
export const nothingSchema = z.strictObject({})

/** Every endpoint of the API, once: the server routes by this table and the OpenAPI document is made from it. */
export const endpoints = {
  health: {
    method: 'get',
    path: '/api/health',
    summary: 'Is the server well, and can it write?',
    response: healthSchema,
  },
  listJobs: {
    method: 'get',
    path: '/api/jobs',
    summary: 'Jobs by pages: what is due first, then the newest change; found by any word that is written of them',
    query: jobListQuerySchema,
    response: jobListSchema,
  },
  listDues: {
    method: 'get',
    path: '/api/dues',
    summary: 'Everything of open jobs that has a day, the nearest first',
    response: z.array(dueSchema.extend({ job: clientIdSchema, site: z.string() })),
  },
  readJob: {
    method: 'get',
    path: '/api/jobs/{job}',
    summary: 'One job as its log makes it: brief, wiring, findings, revisions',
    response: jobStateSchema,
  },
  deleteJob: {
    method: 'delete',
    path: '/api/jobs/{job}',
    summary: 'Put a job into the bin; 30 days later it is gone. If-Match has its number',
    versioned: true,
  },
  restoreJob: {
    method: 'put',
    path: '/api/jobs/{job}/restored',
    summary: 'Take a job out of the bin',
    request: nothingSchema,
  },
  readLog: {
    method: 'get',
    path: '/api/jobs/{job}/log',
    summary: 'What was recorded, in the order in which it came in',
    query: z.strictObject({
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
    summary: 'Photos of a job, oldest first, and the room that is left for photos',
    response: photoListSchema,
  },
  writePhoto: {
    method: 'put',
    path: '/api/jobs/{job}/photos/{photo}',
    summary: 'Put a photo to a job: to a revision, a finding, or only a visit',
    request: photoWriteSchema,
    response: photoSchema,
  },
  readImage: {
    method: 'get',
    path: '/api/jobs/{job}/photos/{photo}/image',
    summary: 'The photo itself, whole or a range of its bytes',
    file: true,
  },
  readThumbnail: {
    method: 'get',
    path: '/api/jobs/{job}/photos/{photo}/thumbnail',
    summary: 'The photo, small; the photo itself where nobody has made it small',
    file: true,
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
    versioned: true,
  },
  server: {
    method: 'get',
    path: '/api/server',
    summary: 'Who is asking, and how the server stands in the network',
    response: serverSchema,
  },
  startPairing: {
    method: 'put',
    path: '/api/pairing',
    summary: 'A new code with which one device can be let in',
    request: nothingSchema,
    response: pairingSchema,
    hostOnly: true,
  },
  stopPairing: { method: 'delete', path: '/api/pairing', summary: 'No code is good any more', hostOnly: true },
  listDevices: {
    method: 'get',
    path: '/api/devices',
    summary: 'Devices that may come in',
    response: z.array(deviceSchema),
    hostOnly: true,
  },
  revokeDevice: {
    method: 'delete',
    path: '/api/devices/{device}',
    summary: 'Shut a device out, at once',
    hostOnly: true,
  },
  checkData: {
    method: 'get',
    path: '/api/data/check',
    summary: 'Read the whole database and say whether it is sound',
    response: checkedSchema,
    hostOnly: true,
  },
  listBackups: {
    method: 'get',
    path: '/api/backups',
    summary: 'Backups that are there',
    response: backupListSchema,
    hostOnly: true,
  },
  makeBackup: {
    method: 'put',
    path: '/api/backups/{backup}',
    summary: 'Everything to one file, while all goes on',
    request: nothingSchema,
    response: contentSchema,
    hostOnly: true,
  },
  readBackup: {
    method: 'get',
    path: '/api/backups/{backup}/file',
    summary: 'The backup itself, an SQLite file',
    file: true,
    hostOnly: true,
  },
  takeBackup: {
    method: 'put',
    path: '/api/backups/{backup}/file',
    summary: 'Bring a backup from elsewhere, an SQLite file; it is read from end to end before it is kept',
    response: contentSchema,
    file: true,
    hostOnly: true,
  },
  restoreBackup: {
    method: 'put',
    path: '/api/backups/{backup}/restored',
    summary: 'Put a backup in the place of all data; what was there is kept as a backup',
    request: nothingSchema,
    response: restoredSchema,
    hostOnly: true,
  },
} as const satisfies Record<string, Endpoint>

export type Operation = keyof typeof endpoints
