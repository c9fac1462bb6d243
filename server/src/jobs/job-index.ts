import type { EntityManager } from '@mikro-orm/libsql'
import { noHunt, noRecord, recordTexts, standingOf, type HuntRecord, type JobBrief } from '@nobbet/contract'
import type { Installation } from '@nobbet/core'
import { DraftEntity, FindingEntity, HuntEntity, JobEntity, SiteRecordEntity } from '../data/entities'
import { asKept } from '../data/entry-row'
import { ticksOf } from './ticks'

/** What the list of jobs tells of each and finds them by; follows from everything else that is known of a job. */
export class JobIndex {
  constructor(private readonly em: EntityManager) {}

  /** Works out anew how far a job is, when it is due and which words are written of it. */
  async bringUp(job: string): Promise<void> {
    const { em } = this
    const row = await em.findOneOrFail(JobEntity, { id: job })
    const hunt = (await em.findOne(HuntEntity, { job }))?.record ?? noHunt
    const record = (await em.findOne(SiteRecordEntity, { job }))?.record ?? noRecord
    const findings = await em.find(FindingEntity, { job }, { fields: ['note'] })
    const standing = standingOf(findings.length, hunt, record, (await ticksOf(em, job)).length)
    Object.assign(row, { standing: asKept(standing), due: standing.due?.on ?? null })
    await em.flush()
    const draft = await em.findOneOrFail(DraftEntity, { job })
    const texts = [
      ...briefTexts(row.brief),
      ...wiringTexts(draft.installation),
      ...huntTexts(hunt),
      ...recordTexts(record),
      ...findings.map(({ note }) => note),
      ...(await this.notes(job)),
      ...(await this.captions(job)),
    ]
    const body = [...new Set(texts.filter(Boolean))].join('\n')
    await em.execute(
      `insert into job_text (job, site, body) values (?, ?, ?)
        on conflict (job) do update set site = excluded.site, body = excluded.body`,
      [job, row.brief.site, body],
    )
  }

  /** The same of every job that has none yet: those from before there was an index. */
  async bringUpMissing(): Promise<void> {
    const rows = (await this.em.execute(
      'select id from job where id not in (select job from job_text)',
    )) as unknown as {
      id: string
    }[]
    for (const { id } of rows) await this.bringUp(id)
  }

  private async notes(job: string): Promise<string[]> {
    const rows = (await this.em.execute(
      `select json_extract(entry, '$.text') as text from entry
        where job = ? and (entry like '%"note"%' or entry like '%"act"%') and json_extract(entry, '$.do') in ('note', 'act')`,
      [job],
    )) as unknown as { text: string | null }[]
    return rows.flatMap(({ text }) => text ?? [])
  }

  private async captions(job: string): Promise<string[]> {
    const rows = (await this.em.execute('select caption from photo where job = ?', [job])) as unknown as {
      caption: string
    }[]
    return rows.map(({ caption }) => caption)
  }
}

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
