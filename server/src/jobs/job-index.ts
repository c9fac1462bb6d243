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
import { ticked } from './ticks'

interface Known {
  brief: string
  hunt: string | null
  record: string | null
  findings: string
  captions: string
  notes: string
  ticked: number
  /** Only where the wiring is otherwise. */
  installation: string | null
}

/** What the list of jobs tells of each and finds them by; follows from everything else that is known of a job. */
export class JobIndex {
  constructor(private readonly em: EntityManager) {}

  /**
   * Works out anew how far a job is, when it is due and which words are written of it; those of its wiring only where that is otherwise.
   * What is still to be flushed is not seen.
   */
  async bringUp(job: string, wiring: 'rewired' | 'as it was'): Promise<void> {
    const known = await this.known(job, wiring)
    const brief = JSON.parse(known.brief) as JobBrief
    const hunt = known.hunt === null ? noHunt : (JSON.parse(known.hunt) as HuntRecord)
    const record = known.record === null ? noRecord : (JSON.parse(known.record) as SiteRecord)
    const findings = JSON.parse(known.findings) as string[]
    const standing = standingOf(findings.length, hunt, record, known.ticked)
    await this.em.execute('update job set standing = ?, due = ? where id = ?', [
      JSON.stringify(standing),
      standing.due?.on ?? null,
      job,
    ])
    const body = lines([
      ...briefTexts(brief),
      ...huntTexts(hunt),
      ...recordTexts(record),
      ...findings,
      ...(JSON.parse(known.notes) as string[]),
      ...(JSON.parse(known.captions) as string[]),
    ])
    if (known.installation === null) {
      await this.em.execute('update job_text set site = ?, body = ? where job = ?', [brief.site, body, job])
      return
    }
    const parts = lines(wiringTexts(JSON.parse(known.installation) as Installation))
    await this.em.execute(
      `insert into job_text (job, site, wiring, body) values (?, ?, ?, ?)
        on conflict (job) do update set site = excluded.site, wiring = excluded.wiring, body = excluded.body`,
      [job, brief.site, parts, body],
    )
  }

  /** All that the list follows from, in one question: this is asked at every write. */
  private async known(job: string, wiring: 'rewired' | 'as it was'): Promise<Known> {
    const [row] = (await this.em.execute(
      `select brief,
          (select record from hunt where hunt.job = job.id) as hunt,
          (select record from site_record where site_record.job = job.id) as record,
          (select json_group_array(note) from finding where finding.job = job.id) as findings,
          (select json_group_array(caption) from photo where photo.job = job.id) as captions,
          (select json_group_array(json_extract(entry, '$.text')) from entry
            where entry.job = job.id and (entry like '%"note"%' or entry like '%"act"%')
              and json_extract(entry, '$.do') in ('note', 'act')) as notes,
          (select count(*) from (${ticked})) as ticked,
          ${wiring === 'rewired' ? '(select installation from draft where draft.job = job.id)' : 'null'} as installation
        from job where id = ?`,
      [job, job],
    )) as unknown as Known[]
    return row
  }

  /** The same of so many jobs that have none yet, those from before there was an index; how many they were. */
  async bringUpMissing(most: number): Promise<number> {
    const rows = (await this.em.execute('select id from job where id not in (select job from job_text) limit ?', [
      most,
    ])) as unknown as { id: string }[]
    for (const { id } of rows) await this.bringUp(id, 'rewired')
    return rows.length
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
