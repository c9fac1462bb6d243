import { isDeepStrictEqual } from 'node:util'
import type { EntityManager } from '@mikro-orm/libsql'
import type { Draft, Finding, FindingWrite, Job, JobSummary, JobWrite, Revision, RevisionWrite } from '@nobbet/contract'
import type { Installation } from '@nobbet/core'
import {
  DraftEntity,
  FindingEntity,
  JobEntity,
  RevisionEntity,
  type DraftRow,
  type FindingRow,
  type JobRow,
  type RevisionRow,
} from './entities'
import { judge, type Precondition } from './preconditions'
import { ApiProblem, notFound } from './problem'

/** Jobs and what belongs to them. Every write is one transaction; repeating one changes nothing. */
export class JobService {
  constructor(
    private readonly em: EntityManager,
    private readonly now: () => Date,
  ) {}

  async list(): Promise<JobSummary[]> {
    const jobs = await this.em.find(JobEntity, {}, { orderBy: { updatedAt: 'desc', id: 'asc' } })
    const drafts = await this.em.find(DraftEntity, {}, { fields: ['job'] })
    const findings = await this.em.find(FindingEntity, {}, { fields: ['job'] })
    return jobs.map((job) => ({
      ...jobOf(job),
      hasDraft: drafts.some((d) => d.job === job.id),
      findings: findings.filter((f) => f.job === job.id).length,
    }))
  }

  async readJob(id: string): Promise<Job> {
    return jobOf(await this.jobRow(id))
  }

  /** Writes a job and, where one comes with it, its draft: both or neither. */
  writeJob(id: string, { draft, ...write }: JobWrite, precondition: Precondition): Promise<Job> {
    return this.em.transactional(async (em) => {
      const found = await em.findOne(JobEntity, { id })
      const same = found !== null && isDeepStrictEqual({ brief: found.brief, status: found.status }, write)
      const now = this.now()
      const repeated = judge(precondition, found, same) === 'repeat'
      const row = found ?? em.create(JobEntity, { id, ...write, version: 1, createdAt: now, updatedAt: now })
      if (!found) em.persist(row)
      else if (!repeated) Object.assign(row, write, { version: row.version + 1, updatedAt: now })
      // The draft refers to the job's row, which has to be there first.
      await em.flush()
      if (draft) {
        const over = draft.over === null ? 'nothing there' : { version: draft.over }
        await this.putDraft(em, id, draft.installation, over)
      }
      return jobOf(row)
    })
  }

  async readDraft(job: string): Promise<Draft> {
    await this.jobRow(job)
    const row = await this.em.findOne(DraftEntity, { job })
    if (!row) throw notFound('draft')
    return draftOf(row)
  }

  writeDraft(job: string, installation: Installation, precondition: Precondition): Promise<Draft> {
    return this.em.transactional(async (em) => {
      const owner = await this.jobRow(job, em)
      owner.updatedAt = this.now()
      return draftOf(await this.putDraft(em, job, installation, precondition))
    })
  }

  private async putDraft(
    em: EntityManager,
    job: string,
    installation: Installation,
    precondition: Precondition,
  ): Promise<DraftRow> {
    const found = await em.findOne(DraftEntity, { job })
    const same = found !== null && isDeepStrictEqual(found.installation, installation)
    if (judge(precondition, found, same) === 'repeat') return found!
    const updatedAt = this.now()
    if (found) return Object.assign(found, { installation, version: found.version + 1, updatedAt })
    const row = em.create(DraftEntity, { job, installation, version: 1, updatedAt })
    em.persist(row)
    return row
  }

  async listRevisions(job: string): Promise<Revision[]> {
    await this.jobRow(job)
    const rows = await this.em.find(RevisionEntity, { job }, { orderBy: { createdAt: 'asc', id: 'asc' } })
    return rows.map(revisionOf)
  }

  writeRevision(job: string, id: string, write: RevisionWrite): Promise<Revision> {
    return this.em.transactional(async (em) => {
      const owner = await this.jobRow(job, em)
      const found = await em.findOne(RevisionEntity, { id })
      if (found) {
        const { kind, name, installation } = found
        if (found.job === job && isDeepStrictEqual({ kind, name, installation }, write)) return revisionOf(found)
        throw new ApiProblem(409, 'A revision never changes', [
          { field: 'revision', reason: 'this id is taken: use a new one' },
        ])
      }
      const row = em.create(RevisionEntity, { id, job, ...write, createdAt: this.now() })
      owner.updatedAt = row.createdAt
      em.persist(row)
      return revisionOf(row)
    })
  }

  async listFindings(job: string): Promise<Finding[]> {
    await this.jobRow(job)
    return (await this.em.find(FindingEntity, { job }, { orderBy: { number: 'asc' } })).map(findingOf)
  }

  writeFinding(job: string, id: string, write: FindingWrite): Promise<Finding> {
    return this.em.transactional(async (em) => {
      const owner = await this.jobRow(job, em)
      owner.updatedAt = this.now()
      const found = await em.findOne(FindingEntity, { id })
      if (found && found.job !== job)
        throw new ApiProblem(409, 'This finding belongs to another job', [{ field: 'finding', reason: 'use a new id' }])
      const values = { ...write, at: new Date(write.at) }
      if (found) {
        Object.assign(found, values)
        return findingOf(found)
      }
      const row = em.create(FindingEntity, { id, job, ...values } as FindingRow)
      em.persist(row)
      return findingOf(row)
    })
  }

  deleteFinding(job: string, id: string): Promise<void> {
    return this.em.transactional(async (em) => {
      const owner = await this.jobRow(job, em)
      const gone = await em.nativeDelete(FindingEntity, { id, job })
      if (gone > 0) owner.updatedAt = this.now()
    })
  }

  private async jobRow(id: string, em = this.em): Promise<JobRow> {
    const row = await em.findOne(JobEntity, { id })
    if (!row) throw notFound('job')
    return row
  }
}

const jobOf = ({ id, brief, status, version, createdAt, updatedAt }: JobRow): Job => ({
  id,
  brief,
  status,
  version,
  createdAt: createdAt.toISOString(),
  updatedAt: updatedAt.toISOString(),
})
const draftOf = ({ installation, version, updatedAt }: DraftRow): Draft => ({
  installation,
  version,
  updatedAt: updatedAt.toISOString(),
})
const revisionOf = ({ id, kind, name, installation, createdAt }: RevisionRow): Revision => ({
  id,
  kind,
  name,
  installation,
  createdAt: createdAt.toISOString(),
})
const findingOf = ({ id, asking, observable, result, note, at }: FindingRow): Finding => ({
  id,
  asking,
  observable,
  result,
  note,
  at: at.toISOString(),
})
