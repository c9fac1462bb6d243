import type { Entry, JobList, JobState } from '@nobbet/contract'
import { documentOf, logged, opening, openStage, setting, type Stage } from '../../testing'

let stage: Stage
const today = new Date('2026-11-27T10:00:00.000Z')
beforeAll(async () => void (stage = await openStage({ now: () => today })), 30_000)
afterAll(() => stage.close())

const at = '2026-11-27T09:00:00.000Z'
const read = async (job: string): Promise<JobState> => (await stage.call('GET', `/api/jobs/${job}`)).body
const list = async (query: string): Promise<JobList> => (await stage.call('GET', `/api/jobs?${query}`)).body
const found = async (find: string) => (await list(`find=${encodeURIComponent(find)}`)).jobs.map(({ id }) => id)
const record = (job: string, ...entries: Entry[]) =>
  stage.record(
    job,
    entries.map((entry) => logged(entry)),
  )
const visit: Entry = { do: 'visit', visit: { id: 'visit-1', who: 'A. Engineer', why: 'Cold', at } }
const cover: Entry = { do: 'disturb', disturbed: { id: 'cover', what: 'Cover of the wiring centre off' } }
const until = (day: string, id = 'measure-1'): Entry => ({
  do: 'measure',
  measure: { id, what: 'Link past the thermostat', limits: 'heating alone', until: day, puts: 'cover', at },
})

describe('a visit', () => {
  it('is recorded once, however often it is written; what becomes of it stands with it', async () => {
    await record('job-visit-1', opening('Visited').entry)
    const entries = [logged(visit), logged({ do: 'isolated', visit: 'visit-1' })]
    const first = await stage.record('job-visit-1', entries)
    const again = await stage.record('job-visit-1', entries)
    expect([first.status, again.status, again.body]).toEqual([200, 200, first.body])
    expect((await read('job-visit-1')).record.visits).toEqual([
      { id: 'visit-1', who: 'A. Engineer', why: 'Cold', at, isolated: '2026-11-26T09:00:00.000Z' },
    ])
  })

  it('does not end while something is to be put back; it does once that is back, stays, or is left until a day', async () => {
    const ends: Entry = { do: 'visit-ends', visit: 'visit-1' }
    for (const [i, settles] of [
      { do: 'settle', disturbed: 'cover', how: 'back' } as const,
      { do: 'settle', disturbed: 'cover', how: 'stays' } as const,
      until('2026-12-01', `measure-left-1`),
    ].entries()) {
      const job = `job-ends-${i}`
      await record(job, opening('Ends').entry, visit, cover)
      const refused = await record(job, ends)
      expect([refused.status, refused.body.errors[0].reason]).toEqual([409, 'Cover of the wiring centre off'])
      expect((await read(job)).record.visits[0]).not.toHaveProperty('ended')
      expect((await record(job, settles, ends)).status).toBe(200)
      expect((await read(job)).record.visits[0]).toHaveProperty('ended')
    }
  })

  it('does not end while a hunt has left a dial turned', async () => {
    const line = (id: string, act: string): Entry => ({ do: 'hunt', lines: [{ entry: { id, do: act }, at, note: '' }] })
    await record('job-dial-1', opening('Dial').entry, visit, line('line-1', 'stat-1.set=30'))
    expect((await record('job-dial-1', { do: 'visit-ends', visit: 'visit-1' })).status).toBe(409)
  })

  it('takes an alteration that somebody else has overtaken with 412, and records nothing of that write', async () => {
    const { number } = (await record('job-412-1', opening('Overtaken').entry)).body
    await stage.record('job-412-1', [setting(['brief', 'symptom'], 'cold', 'theirs')], number)
    const mine = [logged(visit), setting(['brief', 'symptom'], 'cold', 'mine')]
    expect((await stage.record('job-412-1', mine, number)).status).toBe(412)
    expect((await read('job-412-1')).record.visits).toEqual([])
  })

  it('and everything acknowledged is there after the server was stopped', async () => {
    await record('job-kept-1', opening('Kept').entry, visit, cover, until('2026-12-01'))
    const before = await read('job-kept-1')
    await stage.restart()
    expect(await read('job-kept-1')).toEqual(before)
    expect(before.record.measures).toHaveLength(1)
  })

  it('is refused where there is more than a job can have', async () => {
    await record('job-much-1', opening('Much').entry)
    const many = (from: number) =>
      Array.from({ length: 100 }, (_, i): Entry => ({
        do: 'disturb',
        disturbed: { id: `d-${from + i}`, what: 'Plate off' },
      }))
    for (let from = 0; from < 500; from += 100) expect((await record('job-much-1', ...many(from))).status).toBe(200)
    const refused = await record('job-much-1', { do: 'disturb', disturbed: { id: 'one-more', what: 'Plate off' } })
    expect([refused.status, refused.body.errors[0].reason]).toEqual([422, 'a job has at most 500 disturbed'])
  })
})

describe('a job is found', () => {
  beforeAll(async () => {
    const { brief, wiring } = documentOf('Saltmarsh House')
    const legend = wiring.wiringCentres[0].terminals[0].legend
    expect(legend).toBeTruthy()
    await record(
      'job-found-1',
      { do: 'open', brief, status: 'open', wiring },
      {
        do: 'hunt',
        lines: [{ entry: { id: 'line-1', do: 'settle' }, at, note: 'Grinding noise behind the airing cupboard' }],
      },
      {
        do: 'item',
        id: 'item-found-1',
        item: {
          kind: 'found',
          severity: 'fault',
          text: 'Microswitch charred',
          evidence: ['112 V at 7'],
          at,
          visit: '',
        },
      },
      { do: 'part', id: 'part-found-1', part: { what: 'Actuator head XK', count: 1, use: 'bring', at, visit: '' } },
      { do: 'note', text: 'Dog in the yard: ring first' },
      { do: 'act', text: 'Lever set back to auto' },
    )
  })

  it.each([
    ['site', 'saltmarsh'],
    ['words that begin so, in any order', 'house saltm'],
    ['symptom', 'cold saltmarsh'],
    ['the note of a reading', 'grinding cupboard'],
    ['a finding', 'charred'],
    ['a reading that speaks for it', '112 V'],
    ['a part', 'actuator xk'],
    ['a note', 'dog yard'],
    ['what was done', 'lever auto'],
    ['a device of its wiring', 'flat valve saltmarsh'],
    ['a legend of its wiring centre', 'saltmarsh neutral'],
  ])('by %s', async (_, words) => {
    expect(await found(words)).toContain('job-found-1')
  })

  it('not by what is nowhere, nor by what an index would take for a command', async () => {
    for (const words of ['saltmarsh zebra', '" OR *', 'NOT', '***'])
      expect(await found(words)).not.toContain('job-found-1')
  })

  it('with where it stands, marked; no longer by what was taken out; and by its site’s history', async () => {
    const [job] = (await list('find=charred')).jobs
    expect(job.match).toContain('⟦charred⟧')
    expect((await list('find=behind%20grinding')).jobs[0].match).toBe('⟦Grinding⟧ noise ⟦behind⟧ the airing cupboard')
    await record('job-found-1', { do: 'item', id: 'item-found-1', item: null })
    expect(await found('charred')).toEqual([])
    await record('job-found-2', opening('Saltmarsh House').entry)
    expect((await list('site=Saltmarsh%20House')).jobs.map(({ id }) => id).toSorted()).toEqual([
      'job-found-1',
      'job-found-2',
    ])
    expect((await list('site=Saltmarsh%20House&kind=new-system')).jobs).toEqual([])
  })
})

describe('the list of jobs', () => {
  it('begins with what is due, the longest over first; what has ended or is far off stands by its last change', async () => {
    const due = async (job: string, day: string) => record(job, opening('Due').entry, until(day))
    await due('job-due-far', '2026-12-20')
    await due('job-due-today', '2026-11-27')
    await due('job-due-over', '2026-11-20')
    await due('job-due-ended', '2026-11-01')
    await record('job-due-ended', { do: 'measure-ends', measure: 'measure-1' })
    const { jobs } = await list('status=open')
    const ids = jobs.map(({ id }) => id)
    expect(ids.slice(0, 2)).toEqual(['job-due-over', 'job-due-today'])
    expect(jobs[0].due).toEqual({ kind: 'measure', what: 'Link past the thermostat', on: '2026-11-20' })
    expect(ids.indexOf('job-due-ended')).toBeLessThan(ids.indexOf('job-due-far'))
  })
})
