import type { EntityManager } from '@mikro-orm/libsql'
import {
  daysInBin,
  duesOf,
  headingOf,
  soonFrom,
  type Due,
  type SiteRecord,
  type JobBrief,
  type JobDocument,
  type JobList,
  type JobListQuery,
  type JobStanding,
  type JobSummary,
} from '@nobbet/contract'
import { ApiProblem } from '../http/problem'
import { excerptOf, soughtIn } from './excerpt'

interface Row {
  id: string
  version: number
  status: JobDocument['status']
  brief: string
  standing: string
  created_at: number
  updated_at: number
  deleted_at: number | null
  urgent: string
  /** Everything that is written of it, where words were looked for. */
  text: string | null
}

/** Behind every day: where nothing is due soon. */
const notSoon = '9999-12-31'

/** Where the jobs of a status stand; what is in the bin is on no other list. */
const statuses: Record<JobListQuery['status'], string> = {
  open: "deleted_at is null and status = 'open'",
  closed: "deleted_at is null and status = 'closed'",
  all: 'deleted_at is null',
  deleted: 'deleted_at is not null',
}

/** The list of jobs: read in the database, so that what it costs is a page and not all there is. */
export class JobListService {
  constructor(
    private readonly em: EntityManager,
    private readonly now: () => Date,
  ) {}

  async page({ status, find, site, kind, most, after }: JobListQuery): Promise<JobList> {
    const words = wordsOf(find)
    if (find && words === '') return { jobs: [], counts: await this.counts() }
    const urgent = `case when job.status = 'open' and due is not null and due <= ? then due else '${notSoon}' end`
    const where = [statuses[status]]
    const values: (string | number)[] = [soonFrom(this.now())]
    if (words) {
      where.push('job_words match ?')
      values.push(words)
    }
    if (site) {
      where.push(`brief ->> 'site' = ?`)
      values.push(site)
    }
    if (kind !== 'all') {
      where.push(`brief ->> 'kind' = ?`)
      values.push(kind)
    }
    const from = /^(\d{4}-\d\d-\d\d)\.(\d{1,16})\.([A-Za-z0-9-]{6,64})$/.exec(after)
    if (after && !from)
      throw new ApiProblem(422, 'Some of this cannot be used', [{ field: 'after', reason: 'is no page’s beginning' }])
    if (from) values.push(from[1], from[1], Number(from[2]), Number(from[2]), from[3])
    // What is looked at of every job is in the index; briefs, and what the words stand in, are read for one page.
    const text = words
      ? '(select site || char(10) || body || char(10) || wiring from job_text where job = job.id)'
      : 'null'
    const rows = (await this.em.execute(
      `with listed as (
        select job.id, ${urgent} as urgent, updated_at
          from job ${words ? 'join job_text on job_text.job = job.id join job_words on job_words.rowid = job_text.number' : ''}
          where ${where.join(' and ')}),
      picked as (
        select * from listed
          ${from ? 'where urgent > ? or (urgent = ? and (updated_at < ? or (updated_at = ? and id > ?)))' : ''}
          order by urgent, updated_at desc, id limit ?)
      select job.id, version, status, created_at, job.updated_at, deleted_at, brief, standing, urgent, ${text} as text
        from picked join job on job.id = picked.id order by urgent, job.updated_at desc, job.id`,
      [...values, most + 1],
    )) as unknown as Row[]
    const shown = rows.slice(0, most)
    const last = shown[shown.length - 1]
    return {
      jobs: shown.map((row) => summaryOf(row, find)),
      ...(rows.length > most && { next: `${last.urgent}.${last.updated_at}.${last.id}` }),
      counts: await this.counts(),
    }
  }

  /** Everything of open jobs that has a day, the nearest first. */
  async dues(): Promise<(Due & { job: string; site: string })[]> {
    const rows = (await this.em.execute(
      `select job.id as job, brief ->> 'site' as site, record from job join site_record on site_record.job = job.id
        where deleted_at is null and status = 'open' and due is not null`,
    )) as unknown as { job: string; site: string; record: string }[]
    const dues = rows.flatMap(({ job, site, record }) =>
      duesOf(JSON.parse(record) as SiteRecord).map((due) => ({ ...due, job, site })),
    )
    return dues.sort((a, b) => (a.on < b.on ? -1 : a.on > b.on ? 1 : 0))
  }

  private async counts(): Promise<JobList['counts']> {
    const rows = (await this.em.execute(
      `select status, count(*) as n from job where deleted_at is null group by status
      union all select 'deleted', count(*) from job where deleted_at is not null`,
    )) as unknown as { status: string; n: number }[]
    const of = (status: string) => rows.find((row) => row.status === status)?.n ?? 0
    return { open: of('open'), closed: of('closed'), deleted: of('deleted') }
  }

  /** Takes out for good what has been in the bin long enough; how many jobs that were. */
  async empty(): Promise<number> {
    const before = this.now().getTime() - daysInBin * 86_400_000
    const rows = (await this.em.execute('select id from job where deleted_at < ?', [before])) as unknown as {
      id: string
    }[]
    for (const { id } of rows) await this.em.execute('delete from job where id = ?', [id])
    return rows.length
  }
}

const summaryOf = (row: Row, find: string): JobSummary => ({
  id: row.id,
  number: row.version,
  ...headingOf(
    { brief: JSON.parse(row.brief) as JobBrief, status: row.status },
    JSON.parse(row.standing) as JobStanding,
  ),
  createdAt: new Date(row.created_at).toISOString(),
  updatedAt: new Date(row.updated_at).toISOString(),
  ...(row.deleted_at !== null && { deletedAt: new Date(row.deleted_at).toISOString() }),
  ...(row.text !== null && { match: excerptOf(row.text, soughtIn(find)) }),
})

/** Each word, or one that begins so; letters and digits only, so that nothing of it is taken for a command of the index. */
const wordsOf = (find: string): string =>
  soughtIn(find)
    .map((word) => `"${word}"*`)
    .join(' ')
