import { usualRun } from '@nobbet/core'
import fc from 'fast-check'
import {
  besideEachOther,
  deferredRows,
  duesOf,
  entrySchema,
  lastRun,
  noRecord,
  openRun,
  outcomes,
  recordAfter,
  runLines,
  runsOf,
  type KeptRun,
  type LookDone,
  type RowDone,
  type RunDeed,
  type SiteRecord,
} from '.'

const at = '2026-11-28T09:00:00.000Z'
const minute = (n: number) => new Date(Date.parse(at) + n * 60_000).toISOString()
const valve: LookDone = {
  at: 'House valve: open or shut',
  see: { at: 'valve', device: 'zv-1' },
  expect: { word: 'open' },
  found: 'as-expected',
}
const row = (id: string, part: Partial<RowDone> = {}): RowDone => ({
  row: id,
  title: `Row ${id}`,
  how: 'as-expected',
  acts: ['programmer.heating=on'],
  waitMs: 30_000,
  looks: [valve],
  byHand: [],
  reason: '',
  note: '',
  at,
  visit: '',
  ...part,
})
const begun = (id: string, purpose: KeptRun['purpose'] = 'leaving', of = at): RunDeed => ({
  do: 'run',
  run: { id, purpose, options: usualRun, at: of, visit: '' },
})
const done = (run: string, id: string, what: RowDone | null): RunDeed => ({ do: 'run-row', run, id, row: what })
const after = (...deeds: RunDeed[]): SiteRecord =>
  deeds.reduce((record, deed) => recordAfter(record, deed, at, ''), noRecord)

describe('a run', () => {
  it('is begun, wanted otherwise in its place, ended with what nothing came of, and goes on', () => {
    const record = after(begun('run-one'), done('run-one', 'row-one', row('rest')), {
      do: 'run',
      run: { id: 'run-one', purpose: 'leaving', options: { ...usualRun, short: true }, at, visit: '' },
    })
    expect(runsOf(record)).toMatchObject([{ id: 'run-one', options: { short: true }, done: [{ row: 'rest' }] }])
    const open = [{ row: 'told', title: 'Told' }]
    const ended = recordAfter(record, { do: 'run-ends', run: 'run-one', open }, at, '')
    expect([runsOf(ended)[0].ended, openRun(runsOf(ended))]).toEqual([{ at, open }, undefined])
    const on = recordAfter(ended, { do: 'run-goes-on', run: 'run-one' }, at, '')
    expect(openRun(runsOf(on))).toMatchObject({ id: 'run-one' })
  })

  it('keeps each time that a row was done: the last says what came of it, and taking that back brings the one before', () => {
    const wrong = row('alone', { how: 'otherwise', at: minute(1) })
    const record = after(begun('run-one'), done('run-one', 'row-one', wrong), done('run-one', 'row-two', row('alone')))
    const [run] = runsOf(record)
    expect(run.done.map(({ how }) => how)).toEqual(['otherwise', 'as-expected'])
    expect(outcomes(run).get('alone')!.how).toBe('as-expected')
    const back = recordAfter(record, done('run-one', 'row-two', null), at, '')
    expect(outcomes(runsOf(back)[0]).get('alone')).toMatchObject({ id: 'row-one', how: 'otherwise' })
  })

  it('is not there for what speaks of another one', () => {
    expect(runsOf(after(begun('run-one'), done('run-two', 'row-one', row('rest'))))[0].done).toEqual([])
  })
})

describe('what was put off', () => {
  const put = row('alone', { how: 'deferred', reason: 'Thermostat not fitted yet', until: '2026-12-05', looks: [] })

  it('is due on its day until something else came of that row, in whichever run', () => {
    const record = after(begun('run-one'), done('run-one', 'row-one', put))
    expect(duesOf(record)).toEqual([{ id: 'row-one', kind: 'step', what: 'Row alone', on: '2026-12-05' }])
    const later = [begun('run-two'), done('run-two', 'row-two', row('alone', { at: minute(5) }))].reduce(
      (so, deed) => recordAfter(so, deed, at, ''),
      record,
    )
    expect([duesOf(later), deferredRows(runsOf(later))]).toEqual([[], []])
  })

  it.each([
    [{ how: 'deferred', reason: 'No thermostat' }, 'entry.row.until'],
    [{ how: 'deferred', until: '2026-12-05' }, 'entry.row.reason'],
    [{ how: 'left-out' }, 'entry.row.reason'],
    [{ how: 'another-way' }, 'entry.row.reason'],
    [{ until: '2026-12-05' }, 'entry.row.until'],
    [{ how: 'fine' }, 'entry.row.how'],
    [{ acts: [''] }, 'entry.row.acts'],
    [{ looks: [{ ...valve, found: { word: '' } }] }, 'entry.row.looks'],
  ])('needs its reason, and only what is deferred a day: %#', (part, field) => {
    const read = entrySchema.safeParse({ do: 'run-row', run: 'run-one', id: 'row-one', row: { ...row('a'), ...part } })
    const fields = read.error!.issues.map(({ path }) => ['entry', ...path].join('.'))
    expect(fields.some((one) => one.startsWith(field))).toBe(true)
  })
})

describe('two runs beside each other', () => {
  it('tell each row once, in the order in which it is gone through, with what came of it in both', () => {
    const record = after(
      begun('run-one', 'arrival'),
      done('run-one', 'a-rest', row('rest')),
      done('run-one', 'a-gone', row('gone')),
      done('run-one', 'a-alone', row('alone', { how: 'otherwise' })),
      begun('run-two', 'leaving'),
      done('run-two', 'l-earths', row('earths')),
      done('run-two', 'l-rest', row('rest')),
      done('run-two', 'l-alone', row('alone')),
    )
    const runs = runsOf(record)
    const rows = besideEachOther(lastRun(runs, 'arrival'), lastRun(runs, 'leaving'))
    expect(rows.map((one) => [one.row, one.arrival?.how, one.leaving?.how])).toEqual([
      ['earths', undefined, 'as-expected'],
      ['rest', 'as-expected', 'as-expected'],
      ['gone', 'as-expected', undefined],
      ['alone', 'otherwise', 'as-expected'],
    ])
  })

  it('lose no row, whatever was done in either', () => {
    const names = fc.array(fc.constantFrom('a', 'b', 'c', 'd', 'e', 'f'), { maxLength: 9 })
    fc.assert(
      fc.property(names, names, (one, other) => {
        const run = (id: string, of: string[]) =>
          [begun(id), ...of.map((name, i) => done(id, `${id}-${i}`, row(name)))] as RunDeed[]
        const [arrival, leaving] = runsOf(after(...run('run-one', one), ...run('run-two', other)))
        const rows = besideEachOther(arrival, leaving).map((each) => each.row)
        expect([...rows].sort()).toEqual([...new Set([...one, ...other])].sort())
      }),
    )
  })
})

describe('what a hunt learns of a run', () => {
  const shut: LookDone = { ...valve, found: { word: 'shut' } }
  const unseen: LookDone = { at: 'Pump', see: { at: 'pump', device: 'pump' }, expect: { word: 'running' } }
  const record = after(
    begun('run-one'),
    done('run-one', 'row-one', row('rest')),
    done('run-one', 'row-two', row('left', { how: 'left-out', reason: 'No access' })),
    done('run-one', 'row-three', row('alone', { how: 'otherwise', looks: [shut, unseen], at: minute(3) })),
  )
  const [run] = runsOf(record)

  it('is what was done and seen, when it was; not what was not done or not looked at', () => {
    const lines = runLines(run, [])
    expect(lines.map(({ entry, at: when }) => [entry, when])).toEqual([
      [{ id: 'row-one+1', do: 'programmer.heating=on' }, at],
      [{ id: 'row-one+2', do: 'wait=30s' }, at],
      [{ id: 'row-one+3', see: valve.see, found: { word: 'open' } }, at],
      [{ id: 'row-three+1', do: 'programmer.heating=on' }, minute(3)],
      [{ id: 'row-three+2', do: 'wait=30s' }, minute(3)],
      [{ id: 'row-three+3', see: valve.see, found: { word: 'shut' } }, minute(3)],
    ])
    for (const line of lines) expect(entrySchema.safeParse({ do: 'hunt', lines: [line] }).success).toBe(true)
  })

  it('is not told twice', () => {
    expect(runLines(run, runLines(run, []))).toEqual([])
  })
})
