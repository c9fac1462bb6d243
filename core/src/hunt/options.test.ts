import { circuitOf } from '../../testing'
import { compile, type Circuit } from '../circuit'
import { shortsOf } from '../hypotheses'
import { thingLookedAt } from '../looks'
import type { Course } from '.'
import {
  actDisturbs,
  advice,
  Hunt,
  huntEntrySchema,
  huntOptionsSchema,
  passes,
  stateAfter,
  type HuntEntry,
  type NextLook,
} from '.'
import { minutesFor } from './minutes'

const circuit = circuitOf('two-port-heating-hot-water')
const complained: HuntEntry[] = [{ id: 'c', says: { what: 'does-not-come-on', demand: 'heating-1' } }]
const asked: HuntEntry[] = [
  ...complained,
  { id: 'on', do: 'programmer.heating=on' },
  { id: 'up', do: 'stat-1.set=30' },
  { id: 'rest', do: 'settle' },
  { id: 'boiler', see: { at: 'boiler', device: 'boiler' }, found: { word: 'not-called' } },
]
const base = new Hunt(circuit)
const nextOf = (options: object, log = asked): NextLook[] => {
  const hunt = base.again(options)
  hunt.follow(log)
  return advice(hunt, log, 3000, { everyState: true }).next
}
const placeOf = (owner: string) =>
  [...circuit.installation.devices, ...circuit.installation.wiringCentres].find((d) => d.id === owner)!.place
const ownerOf = ({ see }: NextLook) => thingLookedAt(see)

describe('what is not wanted is not proposed', () => {
  it('no instrument that is not at hand', () => {
    const instruments = ['meter', 'continuity']
    for (const { see } of nextOf({ instruments })) if (see.at === 'points') expect(instruments).toContain(see.with)
    const all = nextOf({ strategy: 'source-to-load' })
    expect(all.some(({ see }) => see.at === 'points' && see.with === 'resistance')).toBe(true)
  })

  it('nothing in a place that is out of reach', () => {
    const outOfReach = [placeOf('zv-1')]
    const all = nextOf({}).map((n) => placeOf(ownerOf(n)))
    expect(all).toContain(outOfReach[0])
    const reached = nextOf({ outOfReach }).filter((n) => placeOf(ownerOf(n)) === outOfReach[0])
    expect(reached).toEqual([])
  })

  it('nothing elsewhere for somebody who stays where he is', () => {
    const here = placeOf('boiler')
    for (const next of nextOf({ stay: true })) expect(placeOf(ownerOf(next))).toBe(here)
  })

  it('no live work; what is dead before comes with the supply off', () => {
    const next = nextOf({ deadOnly: true })
    expect(next.some((n) => n.live)).toBe(false)
    for (const { see, isolated } of next)
      if (see.at === 'points' && see.with === 'resistance') expect(isolated).toBe(true)
  })
})

it('somebody at the controls spares the walk to them', () => {
  const far = (helper: boolean) =>
    nextOf({ helper }).find((n) => n.acts.includes('cyl-stat.set=75') && n.see.at === 'lever')!.minutes
  expect(far(true)).toBeLessThan(far(false))
})

describe('what passes', () => {
  const underWay = (options: object) => nextOf(options).filter((n) => n.acts.at(-1)?.startsWith('wait='))
  /** The last thing set for it stands elsewhere. */
  const isElsewhere = (n: NextLook) => {
    const set = n.acts.findLast((act) => !passes(act))!
    return placeOf(set.slice(0, set.indexOf('.'))) !== placeOf(ownerOf(n))
  }

  it('is looked at where somebody sets the last thing, or has somebody at the controls: not after a way that takes longer', () => {
    const alone = underWay({})
    expect(alone.length).toBeGreaterThan(0)
    expect(alone.filter(isElsewhere)).toEqual([])
    expect(underWay({ helper: true }).some(isElsewhere)).toBe(true)
  })

  it('is brought about anew by the supply, off until everything is back, and on again', () => {
    const anew = nextOf({}).filter(({ acts }) => acts.includes('wait=20s'))
    // With this little moving, all is at rest again after half a minute.
    expect(anew.map(({ acts }) => acts)).toContainEqual(['spur.switch=off', 'wait=20s', 'spur.switch=on', 'settle'])
    for (const one of anew) expect([one.isolated, one.asking]).toEqual([undefined, undefined])
  })
})

it('what lies apart costs its way, and only that', () => {
  const { installation } = circuit
  const zone = placeOf('stat-1')
  const places = installation.places.map((place) => (place.id === zone ? { ...place, apartMin: 10 } : place))
  const apart = compile({ ...installation, places })
  const minutesOf = (of: Circuit) => minutesFor(of, asked, [], { at: 'points', with: 'tester', red: 'stat-1.COM' })
  expect(minutesOf(apart).minutes).toBe(minutesOf(circuit).minutes + 10)
  const here = (of: Circuit) => minutesFor(of, asked, [], { at: 'lever', device: 'zv-1' })
  expect(here(apart)).toEqual(here(circuit))
})

describe('a strategy', () => {
  const firstBy = (strategy: string) => nextOf({ strategy }, complained)
  it('from the source on begins nearest to it, from the middle half way, on the line of the service complained of', () => {
    const line = ['wc.1', 'programmer.L', 'programmer.H-ON', 'wc.19', 'stat-1.L', 'stat-1.SL', 'wc.21', 'zv-1.M']
    const at = ({ see }: NextLook) => (see.at === 'points' ? line.indexOf(see.red) : -1)
    const [source] = firstBy('source-to-load')
    const [middle] = firstBy('from-the-middle')
    expect([source.see.at, source.asking]).toEqual(['points', ['programmer.heating', 'stat-1.contact']])
    expect(middle.asking).toEqual(source.asking)
    const places = firstBy('source-to-load')
      .map(at)
      .filter((i) => i >= 0)
    expect(places[0]).toBe(Math.min(...places))
  })

  it('changes the order alone: the same looks, with the same minutes and bits', () => {
    const key = (n: NextLook) => JSON.stringify([n.acts, n.see, n.minutes, n.bits])
    const sorted = (strategy: string) => firstBy(strategy).map(key).sort()
    expect(sorted('from-the-middle')).toEqual(sorted('source-to-load'))
  })
})

describe('weights', () => {
  const share = (id: string, options: object) => {
    const { suspects } = new Hunt(circuit, huntOptionsSchema.parse(options))
    const all = suspects.reduce((sum, { prior }) => sum + prior, 0)
    return suspects.find((s) => s.id === id)!.prior / all
  }
  it.each([
    ['boiler.casing.leak', { wet: ['boiler'] }],
    ['zv-1.travel.seized-shut', { stoodStill: true }],
    ['pump.motor.jammed', { stoodStill: true }],
    ['zv-1.motor.open', { old: ['zv-1'] }],
    ['zv-1.outlet.passes', { weights: { 'zv-1.outlet.passes': 40 } }],
    ['not-on-the-list', { weights: { 'not-on-the-list': 40 } }],
  ])('of %s rises by %j', (id, options) => {
    expect(share(id, options)).toBeGreaterThan(1.3 * share(id, {}))
    // Nobody else's does.
    expect(share('programmer.heating.never-operates', options)).toBeLessThanOrEqual(
      share('programmer.heating.never-operates', {}),
    )
  })

  it('of what its maker has fixed hardly counts: the conductors of a lead are not exchanged at the valve', () => {
    const atValve = share('moved zv-1-lead.grey.0 zv-1.E', {})
    expect(atValve).toBeLessThan(0.05 * share('exchanged stat-1-cable.black.1 zv-1-lead.brown.1', {}))
  })
})

describe('conductors that touch', () => {
  it('are among the suspects, side by side in a cable and each with its earth, once each', () => {
    const shorts = shortsOf(circuit)
    expect(new Set(shorts.map((s) => s.name)).size).toBe(shorts.length)
    const thermostat = shorts.filter((s) => s.name.startsWith('touching stat-1-cable.'))
    expect(thermostat.length).toBeGreaterThan(2)
    expect(thermostat.every(({ label }) => label.endsWith('of House thermostat cable touch'))).toBe(true)
  })

  it('blow the fuse where line meets earth, and call uncalled where a feed meets a switched conductor', () => {
    const hunt = new Hunt(circuit)
    const log: HuntEntry[] = [
      { id: 'says', says: { what: 'blows-the-fuse' } },
      { id: 'fuse', see: { at: 'fuse', device: 'spur' }, found: { word: 'blown' } },
    ]
    hunt.follow([])
    const share = () => {
      const { shares } = hunt.ranking()
      return hunt.suspects.reduce((sum, s, i) => (s.hypothesis?.kind === 'short' ? sum + shares[i] : sum), 0)
    }
    const before = share()
    hunt.follow(log)
    expect(share()).toBeGreaterThan(4 * before)
  })
})

describe('something looked at on its way', () => {
  it('may be seen a little early or late; what is at rest by then may not', () => {
    hunt.follow([])
    const course = hunt.courseOf(0).fork()
    for (const act of ['programmer.heating=on', 'stat-1.set=30', 'wait=13s']) course.act(act)
    const lever = { at: 'lever', device: 'zv-1' } as const
    const { expected, beside } = course.shows({ at: 'boiler', device: 'boiler' })
    expect([expected, ...beside].map((e) => (e === 'open' ? e : 'word' in e && e.word))).toEqual([
      'called',
      'not-called',
      'called',
    ])
    course.act('wait=5min')
    course.act('settle')
    expect(course.shows(lever)).toEqual({ expected: { word: 'slack' }, beside: [] })
  })
  const hunt = new Hunt(circuit)
})

it('stays a course of its own when it is forked', () => {
  const hunt = new Hunt(circuit)
  hunt.follow([])
  const course: Course = hunt.courseOf(0)
  course.fork().act('programmer.heating=on')
  expect(course.sim.control('programmer', 'heating')).toBe('off')
})

describe('wiring that is to stay as it is', () => {
  it('is not lifted, linked or parked for a test, nor a control taken off its plate', () => {
    const log: HuntEntry[] = [
      ...asked,
      { id: 'off', do: 'spur.switch=off' },
      {
        id: 'low',
        see: { at: 'points', with: 'insulation', red: 'wc.1', black: 'wc.10' },
        found: { value: 0, unit: 'MΩ' },
      },
    ]
    const disturbing = (options: object) => nextOf(options, log).filter(({ acts }) => acts.some(actDisturbs))
    const verbs = new Set(
      disturbing({}).flatMap(({ acts }) => acts.filter(actDisturbs).map((act) => act.split('=')[0])),
    )
    expect([...verbs]).toEqual(expect.arrayContaining(['lift', 'link']))
    expect(disturbing({ asWired: true })).toEqual([])
    // What was lifted before that was said is put back all the same.
    const lifted: HuntEntry[] = [...log, { id: 'lift', do: 'lift=supply.brown.1' }]
    const backs = nextOf({ asWired: true }, lifted).flatMap(({ acts }) => acts)
    expect(backs).toContain('land=supply.brown.1')
  })
})

describe('what somebody cannot do', () => {
  /** Refuses whatever is proposed, with nothing set for it. */
  const refusing = (turns: number): { log: HuntEntry[]; refused: string[]; hunt: Hunt } => {
    const hunt = base.again()
    const log = [...asked]
    const refused: string[] = []
    for (let turn = 0; turn < turns; turn++) {
      hunt.follow(log)
      const [first] = advice(hunt, log, 1).next
      if (!first) break
      refused.push(JSON.stringify([first.acts, first.see]))
      const after = first.acts.length > 0 ? { after: first.acts } : {}
      log.push({ id: `e${turn}`, see: first.see, found: 'cannot-do', ...after })
    }
    hunt.follow(log)
    return { log, refused, hunt }
  }

  it('is not proposed again, though nothing that it needed was done; everything stands as it stood, and nothing is learnt', () => {
    const { log, refused, hunt } = refusing(8)
    expect(refused.length).toBe(8)
    expect(new Set(refused).size).toBe(8)
    expect(log.some((entry) => 'after' in entry && entry.after?.some((act) => !passes(act)))).toBe(true)
    const before = base.again()
    before.follow(asked)
    expect(stateAfter(circuit, log)).toBe(stateAfter(circuit, asked))
    expect(hunt.ranking().shares).toEqual(before.ranking().shares)
  })

  it('must have gone before what could be done; and only what could not be done has it', () => {
    const see = { at: 'boiler', device: 'boiler' } as const
    const at = (entry: object) => huntEntrySchema.safeParse({ id: 'x', see, ...entry })
    expect(at({ found: 'cannot-do', after: ['programmer.heating=off'] }).success).toBe(true)
    expect(at({ found: 'cannot-tell', after: ['programmer.heating=off'] }).error?.message).toContain('not done')
    expect(at({ found: { word: 'called' }, after: ['programmer.heating=off'] }).success).toBe(false)
    const hunt = base.again()
    const odd: HuntEntry = { id: 'odd', see, found: 'cannot-do', after: ['nowhere.switch=on'] }
    expect(hunt.misfits([...asked, odd]).map(({ entry }) => entry)).toEqual(['odd'])
  })
})

describe('what somebody cannot tell', () => {
  it('is asked in two states at most, and another thing then', () => {
    const hunt = new Hunt(circuitOf('two-port-heating'))
    const log: HuntEntry[] = [{ id: 'says', says: { what: 'does-not-come-on', demand: 'heating-1' } }]
    const asked = new Map<string, number>()
    for (let turn = 0; turn < 8; turn++) {
      hunt.follow(log)
      const [first] = advice(hunt, log, 1).next
      if (!first) break
      first.acts.forEach((text, i) => log.push({ id: `a${turn}-${i}`, do: text }))
      log.push({ id: `e${turn}`, see: first.see, found: 'cannot-tell' })
      const key = JSON.stringify(first.see)
      asked.set(key, (asked.get(key) ?? 0) + 1)
    }
    expect(asked.size).toBeGreaterThan(3)
    expect(Math.max(...asked.values())).toBeLessThanOrEqual(2)
  })
})
