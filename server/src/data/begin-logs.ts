import type { MikroORM } from '@mikro-orm/libsql'
import { firstWiring, type Entry } from '@nobbet/contract'
import { DraftEntity, FindingEntity, JobEntity, RevisionEntity, type JobRow } from './entities'
import { asKept, insertEntry } from './entry-row'

/**
 * Begins the log of every job that was kept before there were logs, from what its rows say: the job as it stands, the states
 * that were kept of its wiring, its findings in their order. Nothing of the rows is changed but their number.
 */
export async function beginLogs(orm: MikroORM): Promise<void> {
  await orm.em.fork().transactional(async (em) => {
    const without = await em.execute<{ id: string }[]>('select id from job where id not in (select job from entry)')
    for (const job of await em.find(JobEntity, { id: without.map((row) => row.id) })) {
      const record = (at: Date, entry: Entry, id: string) => insertEntry(em, rowOf(job, at, entry, id))
      const draft = await em.findOne(DraftEntity, { job: job.id })
      const wiring = draft?.installation ?? asKept(firstWiring(job.brief, job.id.slice(0, 40)))
      if (!draft)
        em.persist(em.create(DraftEntity, { job: job.id, installation: wiring, version: 0, updatedAt: job.updatedAt }))
      let number = await record(job.createdAt, { do: 'open', brief: job.brief, status: job.status, wiring }, 'open')
      const revisions = await em.find(RevisionEntity, { job: job.id }, { orderBy: { createdAt: 'asc', id: 'asc' } })
      for (const { id, kind, name, installation, createdAt } of revisions)
        number = await record(createdAt, { do: 'keep', revision: id, kind, name, installation }, `keep-${id}`)
      for (const { id, asking, observable, result, note, at } of await em.find(
        FindingEntity,
        { job: job.id },
        { orderBy: { number: 'asc' } },
      ))
        number = await record(
          at,
          { do: 'observe', finding: { id, asking, observable, result, note, at: at.toISOString() } },
          `observe-${id}`,
        )
      job.version = number
    }
  })
}

const rowOf = (job: JobRow, at: Date, entry: Entry, id: string) => ({
  // Once for every job: a second start finds the entry there.
  id: `${id}-${job.id}`.slice(0, 64),
  job: job.id,
  author: job.brief.engineer,
  visit: 'before-the-log',
  at,
  entry,
  receivedAt: at,
  device: null,
})
