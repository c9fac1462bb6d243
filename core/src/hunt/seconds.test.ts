import * as fc from 'fast-check'
import { circuitOf, lived } from '../../testing'
import { nth } from '../lists'
import { answerOf, Hunt, unlisted, type HuntEntry } from '.'
import { deadLooksAt } from './candidates'

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

/** Both services tried, each alone; then, isolated, every winding and contact measured. */
function triedAndMeasured(...wrong: string[]): HuntEntry[] {
  const { log, done, seen } = lived(
    circuit,
    wrong.map((id) => hunt.singles.find((suspect) => suspect.id === id)!.hypothesis!),
  )
  done('programmer.heating=on', 'stat-1.set=30', 'settle')
  seen({ at: 'lever', device: 'zv-1' }, { at: 'boiler', device: 'boiler' }, { at: 'pump', device: 'pump' })
  done('programmer.heating=off', 'stat-1.set=5', 'programmer.hot-water=on', 'cyl-stat.set=75', 'settle')
  seen({ at: 'lever', device: 'zv-hw' }, { at: 'boiler', device: 'boiler' }, { at: 'pump', device: 'pump' })
  done('spur.switch=off', 'settle')
  seen(...deadLooksAt(circuit).filter((see) => see.at === 'points' && see.with === 'resistance'))
  return log
}

describe('two causes at once of which neither was put right', () => {
  it.each([
    ['zv-1.travel.seized-open', 'pump.motor.open'],
    ['zv-1.motor.open', 'pump.motor.open'],
    ['zv-1.motor.open', 'zv-hw.end-switch.never-makes'],
  ])('are suspects where nothing on the list fits by itself: %s and %s', (one, other) => {
    const log = triedAndMeasured(one, other)
    const of = hunt.again()
    of.follow(log)
    expect(likeliest(of)).toBe(`${one} + ${other}`)
    expect(shareOf(of, `${one} + ${other}`)).toBeGreaterThan(0.3)
    // What is on no list would have had most of it.
    expect(shareOf(of, unlisted)).toBeLessThan(0.05)
  })

  it('are no suspects where one cause explains it all', () => {
    const of = hunt.again()
    of.follow(triedAndMeasured('zv-1.motor.open'))
    expect(pairsOf(of)).toEqual([])
    expect(likeliest(of)).toBe('zv-1.motor.open')
  })

  it('are put right one after the other: each is worth it, and then the one that is left', () => {
    const [valve, pump] = ['zv-1.motor.open', 'pump.motor.open']
    const log = triedAndMeasured(valve, pump)
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
  const picks = fc.array(done, { minLength: 1, maxLength: 6 })
  const put = fc.constantFrom('zv-1.motor.open', 'pump.motor.open', 'programmer.heating.never-operates')
  fc.assert(
    fc.property(picks, put, fc.nat(12), (acts, mended, at) => {
      const log = triedAndMeasured('zv-1.motor.open', 'pump.motor.open').slice(0, 16)
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
