import type { EntityManager } from '@mikro-orm/libsql'
import { noHunt, noRecord } from '@nobbet/contract'
import { inBin, notFound } from '../http/problem'
import { ticksOf } from './ticks'

interface Whole {
  version: number
  brief: string
  status: string
  deleted_at: number | null
  installation: string
  hunt: string | null
  record: string | null
}

/**
 * Jobs and their logs as they are sent: what stands in the database as JSON goes out as it stands, and is not read into objects and
 * written again for every reader. What comes out is what the contract's schemas describe, which the tests hold it to.
 */
export class JobTexts {
  constructor(
    private readonly em: EntityManager,
    private readonly lineage: string,
  ) {}

  async job(id: string): Promise<{ text: string; number: number }> {
    const { version, brief, status, installation, hunt, record } = await this.whole(id)
    const findings = await this.all<
      Record<'id' | 'asking' | 'observable' | 'result' | 'note', string> & { at: number }
    >('select id, asking, observable, result, note, at from finding where job = ? order by number', id)
    // In the order in which they were put in, which is that of the log.
    const revisions = await this.all<Record<'id' | 'kind' | 'name' | 'installation', string> & { created_at: number }>(
      'select id, kind, name, installation, created_at from revision where job = ? order by rowid',
      id,
    )
    const ticks = await ticksOf(this.em, id)
    const text = object({
      id: plain(id),
      number: plain(version),
      lineage: plain(this.lineage),
      document: object({ brief, status: plain(status), wiring: installation }),
      findings: list(
        findings.map((f) =>
          object({
            id: plain(f.id),
            asking: f.asking,
            observable: f.observable,
            result: plain(f.result),
            note: plain(f.note),
            at: moment(f.at),
          }),
        ),
      ),
      revisions: list(
        revisions.map((r) =>
          object({
            id: plain(r.id),
            kind: plain(r.kind),
            name: plain(r.name),
            installation: r.installation,
            createdAt: moment(r.created_at),
          }),
        ),
      ),
      ticks: list(ticks.map(plain)),
      scenarios: list(await this.scenarios(id)),
      hunt: hunt ?? JSON.stringify(noHunt),
      record: record ?? JSON.stringify(noRecord),
    })
    return { text, number: version }
  }

  /** Scenarios that are kept, as they were written last. */
  private async scenarios(job: string): Promise<string[]> {
    const last = await this.all<{ scenario_id: string; scenario: string | null; number: number }>(
      `select json_extract(entry, '$.id') as scenario_id, json_extract(entry, '$.scenario') as scenario, max(number) as number
         from entry where job = ? and entry like '%"scenario"%' and json_extract(entry, '$.do') = 'scenario'
         group by scenario_id order by number`,
      job,
    )
    return last.flatMap(({ scenario_id: id, scenario }) =>
      scenario === null ? [] : [`{"id":${plain(id)},${scenario.slice(1)}`],
    )
  }

  async tail(job: string, after: number): Promise<string> {
    const { version } = this.there(
      await this.all<{ version: number; deleted_at: number | null }>(
        'select version, deleted_at from job where id = ?',
        job,
      ),
    )
    const entries = await this.all<
      Record<'id' | 'author' | 'visit' | 'entry', string> & { number: number; at: number; device: string | null }
    >(
      'select number, id, author, visit, at, entry, device from entry where job = ? and number > ? order by number',
      job,
      after,
    )
    return object({
      entries: list(
        entries.map((e) =>
          object({
            number: plain(e.number),
            id: plain(e.id),
            author: plain(e.author),
            visit: plain(e.visit),
            at: moment(e.at),
            entry: e.entry,
            ...(e.device !== null && { device: plain(e.device) }),
          }),
        ),
      ),
      number: plain(version),
      lineage: plain(this.lineage),
    })
  }

  /** All of a job that is kept once, in one question. */
  private async whole(id: string): Promise<Whole> {
    return this.there(
      await this.all<Whole>(
        `select version, brief, status, deleted_at,
            (select installation from draft where draft.job = job.id) as installation,
            (select record from hunt where hunt.job = job.id) as hunt,
            (select record from site_record where site_record.job = job.id) as record
          from job where id = ?`,
        id,
      ),
    )
  }

  /** The one row of a job that is there and not in the bin. */
  private there<T extends { deleted_at: number | null }>([row]: T[]): T {
    if (!row) throw notFound('job')
    if (row.deleted_at !== null) throw inBin()
    return row
  }

  private async all<T>(sql: string, ...values: (string | number)[]): Promise<T[]> {
    return (await this.em.execute(sql, values)) as unknown as T[]
  }
}

const plain = (value: string | number): string => JSON.stringify(value)
const moment = (at: number): string => plain(new Date(at).toISOString())
/** An object of fields that are JSON already. */
const object = (fields: Record<string, string>): string =>
  `{${Object.entries(fields)
    .map(([key, text]) => `${plain(key)}:${text}`)
    .join()}}`
const list = (texts: readonly string[]): string => `[${texts.join()}]`
