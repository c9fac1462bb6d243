import fc from 'fast-check'
import { installationOf } from '../../testing'
import { applied, same } from '../changes'
import { typeDirectory } from '../catalogue'
import { check, staticFindings } from '../checks'
import { compile } from '../circuit'
import { exampleById, examples } from '../examples'
import { installationShape, parseInstallation, placeOf, type Installation } from '../installation'
import { centreKindIds, planBriefSchema, planSystem, type PlanBrief } from '../planning'
import { CannotChange, joinsOf, changed, changedTo, commonChanges, movesOf, takenBack, touchesOf, type Move } from '.'

const house = [
  { kind: 'heating', name: 'House' },
  { kind: 'hot-water', name: 'Hot water' },
]
const briefs = (given: object): PlanBrief => planBriefSchema.parse({ scheme: 'two-port', circuits: house, ...given })
const planned = (given: object): Installation => planSystem(briefs(given), 'p', 'Plan')
/** Conductors in each terminal and connector that takes only so many. */
function overfull(doc: Installation): string[] {
  const held = new Map<string, number>()
  for (const end of doc.cables.flatMap(({ cores }) => cores.flatMap(({ ends }) => ends))) {
    const ref = placeOf(end)
    if (ref !== undefined) held.set(ref, (held.get(ref) ?? 0) + 1)
  }
  const rooms = [
    ...doc.wiringCentres.flatMap(({ id, terminals }) => terminals.map((t) => [`${id}.${t.id}`, t.ways] as const)),
    ...doc.connectors.map(({ id, ways }) => [id, ways] as const),
  ]
  return rooms.filter(([ref, ways]) => (held.get(ref) ?? 0) > ways).map(([ref]) => ref)
}
/** Carries moves out one by one, and takes them back. */
function carriedOut(from: Installation, moves: readonly Move[]): { ends: Installation; overfull: string[] } {
  const full: string[] = []
  const ends = moves.reduce((doc, { changes }) => {
    const next = applied(installationShape, doc, changes)
    full.push(...overfull(next))
    return next
  }, from)
  return { ends, overfull: full }
}
const changesOf = (id: string) =>
  commonChanges(exampleById(id)!.brief).map(({ id: to, brief }) => ({
    id: to,
    change: changedTo(installationOf(id), brief),
  }))
const told = ({ do: kind, what, from, to }: Move) => [kind, what, from, to].filter(Boolean).join(' | ')

// Every example is gone through by `npm run study:moves`.
describe.each(['two-port-heating-hot-water', 'mid-position', 'hot-water-priority', 'smart-receiver', 'gravity'])(
  'from %s, each change that is often asked for',
  (id) => {
    let all: ReturnType<typeof changesOf>
    beforeAll(() => (all = changesOf(id)))

    it('ends in what would be planned from nothing, and no terminal ever holds more than it takes', () => {
      for (const { id: to, change } of all) {
        const { is, planned: wanted } = joinsOf(change)
        expect([to, is]).toEqual([to, wanted])
        expect(() => parseInstallation(change.to, typeDirectory)).not.toThrow()
        const moves = movesOf(change)
        const { ends, overfull: full } = carriedOut(change.from, moves)
        expect([to, full]).toEqual([to, []])
        expect(same(ends, change.to)).toBe(true)
        expect(same(applied(installationShape, change.to, takenBack(moves)), change.from)).toBe(true)
        expect(new Set(moves.map((m) => m.id)).size).toBe(moves.length)
        expect(moves.filter(({ place }) => place === '')).toEqual([])
      }
    })

    it('passes the rules that the plan itself passes', () => {
      for (const { id: to, change } of all) {
        const rules = (doc: Installation) => [...new Set(staticFindings(compile(doc)).map(({ rule }) => rule))]
        const planned = rules(change.target.plan)
        expect([to, rules(change.to).filter((rule) => !planned.includes(rule))]).toEqual([to, []])
      }
    })
  },
)

it('what is so already is not offered again', () => {
  const { brief } = exampleById('two-port-heating-hot-water')!
  const ids = (of: PlanBrief) => commonChanges(of).map(({ id }) => id)
  // A further zone can come again: the next is another.
  const once = commonChanges(brief).filter(({ id }) => id !== 'zone-later')
  expect(once.length).toBeGreaterThan(5)
  for (const { id, brief: after } of once) expect([id, ids(after).includes(id)]).toEqual([id, false])
  expect(ids(exampleById('relay-panel')!.brief)).toEqual([])
})

it('passes in every state, from a house with heating and hot water', () => {
  for (const { id, change } of changesOf('two-port-heating-hot-water'))
    expect([id, check(compile(change.to)).findings.map(({ rule }) => rule)]).toEqual([id, []])
})

it('whatever the wiring centre, the same is joined, no more than it takes is in a terminal, and backwards it is as it was', () => {
  const kinds = fc.constantFrom(...centreKindIds)
  const schemes = fc.constantFrom('two-port', 'mid-position', 'diverter', 'hot-water-priority', 'unvented')
  fc.assert(
    fc.property(schemes, kinds, fc.nat(), (scheme, terminals, pick) => {
      const brief = planBriefSchema.safeParse({ scheme, terminals, circuits: house })
      fc.pre(brief.success)
      const doc = planSystem(brief.data, 'p', 'Plan')
      // Of several boxes the change is refused, and says so.
      fc.pre(doc.wiringCentres.length === 1)
      const wishes = commonChanges(brief.data)
      const change = changedTo(doc, wishes[pick % wishes.length].brief)
      const { is, planned: wanted } = joinsOf(change)
      expect(is).toEqual(wanted)
      const moves = movesOf(change)
      const { ends, overfull: full } = carriedOut(doc, moves)
      expect(full).toEqual([])
      expect(same(ends, change.to)).toBe(true)
      expect(same(applied(installationShape, ends, takenBack(moves)), doc)).toBe(true)
    }),
    { numRuns: 12 },
  )
})

it('nothing is moved where nothing is to be otherwise', () => {
  for (const { id, brief } of examples) {
    const change = changedTo(installationOf(id), brief)
    expect([id, movesOf(change).map(told)]).toEqual([id, [`finish | ${change.to.scheme}`]])
    expect([id, touchesOf(change.cost)]).toEqual([id, 0])
  }
})

describe('a smart receiver for programmer and thermostat, in a strip of twelve', () => {
  const change = changedTo(planned({ terminals: 'strip-12' }), briefs({ control: 'smart-receiver' }))
  const at = (place: string) =>
    movesOf(change)
      .filter((move) => move.place === place)
      .map(told)

  it('hangs on the cable of the programmer, each contact linked to its line', () => {
    expect(at('Programmer position').slice(4)).toEqual([
      'exchange | Programmer | Receiver (Two-channel smart receiver with its thermostat)',
      'land | brown of Programmer cable | Receiver L',
      'land | blue of Programmer cable | Receiver N',
      'land | black of Programmer cable | Receiver H-NO',
      'land | grey of Programmer cable | Receiver W-NO',
      'link | Receiver L and Receiver H-COM',
      'link | Receiver H-COM and Receiver W-COM',
    ])
  })

  it('moves one conductor in the wiring centre: what was heating ON goes to the valve', () => {
    expect(at('Plant cupboard').filter((move) => move.startsWith('move'))).toEqual([
      'move | black of Programmer cable | Wiring centre 7 | Wiring centre 8',
    ])
  })

  it('is the least that has to be touched', () => {
    expect(touchesOf(change.bound)).toBe(touchesOf(change.cost))
  })
})

describe('a wireless receiver in the place of a room thermostat', () => {
  const zone = (given: object) => [{ ...house[0], ...given }, house[1]]
  const doc = planned({ terminals: 'strip-12' })

  it('behind the channel brings the common on a core of its own, and the channel stays where it is', () => {
    const { to } = changedTo(doc, briefs({ circuits: zone({ thermostat: 'wireless' }) }))
    const common = to.cables.flatMap(({ cores }) => cores).find(({ ends }) => placeOf(ends[0]) === 'stat-1.COM')
    expect(placeOf(common!.ends[1])).toBe('wc.7')
    expect(to.intent.demands[0].channel).toEqual({ device: 'programmer', contact: 'heating' })
  })

  it('timed by itself leaves the channel’s conductor alone in its terminal, and says what it is', () => {
    const { to } = changedTo(doc, briefs({ circuits: zone({ thermostat: 'wireless', timed: 'by-itself' }) }))
    const channel = to.cables.flatMap(({ cores }) => cores).find(({ ends }) => placeOf(ends[0]) === 'programmer.HTG-ON')
    expect(channel!.ends[1]).toMatchObject({ at: 'parked', terminal: 'wc.7' })
    expect(to.wiringCentres[0].terminals.find(({ id }) => id === '7')!.legend).toBe('Programmer HTG-ON, parked')
    expect(to.intent.demands[0].channel).toBeNull()
  })
})

it('what comes new is planned, and what is left alone is known as it was', () => {
  const doc: Installation = { ...planned({ terminals: 'strip-12' }), provenance: 'tested' }
  const { to } = changedTo(doc, briefs({ control: 'smart-receiver' }))
  const ends = (document: Installation) =>
    document.cables.flatMap(({ id, cores }) =>
      cores.flatMap((core) => core.ends.map((end, i) => [`${id}.${core.id}.${i}`, end] as const)),
    )
  const before = new Map(ends(doc))
  const changedEnds = ends(to).filter(([key, end]) => !same(before.get(key), end))
  expect(changedEnds.length).toBeGreaterThan(5)
  expect(changedEnds.filter(([, end]) => end.provenance !== 'planned')).toEqual([])
  expect(ends(to).length - changedEnds.length).toBeGreaterThan(50)
})

it('a second call to the boiler takes the spare core of its cable', () => {
  const change = changedTo(planned({ terminals: 'strip-12' }), briefs({ scheme: 'hot-water-priority' }))
  const boiler = change.to.cables.find(({ id }) => id === 'boiler-cable')!
  expect(boiler.cores.flatMap(({ ends }) => placeOf(ends[0]) ?? []).sort()).toEqual(
    ['E', 'L', 'N', 'SH', 'SW'].map((t) => `boiler.${t}`),
  )
  expect(
    movesOf(change)
      .filter((move) => move.do === 'lay')
      .map(told),
  ).toEqual([])
})

it('a cable that has too few conductors gets a second one, with why', () => {
  const doc = planned({ terminals: 'strip-12', cable: 'only-needed' })
  const change = changedTo(doc, briefs({ types: { programmer: 'programmer-own-feed' } }))
  expect(movesOf(change).find((move) => move.do === 'lay')).toMatchObject({ note: { is: 'too-few' } })
})

it('extra-low voltage gets a cable of its own where the one that is there goes on with mains', () => {
  const change = changed(
    planSystem(planBriefSchema.parse({ scheme: 'single-zone-mains', circuits: [house[0]] }), 'p', 'Plan'),
    planSystem(planBriefSchema.parse({ scheme: 'single-zone', circuits: [house[0]] }), 'p', 'Plan'),
  )
  const low = [...change.extraLow]
  expect(low.length).toBeGreaterThan(0)
  for (const { id, cores } of change.to.cables.filter((cable) => low.includes(cable.id)))
    for (const { ends } of cores.filter(({ ends: [a, b] }) => a.at === 'terminal' && b.at === 'terminal'))
      expect([id, ends.map((end) => placeOf(end)).filter((ref) => /\.(L|N|PL|PN)$/.test(ref!))]).toEqual([id, []])
})

it.each([
  ['no wiring centre', (doc: Installation) => ({ ...doc, wiringCentres: [] }), /no wiring centre/],
  [
    'two of them',
    (doc: Installation) => ({ ...doc, wiringCentres: [...doc.wiringCentres, { ...doc.wiringCentres[0], id: 'wc2' }] }),
    /2 wiring centres/,
  ],
  [
    'an end that nobody has found',
    (doc: Installation) => {
      const copy = structuredClone(doc)
      copy.cables[1].cores[0].ends[0] = { at: 'unknown' }
      return copy
    },
    /find the ends of Programmer cable/,
  ],
] as const)('with %s it says what to do first', (_, spoil, says) => {
  const doc = spoil(planned({ terminals: 'strip-12' }))
  expect(() => changedTo(doc, briefs({}))).toThrow(CannotChange)
  expect(() => changedTo(doc, briefs({}))).toThrow(says)
})
