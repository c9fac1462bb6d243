import type { EntityManager } from '@mikro-orm/libsql'
import {
  noHunt,
  noRecord,
  recordTexts,
  standingOf,
  type HuntRecord,
  type JobBrief,
  type SiteRecord,
} from '@nobbet/contract'
import type { Installation } from '@nobbet/core'
import { ticksOf } from './ticks'

/** What the list of jobs tells of each and finds them by; follows from everything else that is known of a job. */
export class JobIndex {
  constructor(private readonly em: EntityManager) {}

  /**
   * Works out anew how far a job is, when it is due and which words are written of it; those of its wiring only where that is otherwise.
   * What is still to be flushed is not seen.
   */
  async bringUp(job: string, wiring: 'rewired' | 'as it was'): Promise<void> {
    const [{ written }] = await this.all<{ written: string }>('select brief as written from job where id = ?', job)
    const brief = JSON.parse(written) as JobBrief
    const hunt = (await this.recordIn('hunt', job)) ?? noHunt
    const record = (await this.recordIn('site_record', job)) ?? noRecord
    const findings = await this.all<{ note: string }>('select note from finding where job = ?', job)
    const standing = standingOf(findings.length, hunt, record, (await ticksOf(this.em, job)).length)
    await this.em.execute('update job set standing = ?, due = ? where id = ?', [
      JSON.stringify(standing),
      standing.due?.on ?? null,
      job,
    ])
    const body = lines([
      ...briefTexts(brief),
      ...huntTexts(hunt),
      ...recordTexts(record),
      ...findings.map(({ note }) => note),
      ...(await this.notes(job)),
      ...(await this.captions(job)),
    ])
    if (wiring === 'as it was') {
      await this.em.execute('update job_text set site = ?, body = ? where job = ?', [brief.site, body, job])
      return
    }
    const [{ installation }] = await this.all<{ installation: string }>(
      'select installation from draft where job = ?',
      job,
    )
    const parts = lines(wiringTexts(JSON.parse(installation) as Installation))
    await this.em.execute(
      `insert into job_text (job, site, wiring, body) values (?, ?, ?, ?)
        on conflict (job) do update set site = excluded.site, wiring = excluded.wiring, body = excluded.body`,
      [job, brief.site, parts, body],
    )
  }

  /** The same of every job that has none yet: those from before there was an index. */
  async bringUpMissing(): Promise<void> {
    const rows = await this.all<{ id: string }>('select id from job where id not in (select job from job_text)')
    for (const { id } of rows) await this.bringUp(id, 'rewired')
  }

  private async notes(job: string): Promise<string[]> {
    const rows = await this.all<{ text: string | null }>(
      `select json_extract(entry, '$.text') as text from entry
        where job = ? and (entry like '%"note"%' or entry like '%"act"%') and json_extract(entry, '$.do') in ('note', 'act')`,
      job,
    )
    return rows.flatMap(({ text }) => text ?? [])
  }

  private async captions(job: string): Promise<string[]> {
    const rows = await this.all<{ caption: string }>('select caption from photo where job = ?', job)
    return rows.map(({ caption }) => caption)
  }

  private async recordIn(table: 'hunt', job: string): Promise<HuntRecord | undefined>
  private async recordIn(table: 'site_record', job: string): Promise<SiteRecord | undefined>
  private async recordIn(table: string, job: string): Promise<unknown> {
    const [row] = await this.all<{ record: string }>(`select record from ${table} where job = ?`, job)
    return row && (JSON.parse(row.record) as unknown)
  }

  private async all<T>(sql: string, ...values: string[]): Promise<T[]> {
    return (await this.em.execute(sql, values)) as unknown as T[]
  }
}

const lines = (texts: readonly string[]): string => [...new Set(texts.filter(Boolean))].join('\n')

const briefTexts = ({ symptom, earlier, engineer, fitted }: JobBrief): string[] => [
  symptom,
  earlier,
  engineer,
  ...fitted.circuits.map(({ name }) => name),
]

/** What is written on the parts: their names, the cables' labels, the legends of terminals. */
const wiringTexts = ({ scheme, devices, cables, wiringCentres }: Installation): string[] => [
  scheme,
  ...devices.flatMap(({ id, name, type }) => [name, `${id} ${type}`]),
  ...cables.map(({ label }) => label),
  ...wiringCentres.flatMap(({ name, terminals }) => [name, ...terminals.map(({ legend }) => legend ?? '')]),
]

const huntTexts = ({ lines, finding }: HuntRecord): string[] => [
  ...lines.map(({ note }) => note),
  ...(finding ? [...finding.causes.map(({ label }) => label), finding.remedy, ...finding.evidence] : []),
]
