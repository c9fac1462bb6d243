import fc from 'fast-check'
import { called, circuitOf } from '../../testing'
import { advice, deadLooksAt, Hunt, looksAt, needsIsolation, type HuntEntry, type Suspect } from '.'
import { wiringAt } from '../looks'
import type { WiringSeen } from '../looks/wiring-seen'
import { isByEye } from './candidates'

const twoPort = new Hunt(circuitOf('two-port-heating-hot-water'))
const complained: HuntEntry = { id: 'c', says: { what: 'does-not-come-on', demand: 'heating-1' } }
const off: HuntEntry[] = [
  { id: 'off', do: 'spur.switch=off' },
  { id: 'rest', do: 'settle' },
]
const after = (...log: HuntEntry[]) => {
  const hunt = twoPort.again()
  hunt.follow([complained, ...off, ...log])
  const { shares } = hunt.ranking()
  return { hunt, share: (id: string) => shares[hunt.suspects.findIndex((s) => s.id === id)] }
}
const eyes = (thing: string, word: string): HuntEntry => ({
  id: `eyes ${thing}`,
  see: { at: 'eyes', thing },
  found: { word },
})
const wiring = (thing: string, word: string, at?: string[]): HuntEntry => ({
  id: `wiring ${thing}`,
  see: { at: 'wiring', thing },
  found: { word, ...(at && { at }) },
})

it('what the wiring beside the drawing showed chooses what is thought of beside what was put right', () => {
  const circuit = circuitOf('two-port-heating-hot-water')
  const hunt = new Hunt(circuit)
  const says: HuntEntry = { id: 'c', says: { what: 'does-not-come-on', demand: 'heating-1' } }
  const motor = 'zv-1.motor.open'
  const log = (...words: string[]): HuntEntry[] => [
    says,
    ...words.map((word): HuntEntry => ({ id: word, see: { at: 'wiring', thing: 'stat-1' }, found: { word } })),
    { id: 'mended', mended: motor },
  ]
  const beside = (...words: string[]) => {
    hunt.follow(log(...words))
    const { shares } = hunt.ranking()
    return hunt.suspects.reduce((sum, { causes = [] }, i) => {
      const isThere = causes.length > 1 && causes.some(({ id }) => / stat-1-cable\.\w+\.0/.test(id))
      return isThere ? sum + shares[i] : sum
    }, 0)
  }
  expect(beside('otherwise')).toBeGreaterThan(3 * beside())
})

describe('what the eyes find', () => {
  it('speaks for what would leave such marks, and hardly against what leaves them now and then', () => {
    const before = after()
    const wet = after(eyes('pump', 'water'))
    expect(wet.share('pump.terminals.leak')).toBeGreaterThan(8 * before.share('pump.terminals.leak'))
    const loose = after(eyes('wc', 'loose'))
    expect(loose.share('stat-1-cable.brown.open')).toBeGreaterThan(4 * before.share('stat-1-cable.brown.open'))
    const sound = after(eyes('wc', 'sound'))
    const lost = sound.share('stat-1-cable.brown.open') / before.share('stat-1-cable.brown.open')
    expect(lost).toBeGreaterThan(0.3)
    expect(lost).toBeLessThan(0.9)
  })

  it('tells nobody apart for good: suspects that only differ in their marks are still told as a group', () => {
    const contacts = ['programmer.heating.never-operates', 'programmer.heating.made-contact-open']
    const { hunt } = after()
    const told = advice(hunt, [complained, ...off], 1, { everyState: true }).groups
    expect(told.some((group) => contacts.every((id) => group.includes(id)))).toBe(true)
  })
})

describe('the wiring compared with the drawing', () => {
  const moved = 'exchanged stat-1-cable.brown.0 stat-1-cable.black.0'
  it('finds what was altered there, and clears it where it is as drawn', () => {
    const before = after().share(moved)
    expect(after(wiring('stat-1', 'otherwise')).share(moved)).toBeGreaterThan(5 * before)
    expect(after(wiring('stat-1', 'as-drawn')).share(moved)).toBeLessThan(before / 5)
    const elsewhere = after(wiring('pump', 'otherwise')).share(moved)
    expect(elsewhere).toBeLessThan(before)
  })

  it('says where it lies otherwise: whoever has that gains, the more the more is named, and who has it elsewhere there loses', () => {
    const bare = after(wiring('stat-1', 'otherwise'))
    const all = after(wiring('stat-1', 'otherwise', ['stat-1.L', 'stat-1.SL']))
    const one = after(wiring('stat-1', 'otherwise', ['stat-1.SL']))
    const among = ({ share }: typeof bare) => share(moved) / (1 - share(moved))
    expect(among(all)).toBeGreaterThan(2 * among(bare))
    expect(among(all)).toBeGreaterThan(among(one))
    const twice = after(wiring('stat-1', 'otherwise', ['stat-1.SL', 'stat-1.SL']))
    expect(among(twice)).toBeCloseTo(among(one), 9)
    const elsewhere = after(wiring('stat-1', 'otherwise', ['stat-1.N']))
    expect(elsewhere.share(moved)).toBeLessThan(bare.share(moved) / 5)
  })

  it('has one answer for every set of places that somebody in question would show, and one for as it is drawn', () => {
    const { hunt } = after()
    const looks = deadLooksAt(hunt.circuit).filter(({ at }) => at === 'wiring')
    const { next } = advice(hunt, hunt.followed, 500, { looks, everyState: true })
    const told = next.filter(({ see }) => see.at === 'wiring').map(({ outcomes }) => outcomes)
    expect(told.some((outcomes) => outcomes.length > 3)).toBe(true)
    for (const outcomes of told) {
      const places = outcomes.map(({ found }) => ('at' in found ? found.at : undefined))
      expect(outcomes.filter((_, i) => !places[i])).toMatchObject([{ found: { word: 'as-drawn' } }])
      expect(new Set(places.map((at) => at?.join())).size).toBe(outcomes.length)
      expect(outcomes.reduce((sum, { probability }) => sum + probability, 0)).toBeCloseTo(1, 9)
    }
  })

  it('is told of places that are there, and only where it lies otherwise', () => {
    const { hunt } = after()
    const misfit = (entry: HuntEntry) => hunt.misfits([complained, ...off, entry]).map(({ reason }) => reason)
    expect(misfit(wiring('stat-1', 'otherwise', ['stat-1.SL']))).toEqual([])
    const [setting] = wiringAt(hunt.circuit.installation, 'boiler').settings
    expect(misfit(wiring('boiler', 'otherwise', [setting.place]))).toEqual([])
    expect(misfit(wiring('stat-1', 'otherwise', ['pump.L']))).toEqual([
      '"pump.L" is no terminal and no set-up choice of "stat-1"',
    ])
    for (const entry of [
      wiring('stat-1', 'as-drawn', ['stat-1.SL']),
      { ...eyes('stat-1', 'loose'), found: { word: 'loose', at: ['stat-1.SL'] } },
    ])
      expect(misfit(entry)).toEqual(['places are told only of wiring that lies otherwise than it is drawn'])
  })

  it('sees no difference between two conductors of one colour, nor what touches inside a cable', () => {
    const sameColour = 'exchanged programmer-cable.blue.1 stat-1-cable.blue.1'
    const touching = 'touching stat-1-cable.blue+brown'
    for (const id of [sameColour, touching]) {
      const { hunt } = after()
      expect(
        hunt.wiringShown(
          hunt.suspects.findIndex((s) => s.id === id),
          'wc',
        ),
      ).toEqual({ word: 'as-drawn' })
    }
  })

  it('tells suspects apart whose conductors join the same', () => {
    const { hunt } = after()
    const byKind = new Map<number, Suspect[]>()
    hunt.suspects.forEach((suspect, i) => {
      if (suspect.hypothesis?.variant.change)
        byKind.set(hunt.kindOf(i), [...(byKind.get(hunt.kindOf(i)) ?? []), suspect])
    })
    const things = ['wc', ...hunt.circuit.devices.map(({ device }) => device.id)]
    const lookOf = ({ id }: Suspect) =>
      things
        .map((thing) =>
          JSON.stringify(
            hunt.wiringShown(
              hunt.suspects.findIndex((s) => s.id === id),
              thing,
            ),
          ),
        )
        .join()
    const differ = [...byKind.values()].find((alike) => new Set(alike.map(lookOf)).size > 1)!
    const [one, other] = [differ[0], differ.find((suspect) => lookOf(suspect) !== lookOf(differ[0]))!]
    const at = things.find((thing) => {
      const shown = (suspect: Suspect) => JSON.stringify(hunt.wiringShown(hunt.suspects.indexOf(suspect), thing))
      return shown(one) !== shown(other)
    })!
    const found = hunt.wiringShown(hunt.suspects.indexOf(one), at)
    const { share } = after({ id: 'seen', see: { at: 'wiring', thing: at }, found: found as WiringSeen })
    expect(share(one.id) / one.prior).toBeGreaterThan((5 * share(other.id)) / other.prior)
  })

  it('is as drawn once it was put right', () => {
    const log = [
      wiring('stat-1', 'otherwise'),
      { id: 'm', mended: moved },
      { ...wiring('stat-1', 'as-drawn'), id: 'again' },
    ]
    const { hunt } = after(...log)
    const fits = hunt.fits(hunt.suspects.findIndex((s) => s.id === moved))
    expect(fits.slice(-2).map(({ expected }) => expected)).toMatchObject([{ word: 'otherwise' }, { word: 'as-drawn' }])
    expect(Math.min(...fits.slice(-2).map(({ chance }) => chance))).toBeGreaterThan(0.9)
  })
})

describe('looks by eye', () => {
  it('are proposed with the supply off and only so, whatever stands open already', () => {
    const looks = [...looksAt(twoPort.circuit), ...deadLooksAt(twoPort.circuit)].filter(isByEye)
    expect(looks.every(needsIsolation)).toBe(true)
    for (const log of [[complained], [complained, ...off]]) {
      const hunt = twoPort.again()
      hunt.follow(log)
      const { next } = advice(hunt, log, 500, { looks, everyState: true })
      expect(next.length).toBeGreaterThan(0)
      for (const look of next)
        expect({ see: look.see, isolated: look.isolated }).toEqual({ see: look.see, isolated: true })
    }
  })

  it('are made once: what lies there lies so whatever is set meanwhile', () => {
    const proposed = (log: HuntEntry[]) => {
      const hunt = twoPort.again()
      hunt.follow(log)
      return advice(hunt, log, 500, { everyState: true }).next.map(({ see }) => see)
    }
    const before = proposed([complained, ...off]).find(isByEye)!
    const seen: HuntEntry = { id: 'seen', see: before, found: { word: before.at === 'eyes' ? 'sound' : 'as-drawn' } }
    for (const acts of [[], ['stat-1.set=30', 'settle']]) {
      const log = [complained, ...off, seen, ...acts.map((text) => ({ id: text, do: text }))]
      const then = proposed(log)
      expect(then.length).toBeGreaterThan(0)
      expect(then).not.toContainEqual(before)
    }
  })

  it('never rule out what is really so, whatever it is and whatever was looked at (property)', () => {
    const looks = deadLooksAt(twoPort.circuit).filter(isByEye)
    const singles = twoPort.singles.filter(({ hypothesis }) => hypothesis)
    fc.assert(
      fc.property(
        fc.constantFrom(...singles),
        fc.subarray([...looks], { minLength: 1, maxLength: 3 }),
        (truth, some) => {
          const { hunt } = after()
          const i = hunt.suspects.findIndex(({ id }) => id === truth.id)
          const log = some.map((see, n): HuntEntry => {
            const shown = see.at === 'wiring' ? hunt.wiringShown(i, see.thing) : hunt.courseOf(i).shows(see).expected
            const found = shown !== 'open' && 'word' in shown ? shown : { word: 'sound' }
            return { id: `${n}`, see, found }
          })
          const { hunt: followed } = after(...log)
          expect(
            Math.min(
              ...followed
                .fits(i)
                .slice(1)
                .map(({ chance }) => chance),
            ),
          ).toBeGreaterThan(0.25)
        },
      ),
      { numRuns: 40 },
    )
  })

  it('lead to a conductor in the wrong terminal as well as any reading', () => {
    const truth = twoPort.singles.find(({ id }) => id === 'exchanged stat-1-cable.brown.0 stat-1-cable.black.0')!
    const { found, wrongParts } = called(twoPort.again(), { truth: [truth.hypothesis!], seed: 7, exact: true })
    expect({ found, wrongParts }).toEqual({ found: true, wrongParts: 0 })
  })
})
