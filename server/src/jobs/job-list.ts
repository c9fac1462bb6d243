import type { EntityManager } from '@mikro-orm/libsql'
import {
  daysInBin,
  headingOf,
  type JobBrief,
  type JobDocument,
  type JobList,
  type JobListQuery,
  type JobSummary,
} from '@nobbet/contract'
import { ApiProblem } from '../http/problem'

interface Row {
  id: string
  version: number
  status: JobDocument['status']
  brief: string
  created_at: number
  updated_at: number
  deleted_at: number | null
  findings: number
}

/** Where the jobs of a status stand; what is in the bin is on no other list. */
const statuses: Record<JobListQuery['status'], string> = {
  open: "deleted_at is null and status = 'open'",
  closed: "deleted_at is null and status = 'closed'",
  all: 'deleted_at is null',
  deleted: 'deleted_at is not null',
}

/** The list of jobs: read in the database, so that what it costs is a page and not all there is. */
export class JobListService {
  constructor(private readonly em: EntityManager) {}

  async page({ status, find, most, after }: JobListQuery): Promise<JobList> {
    const where = [statuses[status]]
    const values: (string | number)[] = []
    if (find) {
      where.push(`sought like ? escape '\\'`)
      values.push(`%${find.replace(/[\\%_]/g, '\\$&')}%`)
    }
    if (after) {
      const from = /^(\d{1,16})\.([A-Za-z0-9-]{6,64})$/.exec(after)
      if (!from)
        throw new ApiProblem(422, 'Some of this cannot be used', [{ field: 'after', reason: 'is no page’s beginning' }])
      where.push('(updated_at < ? or (updated_at = ? and id > ?))')
      values.push(Number(from[1]), Number(from[1]), from[2])
    }
    const rows = (await this.em.execute(
      `select id, version, status, created_at, updated_at, deleted_at, brief,
        (select count(*) from finding where finding.job = job.id)
          + (select count(*) from hunt, json_each(hunt.record, '$.lines')
             where hunt.job = job.id and json_extract(value, '$.entry.see') is not null) as findings
      from job where id in (select id from job where ${where.join(' and ')} order by updated_at desc, id limit ?)
      order by updated_at desc, id`,
      [...values, most + 1],
    )) as unknown as Row[]
    const shown = rows.slice(0, most)
    const last = shown[shown.length - 1]
    return {
      jobs: shown.map(summaryOf),
      ...(rows.length > most && { next: `${last.updated_at}.${last.id}` }),
      counts: await this.counts(),
    }
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
  async empty(now: Date): Promise<number> {
    const before = now.getTime() - daysInBin * 86_400_000
    const rows = (await this.em.execute('select id from job where deleted_at < ?', [before])) as unknown as {
      id: string
    }[]
    for (const { id } of rows) await this.em.execute('delete from job where id = ?', [id])
    return rows.length
  }
}

const summaryOf = (row: Row): JobSummary => ({
  id: row.id,
  number: row.version,
  ...headingOf({ brief: JSON.parse(row.brief) as JobBrief, status: row.status }, row.findings),
  createdAt: new Date(row.created_at).toISOString(),
  updatedAt: new Date(row.updated_at).toISOString(),
  ...(row.deleted_at !== null && { deletedAt: new Date(row.deleted_at).toISOString() }),
})
