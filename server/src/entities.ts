import { EntitySchema } from '@mikro-orm/core'
import type { Entry, Finding, JobBrief } from '@nobbet/contract'
import type { DeviceType, Installation } from '@nobbet/core'

/** A line of a job's log: the one thing that is written; what the other tables say of a job follows from its lines. */
export interface EntryRow {
  /** Order of coming in, over all jobs. */
  number: number
  id: string
  job: string
  author: string
  visit: string
  at: Date
  entry: Entry
  receivedAt: Date
}

export interface JobRow {
  id: string
  brief: JobBrief
  status: 'open' | 'closed'
  /** Number of its last log entry. */
  version: number
  createdAt: Date
  updatedAt: Date
}
export interface DraftRow {
  job: string
  installation: Installation
  /** Number of the last log entry that changed it. */
  version: number
  updatedAt: Date
}
export interface RevisionRow {
  id: string
  job: string
  kind: 'planned' | 'as-found' | 'altered'
  name: string
  installation: Installation
  createdAt: Date
}
export interface PhotoRow {
  id: string
  job: string
  revision: string
  caption: string
  image: string
  createdAt: Date
}
export interface FindingRow {
  /** Order of logging. */
  number: number
  id: string
  job: string
  asking: Finding['asking']
  observable: Finding['observable']
  result: Finding['result']
  note: string
  at: Date
}

/** A device type of a user's own. */
export interface TypeRow {
  id: string
  definition: DeviceType
  version: number
  updatedAt: Date
}

export const EntryEntity = new EntitySchema<EntryRow>({
  name: 'Entry',
  tableName: 'entry',
  properties: {
    number: { type: 'integer', primary: true, autoincrement: true },
    id: { type: 'string', unique: true },
    job: { type: 'string' },
    author: { type: 'string' },
    visit: { type: 'string' },
    at: { type: 'datetime' },
    entry: { type: 'json' },
    receivedAt: { type: 'datetime' },
  },
})

export const JobEntity = new EntitySchema<JobRow>({
  name: 'Job',
  tableName: 'job',
  properties: {
    id: { type: 'string', primary: true },
    brief: { type: 'json' },
    status: { type: 'string' },
    version: { type: 'integer' },
    createdAt: { type: 'datetime' },
    updatedAt: { type: 'datetime' },
  },
})

export const DraftEntity = new EntitySchema<DraftRow>({
  name: 'Draft',
  tableName: 'draft',
  properties: {
    job: { type: 'string', primary: true },
    installation: { type: 'json' },
    version: { type: 'integer' },
    updatedAt: { type: 'datetime' },
  },
})

export const RevisionEntity = new EntitySchema<RevisionRow>({
  name: 'Revision',
  tableName: 'revision',
  properties: {
    id: { type: 'string', primary: true },
    job: { type: 'string' },
    kind: { type: 'string' },
    name: { type: 'string' },
    installation: { type: 'json' },
    createdAt: { type: 'datetime' },
  },
})

export const PhotoEntity = new EntitySchema<PhotoRow>({
  name: 'Photo',
  tableName: 'photo',
  properties: {
    id: { type: 'string', primary: true },
    job: { type: 'string' },
    revision: { type: 'string' },
    caption: { type: 'string' },
    image: { type: 'text' },
    createdAt: { type: 'datetime' },
  },
})

export const FindingEntity = new EntitySchema<FindingRow>({
  name: 'Finding',
  tableName: 'finding',
  properties: {
    number: { type: 'integer', primary: true, autoincrement: true },
    id: { type: 'string', unique: true },
    job: { type: 'string' },
    asking: { type: 'json' },
    observable: { type: 'json' },
    result: { type: 'string' },
    note: { type: 'string' },
    at: { type: 'datetime' },
  },
})

export const TypeEntity = new EntitySchema<TypeRow>({
  name: 'OwnType',
  tableName: 'own_type',
  properties: {
    id: { type: 'string', primary: true },
    definition: { type: 'json' },
    version: { type: 'integer' },
    updatedAt: { type: 'datetime' },
  },
})
