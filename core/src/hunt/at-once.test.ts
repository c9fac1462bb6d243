import { circuitOf, lived } from '../../testing'
import type { WrittenLook } from '../looks'
import { demandActions } from '../inputs'
import { formatAction } from '../simulation'
import { nth } from '../lists'
import { Hunt, atOnceOf, mergedAtOnce, type AtOnce, type HuntEntry } from '.'
import { Ground } from './ground'
import { Alterations, asOne, behavesAs, combinable, type One } from './together'

const circuit = circuitOf('two-port-heating-hot-water')
const hunt = new Hunt(circuit)
const truths = ['zv-1.motor.open', 'zv-hw.end-switch.never-makes']

const livedBy = (of: Hunt, wrong: readonly string[]) =>
  lived(
    of.circuit,
    wrong.map((id) => of.suspects.find((s) => s.id === id)!.hypothesis!),
  )

/** Both services tried alone, on an installation in which both valves have failed. */
function bothTried(): HuntEntry[] {
  const { log, done, seen } = livedBy(hunt, truths)
  const boiler: WrittenLook = { at: 'boiler', device: 'boiler' }
  const volts = (red: string): WrittenLook => ({ at: 'points', with: 'tester', red })
  done('programmer.heating=on', 'stat-1.set=30', 'settle')
  seen({ at: 'lever', device: 'zv-1' }, boiler, volts('wc.21'))
  done('programmer.heating=off', 'stat-1.set=5', 'programmer.hot-water=on', 'cyl-stat.set=75', 'settle')
  seen({ at: 'lever', device: 'zv-hw' }, boiler, volts('wc.25'))
  return log
}

it('what behaves alike is worth the same, each gone along the log by itself', () => {
  const log: HuntEntry[] = [{ id: 'says', says: { what: 'does-not-come-on', demand: 'heating-1' } }, ...bothTried()]
  const listed = combinable(hunt.singles)
  const alike = new Map<string, One[]>()
  for (let n = 0; n < 4000; n++) {
    const causes = [nth(listed, (n * 37) % listed.length), nth(listed, (n * 101 + (n >> 3)) % listed.length)]
    const one = causes[0] !== causes[1] && asOne(circuit, { causes, prior: 1 })
    const as = one && behavesAs(one)
    if (one && as) alike.set(as, [...(alike.get(as) ?? []), one])
  }
  const groups = [...alike.values()]
    .filter((ones) => new Set(ones.map(({ suspect }) => suspect.id)).size > 1)
    .slice(0, 60)
  expect(groups).toHaveLength(60)
  for (const [first, ...others] of groups) {
    const worth = ({ suspect }: One) => {
      const alone = new Hunt(circuit, hunt.options, new Ground(circuit, [suspect], hunt.whole), true)
      alone.follow(log)
      return alone.logLikelihoods()[0]
    }
    const own = worth(first)
    for (const other of others.slice(0, 2)) expect([other.suspect.id, worth(other)]).toEqual([other.suspect.id, own])
  }
})

it('what goes on from an alteration at rest is worth what it is when made anew', () => {
  const log: HuntEntry[] = [{ id: 'says', says: { what: 'does-not-come-on', demand: 'heating-1' } }, ...bothTried()]
  const listed = combinable(hunt.singles)
  const alterations = new Alterations(circuit)
  let gone = 0
  for (let n = 0; n < 900 && gone < 60; n++) {
    const causes = [nth(listed, (n * 53) % listed.length), nth(listed, (n * 211 + 7) % listed.length)]
    const one = causes[0] !== causes[1] && asOne(circuit, { causes, prior: 1 }, alterations)
    if (!one || !one.rest) continue
    gone++
    const worth = (made?: One[]) => {
      const alone = new Hunt(
        circuit,
        hunt.options,
        new Ground(circuit, [one.suspect], hunt.whole, undefined, made),
        true,
      )
      alone.follow(log)
      return alone.logLikelihoods()[0]
    }
    expect([one.suspect.id, worth([one])]).toEqual([one.suspect.id, worth()])
  }
  expect(gone).toBe(60)
})

describe('two causes at once', () => {
  const log = bothTried()

  it('are found where one alone does not explain it; as far as has been looked is told', () => {
    hunt.follow(log)
    const [first] = atOnceOf(hunt, log)
    expect(first.best[0].ids).toEqual(truths)
    expect(first.pairs.lookedAt).toBeGreaterThan(0.01)
    expect(first.pairs.lookedAt).toBeLessThan(0.5)
    expect(first.pairs.done).toBe(40)
    expect(first.pairs.of).toBeGreaterThan(40_000)
    const shares = first.best.map((p) => p.share)
    expect(shares).toEqual([...shares].sort((x, y) => y - x))
    expect(first.share).toBeLessThan(1)
  })

  it('weigh little where one alone explains everything', () => {
    const one = log.slice(0, 6)
    hunt.follow(one)
    const [first] = atOnceOf(hunt, one)
    expect(first.share).toBeLessThan(0.1)
  })

  it('are looked at as many as are asked for, and what came before stays', () => {
    hunt.follow(log)
    const all = [...atOnceOf(hunt, log, { most: 60 })]
    expect(all.map((p) => [p.pairs.done, p.pairs.of])).toEqual([
      [40, 60],
      [60, 60],
    ])
    expect(all[1].pairs.lookedAt).toBeGreaterThan(all[0].pairs.lookedAt)
    expect(all[1].restAtMost).toBeLessThan(all[0].restAtMost)
  })

  it('are the one that is left where the other has been mended', () => {
    const mended: HuntEntry[] = [...log, { id: 'new-head', mended: 'zv-1.motor.open' }]
    const after: HuntEntry[] = [
      ...mended,
      { id: 'on', do: 'programmer.heating=on' },
      { id: 'up', do: 'stat-1.set=30' },
      { id: 'rest', do: 'settle' },
      { id: 'lever', see: { at: 'lever', device: 'zv-1' }, found: { word: 'slack' } },
    ]
    hunt.follow(after)
    const [first] = atOnceOf(hunt, after)
    expect(first.best[0].ids).toEqual(truths)
    expect(first.best[0].share).toBeGreaterThan(0.1)
  })

  it('that were not looked at cannot weigh more than is said, however many are', () => {
    hunt.follow(log)
    const all = [...atOnceOf(hunt, log, { most: 400 })]
    const [first, last] = [all[0], all[all.length - 1]]
    // What the pairs from the second batch on came to, in the weights of the first.
    const grown = (last.share - first.share) / (1 - first.share)
    expect(grown).toBeLessThan(first.restAtMost)
    expect(last.restAtMost).toBeLessThan(first.restAtMost)
  })
})

describe('shared among several runs', () => {
  it('pairs are each gone through once, and together it is told as one run would', () => {
    const log = bothTried()
    hunt.follow(log)
    const last = (all: Iterable<AtOnce>) => [...all].at(-1)!
    const whole = last(atOnceOf(hunt, log, { most: 240 }))
    const parts = [0, 1, 2].map((at) => last(atOnceOf(hunt, log, { most: 80, part: { at, of: 3 } })))
    const merged = mergedAtOnce(parts)
    expect(merged.pairs.done).toBe(240)
    expect(merged.pairs.lookedAt).toBeCloseTo(whole.pairs.lookedAt, 9)
    expect(merged.share).toBeCloseTo(whole.share, 9)
    expect(merged.restAtMost).toBeCloseTo(whole.restAtMost, 9)
    expect(merged.best.map(({ weight }) => weight)).toEqual(whole.best.map(({ weight }) => expect.closeTo(weight, 9)))
    expect(new Set(merged.best.map(({ ids }) => ids.join()))).toEqual(new Set(whole.best.map(({ ids }) => ids.join())))
    expect(mergedAtOnce([whole])).toEqual(whole)
  })
})

describe('three causes at once', () => {
  it('are found on request, made of the best pairs, where no two explain it all', () => {
    const three = circuitOf('two-port-two-heating-hot-water')
    const valves = ['zv-1', 'zv-2', 'zv-hw']
    const wrong = valves.map((valve) => `${valve}.motor.open`)
    const wide = new Hunt(three)
    const log = valvesTried(wide, wrong, valves)
    wide.follow(log)
    const all = [...atOnceOf(wide, log, { most: 400, threes: 200 })]
    const last = all[all.length - 1]
    expect(last.threes).toMatchObject({ done: 200, of: 200 })
    expect(last.threes!.lookedAt).toBeGreaterThan(0)
    expect(all.filter(({ threes }) => threes).every(({ pairs }) => pairs.done === 400)).toBe(true)
    expect([...last.best[0].ids].sort()).toEqual(wrong)
    expect(new Set(last.best.map(({ ids }) => [...ids].sort().join())).size).toBe(last.best.length)
  })

  it('weigh next to nothing where two explain it all', () => {
    const log = bothTried()
    hunt.follow(log)
    const all = [...atOnceOf(hunt, log, { most: 200, threes: 80 })]
    const [pairs, threes] = [all.findLast((one) => !one.threes)!, all[all.length - 1]]
    expect(threes.best[0].ids).toEqual(truths)
    expect(threes.share - pairs.share).toBeLessThan(0.05)
  })
})

/** Each lever tried with its service asked for, then, isolated, the ohms of each motor where its lead ends. */
function valvesTried(of: Hunt, wrong: readonly string[], valves: readonly string[]): HuntEntry[] {
  const { circuit: wide } = of
  const { log, done, seen } = livedBy(of, wrong)
  const { demands } = wide.installation.intent
  for (const valve of valves) {
    const demand = demands.find((d) => d.circuit.valves.some(({ device }) => device === valve))!
    done(...demandActions(wide, [demand.id]).map(formatAction), 'settle')
    seen({ at: 'lever', device: valve })
  }
  done('spur.switch=off', 'settle')
  for (const valve of valves) {
    const { cores } = wide.installation.cables.find(({ leadOf }) => leadOf === valve)!
    const [red, black] = ['brown', 'blue'].map((colour) => {
      const ends = cores.find((core) => core.colour === colour)!.ends
      return ends.flatMap((end) => (end.at === 'terminal' && end.terminal.startsWith('wc.') ? [end.terminal] : []))[0]
    })
    seen({ at: 'points', with: 'resistance', red, black })
  }
  return log
}
