import type { MikroORM } from '@mikro-orm/libsql'
import type { JobWrite } from '@nobbet/contract'
import { planBriefSchema, planSystem } from '@nobbet/core'
import { JobService } from './job-service'

const fitted = planBriefSchema.parse({
  scheme: 'two-port',
  circuits: [
    { kind: 'heating', name: 'House' },
    { kind: 'hot-water', name: 'Hot water' },
  ],
})

const midPosition = planBriefSchema.parse({ ...fitted, scheme: 'mid-position' })

const lowVoltage = planBriefSchema.parse({
  scheme: 'low-voltage',
  supply: '120-60',
  circuits: [
    { kind: 'heating', name: 'Ground floor' },
    { kind: 'heating', name: 'Loft' },
  ],
})

/** Invented jobs: a two-port installation healthy and one with a reported fault, a mid-position and a 24 V one. */
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
  {
    id: 'demo-fell-view',
    write: {
      status: 'open',
      brief: {
        site: 'Fell View, Ostwick',
        kind: 'fault',
        symptom: 'Heating only comes on while the hot water is on too.',
        earlier: '',
        engineer: 'I. Halloran',
        fitted: midPosition,
      },
    },
  },
  {
    id: 'demo-mill-loft',
    write: {
      status: 'open',
      brief: {
        site: 'Mill Loft, Carrow Falls',
        kind: 'change-of-controls',
        symptom: '',
        earlier: '',
        engineer: 'T. Ansell',
        fitted: lowVoltage,
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
    const installation = planSystem(write.brief.fitted, id, write.brief.site)
    await jobs.writeJob(id, { ...write, draft: { installation, over: null } }, 'nothing there')
  }
  return missing.length
}
