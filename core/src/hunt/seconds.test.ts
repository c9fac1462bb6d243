import * as fc from 'fast-check'
import { circuitOf, lived } from '../../testing'
import { nth } from '../lists'
import type { WrittenLook } from '../looks'
import { answerOf, Hunt, unlisted, type HuntEntry } from '.'
import { deadLooksAt } from './candidates'
import { Seconds } from './seconds'
import { combinable, type Cause } from './together'

const circuit = circuitOf('two-port-heating-hot-water')
const hunt = new Hunt(circuit)
const shareOf = (of: Hunt, id: string) =>
  of.ranking().shares[of.suspects.findIndex((suspect) => suspect.id === id)] ?? 0
const pairsOf = (of: Hunt) => of.suspects.slice(of.singles.length).map(({ id }) => id)
const likeliest = (of: Hunt) => {
  const { shares } = of.ranking()
  return nth(
    of.suspects,
    [...shares.keys()].reduce((x, y) => (nth(shares, y) > nth(shares, x) ? y : x)),
  ).id
}

/** Both services tried, each alone; then, isolated, every winding and contact measured, and whatever else `more` is. */
function triedAndMeasured(wrong: readonly string[], more: readonly WrittenLook[] = []): HuntEntry[] {
  const { log, done, seen, telling } = lived(
    circuit,
    wrong.map((id) => hunt.singles.find((suspect) => suspect.id === id)!.hypothesis!),
  )
  done('programmer.heating=on', 'stat-1.set=30', 'settle')
  seen({ at: 'lever', device: 'zv-1' }, { at: 'boiler', device: 'boiler' }, { at: 'pump', device: 'pump' })
  done('programmer.heating=off', 'stat-1.set=5', 'programmer.hot-water=on', 'cyl-stat.set=75', 'settle')
  seen({ at: 'lever', device: 'zv-hw' }, { at: 'boiler', device: 'boiler' }, { at: 'pump', device: 'pump' })
  done('spur.switch=off', 'settle')
  seen(...deadLooksAt(circuit).filter((see) => see.at === 'points' && see.with === 'resistance'), ...telling(more))
  return log
}

describe('two causes at once of which neither was put right', () => {
  it.each([
    ['zv-1.travel.seized-open', 'pump.motor.open'],
    ['zv-1.motor.open', 'pump.motor.open'],
    ['zv-1.motor.open', 'zv-hw.end-switch.never-makes'],
  ])('are suspects where nothing on the list fits by itself: %s and %s', (one, other) => {
    const log = triedAndMeasured([one, other])
    const of = hunt.again()
    of.follow(log)
    expect(likeliest(of)).toBe(`${one} + ${other}`)
    expect(shareOf(of, `${one} + ${other}`)).toBeGreaterThan(0.3)
    // What is on no list would have had most of it.
    expect(shareOf(of, unlisted)).toBeLessThan(0.05)
  })

  it('stay the likeliest whatever more is looked at that is as they have it, be it as one of the two alone has it', () => {
    const [valve, pump] = ['zv-1.motor.open', 'pump.motor.open']
    const of = hunt.again()
    const measured = triedAndMeasured([valve, pump]).length
    const more = fc.shuffledSubarray(
      deadLooksAt(circuit).filter((see) => see.at === 'points'),
      { minLength: 3, maxLength: 12 },
    )
    fc.assert(
      fc.property(more, (looks) => {
        const log = triedAndMeasured([valve, pump], looks)
        for (let to = measured; to <= log.length; to++) {
          of.follow(log.slice(0, to))
          expect(likeliest(of)).toBe(`${valve} + ${pump}`)
        }
      }),
      { numRuns: 6 },
    )
  })

  it('are no suspects where one cause explains it all', () => {
    const of = hunt.again()
    of.follow(triedAndMeasured(['zv-1.motor.open']))
    expect(pairsOf(of)).toEqual([])
    expect(likeliest(of)).toBe('zv-1.motor.open')
  })

  it('are put right one after the other: each is worth it, and then the one that is left', () => {
    const [valve, pump] = ['zv-1.motor.open', 'pump.motor.open']
    const log = triedAndMeasured([valve, pump])
    const of = hunt.again()
    of.follow(log)
    const remedyAfter = (after: readonly HuntEntry[]) => {
      of.follow(after)
      return answerOf(of, after).decision.remedy!
    }
    const first = remedyAfter(log)
    expect(first.share).toBeGreaterThan(0.5)
    expect(first.suspects.some((id) => id === valve || id === pump)).toBe(true)
    const mended: HuntEntry[] = [...log, { id: 'new-head', mended: valve }]
    expect(remedyAfter(mended).suspects).toContain(pump)
    expect(shareOf(of, `${valve} + ${pump}`)).toBeGreaterThan(0.3)
    // Once something was put right, nothing is thought of but what may be so beside it.
    expect(pairsOf(of).every((pair) => pair.split(' + ').includes(valve))).toBe(true)
    const both: HuntEntry[] = [...mended, { id: 'new-pump', mended: pump }]
    expect(remedyAfter(both).done).toBe(true)
    // What is seen to work then speaks against neither: the first does not come back with the second.
    const works: HuntEntry[] = [
      ...both,
      ...['spur.switch=on', 'programmer.heating=on', 'stat-1.set=30', 'settle'].map((text) => ({ id: text, do: text })),
      { id: 'pump', see: { at: 'pump', device: 'pump' }, found: { word: 'running' } },
      { id: 'valve', see: { at: 'valve', device: 'zv-1' }, found: { word: 'open' } },
      { id: 'boiler', see: { at: 'boiler', device: 'boiler' }, found: { word: 'called' } },
    ]
    expect(remedyAfter(works).done).toBe(true)
    expect(shareOf(of, `${valve} + ${pump}`)).toBeGreaterThan(0.9)
  })
})

describe('two at once in their order', () => {
  const followed = hunt.again()
  followed.follow(triedAndMeasured(['zv-1.motor.open', 'pump.motor.open']))
  const chancesOf = (single: number) => followed.fits(single).map(({ chance }) => chance)
  const orderOf = (mended: Record<string, number>) =>
    new Seconds(followed.singles, chancesOf, new Map(Object.entries(mended)))
  const chancesWith = (id: string) => chancesOf(followed.singles.findIndex((one) => one.id === id))
  /** Each finding as the one of those still wrong has it that goes better with it. */
  const byHand = (a: Cause, b: Cause, mended: ReadonlyMap<string, number>) =>
    chancesWith('nothing-wrong').reduce((sum, whole, i) => {
      const left = [a, b].filter(({ id }) => i < (mended.get(id) ?? Infinity)).map(({ id }) => nth(chancesWith(id), i))
      return sum + Math.log(left.length > 0 ? Math.max(...left) : whole)
    }, 0)

  it.each([
    ['nothing put right', {}],
    ['something put right', { 'zv-1.motor.open': 4, 'pump.motor.open': 8 }],
  ])('are all there once, with %s; of the best so many the same as of all', (_, mended) => {
    const all = orderOf(mended).inOrder()
    const { length } = combinable(followed.singles)
    expect(all.length).toBe((length * (length - 1)) / 2)
    expect(
      new Set(
        all.map(({ causes }) =>
          causes
            .map(({ id }) => id)
            .sort()
            .join(),
        ),
      ).size,
    ).toBe(all.length)
    const best = orderOf(mended).inOrder(50)
    expect(best.map(({ rank }) => rank)).toEqual(all.slice(0, 50).map(({ rank }) => rank))
    for (const { causes, prior, rank } of all.slice(0, 500)) {
      const [a, b] = causes as [Cause, Cause]
      expect(rank).toBeCloseTo(Math.log(prior) + byHand(a, b, new Map(Object.entries(mended))), 8)
    }
  })

  it('weigh together what each of them weighs', () => {
    const seconds = orderOf({})
    const sum = seconds.inOrder().reduce((all, { rank }) => all + Math.exp(rank), 0)
    const singles = followed.singles.reduce(
      (all, { id, prior }, i) => all + (id === unlisted ? 0 : prior * chancesOf(i).reduce((x, y) => x * y, 1)),
      0,
    )
    expect(seconds.share).toBeCloseTo(sum / (sum + singles), 6)
  })
})

it('says of a log gone along entry by entry, with two causes at once in it, exactly what it says of the whole', () => {
  const done = fc.constantFrom(
    'stat-1.set=30',
    'cyl-stat.set=40',
    'settle',
    'wait=40s',
    'programmer.heating=on',
    'off-plate=stat-1',
  )
  // Nothing is taken off its plate that is off it.
  const picks = fc.uniqueArray(done, { minLength: 1, maxLength: 6 })
  const put = fc.constantFrom('zv-1.motor.open', 'pump.motor.open', 'programmer.heating.never-operates')
  fc.assert(
    fc.property(picks, put, fc.nat(12), (acts, mended, at) => {
      const log = triedAndMeasured(['zv-1.motor.open', 'pump.motor.open']).slice(0, 16)
      log.push(...acts.map((text, i): HuntEntry => ({ id: `act-${i}`, do: text })))
      log.push({ id: 'lever', see: { at: 'lever', device: 'zv-1' }, found: { word: 'stiff' } })
      log.splice(4 + at, 0, { id: 'mended', mended })
      const [stepwise, whole] = [hunt.again(), hunt.again()]
      log.forEach((_, i) => stepwise.follow(log.slice(0, i + 1)))
      whole.follow(log)
      expect(pairsOf(whole).length).toBeGreaterThan(0)
      expect(pairsOf(stepwise)).toEqual(pairsOf(whole))
      expect(stepwise.ranking()).toEqual(whole.ranking())
    }),
    { numRuns: 3 },
  )
})
