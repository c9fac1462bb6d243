import type { EntityManager } from '@mikro-orm/libsql'
import {
  documentAfter,
  documentProblems,
  huntAfter,
  disturbedAfter,
  isHuntDeed,
  isSiteDeed,
  leftOpen,
  LogError,
  mostHuntLines,
  isSurveyDeed,
  mostKept,
  mostRowsDone,
  runsOf,
  surveyProblem,
  noHunt,
  noRecord,
  recordAfter,
  standingSchema,
  type EditEntry,
  type Finding,
  type HuntDeed,
  type JobDocument,
  type LogEntry,
  type LogTail,
  type LogWrite,
  type NumberedEntry,
  type Revision,
  type SiteDeed,
  type SiteRecord,
} from '@nobbet/contract'
import { ChangeError, same } from '@nobbet/core'
import {
  DraftEntity,
  EntryEntity,
  FindingEntity,
  HuntEntity,
  JobEntity,
  RevisionEntity,
  SiteRecordEntity,
  type EntryRow,
  type FindingRow,
  type JobRow,
} from '../data/entities'
import { asKept, insertEntry } from '../data/entry-row'
import { JobIndex } from './job-index'
import { judge, type Precondition } from '../http/preconditions'
import { ApiProblem, changedMeanwhile, inBin, notFound } from '../http/problem'

/** Who reads and writes: the lineage of the data they see, and the paired device they come from, if any. */
export interface Writer {
  lineage: string
  device?: string
}

/** Jobs and their logs. A write is one transaction: all its entries are recorded, or none; repeating it changes nothing. */
export class JobService {
  constructor(
    private readonly em: EntityManager,
    private readonly now: () => Date,
    private readonly by: Writer,
  ) {}

  async tail(job: string, after: number): Promise<LogTail> {
    const { version } = await this.jobRow(job)
    const rows = await this.em.find(EntryEntity, { job, number: { $gt: after } }, { orderBy: { number: 'asc' } })
    return { entries: rows.map(entryOf), number: version, lineage: this.by.lineage }
  }

  /**
   * Records entries behind what is there. Answers with everything the writer did not know yet, its own among it.
   * Throws 412 where an entry does not fit what somebody else has made of the job, 422 where it fits nothing.
   */
  record(job: string, { after, entries }: LogWrite): Promise<LogTail> {
    return this.em.transactional(async (em) => {
      const service = new JobService(em, this.now, this.by)
      for (const logged of entries) await service.recordOne(job, logged)
      await em.flush()
      const rewired = entries.some(({ entry }) => entry.do === 'open' || entry.do === 'edit')
      await new JobIndex(em).bringUp(job, rewired ? 'rewired' : 'as it was')
      const tail = await service.tail(job, after)
      if (!rewired) return tail
      const row = await service.jobRow(job)
      const draft = await em.findOneOrFail(DraftEntity, { job })
      const problems = documentProblems({ brief: row.brief, status: row.status, wiring: draft.installation })
      if (problems.length === 0) return tail
      // What two have made of it does not stand together: the later one can still make it fit.
      const mine = new Set(entries.map((e) => e.id))
      if (tail.entries.some((e) => !mine.has(e.id))) throw changedMeanwhile()
      throw new ApiProblem(422, 'This job cannot be so', problems)
    })
  }

  private async recordOne(job: string, logged: LogEntry): Promise<void> {
    const known = await this.em.findOne(EntryEntity, { id: logged.id })
    if (known?.job === job) return
    if (known)
      throw new ApiProblem(409, 'This entry belongs to another job', [{ field: 'entries.id', reason: 'use a new id' }])
    const { entry } = logged
    const now = this.now()
    const touches = entry.do === 'open' || entry.do === 'edit' || entry.do === 'keep'
    const before = touches ? await this.document(job) : undefined
    if (before || !touches) await this.jobRow(job)
    const document = touches ? asKept(fitted(before, logged)) : undefined
    if (entry.do === 'open') await this.begin(job, entry, now)
    const number = await insertEntry(this.em, {
      id: logged.id,
      job,
      author: logged.author,
      visit: logged.visit,
      at: new Date(logged.at),
      entry,
      receivedAt: now,
      device: this.by.device ?? null,
    })
    if (entry.do === 'edit') await this.disturb(job, before!.wiring, entry, logged)
    await this.bringOut(job, document, logged, number, now)
  }

  private async begin(job: string, document: JobDocument, now: Date): Promise<void> {
    const { brief, status, wiring } = asKept(document)
    this.em.persist(
      this.em.create(JobEntity, {
        id: job,
        brief,
        standing: standingSchema.parse({}),
        due: null,
        status,
        version: 0,
        createdAt: now,
        updatedAt: now,
        deletedAt: null,
      }),
    )
    // All else refers to the job's row, which has to be there first.
    await this.em.flush()
    this.em.persist(this.em.create(DraftEntity, { job, installation: wiring, version: 0, updatedAt: now }))
    await this.em.flush()
  }

  /** What the other tables say of the job after an entry; the document only where the entry is about it. */
  private async bringOut(
    job: string,
    document: JobDocument | undefined,
    { entry, at, visit }: LogEntry,
    number: number,
    now: Date,
  ): Promise<void> {
    const row = await this.jobRow(job)
    Object.assign(row, { version: number, updatedAt: now })
    if (document) {
      const { brief, status, wiring } = document
      if (!same(row.brief, brief) || row.status !== status) Object.assign(row, { brief, status })
      const draft = await this.em.findOneOrFail(DraftEntity, { job })
      if (!same(draft.installation, wiring))
        Object.assign(draft, { installation: wiring, version: number, updatedAt: now })
      if (entry.do === 'keep') await this.keep(job, entry.revision, { ...entry, wiring, at })
    }
    if (isHuntDeed(entry)) await this.hunt(job, entry)
    if (isSiteDeed(entry)) await this.site(job, entry, at, visit)
    if (entry.do === 'observe') await this.observe(job, entry.finding)
    if (entry.do === 'retract') await this.em.nativeDelete(FindingEntity, { id: entry.finding, job })
  }

  private async keep(
    job: string,
    id: string,
    kept: Pick<Revision, 'kind' | 'name'> & {
      installation?: JobDocument['wiring']
      wiring: JobDocument['wiring']
      at: string
    },
  ): Promise<void> {
    if (await this.em.findOne(RevisionEntity, { id }))
      throw new ApiProblem(409, 'A revision never changes', [
        { field: 'entries.entry.revision', reason: 'this id is taken: use a new one' },
      ])
    const { kind, name } = kept
    const installation = asKept(kept.installation ?? kept.wiring)
    this.em.persist(this.em.create(RevisionEntity, { id, job, kind, name, installation, createdAt: new Date(kept.at) }))
    await this.em.flush()
  }

  private async hunt(job: string, deed: HuntDeed): Promise<void> {
    const row = await this.em.findOne(HuntEntity, { job })
    const record = huntAfter(row?.record ?? noHunt, deed)
    if (record.lines.length > mostHuntLines)
      throw new ApiProblem(422, 'This hunt is too long', [
        { field: 'entries.entry.lines', reason: `a hunt has at most ${mostHuntLines} lines` },
      ])
    if (row) row.record = asKept(record)
    else this.em.persist(this.em.create(HuntEntity, { job, record: asKept(record) }))
    await this.em.flush()
  }

  private async site(job: string, deed: SiteDeed, at: string, visit: string): Promise<void> {
    if (deed.do === 'visit-ends') await this.nothingLeft(job)
    const record = recordAfter(await this.siteRecord(job), deed, at, visit)
    for (const [field, list] of Object.entries(record))
      if (Array.isArray(list) && list.length > mostKept)
        throw new ApiProblem(422, 'This is too much for one job', [
          { field: `entries.entry.${deed.do}`, reason: `a job has at most ${mostKept} ${field}` },
        ])
    const problem = record.survey && isSurveyDeed(deed) ? surveyProblem(record.survey) : undefined
    if (problem !== undefined)
      throw new ApiProblem(422, 'This is too much for one survey', [
        { field: `entries.entry.${deed.do}`, reason: problem },
      ])
    const run = runsOf(record).find(({ done }) => done.length > mostRowsDone)
    if (run)
      throw new ApiProblem(422, 'This run is too long', [
        { field: `entries.entry.${deed.do}`, reason: `a run has at most ${mostRowsDone} steps done` },
      ])
    await this.keepRecord(job, record)
  }

  /** What an alteration takes off its terminal on a visit has to go back. */
  private async disturb(
    job: string,
    wiring: JobDocument['wiring'],
    { changes }: EditEntry,
    logged: LogEntry,
  ): Promise<void> {
    const record = await this.siteRecord(job)
    const disturbed = disturbedAfter(record, wiring, changes, logged)
    if (disturbed !== record.disturbed) await this.keepRecord(job, { ...record, disturbed })
  }

  private async siteRecord(job: string): Promise<SiteRecord> {
    return (await this.em.findOne(SiteRecordEntity, { job }))?.record ?? noRecord
  }

  private async keepRecord(job: string, record: SiteRecord): Promise<void> {
    const row = await this.em.findOne(SiteRecordEntity, { job })
    if (row) row.record = asKept(record)
    else this.em.persist(this.em.create(SiteRecordEntity, { job, record: asKept(record) }))
    await this.em.flush()
  }

  /** A visit does not end while something is to be put back. */
  private async nothingLeft(job: string): Promise<void> {
    const document = await this.document(job)
    const findings = await this.em.find(FindingEntity, { job }, { orderBy: { number: 'asc' } })
    const hunt = (await this.em.findOne(HuntEntity, { job }))?.record ?? noHunt
    const left = leftOpen({
      ...{ id: job, number: 0, revisions: [], ticks: [], scenarios: [] },
      document: document!,
      findings: findings.map((row) => ({ ...row, at: row.at.toISOString() })),
      hunt,
      record: await this.siteRecord(job),
    })
    if (left.length > 0)
      throw new ApiProblem(
        409,
        'This visit cannot end yet',
        left.slice(0, 20).map(({ text }) => ({ field: 'entries.entry', reason: text })),
        'Put it back, say that it stays so, or leave it until a day as a temporary measure.',
      )
  }

  private async observe(job: string, finding: Finding): Promise<void> {
    const found = await this.em.findOne(FindingEntity, { id: finding.id })
    if (found && found.job !== job)
      throw new ApiProblem(409, 'This finding belongs to another job', [
        { field: 'entries.entry.finding.id', reason: 'use a new id' },
      ])
    if (found) await this.em.nativeDelete(FindingEntity, { id: finding.id })
    await this.em.insert(FindingEntity, { ...asKept(finding), job, at: new Date(finding.at) } as FindingRow)
  }

  private async document(job: string): Promise<JobDocument | undefined> {
    const row = await this.em.findOne(JobEntity, { id: job })
    if (!row) return undefined
    const { installation } = await this.em.findOneOrFail(DraftEntity, { job })
    return { brief: row.brief, status: row.status, wiring: installation }
  }

  private async jobRow(id: string): Promise<JobRow> {
    const row = await this.em.findOne(JobEntity, { id })
    if (!row) throw notFound('job')
    if (row.deletedAt) throw inBin()
    return row
  }

  /** Puts a job into the bin. Throws 412 where something has been recorded since the version that was seen. */
  remove(id: string, precondition: Precondition): Promise<void> {
    return this.em.transactional(async (em) => {
      const row = await em.findOne(JobEntity, { id })
      if (!row) throw notFound('job')
      if (judge(precondition, row, row.deletedAt !== null) === 'write') row.deletedAt ??= this.now()
    })
  }

  /** Takes a job out of the bin; one that is not in it stays as it is. */
  restore(id: string): Promise<void> {
    return this.em.transactional(async (em) => {
      const row = await em.findOne(JobEntity, { id })
      if (!row) throw notFound('job')
      row.deletedAt = null
    })
  }
}

function fitted(before: JobDocument | undefined, { entry }: LogEntry): JobDocument {
  try {
    return documentAfter(before, entry)
  } catch (error) {
    if (error instanceof ChangeError) throw changedMeanwhile(error.change.path.join('.'))
    if (error instanceof LogError && !before) throw notFound('job')
    if (error instanceof LogError)
      throw new ApiProblem(409, 'This cannot be recorded here', [{ field: error.field, reason: error.message }])
    throw error
  }
}

const entryOf = ({ number, id, author, visit, at, entry, device }: EntryRow): NumberedEntry => ({
  number,
  id,
  author,
  visit,
  at: at.toISOString(),
  entry,
  ...(device !== null && { device }),
})
