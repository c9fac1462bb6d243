import type { MikroORM } from '@mikro-orm/libsql'
import type { JobWrite } from '@nobbet/contract'
import { planBriefSchema, planTwoPort } from '@nobbet/core'
import { JobService } from './job-service'

const fitted = planBriefSchema.parse({
  scheme: 'two-port',
  circuits: [
    { kind: 'heating', name: 'House' },
    { kind: 'hot-water', name: 'Hot water' },
  ],
})

/** Invented jobs on a two-zone two-port installation: one healthy, one with a reported fault. */
const demoJobs: { id: string; write: JobWrite }[] = [
  {
    id: 'demo-larch-row',
    write: {
      status: 'open',
      brief: {
        site: '14 Larch Row, Penmarrow',
        kind: 'new-system',
        symptom: '',
        earlier: '',
        engineer: 'I. Halloran',
        fitted,
      },
    },
  },
  {
    id: 'demo-quay-cottage',
    write: {
      status: 'open',
      brief: {
        site: 'Quay Cottage, Ennerdock',
        kind: 'fault',
        symptom: 'Radiators stay cold since the weekend. Hot water is fine. The programmer shows heating on.',
        earlier: 'Last visit: "valve probably sticking".',
        engineer: 'I. Halloran',
        fitted,
      },
    },
  },
]

/** Loads the demo jobs that are not there yet; what the user has made of them stays. */
export async function loadDemo(orm: MikroORM, now = () => new Date()): Promise<number> {
  const jobs = new JobService(orm.em.fork(), now)
  const there = new Set((await jobs.list()).map((job) => job.id))
  const missing = demoJobs.filter((job) => !there.has(job.id))
  for (const { id, write } of missing) {
    const installation = planTwoPort(write.brief.fitted, id, write.brief.site)
    await jobs.writeJob(id, { ...write, draft: { installation, over: null } }, 'nothing there')
  }
  return missing.length
}
