import { check, isGrave } from '../checks'
import { compile } from '../circuit'
import { lookAt, wordOf } from '../looks'
import { Simulation } from '../simulation'
import { findingText } from '../wording'
import { planBriefSchema, planSystem } from '.'

const heating = (...names: string[]) => names.map((name) => ({ kind: 'heating', name }))
const hotWater = { kind: 'hot-water', name: 'Hot water' }
const towels = { kind: 'towel-rails', name: 'Towel rails' }

describe('a brief', () => {
  it.each([
    ['an unvented cylinder', { scheme: 'two-port', circuits: [...heating('House'), hotWater], cylinder: 'unvented' }],
    [
      'towel rails beside priority',
      { scheme: 'hot-water-priority', circuits: [...heating('House'), towels, hotWater] },
    ],
    [
      'a smart receiver with three zones',
      { scheme: 'smart-receiver', circuits: [...heating('Hall', 'Loft', 'Den'), hotWater] },
    ],
    [
      'a smart receiver, two calls and an unvented cylinder',
      {
        scheme: 'smart-receiver',
        circuits: [...heating('House'), hotWater],
        boiler: 'two-calls',
        cylinder: 'unvented',
      },
    ],
    [
      'towel rails that heat with hot water, beside priority',
      { scheme: 'hot-water-priority', circuits: [...heating('House'), { ...towels, alongside: true }, hotWater] },
    ],
    ['towel rails and hot water alone', { scheme: 'two-port', circuits: [towels, hotWater] }],
    [
      'a zone for later, a pump beside the call',
      {
        scheme: 'more-zones',
        circuits: [...heating('House'), { kind: 'later', name: 'Annexe' }, hotWater],
        boiler: 'pump-beside',
      },
    ],
  ])('can combine %s, and what is laid out does what is asked in every state', (_, brief) => {
    const circuit = compile(planSystem(planBriefSchema.parse(brief), 'combined', 'Combined'))
    const { findings, states } = check(circuit)
    expect(findings.filter(isGrave).map((f) => findingText(circuit, f).title)).toEqual([])
    expect(states.complete).toBe(true)
    expect(states.table.every((row) => row.right)).toBe(true)
  })

  it.each([
    [
      { scheme: 'two-port', circuits: heating('A'), cylinder: 'unvented' },
      'cylinder: an unvented cylinder needs a hot water circuit',
    ],
    [
      { scheme: 'mid-position', circuits: [...heating('A'), hotWater], cylinder: 'unvented' },
      'cylinder: an unvented cylinder’s high limit has to shut a valve that closes without power, and Mid-position has none before the cylinder',
    ],
    [
      { scheme: 'two-port', circuits: [...heating('A'), { kind: 'later', name: 'B' }], control: 'smart-receiver' },
      'control: a zone whose thermostat comes later runs with a heating channel: a smart receiver has none to spare',
    ],
    [
      { scheme: 'two-port', circuits: [...heating('A'), towels], control: 'smart-receiver' },
      'control: towel rails need a channel of their own, and a smart receiver has two: take a programmer',
    ],
    [
      { scheme: 'hot-water-priority', circuits: [...heating('A'), hotWater], boiler: 'switched-live' },
      'boiler: hot-water priority needs a boiler with two calls',
    ],
    [
      { scheme: 'two-port', circuits: heating('A'), solar: true },
      ': a brief of what is fitted cannot say "solar": it says scheme, circuits, cylinder, control, boiler, supply, cable, terminals, first, offContact, types, inWall, lengths, places, kept',
    ],
    [
      { scheme: 'two-port', circuits: [{ kind: 'heating', name: 'A', floor: 2 }] },
      'circuits.0: a circuit cannot say "floor": it says kind, name, alongside, thermostat, timed',
    ],
    [
      { scheme: 'mid-position', circuits: [...heating('A'), hotWater], offContact: false },
      /^offContact: .*heating alone stops halfway/,
    ],
    [
      {
        scheme: 'hot-water-priority',
        circuits: [{ kind: 'heating', name: 'Nursery', alongside: true }, hotWater],
      },
      /^circuits.0.alongside: “Nursery” is to heat with hot water/,
    ],
    [
      { scheme: 'two-port', circuits: [{ kind: 'heating', name: 'A', thermostat: 'wired', timed: 'by-itself' }] },
      'circuits.0.timed: “A” cannot time itself: a plain thermostat knows no hours; take a programmable or a wireless one',
    ],
    [
      { scheme: 'relay-panel', circuits: [{ kind: 'heating', name: 'A', thermostat: 'wireless' }] },
      'circuits.0.thermostat: Low voltage, relay panel is laid out in one way only: leave the thermostat out',
    ],
    [
      { scheme: 'two-port', circuits: heating('A'), types: { furnace: 'pump' } },
      /^types.furnace: the plan has no device "furnace": it has spur, programmer/,
    ],
    [
      { scheme: 'two-port', circuits: heating('A'), types: { programmer: 'pump' } },
      'types.programmer: "pump" cannot stand in the place of programmer: it is none of the timing',
    ],
    [
      { scheme: 'low-voltage', circuits: heating('A'), types: { 'zv-1': 'two-port-valve-other-lead' } },
      /^types.zv-1: .*its lead has no conductor for/,
    ],
    [{ scheme: 'solar', circuits: heating('A') }, /^scheme: the scheme is two-port, /],
    [{ scheme: 'two-port', circuits: heating('A', 'a') }, 'circuits.1.name: "a" is there twice'],
  ])('is refused where it cannot be laid out or is not known, with field and reason: %#', (brief, expected) => {
    const read = planBriefSchema.safeParse(brief)
    const said = (read.error?.issues ?? []).map((i) => `${i.path.join('.')}: ${i.message}`)
    expect(said).toContainEqual(typeof expected === 'string' ? expected : expect.stringMatching(expected))
  })
})

describe('a programmable thermostat', () => {
  const planWith = (given: object) =>
    planSystem(
      planBriefSchema.parse({
        scheme: 'two-port',
        circuits: [{ ...heating('House')[0], thermostat: 'programmable', ...given }, hotWater],
      }),
      'p',
      'P',
    )
  /** Does its clock run with every channel off? */
  const clockRuns = (given: object) => wordOf(lookAt(new Simulation(compile(planWith(given))), clock)) !== 'dark'
  const clock = { at: 'clock', device: 'stat-1' } as const

  it('is on permanent line and asks with its own hours alone, where nobody says otherwise', () => {
    expect(planWith({}).intent.demands[0].channel).toBeNull()
    expect(clockRuns({})).toBe(true)
  })

  it('is fed by the programmer’s channel where the brief says so, and dark while that is off', () => {
    const given = { timed: 'by-channel' }
    expect(planWith(given).intent.demands[0].channel).toEqual({ device: 'programmer', contact: 'heating' })
    expect(clockRuns(given)).toBe(false)
  })
})

it('what is terminated first is asked for among three, and changes no wiring', () => {
  const brief = { scheme: 'two-port', circuits: [...heating('House'), hotWater] }
  const plan = (given: object) => planSystem(planBriefSchema.parse({ ...brief, ...given }), 'p', 'P')
  for (const first of ['links', 'supply', 'mains']) expect(plan({ first })).toEqual(plan({}))
  expect(planBriefSchema.safeParse({ ...brief, first: 'pump' }).error?.issues[0].message).toBe(
    'it is links, supply, mains',
  )
})

describe('where places are', () => {
  const brief = { scheme: 'two-port', circuits: [...heating('House'), hotWater] }
  const placesOf = (answers: object) => planSystem(planBriefSchema.parse({ ...brief, ...answers }), 'p', 'P').places

  it('is in the plan as it is said; of a place that the plan has not nothing follows', () => {
    const usual = placesOf({})
    const told = { controls: { floor: 0 }, plant: { floor: 2, apartMin: 3 }, attic: { floor: 9 } }
    expect(placesOf({ places: told })).toEqual(
      usual.map((place) => ({ ...place, ...told[place.id as keyof typeof told] })),
    )
  })

  it('is refused where no place is', () => {
    const { error } = planBriefSchema.safeParse({ ...brief, places: { plant: { apartMin: 500 } } })
    expect(error!.issues[0]).toMatchObject({ path: ['places', 'plant', 'apartMin'], message: 'minutes are 0 to 120' })
  })
})

describe('how long cables are', () => {
  const brief = { scheme: 'two-port', circuits: [...heating('House'), hotWater] }
  const lengthOf = (answers: object, cable: string) =>
    planSystem(planBriefSchema.parse({ ...brief, ...answers }), 'p', 'P').cables.find(({ id }) => id === cable)!.lengthM

  it('is as usual, or as it is said; of a cable that the plan has not nothing follows', () => {
    const usual = lengthOf({}, 'stat-1-cable')
    const lengths = { 'stat-1-cable': 31.5, 'stat-7-cable': 4 }
    expect(lengthOf({ lengths }, 'stat-1-cable')).toBe(31.5)
    expect(lengthOf({ lengths: { 'zv-1-lead': 2 } }, 'stat-1-cable')).toBe(usual)
    // Wherever it ends: the same cables in boxes of a cascade.
    expect(
      lengthOf(
        { lengths: { 'joint-1': 9 }, circuits: [...heating('A', 'B', 'C'), hotWater], terminals: 'strips-12' },
        'joint-1',
      ),
    ).toBe(9)
  })

  it('is refused where no cable is so long', () => {
    const { error } = planBriefSchema.safeParse({ ...brief, lengths: { 'stat-1-cable': 900 } })
    expect(error!.issues[0]).toMatchObject({ path: ['lengths', 'stat-1-cable'], message: 'a cable is at most 200 m' })
  })
})
