import { firstWiring, jobShape, type Entry, type JobBrief, type JobDocument } from '@nobbet/contract'
import {
  changesBetween,
  edited,
  ownValve,
  planBriefSchema,
  type Change,
  type CircuitBrief,
  type PlanBrief,
  type SchemeId,
} from '@nobbet/core'
import { JobService } from '../jobs/job-service'
import { TypeService } from '../types/type-service'
import type { Data } from './data'
import { demoVisits } from './demo-visits'
import { JobEntity, TypeEntity } from './entities'

const heating = (...names: string[]): CircuitBrief[] => names.map((name) => ({ kind: 'heating', name }))
const hotWater: CircuitBrief = { kind: 'hot-water', name: 'Hot water' }

const job = (
  id: string,
  site: string,
  scheme: SchemeId,
  circuits: CircuitBrief[],
  rest: Partial<
    Pick<JobBrief, 'kind' | 'symptom' | 'earlier'> & Pick<PlanBrief, 'supply' | 'terminals' | 'places'>
  > = {},
): { id: string; brief: JobBrief } => {
  const { kind = 'new-system', symptom = '', earlier = '', supply = '230-50', terminals = 'separate', places } = rest
  const fitted = planBriefSchema.parse({ scheme, supply, circuits, terminals, ...(places && { places }) })
  return { id, brief: { site, kind, symptom, earlier, engineer: 'I. Halloran', fitted } }
}

/** Invented jobs, one or more on each scheme; the last is the first in the list. */
const demoJobs: { id: string; brief: JobBrief }[] = [
  job('demo-weir-house', 'Weir House, Aldcombe', 'gravity', [...heating('House'), hotWater]),
  job('demo-corn-hall', 'Corn Hall shop, Sowerton', 'fan-convector', heating('Shop', 'Store'), {
    supply: '120-60',
    terminals: 'strip-12',
  }),
  job('demo-ferry-flat', 'Ferry Flat 3, Brannock', 'single-zone-bus', heating('Flat')),
  job('demo-lodge', 'The Lodge, Ostwick', 'single-zone-mains', heating('Lodge'), { terminals: 'strip-8' }),
  job('demo-print-works', 'Print Works, Lindle', 'single-zone-relay', heating('Office'), { terminals: 'levers' }),
  job('demo-birch-cabin', 'Birch Cabin, Fell End', 'single-zone-electric', heating('Cabin'), { terminals: 'levers' }),
  job('demo-orchard-way', '6 Orchard Way, Penmarrow', 'smart-receiver', [...heating('House'), hotWater], {
    kind: 'change-of-controls',
    terminals: 'strip-12',
  }),
  job('demo-rectory', 'Old Rectory, Eskerby', 'unvented', [...heating('Downstairs', 'Upstairs'), hotWater], {
    terminals: 'levers',
    places: {
      plant: { floor: -1 },
      controls: { floor: 0 },
      cylinder: { floor: -1 },
      'zone-1': { floor: 0 },
      'zone-2': { floor: 1 },
    },
  }),
  job(
    'demo-garth-end',
    'Garth End, Withern',
    'more-zones',
    [
      ...heating('House'),
      { kind: 'towel-rails', name: 'Towel rails' },
      { kind: 'underfloor', name: 'Garden room' },
      { kind: 'underfloor', name: 'Wet room' },
      { kind: 'later', name: 'Annexe' },
      hotWater,
    ],
    {
      terminals: 'strips-12',
      places: { plant: { floor: 0, apartMin: 2 }, controls: { floor: 0 }, 'later-1': { floor: 0, apartMin: 4 } },
    },
  ),
  job('demo-sail-loft', '2 Sail Loft, Brannock', 'single-zone', heating('Flat'), { terminals: 'strip-8' }),
  job('demo-kiln-yard', 'Kiln Yard, Morrowby', 'relay-panel', heating('Workshop', 'Office'), {
    supply: '120-60',
    terminals: 'board',
  }),
  job('demo-heron-end', 'Heron End, Saltwick', 'three-wire-diverter', [...heating('House'), hotWater], {
    terminals: 'strip-12',
  }),
  job('demo-abbot-rise', '9 Abbot Rise, Lindle', 'diverter', [...heating('House'), hotWater], {
    kind: 'change-of-controls',
  }),
  job(
    'demo-tarn-house',
    'Tarn House, Eskerby',
    'hot-water-priority',
    [...heating('Downstairs', 'Upstairs'), hotWater],
    { terminals: 'board-cut' },
  ),
  job(
    'demo-long-barn',
    'Long Barn, Withern',
    'two-port',
    [...heating('Hall', 'Kitchen', 'Lounge', 'Bedrooms', 'Studio'), hotWater],
    { terminals: 'strips-12' },
  ),
  job('demo-mill-loft', 'Mill Loft, Carrow Falls', 'low-voltage', heating('Ground floor', 'Loft'), {
    kind: 'change-of-controls',
    supply: '120-60',
    terminals: 'strip-8',
  }),
  job('demo-fell-view', 'Fell View, Ostwick', 'mid-position', [...heating('House'), hotWater], {
    kind: 'fault',
    symptom: 'Heating only comes on while the hot water is on too.',
    terminals: 'strip-12',
  }),
  job('demo-chapel-row', '2 Chapel Row, Ostwick', 'two-port', [...heating('House'), hotWater], {
    kind: 'change-of-controls',
    symptom: 'Wants new controls. Says that the boiler has never gone off since the kitchen was done.',
  }),
  job('demo-larch-row', '14 Larch Row, Penmarrow', 'two-port', [...heating('House'), hotWater], {
    terminals: 'strip-12',
  }),
  job('demo-quay-cottage', 'Quay Cottage, Ennerdock', 'two-port', [...heating('House'), hotWater], {
    kind: 'fault',
    symptom: 'Radiators stay cold since the weekend. Hot water is fine. The programmer shows heating on.',
    earlier: 'Last visit: "valve probably sticking".',
  }),
]

/** What was found otherwise than planned, by job: seen on the first visit, as the wiring now stands. */
const asFound: Record<string, Change[]> = {
  'demo-chapel-row': [
    { do: 'end', cable: 'pump-cable', core: 'green-yellow', end: 1, to: { at: 'loose', provenance: 'seen' } },
    {
      do: 'end',
      cable: 'boiler-cable',
      core: 'black',
      end: 1,
      to: { at: 'terminal', terminal: 'wc.5', provenance: 'seen' },
    },
    { do: 'end', cable: 'stat-1-cable', core: 'grey', end: 0, to: { at: 'unknown', provenance: 'seen' } },
  ],
}

/** Loads the demo jobs that are not there yet; what the user has made of them stays. */
export async function loadDemo(data: Data, now: () => Date): Promise<number> {
  const jobs = new JobService(data.em(), now, { lineage: data.lineage })
  // One in the bin is there too: it was deleted, and does not come back by itself.
  const there = new Set((await data.em().find(JobEntity, {}, { fields: ['id'] })).map((job) => job.id))
  const missing = demoJobs.filter((job) => !there.has(job.id))
  for (const { id, brief } of missing) {
    const record = (entries: Entry[]) =>
      jobs.record(id, {
        after: 0,
        entries: entries.map((entry) => ({
          id: `${id}-${entry.do}`,
          author: brief.engineer,
          visit: 'demo-data',
          at: now().toISOString(),
          entry,
        })),
      })
    const planned: JobDocument = { brief, status: 'open', wiring: firstWiring(brief, id) }
    const entries: Entry[] = [{ do: 'open', ...planned }]
    const found = asFound[id]
    if (found) {
      const label = 'As found'
      const wiring = edited(planned.wiring, { label, changes: found }).doc
      entries.push({ do: 'keep', revision: `${id}-planned`, kind: 'planned', name: 'Drawing left in the box' })
      entries.push({ do: 'edit', label, changes: changesBetween(jobShape, planned, { ...planned, wiring }) })
    }
    await record(entries)
    const visited = demoVisits(id, now())
    if (visited.length > 0)
      await jobs.record(id, { after: 0, entries: visited.map((one) => ({ ...one, author: brief.engineer })) })
  }
  const types = new TypeService(data.em(), now)
  const valve = ownValve()
  if (!(await data.em().findOne(TypeEntity, { id: valve.id }))) await types.write(valve.id, valve, 'nothing there')
  return missing.length
}
