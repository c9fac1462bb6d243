import { grown, recordOf, type Entry, type JobState, type RowDone } from '@nobbet/contract'
import { usualRun } from '@nobbet/core'
import { documentOf } from '../../testing'
import { reportPages } from '../paper/report-paper'
import { customerReport } from './customer-report'
import { engineerReport } from './engineer-report'
import type { Block } from './report'
import { strokePath } from './stroke-path'

const at = '2026-11-27T09:00:00.000Z'
const stamp = { at, visit: 'visit-2' }
const job = (...entries: Entry[]): JobState =>
  [{ do: 'open', ...documentOf('Mill House') } as Entry, ...entries].reduce<JobState | undefined>(
    (state, entry) => grown(state, { id: 'e', author: '', visit: 'visit-2', at, entry }, 'job-1'),
    undefined,
  )!
const of = (state: JobState) => ({
  state,
  record: recordOf(state),
  photos: [],
  dayOf: (iso: string) => iso.slice(0, 10),
})
const said = (blocks: readonly Block[]) => JSON.stringify(blocks)
const headings = (blocks: readonly Block[]) => blocks.flatMap((block) => (block.is === 'heading' ? [block.text] : []))

const visits: Entry[] = [
  { do: 'visit', visit: { id: 'visit-1', who: 'A. Engineer', why: 'No heat', at: '2026-11-20T09:00:00.000Z' } },
  { do: 'visit-ends', visit: 'visit-1' },
  { do: 'visit', visit: { id: 'visit-2', who: 'A. Engineer', why: 'New head', at } },
]
const item = (id: string, kind: 'found' | 'done' | 'advised' | 'not-ours', text: string, visit = 'visit-2'): Entry => ({
  do: 'item',
  id,
  item: { kind, severity: 'fault', text, part: 'zv-1', evidence: ['112 V at 26'], at, visit },
})
const measure: Entry = {
  do: 'measure',
  measure: {
    id: 'measure-1',
    what: 'Link past the thermostat.',
    why: 'part on order',
    limits: 'heating alone',
    until: '2026-12-01',
    at,
  },
}

describe('the report for the customer', () => {
  it('says of one visit what was found and done, what is left and until when, in plain words', () => {
    const state = job(
      ...visits,
      item('item-1', 'found', 'Earlier finding', 'visit-1'),
      item('item-2', 'found', 'Valve head burnt'),
      item('item-3', 'done', 'New head fitted'),
      measure,
      { do: 'part', id: 'part-1', part: { what: 'valve head', count: 1, use: 'used', ...stamp } },
      { do: 'follow-up', id: 'follow-1', followUp: { what: 'Look again', on: '2026-12-09', at } },
    )
    const one = customerReport(of(state), 'visit-2')
    expect(headings(one)).toEqual([
      'What you told us',
      'What we found',
      'What we did',
      'Left for now',
      'What comes next',
    ])
    expect(said(one)).toMatch(
      /Valve head burnt.*New head fitted.*Fitted: 1 × valve head.*ends on 2026-12-01.*heating alone.*2026-12-09/,
    )
    expect(said(one)).not.toMatch(/Earlier finding|112 V|zv-1|wc\./)
    expect(said(customerReport(of(state), undefined))).toContain('Earlier finding')
  })

  it('says which controls were changed on the visit, and not on another', () => {
    const fitted = documentOf('Mill House').brief.fitted
    const change = {
      name: 'Programmable thermostat for House',
      to: fitted,
      at,
      done: { revision: 'revision-1', at: '2026-11-27T10:00:00.000Z' },
    }
    const state = job(...visits, { do: 'change-to', change })
    expect(said(customerReport(of(state), 'visit-2'))).toContain('Controls changed: Programmable thermostat for House')
    expect(said(customerReport(of(state), 'visit-1'))).not.toContain('Controls changed')
  })

  it('of a job of which nothing was written says only what it knows, and its cautions', () => {
    expect(headings(customerReport(of(job()), undefined))).toEqual(['What you told us'])
    expect(said(customerReport(of(job()), undefined))).toMatch(/Covers stay on.*come before this report/)
  })
})

describe('the report for the next engineer', () => {
  it('begins with cautions and what is open; has visits, findings with readings, the wiring as left, settings', () => {
    const state = job(
      ...visits,
      { do: 'isolated', visit: 'visit-2' },
      item('item-2', 'found', 'Valve head burnt'),
      measure,
      { do: 'disturb', disturbed: { id: 'cover', what: 'Cover off' } },
      { do: 'hunt', lines: [{ entry: { id: 'on', do: 'programmer.heating=on' }, at, note: 'hums' }] },
      { do: 'tick', step: 'programmer-cable.black.1@wc.19', done: true },
    )
    const blocks = engineerReport(of(state), { text: 'No defect found', basis: 'All 12 states looked at.' })
    expect(headings(blocks)).toEqual([
      'Open points',
      'Visits',
      'Reported',
      'Found and done',
      'What was done, seen and read',
      'The wiring as left',
      'Settings',
      'Steps of termination',
    ])
    expect(said(blocks)).toMatch(/prove dead.*To put back: Programmer.*To put back: Cover off.*Left until 2026-12-01/)
    expect(said(blocks)).toMatch(/112 V at 26.*hums.*No defect found.*All 12 states looked at/)
    const { wiring } = state.document
    const [{ terminals }] = wiring.wiringCentres
    const schedule = blocks.find((block) => block.is === 'table' && block.head[0] === 'No.')
    const used = new Set(
      wiring.cables.flatMap(({ cores }) =>
        cores.flatMap(({ ends }) => ends.flatMap((end) => ('terminal' in end ? [end.terminal] : []))),
      ),
    )
    const ids = terminals.filter(({ id }) => used.has(`${wiring.wiringCentres[0].id}.${id}`)).map(({ id }) => id)
    const rows = schedule?.is === 'table' ? schedule.rows.map(([number]) => number) : []
    expect(rows).toEqual(expect.arrayContaining(ids))
  })

  it('does not say that the wiring is in order before the check is through', () => {
    expect(said(engineerReport(of(job()), undefined))).toContain('was not through when this was made')
  })
})

it('paper and page have the same pieces, in order', () => {
  const blocks = customerReport(of(job(...visits, item('item-2', 'found', 'Valve head burnt'))), undefined)
  const pages = reportPages(blocks, { job: 'Mill House', revision: '', date: '', by: '' }, 'For the customer')
  expect(pages.content).toHaveLength(blocks.length)
  expect(JSON.stringify(pages.content)).toContain('Valve head burnt')
})

it('strokes are lines through their points; a touch of the pen is a dot', () => {
  expect(
    strokePath([
      [1, 2, 3, 4, 5, 6],
      [9, 9],
    ]),
  ).toBe('M1 2L3 4L5 6M9 9L9 9')
})

describe('runs in the reports', () => {
  const run = (id: string, purpose: 'arrival' | 'leaving'): Entry => ({
    do: 'run',
    run: { id, purpose, options: { ...usualRun, short: true }, ...stamp },
  })
  const row = (runId: string, id: string, part: Partial<RowDone> = {}): Entry => ({
    do: 'run-row',
    run: runId,
    id,
    row: {
      row: 'alone heating-1',
      title: 'House: alone',
      how: 'as-expected',
      acts: [],
      waitMs: 0,
      looks: [
        {
          at: 'House valve: open or shut',
          see: { at: 'valve', device: 'zv-1' },
          expect: { word: 'open' },
          found: part.how === 'otherwise' ? { word: 'shut' } : 'as-expected',
        },
      ],
      byHand: [],
      reason: '',
      note: '',
      ...stamp,
      ...part,
    },
  })
  const state = job(
    ...visits,
    run('run-one', 'arrival'),
    row('run-one', 'row-1', { how: 'otherwise' }),
    run('run-two', 'leaving'),
    row('run-two', 'row-2', { how: 'otherwise' }),
    row('run-two', 'row-3'),
    row('run-two', 'row-4', {
      row: 'alone hot-water',
      title: 'Hot water: alone',
      how: 'deferred',
      reason: 'Thermostat not fitted yet',
      until: '2026-12-09',
      looks: [],
    }),
    { do: 'run-ends', run: 'run-two', open: [{ row: 'told', title: 'Told' }] },
  )
  const table = (blocks: readonly Block[]) =>
    blocks.flatMap((block) => (block.is === 'table' && block.head[0] === 'Step' ? [block.head, ...block.rows] : []))

  it('stand side by side for the next engineer: wrong on arrival, right on leaving, what was put off and why', () => {
    const report = engineerReport(of(state), undefined)
    expect(table(report)).toEqual([
      ['Step', 'On arrival', 'On leaving'],
      ['House: alone', 'Not as expected: House valve: shut, expected open', 'As expected'],
      ['Hot water: alone', 'Not done', 'Deferred to 9 December 2026: Thermostat not fitted yet'],
      ['Told', 'Not done', 'Not done'],
    ])
    expect(said(report)).toContain('On leaving, 2026-11-27: short run')
    expect(said(report)).toContain('By 2026-12-09: Hot water: alone, deferred: Thermostat not fitted yet.')
    // What was wrong at first in the run on leaving is not lost.
    expect(said(report)).toMatch(/House: alone, at 2026-11-27 Not as expected: .*; at 2026-11-27 As expected/)
  })

  it('tell the customer what was tested, and that what was not done was not tested', () => {
    const report = said(customerReport(of(state), undefined))
    expect(report).toContain('1 of 3 steps of the run were done and as expected.')
    expect(report).toContain('By 2026-12-09: Hot water: alone (Thermostat not fitted yet)')
    expect(report).toContain('What was not done was not tested.')
  })

  it('are not there where nothing was run', () => {
    expect(headings(engineerReport(of(job(...visits)), undefined))).not.toContain('Commissioning')
  })
})
