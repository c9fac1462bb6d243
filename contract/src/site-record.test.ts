import { edited, same, type Command } from '@nobbet/core'
import { changesBetween } from '@nobbet/core'
import fc from 'fast-check'
import {
  duesOf,
  entrySchema,
  firstWiring,
  grown,
  jobBriefSchema,
  jobShape,
  leftOpen,
  openMeasures,
  openVisit,
  recordTexts,
  recordOf,
  soonFrom,
  standingOf,
  unsettled,
  type Entry,
  type JobState,
} from '.'

const at = '2026-11-27T09:00:00.000Z'
const brief = jobBriefSchema.parse({
  site: 'Mill Lane 2',
  kind: 'fault',
  fitted: { scheme: 'two-port', circuits: [{ kind: 'heating', name: 'House' }] },
})
const opened: Entry = { do: 'open', brief, status: 'open', wiring: firstWiring(brief, 'mill-lane') }
const visit: Entry = { do: 'visit', visit: { id: 'visit-1', who: 'A. Engineer', why: 'No heating', at } }
const logged = (entry: Entry, of = at) => ({ id: 'entry-1', author: '', visit: 'visit-1', at: of, entry })
const after = (...entries: Entry[]): JobState =>
  entries.reduce<JobState | undefined>((state, entry) => grown(state, logged(entry), 'job-1'), undefined)!
const and = (state: JobState, ...entries: Entry[]): JobState =>
  entries.reduce((s, entry) => grown(s, logged(entry), 'job-1'), state)
/** An alteration on the Bench. */
const altered = (state: JobState, command: Command): JobState => {
  const wiring = edited(state.document.wiring, command).doc
  const changes = changesBetween(jobShape, state.document, { ...state.document, wiring })
  return changes.length === 0 ? state : and(state, { do: 'edit', label: command.label, changes })
}
const texts = (state: JobState) => leftOpen(state).map(({ text }) => text)

const moved = (to: string): Command => ({
  label: 'move',
  changes: [
    {
      do: 'end',
      cable: 'boiler-cable',
      core: 'black',
      end: 1,
      to: to === 'loose' ? { at: 'loose', provenance: 'seen' } : { at: 'terminal', terminal: to, provenance: 'seen' },
    },
  ],
})
const planned = (() => {
  const { wiring } = opened
  const end = wiring.cables.find(({ id }) => id === 'boiler-cable')!.cores.find(({ id }) => id === 'black')!.ends[1]
  return end.at === 'terminal' ? end.terminal : ''
})()

describe('a visit', () => {
  it('is open from when it begins until it ends; the isolation step is acknowledged for it once', () => {
    const begun = after(opened, visit, { do: 'isolated', visit: 'visit-1' })
    expect(openVisit(recordOf(begun))).toMatchObject({ id: 'visit-1', isolated: at })
    const ended = and(begun, { do: 'visit-ends', visit: 'visit-1' })
    expect(openVisit(recordOf(ended))).toBeUndefined()
    expect(openVisit(recordOf(and(ended, { do: 'visit-goes-on', visit: 'visit-1' })))).toMatchObject({ isolated: at })
  })

  it('is told otherwise in its place, and keeps what has become of it', () => {
    const told = after(
      opened,
      visit,
      { do: 'isolated', visit: 'visit-1' },
      {
        do: 'visit',
        visit: { id: 'visit-1', who: 'B. Engineer', why: '', at },
      },
    )
    expect(recordOf(told).visits).toMatchObject([{ who: 'B. Engineer', isolated: at }])
  })

  it('is signed with a name and strokes, and no longer signed', () => {
    const signed = { name: 'I. Penrose', strokes: [[0, 0, 10, 10]] }
    const state = after(opened, visit, { do: 'sign', visit: 'visit-1', signed })
    expect(recordOf(state).visits[0].signed).toEqual({ ...signed, at })
    expect(recordOf(and(state, { do: 'sign', visit: 'visit-1', signed: null })).visits[0]).not.toHaveProperty('signed')
  })
})

describe('the put-back list', () => {
  it('fills itself from the wiring: a core lifted on a visit, gone once it is on a terminal again', () => {
    const lifted = altered(after(opened, visit), moved('loose'))
    expect(texts(lifted)).toEqual([expect.stringMatching(/^black of .*oiler.* is off Wiring centre/)])
    expect(texts(altered(lifted, moved(planned)))).toEqual([])
  })

  it('and of links: one put in, one taken out; what undoes it takes it off', () => {
    const put: Command = {
      label: 'link',
      changes: [
        { do: 'put', in: 'links', value: { id: 'l-9', kind: 'fitted', between: ['wc.1', 'wc.9'], provenance: 'seen' } },
      ],
    }
    const drop: Command = { label: 'out', changes: [{ do: 'drop', in: 'links', id: 'l-9' }] }
    const linked = altered(after(opened, visit), put)
    expect(texts(linked)).toEqual([expect.stringMatching(/^A link is in between/)])
    expect(texts(altered(linked, drop))).toEqual([])
    const known = altered(after(opened), put)
    const out = altered(and(known, visit), drop)
    expect(texts(out)).toEqual([expect.stringMatching(/^The link between .* is out$/)])
    expect(texts(altered(out, put))).toEqual([])
  })

  it('has nothing of what is done at the desk, while no visit is open', () => {
    expect(texts(altered(after(opened), moved('loose')))).toEqual([])
  })

  it('has what a hunt disturbed, until that is undone', () => {
    const line = (id: string, act: string): Entry => ({
      do: 'hunt',
      lines: [{ entry: { id, do: act }, at, note: '' }],
    })
    const up = after(opened, visit, line('line-1', 'stat-1.set=30'))
    expect(leftOpen(up)).toMatchObject([{ by: 'hunt' }])
    const [{ id }] = leftOpen(up)
    expect(texts(and(up, line('line-2', id)))).toEqual([])
  })

  it('has what was written by hand until it is put back or stays; a measure leaves it until it ends', () => {
    const off = after(opened, visit, { do: 'disturb', disturbed: { id: 'cover', what: 'Cover off' } })
    expect(texts(off)).toEqual(['Cover off'])
    for (const how of ['back', 'stays'] as const)
      expect(texts(and(off, { do: 'settle', disturbed: 'cover', how }))).toEqual([])
    const measure = { id: 'measure-1', what: 'Cover off', limits: 'nobody in', until: '2026-12-01', puts: 'cover', at }
    const left = and(off, { do: 'measure', measure })
    expect([texts(left), openMeasures(recordOf(left))]).toEqual([[], [measure]])
    expect(standingOf(0, left.hunt, recordOf(left), 0)).toMatchObject({ left: 0, measures: 1 })
    const ended = and(left, { do: 'measure-ends', measure: 'measure-1' })
    expect(texts(ended)).toEqual(['Cover off'])
    expect(recordOf(ended).measures).toEqual([{ ...measure, ended: at }])
  })

  it('comes to nothing after any alterations that are undone in turn', () => {
    const places = ['loose', planned, 'wc.9', 'wc.10']
    fc.assert(
      fc.property(fc.array(fc.nat(3), { maxLength: 8 }), (picks) => {
        let state = after(opened, visit)
        const { wiring } = state.document
        for (const pick of picks) state = altered(state, moved(places[pick]))
        state = altered(state, moved(planned))
        expect(same(state.document.wiring.links, wiring.links)).toBe(true)
        expect(unsettled(recordOf(state))).toEqual([])
      }),
      { numRuns: 60 },
    )
  })
})

describe('what is written down', () => {
  const item = {
    kind: 'found' as const,
    severity: 'danger' as const,
    text: 'No earth',
    evidence: [],
    at,
    visit: 'visit-1',
  }

  it('stands in its place when it is said otherwise, is taken out, and comes back', () => {
    const state = after(
      opened,
      { do: 'item', id: 'item-1', item },
      { do: 'item', id: 'item-2', item: { ...item, text: 'Second' } },
      { do: 'item', id: 'item-1', item: { ...item, text: 'Changed' } },
    )
    expect(recordOf(state).items.map(({ text }) => text)).toEqual(['Changed', 'Second'])
    expect(recordOf(and(state, { do: 'item', id: 'item-1', item: null })).items.map(({ id }) => id)).toEqual(['item-2'])
  })

  it('of what has a day, the nearest is told first, and nothing that is done or has ended', () => {
    const state = after(
      opened,
      { do: 'follow-up', id: 'follow-1', followUp: { what: 'Bring the head', on: '2026-12-03', at } },
      { do: 'follow-up', id: 'follow-2', followUp: { what: 'Done', on: '2026-11-01', at, done: at } },
      { do: 'measure', measure: { id: 'measure-1', what: 'Link', limits: '', until: '2026-12-01', at } },
    )
    expect(duesOf(recordOf(state)).map(({ what }) => what)).toEqual(['Link', 'Bring the head'])
    expect(standingOf(0, state.hunt, recordOf(state), 0)).toMatchObject({
      measures: 1,
      due: { kind: 'measure', what: 'Link', on: '2026-12-01' },
    })
    expect(soonFrom(new Date(at))).toBe('2026-11-30')
  })

  it('has one change of controls: another stands in its place, or none', () => {
    const change = { name: 'Wireless receiver', to: brief.fitted, at }
    const state = after(opened, { do: 'change-to', change })
    expect(recordOf(state).change).toEqual(change)
    const other = and(state, { do: 'change-to', change: { ...change, name: 'Smart receiver' } })
    expect(recordOf(other).change!.name).toBe('Smart receiver')
    expect('change' in recordOf(and(other, { do: 'change-to', change: null }))).toBe(false)
  })

  it('keeps a survey thing by thing: what is said anew stands in the place of what was said before', () => {
    const cable = (label: string) => ({
      id: 'cable-1',
      label,
      by: '',
      cores: [{ id: 'k1', colour: 'brown' as const, at: { at: 'terminal' as const, terminal: '3' } }],
    })
    const fact = { see: 'leaves' as const, id: 'seen-1', by: 'A. Engineer', cable: 'cable-1', note: 'behind the tank' }
    const state = after(
      opened,
      { do: 'survey-terminals', terminals: [{ id: '3', legend: 'L' }] },
      { do: 'survey-cable', id: 'cable-1', cable: cable('Cable 1') },
      { do: 'survey-cable', id: 'cable-1', cable: cable('To the loft') },
      { do: 'survey-link', id: 'link-1', link: { id: 'link-1', between: ['3', '4'] } },
      { do: 'survey-fact', id: 'seen-1', fact },
      { do: 'survey-complete', complete: true },
    )
    const { seen } = recordOf(state).survey!
    expect(seen).toMatchObject({
      complete: true,
      cables: [cable('To the loft')],
      facts: [fact],
      links: [{ between: ['3', '4'] }],
    })
    expect(recordTexts(recordOf(state))).toEqual(expect.arrayContaining(['To the loft', 'behind the tank']))
    const taken = and(state, { do: 'survey-taken', before: 'revision-1', revision: 'revision-2' })
    expect(recordOf(taken).survey!.taken).toMatchObject({ before: 'revision-1', revision: 'revision-2' })
    const less = and(taken, { do: 'survey-fact', id: 'seen-1', fact: null })
    expect(recordOf(less).survey).toMatchObject({ seen: { facts: [] }, taken: { revision: 'revision-2' } })
  })

  it.each<[unknown, string]>([
    [{ do: 'survey-cable', id: 'c', cable: { id: 'c', label: '', cores: [] } }, 'cable.label'],
    [{ do: 'survey-fact', id: 'f', fact: { see: 'felt', id: 'f', cable: 'c', device: 'd' } }, 'fact.moved'],
    [{ do: 'change-to', change: { name: '', to: brief.fitted, at } }, 'change.name'],
    [{ do: 'change-to', change: { name: 'x', to: { ...brief.fitted, scheme: 'solar' }, at } }, 'change.to.scheme'],
    [{ do: 'visit', visit: { id: 'v', who: '', why: '', at } }, 'visit.id'],
    [{ do: 'disturb', disturbed: { id: 'x', what: ' ' } }, 'disturbed.what'],
    [{ do: 'measure', measure: { id: 'measure-1', what: '', limits: '', until: '2026-12-04', at } }, 'measure.what'],
    [{ do: 'measure', measure: { id: 'measure-1', what: 'link', limits: '', until: 'soon', at } }, 'measure.until'],
    [{ do: 'item', id: 'item-1', item: { ...item, kind: 'guessed' } }, 'item.kind'],
    [{ do: 'item', id: 'item-1', item: { ...item, text: '' } }, 'item.text'],
    [{ do: 'part', id: 'part-1', part: { what: 'Head', count: 0, use: 'used', at, visit: '' } }, 'part.count'],
    [{ do: 'told', id: 'told-1', told: { whom: '', what: 'x', at, visit: '' } }, 'told.whom'],
    [{ do: 'follow-up', id: 'follow-1', followUp: { what: 'x', on: '1.12.', at } }, 'followUp.on'],
    [{ do: 'sign', visit: 'visit-1', signed: { name: 'I. Penrose', strokes: [] } }, 'signed.strokes'],
  ])('is refused by its field where it cannot be: %#', (entry, field) => {
    const read = entrySchema.safeParse(entry)
    expect(read.error?.issues.map(({ path }) => path.join('.')).some((path) => path.startsWith(field))).toBe(true)
  })
})
