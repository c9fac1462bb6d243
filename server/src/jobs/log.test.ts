import {
  changesOf,
  grown,
  jobShape,
  mostHuntLines,
  mostRowsDone,
  type Entry,
  type HuntLine,
  type JobState,
  type LogEntry,
  type NumberedEntry,
  type RowDone,
} from '@nobbet/contract'
import { changesBetween, edited, usualHuntOptions, usualRun } from '@nobbet/core'
import { someAct } from '@nobbet/core/testing'
import fc from 'fast-check'
import { documentOf, logged, opening, openStage, setting, type Stage } from '../../testing'
import { openDatabase } from '../data/database'

let stage: Stage
beforeAll(async () => void (stage = await openStage()), 30_000)
afterAll(() => stage.close())

const read = async (job: string): Promise<JobState> => (await stage.call('GET', `/api/jobs/${job}`)).body
const log = async (job: string, after = 0): Promise<NumberedEntry[]> =>
  (await stage.call('GET', `/api/jobs/${job}/log?after=${after}`)).body.entries
const symptom = (was: string, now: string) => setting(['brief', 'symptom'], was, now)
const finding = (id: string) => ({
  id,
  asking: ['programmer.heating', 'stat-1.contact'],
  observable: { kind: 'boiler' as const, device: 'boiler' },
  result: 'not-called' as const,
  note: '',
  at: '2026-11-24T09:00:00.000Z',
})

describe('a job’s log', () => {
  it('begins with the job, and an entry that arrives again is not recorded twice', async () => {
    const entries = [opening('Mill House'), symptom('cold', 'stone cold')]
    const first = await stage.record('job-twice-1', entries)
    const again = await stage.record('job-twice-1', entries)
    expect([first.status, again.status]).toEqual([200, 200])
    expect(again.body).toEqual(first.body)
    expect((await log('job-twice-1')).map((e) => e.id)).toEqual(entries.map((e) => e.id))
    expect((await read('job-twice-1')).document.brief).toMatchObject({ site: 'Mill House', symptom: 'stone cold' })
  })

  it('takes changes of different things from two who do not know of each other', async () => {
    const { number } = (await stage.record('job-two-1', [opening('Two')])).body
    await stage.record('job-two-1', [symptom('cold', 'too hot')], number)
    const { body, status } = await stage.record('job-two-1', [setting(['brief', 'earlier'], '', 'valve')], number)
    expect(status).toBe(200)
    expect(body.entries.map((e: LogEntry) => e.entry.do)).toEqual(['edit', 'edit'])
    expect((await read('job-two-1')).document.brief).toMatchObject({ symptom: 'too hot', earlier: 'valve' })
  })

  it('answers 412 with the field where somebody else was at the same thing, and records none of that write', async () => {
    const { number } = (await stage.record('job-same-1', [opening('Same')])).body
    await stage.record('job-same-1', [symptom('cold', 'theirs')], number)
    const mine = [setting(['brief', 'earlier'], '', 'valve'), symptom('cold', 'mine')]
    const { status, body } = await stage.record('job-same-1', mine, number)
    expect([status, body.errors]).toEqual([
      412,
      [{ field: 'brief.symptom', reason: 'is not as it was when you changed it' }],
    ])
    expect((await read('job-same-1')).document.brief).toMatchObject({ symptom: 'theirs', earlier: '' })
    expect(await log('job-same-1')).toHaveLength(2)
  })

  it('answers 412 where two changes each fit and do not stand together, 422 where one alone makes no sense', async () => {
    const document = documentOf('Sense')
    const { number } = (await stage.record('job-sense-1', [logged({ do: 'open', ...document }, 'sense-open')])).body
    const [centre] = document.wiring.wiringCentres
    const list = ['wiring', 'wiringCentres', centre.id, 'terminals']
    const spare = { id: '99', legend: 'Spare', ways: 1 }
    const more = logged({ do: 'edit', label: 'More', changes: [{ do: 'add', path: list, value: spare, after: null }] })
    const less = logged({ do: 'edit', label: 'Less', changes: [{ do: 'drop', path: list, was: spare, after: null }] })
    const core = ['wiring', 'cables', 'pump-cable', 'cores', 'brown', 'ends', '1']
    const was = document.wiring.cables.find((c) => c.id === 'pump-cable')!.cores.find((k) => k.id === 'brown')!.ends[1]
    const on = setting(core, was, { at: 'terminal', terminal: `${centre.id}.99` })

    const alone = await stage.record('job-sense-1', [on], number)
    expect(alone.status).toBe(422)
    expect(alone.body.errors[0]).toMatchObject({ reason: `there is no terminal "${centre.id}.99"` })

    const seen = (await stage.record('job-sense-1', [more], number)).body.number
    await stage.record('job-sense-1', [less], seen)
    expect((await stage.record('job-sense-1', [on], seen)).status).toBe(412)
  })

  it('keeps findings in the order in which they were made; one that is taken back stays in the log', async () => {
    await stage.record('job-find-1', [opening('Find')])
    for (const id of ['finding-b', 'finding-a', 'finding-b'])
      await stage.record('job-find-1', [logged({ do: 'observe', finding: finding(id) })])
    const ids = async () => (await read('job-find-1')).findings.map((f) => f.id)
    expect(await ids()).toEqual(['finding-a', 'finding-b'])
    for (let i = 0; i < 2; i++) await stage.record('job-find-1', [logged({ do: 'retract', finding: 'finding-b' })])
    expect(await ids()).toEqual(['finding-a'])
    expect(await log('job-find-1')).toHaveLength(6)
  })

  it('keeps a hunt line by line, as edited, moved and taken back; the list counts its looks', async () => {
    await stage.record('job-hunt-1', [opening('Hunted')])
    const at = '2026-11-27T07:00:00.000Z'
    const line = (id: string, entry: object) => ({ entry: { id, ...entry } as HuntLine['entry'], at, note: '' })
    const see = { at: 'boiler' as const, device: 'boiler' }
    const deeds: Entry[] = [
      {
        do: 'hunt',
        lines: [line('line-1', { do: 'programmer.heating=on' }), line('line-2', { see, found: { word: 'called' } })],
      },
      { do: 'hunt', lines: [line('line-2', { see, found: { word: 'not-called' } })] },
      { do: 'hunt', lines: [line('line-3', { says: { what: 'is-fine' } })], before: 'line-1' },
      { do: 'hunt', lines: [line('line-4', { mended: 'pump.motor.open' })] },
      { do: 'unhunt', lines: ['line-4'] },
      { do: 'hunt-with', options: { ...usualHuntOptions, deadOnly: true } },
    ]
    for (const deed of deeds) await stage.record('job-hunt-1', [logged(deed)])
    const { hunt, number } = await read('job-hunt-1')
    expect(hunt.lines.map(({ entry }) => entry)).toEqual([
      { id: 'line-3', says: { what: 'is-fine' } },
      { id: 'line-1', do: 'programmer.heating=on' },
      { id: 'line-2', see, found: { word: 'not-called' } },
    ])
    expect(hunt.options.deadOnly).toBe(true)
    expect(await log('job-hunt-1')).toHaveLength(1 + deeds.length)
    const { jobs } = (await stage.call('GET', '/api/jobs?find=Hunted')).body as { jobs: { findings: number }[] }
    expect(jobs).toMatchObject([{ findings: 1, number }])
    const many = Array.from({ length: mostHuntLines }, (_, i) => line(`many-${i}`, { do: 'settle' }))
    const refused = await stage.record('job-hunt-1', [logged({ do: 'hunt', lines: many })])
    expect([refused.status, refused.body.errors[0].field]).toEqual([422, 'entries.entry.lines'])
    expect((await read('job-hunt-1')).hunt).toEqual(hunt)
  })

  it('keeps a state of the wiring as it stands there, once, and never changes it', async () => {
    await stage.record('job-keep-1', [opening('Keep')])
    const keep = (name: string) => logged({ do: 'keep', revision: 'revision-1', kind: 'planned', name })
    const name = (await read('job-keep-1')).document.wiring.name
    await stage.record('job-keep-1', [keep('As planned'), setting(['wiring', 'name'], name, 'Otherwise')])
    expect((await read('job-keep-1')).revisions).toMatchObject([{ name: 'As planned', installation: { name } }])
    expect((await stage.record('job-keep-1', [keep('Other')])).status).toBe(409)
  })

  it.each<[string, () => LogEntry, number, string]>([
    ['a second beginning', () => opening('Again'), 409, 'entry.do'],
    ['a value that is not kept as written', () => setting(['brief', 'symptom'], 'cold', ' cold '), 422, ''],
    ['a field nobody knows', () => setting(['brief', 'phone'], undefined, '1'), 422, 'brief'],
    ['an empty site', () => setting(['brief', 'site'], 'Refused', ''), 422, 'brief.site'],
    [
      'an answer to another look',
      () => logged({ do: 'observe', finding: { ...finding('finding-c'), result: 'open' } }),
      422,
      'entries.0.entry.finding.result',
    ],
  ])('refuses %s, and what is stored stays', async (_, entry, status, field) => {
    await stage.record('job-refuse-1', [opening('Refused', 'refused-open')])
    const before = await read('job-refuse-1')
    const answer = await stage.record('job-refuse-1', [entry()], before.number)
    expect([answer.status, answer.body.errors[0].field]).toEqual([status, field])
    expect(await read('job-refuse-1')).toEqual(before)
  })

  it('refuses a survey of more cables than a box can hold, and keeps the one that is there', async () => {
    await stage.record('job-survey-much', [opening('Much', 'survey-open')])
    const cable = (id: string): Entry => ({
      do: 'survey-cable',
      id,
      cable: { id, label: 'Cable', by: '', cores: [{ id: 'k1', colour: 'brown', at: { at: 'unseen' } }] },
    })
    const many = Array.from({ length: 201 }, (_, i) => logged(cable(`cable-${i}`)))
    for (const part of [many.slice(0, 100), many.slice(100, 200)])
      expect((await stage.record('job-survey-much', part)).status).toBe(200)
    const answer = await stage.record('job-survey-much', many.slice(200))
    expect([answer.status, answer.body.errors[0].field]).toEqual([422, 'entries.entry.survey-cable'])
    expect((await read('job-survey-much')).record.survey!.seen.cables).toHaveLength(200)
  })

  it('refuses a run that has no end, and keeps what was done of it', async () => {
    const stamp = { at: '2026-11-27T08:00:00.000Z', visit: '' }
    const run: Entry = { do: 'run', run: { id: 'run-long', purpose: 'leaving', options: usualRun, ...stamp } }
    await stage.record('job-run-long', [opening('Long', 'run-open'), logged(run)])
    const rows = Array.from({ length: mostRowsDone + 1 }, (_, i) =>
      logged({ do: 'run-row', run: 'run-long', id: `row-${i}-of-it`, row: rowOf('rest', stamp.at, '') }),
    )
    for (let from = 0; from < mostRowsDone; from += 100)
      expect((await stage.record('job-run-long', rows.slice(from, from + 100))).status).toBe(200)
    const answer = await stage.record('job-run-long', rows.slice(mostRowsDone))
    expect([answer.status, answer.body.errors[0].field]).toEqual([422, 'entries.entry.run-row'])
    expect((await read('job-run-long')).record.runs![0].done).toHaveLength(mostRowsDone)
  })

  it('does not record where there is no such job, nor under an id that another job has', async () => {
    expect((await stage.record('job-none-1', [symptom('cold', 'warm')])).status).toBe(404)
    await stage.record('job-other-1', [opening('Other', 'shared-entry')])
    expect((await stage.record('job-other-2', [opening('Other', 'shared-entry')])).status).toBe(409)
  })
})

/** A row of a run, done as expected. */
const rowOf = (row: string, at: string, visit: string): RowDone => ({
  row,
  title: row,
  how: 'as-expected',
  acts: ['programmer.heating=on', 'wait=30s'],
  waitMs: 23_000,
  looks: [
    { at: 'House valve', see: { at: 'valve', device: 'zv-1' }, expect: { word: 'open' }, found: 'as-expected' },
    { at: 'Boiler E', see: { at: 'points', with: 'earth', red: 'boiler.E' }, expect: { value: 0.1, unit: 'Ω' } },
  ],
  byHand: [{ what: 'Cover on', right: true, note: '' }],
  reason: '',
  note: '',
  at,
  visit,
})

/** Something recorded of a visit, by two numbers. */
function siteDeed(which: number, of: number): Entry {
  const at = '2026-11-27T08:00:00.000Z'
  const visit = `visit-any-${of % 2}`
  const stamp = { at, visit }
  const deeds: Entry[] = [
    { do: 'visit', visit: { id: visit, who: 'A. Engineer', why: `${of}`, at } },
    { do: 'isolated', visit },
    { do: 'disturb', disturbed: { id: `thing-${of % 3}`, what: 'Cover off' } },
    { do: 'settle', disturbed: `thing-${of % 3}`, how: of % 4 === 0 ? null : 'back' },
    { do: 'measure', measure: { id: `measure-${of % 3}`, what: 'Link in', limits: '', until: '2026-12-04', at } },
    { do: 'measure-ends', measure: `measure-${of % 3}` },
    {
      do: 'item',
      id: `item-any-${of % 3}`,
      item: of % 5 === 0 ? null : { kind: 'found', severity: 'fault', text: `${of}`, evidence: [], ...stamp },
    },
    {
      do: 'part',
      id: `part-any-${of % 3}`,
      part: of % 5 === 0 ? null : { what: 'Head', count: 1, use: 'used', ...stamp },
    },
    { do: 'told', id: `told-any-${of % 3}`, told: of % 5 === 0 ? null : { whom: 'Owner', what: `${of}`, ...stamp } },
    {
      do: 'follow-up',
      id: `follow-any-${of % 3}`,
      followUp: of % 5 === 0 ? null : { what: `${of}`, on: '2026-12-01', at },
    },
    { do: 'sign', visit, signed: of % 3 === 0 ? null : { name: 'I. Penrose', strokes: [[1, 2, 3, 4]] } },
    { do: 'visit-goes-on', visit },
    {
      do: 'change-to',
      change: of % 4 === 0 ? null : { name: `Receiver ${of}`, to: documentOf('Any').brief.fitted, at },
    },
    { do: 'survey-terminals', terminals: [{ id: `${of % 5}`, legend: '' }] },
    {
      do: 'survey-cable',
      id: `cable-${of % 3}`,
      cable:
        of % 5 === 0
          ? null
          : {
              id: `cable-${of % 3}`,
              label: `Cable ${of}`,
              by: '',
              cores: [{ id: 'k1', colour: 'brown', at: { at: 'terminal', terminal: `${of % 5}` } }],
            },
    },
    {
      do: 'survey-fact',
      id: `seen-${of % 3}`,
      fact: of % 5 === 0 ? null : { see: 'leaves', id: `seen-${of % 3}`, by: 'A. Engineer', cable: 'cable-1' },
    },
    {
      do: 'survey-link',
      id: `link-${of % 3}`,
      link: of % 5 === 0 ? null : { id: `link-${of % 3}`, between: ['1', '2'] },
    },
    { do: 'survey-complete', complete: of % 2 === 0 },
    {
      do: 'run',
      run: { id: `run-any-${of % 3}`, purpose: of % 2 === 0 ? 'arrival' : 'leaving', options: usualRun, ...stamp },
    },
    {
      do: 'run-row',
      run: `run-any-${of % 3}`,
      id: `row-any-${of % 5}`,
      row: of % 7 === 0 ? null : rowOf(`alone heating-${of % 2}`, at, visit),
    },
    { do: 'run-ends', run: `run-any-${of % 3}`, open: [{ row: 'told', title: 'Told' }] },
    { do: 'run-goes-on', run: `run-any-${of % 4}` },
    { do: 'survey-taken', before: `revision-any-${of % 3}`, revision: `revision-any-${of % 4}` },
  ]
  return deeds[which % deeds.length]
}

describe('what the server says of a job', () => {
  it('is what its log makes of it, whatever was done', async () => {
    let job = 0
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.array(fc.nat(9999), { minLength: 5, maxLength: 5 }), { maxLength: 12 }),
        async (acts) => {
          const id = `job-any-${++job}`
          let document = documentOf('Any')
          const entries: LogEntry[] = [logged({ do: 'open', ...document })]
          for (const numbers of acts) {
            // Now and then a step is ticked off, or a tick is taken back.
            const [step, done] = numbers
            entries.push(logged({ do: 'tick', step: `step ${step % 4}`, done: done % 3 > 0 }))
            const scenario = done % 4 === 1 ? null : { name: `Run ${done}`, acts: ['wait=20s', `fault=f${step}`] }
            entries.push(logged({ do: 'scenario', id: `scenario-${step % 3}`, scenario }))
            const of = `line-${step % 5}`
            const hunted = { entry: { id: of, do: 'settle' }, at: '2026-11-27T07:00:00.000Z', note: `${done}` }
            entries.push(logged(done % 4 === 0 ? { do: 'unhunt', lines: [of] } : { do: 'hunt', lines: [hunted] }))
            entries.push(logged(siteDeed(step, done)))
            let i = 0
            const command = someAct(document.wiring, (n) => (numbers[i++] ?? 0) % n)
            if (!command) continue
            const next = { ...document, wiring: edited(document.wiring, command).doc }
            const changes = changesBetween(jobShape, document, next)
            if (changes.length === 0) continue
            entries.push(logged({ do: 'edit', label: command.label, changes }))
            document = next
          }
          entries.push(logged({ do: 'keep', revision: `revision-any-${job}`, kind: 'altered', name: 'So' }))
          const { status, body } = await stage.record(id, entries)
          expect(status).toBe(200)
          const folded = (body.entries as NumberedEntry[]).reduce<JobState | undefined>(
            (s, e) => grown(s, e, id),
            undefined,
          )
          expect(await read(id)).toEqual({ ...JSON.parse(JSON.stringify(folded)), lineage: expect.any(String) })
          expect(changesOf(body.entries)).toHaveLength(
            entries.reduce((n, e) => n + (e.entry.do === 'edit' ? e.entry.changes.length : 0), 0),
          )
        },
      ),
      { numRuns: 25 },
    )
  })

  it('survives two hundred writes at once: all that were acknowledged are there', async () => {
    await stage.record('job-race-1', [opening('Race')])
    const notes = Array.from({ length: 200 }, (_, i) => logged({ do: 'note', text: `note ${i}` }))
    const answers = await Promise.all(notes.map((note) => stage.record('job-race-1', [note])))
    expect(answers.every((a) => a.status === 200)).toBe(true)
    expect(new Set((await log('job-race-1')).map((e) => e.id))).toEqual(
      new Set([...notes.map((n) => n.id), (await log('job-race-1'))[0].id]),
    )
  })
})

it.each([
  ['into a text', { do: 'set' as const, path: ['brief', 'site', 'first', 'letter'], now: 'x' }],
  ['into a list that is none', { do: 'add' as const, path: ['brief', 'site'], value: { id: 'x' }, after: null }],
])('a change that leads %s is told to be amiss, and changes nothing', async (_, change) => {
  const job = `job-astray-${change.do}`
  await stage.record(job, [opening('Astray House')])
  const refused = await stage.record(job, [logged({ do: 'edit', label: 'Astray', changes: [change] })])
  expect([refused.status, refused.body.errors[0].field]).toEqual([412, change.path.join('.')])
  expect((await read(job)).document.brief.site).toBe('Astray House')
})

describe('a job from before there was a log', () => {
  it('gets one from what its rows say, once, and stays what it was', async () => {
    await stage.record('job-old-1', [
      opening('Old House'),
      logged({ do: 'keep', revision: 'revision-old', kind: 'planned', name: 'As planned' }),
      symptom('cold', 'old'),
      logged({ do: 'observe', finding: finding('finding-old') }),
    ])
    const before = await read('job-old-1')
    const orm = await openDatabase(stage.data)
    await orm.em.getConnection().execute("delete from entry where job = 'job-old-1'")
    await orm.close()
    await stage.restart()
    await stage.restart()
    const after = await read('job-old-1')
    expect(after).toEqual({ ...before, number: after.number })
    const entries = await log('job-old-1')
    expect(entries.map((e) => e.entry.do)).toEqual(['open', 'keep', 'observe'])
    const folded = entries.reduce<JobState | undefined>((s, e) => grown(s, e, 'job-old-1'), undefined)
    expect({ ...JSON.parse(JSON.stringify(folded)), lineage: after.lineage }).toEqual(after)
  })
})
