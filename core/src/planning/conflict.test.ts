import { canKeep, numbers, someBrief, standardBrief } from '../../testing'
import { briefShapeSchema, type PlanBrief } from './brief'
import { conflictOf } from './conflict'
import { planBriefSchema } from './plan-brief'
import { schemeIds } from './schemes'
import { suggestions } from './suggestions'

const heating = (...names: string[]) => names.map((name) => ({ kind: 'heating', name }))
const hotWater = { kind: 'hot-water', name: 'Hot water' }
const asked = (brief: object): PlanBrief => briefShapeSchema.parse({ terminals: 'strip-12', ...brief })
const conflict = (brief: object) => conflictOf(asked(brief))!

describe('answers that cannot be together', () => {
  it.each<[string, object, string[], string[]]>([
    [
      'a mid-position valve without an OFF contact',
      { scheme: 'mid-position', circuits: [...heating('House'), hotWater], offContact: false },
      ['scheme: Mid-position', 'the programmer has no OFF contact for hot water'],
      ['Take the scheme Two-port', 'Take a programmer with an OFF contact'],
    ],
    [
      'three heating zones on one mid-position valve',
      { scheme: 'mid-position', circuits: [...heating('Hall', 'Loft', 'Den'), hotWater], terminals: 'levers' },
      ['scheme: Mid-position', 'heating: 3 circuits'],
      ['Take the scheme Two-port', 'Leave out “Loft”, “Den”'],
    ],
    [
      'bus control on two zones',
      { scheme: 'single-zone-bus', circuits: heating('Hall', 'Loft') },
      ['scheme: Single zone, digital bus', 'heating: 2 circuits'],
      ['Leave out “Loft”'],
    ],
    [
      'an unvented cylinder before a valve that rests open to it',
      { scheme: 'mid-position', circuits: [...heating('House'), hotWater], cylinder: 'unvented' },
      ['scheme: Mid-position', 'cylinder: Unvented, with a high limit and an immersion heater'],
      ['Cylinder: Vented'],
    ],
    [
      'a zone wanted with hot water behind the priority valve',
      { scheme: 'hot-water-priority', circuits: [{ kind: 'heating', name: 'Nursery', alongside: true }, hotWater] },
      ['scheme: Hot-water priority', '“Nursery” heats while hot water does'],
      ['Let “Nursery” wait for hot water'],
    ],
    [
      'a wireless receiver for a zone of a relay panel',
      {
        scheme: 'relay-panel',
        circuits: [{ kind: 'heating', name: 'Hall', thermostat: 'wireless' }],
        terminals: 'levers',
      },
      ['scheme: Low voltage, relay panel', '“Hall”: wireless thermostat, receiver in its place'],
      ['Take the scheme Two-port', 'Take the usual thermostat for “Hall”'],
    ],
    [
      'a programmer without a contact that is needed',
      {
        scheme: 'two-port',
        circuits: [...heating('House'), hotWater],
        types: { programmer: 'programmer-one-channel' },
      },
      ['hot water: one circuit', 'programmer: programmer-one-channel'],
      ['Take the usual type for programmer'],
    ],
    [
      'too few cores in the wall',
      {
        scheme: 'two-port',
        circuits: [...heating('House'), hotWater],
        inWall: { 'stat-1-cable': ['brown', 'blue', 'green-yellow'] },
      },
      ['scheme: Two-port', 'House thermostat cable in the wall: brown, blue, green-yellow'],
      ['Lay a new cable: House thermostat cable'],
    ],
    [
      'six zones in a strip of eight',
      { scheme: 'two-port', circuits: [...heating('A', 'B', 'C', 'D', 'E', 'F'), hotWater], terminals: 'strip-8' },
      ['heating: 6 circuits', 'wiring centre: Strip of 8'],
      ['Wiring centre: Bars and levers'],
    ],
    [
      'no circuit at all',
      { scheme: 'single-zone', circuits: heating('House'), control: 'smart-receiver' },
      ['scheme: Single zone, volt-free call', 'control: Smart receiver, two channels'],
      ['Leave the control as the scheme has it'],
    ],
  ])('are named, as few as they can be, with the ways out: %s', (_, brief, answers, ways) => {
    const { answers: told, ways: out, reason } = conflict(brief)
    expect(told.map(({ says }) => says)).toEqual(answers)
    for (const way of ways) expect(out.map(({ says }) => says)).toContain(way)
    expect(reason.length).toBeGreaterThan(20)
  })

  it('are none where the brief can be laid out, and names that are still the same do not matter', () => {
    for (const scheme of schemeIds) {
      expect(planBriefSchema.safeParse(standardBrief(scheme)).success).toBe(true)
      expect(conflictOf(asked({ ...(standardBrief(scheme) as object), terminals: 'separate' }))).toBeUndefined()
    }
    const twice = { scheme: 'two-port', circuits: heating('House', 'House') }
    expect(conflictOf(asked(twice))).toBeUndefined()
  })

  it('are a smallest set: no plan keeps them all, one keeps all but any; every way out is a plan', () => {
    const random = numbers(31)
    let refused = 0
    for (let i = 0; i < 120; i++) {
      const brief = briefShapeSchema.parse(someBrief(random, 5))
      const found = conflictOf(brief)
      expect(found === undefined).toBe(planBriefSchema.safeParse(brief).success)
      if (!found) continue
      refused++
      const ids = found.answers.map(({ id }) => id)
      expect([brief, canKeep(brief, ids)]).toEqual([brief, false])
      for (const id of ids)
        expect([
          brief,
          id,
          canKeep(
            brief,
            ids.filter((other) => other !== id),
          ),
        ]).toEqual([brief, id, true])
      for (const way of found.ways) expect(planBriefSchema.safeParse(way.brief).success).toBe(true)
    }
    expect(refused).toBeGreaterThan(20)
  })
})

describe('the schemes for a brief', () => {
  it('serve or say why not, those for any boiler before those that want one of their own', () => {
    const all = suggestions(asked({ scheme: 'two-port', circuits: [...heating('House'), hotWater] }))
    expect(all).toHaveLength(schemeIds.length)
    const serve = all.filter(({ whyNot }) => whyNot === undefined)
    expect(serve.map(({ scheme }) => scheme)).toContain('mid-position')
    expect(serve.map(({ wants }) => wants === undefined)).toEqual(
      serve.map(({ wants }) => wants === undefined).sort((x, y) => Number(y) - Number(x)),
    )
    expect(all.slice(serve.length).every(({ whyNot }) => whyNot!.length > 10)).toBe(true)
  })
  it('keep what else was said: a smart receiver is not among what serves towel rails', () => {
    const rails = { scheme: 'two-port', circuits: [...heating('House'), { kind: 'towel-rails', name: 'Rails' }] }
    const serving = (brief: object) =>
      suggestions(asked({ terminals: 'separate', ...brief })).filter(({ whyNot }) => whyNot === undefined)
    expect(serving(rails).map(({ scheme }) => scheme)).toEqual(['two-port', 'more-zones'])
    expect(serving({ ...rails, control: 'smart-receiver' })).toEqual([])
  })
})
