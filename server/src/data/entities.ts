import { EntitySchema } from '@mikro-orm/core'
import type { Entry, Finding, HuntRecord, JobBrief, JobStanding, Photo, SiteRecord } from '@nobbet/contract'
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
  /** Name of the paired device it came from; null for the server’s own machine. */
  device: string | null
}

export interface JobRow {
  id: string
  brief: JobBrief
  status: 'open' | 'closed'
  /** Number of its last log entry. */
  version: number
  /** How far it is, as the list tells it. */
  standing: JobStanding
  /** The first day by which something has to be done, as year-month-day. */
  due: string | null
  createdAt: Date
  updatedAt: Date
  /** In the bin since then; it is gone for good some time later. */
  deletedAt: Date | null
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
  kind: 'planned' | 'as-found' | 'altered' | 'as-left'
  name: string
  installation: Installation
  createdAt: Date
}
/** What a job's log says of its hunt; there is none where nothing was hunted yet. */
export interface HuntRow {
  job: string
  record: HuntRecord
}
/** What a job's log says of its visits; there is none before the first. */
export interface SiteRecordRow {
  job: string
  record: SiteRecord
}
export interface PhotoRow {
  id: string
  job: string
  revision: string | null
  visit: string | null
  item: string | null
  spot: NonNullable<Photo['spot']> | null
  caption: string
  /** Media type, as a browser names it. */
  type: string
  bytes: number
  /** SHA-256 of the image, hexadecimal. */
  digest: string
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
  /** Counted on after it was taken away and made anew. */
  version: number
  updatedAt: Date
  deletedAt: Date | null
}

/** A device that may come in from the network. */
export interface DeviceRow {
  id: string
  name: string
  pairedAt: Date
  seenAt: Date
  revokedAt: Date | null
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
    device: { type: 'string', nullable: true },
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
    standing: { type: 'json' },
    due: { type: 'string', nullable: true },
    createdAt: { type: 'datetime' },
    updatedAt: { type: 'datetime' },
    deletedAt: { type: 'datetime', nullable: true },
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

export const HuntEntity = new EntitySchema<HuntRow>({
  name: 'Hunt',
  tableName: 'hunt',
  properties: { job: { type: 'string', primary: true }, record: { type: 'json' } },
})

export const SiteRecordEntity = new EntitySchema<SiteRecordRow>({
  name: 'SiteRecord',
  tableName: 'site_record',
  properties: { job: { type: 'string', primary: true }, record: { type: 'json' } },
})

export const PhotoEntity = new EntitySchema<PhotoRow>({
  name: 'Photo',
  tableName: 'photo',
  properties: {
    id: { type: 'string', primary: true },
    job: { type: 'string' },
    revision: { type: 'string', nullable: true },
    visit: { type: 'string', nullable: true },
    item: { type: 'string', nullable: true },
    spot: { type: 'json', nullable: true },
    caption: { type: 'string' },
    type: { type: 'string' },
    bytes: { type: 'integer' },
    digest: { type: 'string' },
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
    deletedAt: { type: 'datetime', nullable: true },
  },
})

export const DeviceEntity = new EntitySchema<DeviceRow>({
  name: 'Device',
  tableName: 'device',
  properties: {
    id: { type: 'string', primary: true },
    name: { type: 'string' },
    pairedAt: { type: 'datetime' },
    seenAt: { type: 'datetime' },
    revokedAt: { type: 'datetime', nullable: true },
  },
})

export const entities = [
  EntryEntity,
  JobEntity,
  DraftEntity,
  RevisionEntity,
  PhotoEntity,
  FindingEntity,
  HuntEntity,
  SiteRecordEntity,
  TypeEntity,
  DeviceEntity,
]
