import fc from 'fast-check'
import { circuitOf } from '../../testing'
import { hypothesesOf, restOf } from '../hypotheses'
import { lookAt, type Found, type Look, type LookResult } from '../looks'
import type { Circuit } from '../circuit'
import { Simulation } from '../simulation'
import {
  advice,
  answerOf,
  chanceOf,
  answersAhead,
  deadFirst,
  Hunt,
  looksAt,
  HuntError,
  huntOptionsSchema,
  type Expected,
  type HuntEntry,
} from '.'
import { minutesFor } from './minutes'

/** A log as somebody would tell it: acts as texts, findings as a look and what was found; numbers are volts. */
const logOf = (...told: (string | [object, string | number])[]): HuntEntry[] =>
  told.map((one, i) => {
    const id = `e${i + 1}`
    if (typeof one === 'string') return { id, do: one }
    const [see, found] = one
    return { id, see, found: typeof found === 'number' ? { value: found, unit: 'V' } : { word: found } } as HuntEntry
  })
const after = (circuit: Circuit, log: HuntEntry[], options = {}) => {
  const hunt = new Hunt(circuit, huntOptionsSchema.parse(options))
  hunt.follow(log)
  return hunt
}
const shareOf = (hunt: Hunt, id: string) => hunt.ranking().shares[hunt.suspects.findIndex((s) => s.id === id)]
const best = (hunt: Hunt, n = 1) => {
  const { shares } = hunt.ranking()
  return [...shares.keys()]
    .sort((x, y) => shares[y] - shares[x])
    .slice(0, n)
    .map((i) => hunt.suspects[i].id)
}

const boiler = { at: 'boiler', device: 'boiler' }
const lever = (device: string) => ({ at: 'lever', device })
const volts = (red: string) => ({ at: 'points', with: 'tester', red })
const heating = ['programmer.heating=on', 'stat-1.set=30', 'settle']
const hotWater = ['programmer.hot-water=on', 'cyl-stat.set=75', 'settle']
const midPosition = circuitOf('mid-position')
const twoPort = circuitOf('two-port-heating-hot-water')

describe('a call', () => {
  it('to heating that comes only with the hot water: the end switch of the mid-position valve', () => {
    const log = logOf(
      ...heating,
      [boiler, 'not-called'],
      ...hotWater,
      [boiler, 'called'],
      'cyl-stat.set=40',
      'settle',
      [lever('valve'), 'slack'],
      [boiler, 'not-called'],
      [volts('wc.18'), 230],
    )
    const hunt = after(midPosition, log)
    expect(best(hunt)).toEqual(['valve.s2.never-operates'])
    // What he saw does not go with a channel that does not make.
    const { suspects, ruledOut } = answerOf(hunt, log)
    const channel = [...suspects, ...ruledOut].find((s) => s.id === 'programmer.heating.never-operates')!
    expect(channel.against.map((a) => a.finding)).toContain('e13')
  })

  it('to a valve that opens and a boiler that stays cold: the end switch, its two conductors, and no other part', () => {
    const hunt = after(
      twoPort,
      logOf(...heating, [lever('zv-1'), 'slack'], [boiler, 'not-called'], ...hotWater, [boiler, 'called']),
    )
    const listed = best(hunt, 5).filter((id) => id !== 'not-on-the-list')
    expect(listed.sort()).toEqual([
      'zv-1-lead.grey.open',
      'zv-1-lead.orange.open',
      'zv-1.end-switch.makes-sometimes',
      'zv-1.end-switch.never-makes',
    ])
  })

  it('after a thermostat was changed: its conductors exchanged are likelier than before, an old fault is not out', () => {
    const log = logOf(...heating, [boiler, 'not-called'], [lever('zv-1'), 'stiff'])
    const [plain, told] = [after(twoPort, log), after(twoPort, log, { workedOn: ['stat-1'], fresh: ['stat-1'] })]
    const wrong = plain.suspects.filter(
      (s) => s.hypothesis?.kind === 'cores-exchanged' && s.label.includes('in House thermostat '),
    )
    expect(wrong.length).toBeGreaterThan(0)
    for (const { id } of wrong) expect(shareOf(told, id)).toBeGreaterThan(shareOf(plain, id))
    expect(shareOf(told, 'stat-1.contact.never-makes')).toBeLessThan(shareOf(plain, 'stat-1.contact.never-makes'))
    expect(shareOf(told, 'zv-1.motor.open')).toBeGreaterThan(0.02)
  })

  it('to a mid-position lever that stays slack with everything off: nothing wrong, where the heating was on before', () => {
    const log = logOf([lever('valve'), 'slack'], [boiler, 'not-called'])
    const hunt = after(midPosition, log)
    expect(best(hunt, 6)).toContain('after heating-1')
    expect(shareOf(hunt, 'after heating-1')).toBeGreaterThan(shareOf(hunt, 'nothing-wrong'))
  })

  it('to a new head that changes nothing: it was not the head; to one that cures: it was', () => {
    const dead: Parameters<typeof logOf> = [...heating, [lever('zv-1'), 'stiff']]
    const before = after(twoPort, logOf(...dead))
    const again = (found: string): HuntEntry[] => [
      ...logOf(...dead),
      { id: 'new', renew: 'zv-1' },
      { id: 'look', see: lever('zv-1') as never, found: { word: found } },
    ]
    expect(shareOf(after(twoPort, again('stiff')), 'zv-1.motor.open')).toBeLessThan(
      shareOf(before, 'zv-1.motor.open') / 5,
    )
    expect(best(after(twoPort, again('slack')))[0]).toMatch(/^zv-1\./)
  })

  it('with a finding that was a mistake names that finding, and keeps the truth', () => {
    const log = logOf(
      ...heating,
      [lever('zv-1'), 'slack'],
      [{ at: 'motor', device: 'zv-1' }, 'hums'],
      [volts('zv-1.M'), 230],
      [volts('stat-1.SL'), 0],
    )
    const hunt = after(twoPort, log)
    expect(hunt.contradictions()[0]).toMatchObject({ id: 'e7', against: expect.arrayContaining(['e4']) })
    expect(shareOf(hunt, 'zv-1.end-switch.never-makes')).toBeGreaterThan(0.01)
  })

  it('that fits nothing on the list says so', () => {
    const log = logOf(
      [boiler, 'called'],
      [lever('zv-1'), 'stiff'],
      [volts('boiler.SL'), 0],
      [{ at: 'pump', device: 'pump' }, 'not-running'],
    )
    const hunt = after(twoPort, log)
    expect(shareOf(hunt, 'not-on-the-list')).toBeGreaterThan(0.03)
    expect(hunt.contradictions().map((c) => c.id)).toContain('e1')
  })
})

describe('a hunt', () => {
  const parts = fc.constantFrom(
    'mid-position',
    'two-port-heating-hot-water',
    'low-voltage',
    'diverter',
    'hot-water-priority',
  )
  const putRight = (id: string): HuntEntry => ({ id, mended: 'zv-1.motor.open' })
  const someLog = fc
    .tuple(
      fc.array(
        fc.constantFrom<string | [object, string]>(...heating, ...hotWater, [boiler, 'called'], [boiler, 'not-called']),
        { maxLength: 8 },
      ),
      fc.option(fc.nat(7)),
    )
    .map(([told, at]) => {
      const log = logOf(...told)
      return at === null ? log : [...log.slice(0, at), putRight('mended'), ...log.slice(at)]
    })
  const two = new Hunt(twoPort)
  const sharesAfter = (log: HuntEntry[]) => {
    two.follow(log)
    return [...two.ranking().shares]
  }

  it('says the same of an edited log as of one typed so from the start, and of one with an entry taken back as before', () => {
    fc.assert(
      fc.property(someLog, fc.nat(), (log, at) => {
        const cut = log.slice(0, at % (log.length + 1))
        const before = sharesAfter(cut)
        sharesAfter(log)
        expect(sharesAfter(cut)).toEqual(before)
        const fresh = new Hunt(twoPort)
        fresh.follow(cut)
        expect([...fresh.ranking().shares]).toEqual(before)
      }),
      { numRuns: 4 },
    )
  })

  it('does not mind in which order things were seen between two acts', () => {
    const seen: [object, string | number][] = [
      [lever('zv-1'), 'slack'],
      [boiler, 'not-called'],
      [volts('wc.19'), 230],
    ]
    const one = after(twoPort, logOf(...heating, ...seen))
    const other = after(
      twoPort,
      logOf(...heating, ...seen).map((e, i, all) => (i < 3 ? e : all[8 - i])),
    )
    expect([...other.ranking().shares]).toEqual([...one.ranking().shares])
  })

  it('never gives the truth up for what it itself would have shown', () => {
    fc.assert(
      fc.property(parts, fc.nat(), fc.array(fc.nat(), { minLength: 4, maxLength: 4 }), (id, pick, steps) => {
        const circuit = circuitOf(id)
        const hypotheses = hypothesesOf(circuit).filter((h) => h.prior > 0)
        const truth = hypotheses[pick % hypotheses.length]
        const log: HuntEntry[] = []
        const sim = restOf(circuit, truth.variant, new Simulation(circuit))
        for (const step of steps) lookOn(circuit, log, sim, step)
        const hunt = after(circuit, log)
        const { shares } = hunt.ranking()
        const findings = log.filter((e) => 'see' in e).length
        const likely = shareOf(hunt, truth.id) / Math.max(...shares)
        const { prior } = hunt.suspects.find((s) => s.id === truth.id)!
        // It can only be behind those that it started behind, or that answered alike.
        expect(findings).toBe(4)
        expect(likely).toBeGreaterThan(0.9 ** 4 * (prior / 40))
      }),
      { numRuns: 8 },
    )
  })

  it('refuses an entry that does not fit, naming it, and stays as it was', () => {
    const before = sharesAfter(logOf(...heating, [boiler, 'called']))
    for (const [entry, reason] of [
      [{ id: 'x', do: 'stat-9.set=30' }, 'stat-9'],
      [{ id: 'x', do: 'fault=zv-1.motor.open' }, 'nothing that can be done on site'],
      [{ id: 'x', see: { at: 'pump', device: 'none' }, found: { word: 'running' } }, 'there is no device "none"'],
      [{ id: 'x', see: volts('wc.99'), found: { value: 230, unit: 'V' } }, 'there is no terminal "wc.99"'],
      [{ id: 'x', renew: 'none' }, 'there is no device "none"'],
    ] as [HuntEntry, string][]) {
      expect(() => two.follow([entry])).toThrow(HuntError)
      expect(() => two.follow([entry])).toThrow(reason)
    }
    expect([...two.ranking().shares]).toEqual(before)
  })
})

describe('a remedy', () => {
  const dead = logOf(...heating, [lever('zv-1'), 'stiff'], [volts('zv-1.M'), 230], [boiler, 'not-called'])
  const { suspects: mended = [] } = advice(after(twoPort, dead), dead).decision.remedy ?? {}
  const newHead = mended.map((id): HuntEntry => ({ id: `new ${id}`, mended: id }))
  const then = (...told: [object, string | number][]) => [
    ...dead,
    ...newHead,
    ...logOf(...told).map((entry) => ({ ...entry, id: `then ${entry.id}` })),
  ]

  it('that did not cure speaks for what is on no list: like that, and not put right with it', () => {
    expect(mended).toContain('zv-1.motor.open')
    expect(mended).toContain('zv-1.motor.jammed')
    const before = shareOf(after(twoPort, dead), 'not-on-the-list')
    const still = then([lever('zv-1'), 'stiff'], [volts('zv-1.M'), 231])
    const hunt = after(twoPort, still)
    expect(shareOf(hunt, 'not-on-the-list')).toBeGreaterThan(2 * before)
    const [first] = hunt.likenesses(1)
    expect(hunt.singles[first.suspect].id).toMatch(/zv-1/)
    const told = answerOf(hunt, still).suspects.find(({ id }) => id === 'not-on-the-list')!
    expect(told.like![0]).toBe(hunt.singles[first.suspect].id)
    // What was mended is not gone for again.
    expect(advice(hunt, still).decision.remedy?.suspects ?? []).not.toContain('zv-1.motor.open')
  })

  it('that cured leaves little for it', () => {
    const cured = then([lever('zv-1'), 'slack'], [boiler, 'called'])
    const hunt = after(twoPort, cured)
    expect(shareOf(hunt, 'not-on-the-list')).toBeLessThan(0.05)
    expect(best(hunt)).toEqual(['zv-1.motor.open'])
    expect(advice(hunt, cured).decision).toMatchObject({ remedy: { done: true } })
  })

  it('that helped, and not everything works: something else beside it is thought of, until the remedy is taken back', () => {
    const helped = then(
      [lever('zv-1'), 'slack'],
      [boiler, 'not-called'],
      [volts('zv-1.M'), 230],
      [volts('boiler.SL'), 0],
      [{ at: 'valve', device: 'zv-1' }, 'open'],
    )
    const hunt = after(twoPort, helped)
    const share = (is: (id: string) => boolean) =>
      hunt.suspects.reduce((sum, { id }, i) => (is(id) ? sum + hunt.ranking().shares[i] : sum), 0)
    expect(share((id) => id.includes(' + '))).toBeGreaterThan(share((id) => id === 'not-on-the-list'))
    const { remedy } = advice(hunt, helped).decision
    expect(remedy!.done).toBeUndefined()
    expect(remedy!.suspects).not.toContain('zv-1.motor.open')
    hunt.follow(dead)
    expect(hunt.suspects).toEqual(hunt.singles)
  })
})

describe('the next look', () => {
  const heatingOnly = logOf(...heating, [boiler, 'not-called'])

  it('into an enclosure begins with isolating it, until somebody has been in there', () => {
    const hunt = after(twoPort, heatingOnly)
    const { next } = advice(hunt, heatingOnly, 2000, { everyState: true })
    const live = next.filter((n) => n.see.at === 'points' && n.see.with === 'tester')
    expect(live.length).toBeGreaterThan(3)
    for (const { see, isolateFirst, live: isLive } of live) {
      expect(isLive).toBe(true)
      expect(see.at === 'points' && see.red.startsWith(`${isolateFirst}.`)).toBe(true)
    }
    const opened = [
      ...heatingOnly,
      { id: 'in', see: volts('wc.3') as never, found: { value: 230, unit: 'V' as const } },
    ]
    hunt.follow(opened)
    for (const { see, isolateFirst } of advice(hunt, opened, 2000, { everyState: true }).next)
      if (see.at === 'points' && see.red.startsWith('wc.')) expect(isolateFirst).toBeUndefined()
  })

  it('on what is dead comes after the supply is off, and opens nothing before', () => {
    const hunt = after(twoPort, heatingOnly, { deadOnly: true })
    const dead = advice(hunt, heatingOnly, 2000, { everyState: true }).next.filter((n) => n.see.at === 'points')
    expect(dead.length).toBeGreaterThan(1)
    for (const { acts, isolated, isolateFirst, live } of dead) {
      expect([isolated, isolateFirst, live]).toEqual([true, undefined, false])
      expect(acts[0]).toBe('spur.switch=off')
    }
    // Whoever goes on looks at what is live again switches the supply on before.
    const off = [...heatingOnly, ...logOf('spur.switch=off', 'settle').map((e) => ({ ...e, id: `off-${e.id}` }))]
    const back = after(twoPort, off)
    for (const { acts, isolated } of advice(back, off, 2000, { everyState: true }).next)
      expect(isolated === true || acts[0] === 'spur.switch=on').toBe(true)
  })

  it('is not on live parts where one that is not tells nearly as much in nearly the same time', () => {
    const look = (live: boolean, bits: number, minutes: number) => ({ live, bits, minutes })
    const [live, dead, dear] = [look(true, 1, 4), look(false, 0.95, 4.2), look(false, 1, 9)]
    expect(deadFirst([live, dear, dead])).toEqual([dead, live, dear])
    expect(deadFirst([live, dear])).toEqual([live, dear])
    expect(deadFirst([dear, live, dead])).toEqual([dear, live, dead])
    const logs = [heatingOnly, heatingOnly.slice(0, 3), [...heatingOnly, ...logOf([lever('zv-1'), 'slack']).slice(-1)]]
    for (const log of logs) {
      const { next } = advice(after(twoPort, log), log, 2000, { everyState: true })
      const [first, ...others] = next
      const instead = others.filter((n) => !n.live && n.bits >= 0.9 * first.bits && n.minutes <= 1.1 * first.minutes)
      if (first.live) expect(instead).toEqual([])
    }
  })

  it('is none on live parts where none is wanted', () => {
    const hunt = after(twoPort, heatingOnly, { deadOnly: true })
    const { next } = advice(hunt, heatingOnly, 2000, { everyState: true })
    expect(next.length).toBeGreaterThan(0)
    expect(next.filter((n) => n.live)).toEqual([])
  })

  it('costs no other walk after a wait', () => {
    const waited: HuntEntry[] = [...heatingOnly, { id: 'w', do: 'wait=0.5s' }]
    const pump = { at: 'pump', device: 'pump' } as const
    const minutes = (log: HuntEntry[]) => minutesFor(twoPort, log, [], pump).minutes
    expect(minutes(waited)).toBe(minutes(heatingOnly))
  })

  it('costs less where somebody stands already, and sets only what stands otherwise', () => {
    const hunt = after(twoPort, heatingOnly)
    const { next } = advice(hunt, heatingOnly, 2000, { everyState: true })
    const acts = next.flatMap((n) => n.acts)
    expect(acts).not.toContain('programmer.heating=on')
    expect(acts).toContain('programmer.hot-water=on')
    const asItStands = next.filter((n) => n.see.at === 'lever' && n.acts.length === 0)
    const set = next.filter((n) => n.see.at === 'lever' && n.acts.length > 0)
    expect(Math.max(...asItStands.map((n) => n.minutes))).toBeLessThan(Math.min(...set.map((n) => n.minutes)))
  })
})

describe('what a suspect answers', () => {
  const at = { at: 'points', with: 'tester', red: 'wc.3' } as const
  const chance = (found: Found, expected: Expected) => chanceOf(expected, at, found, {})

  it('is wrong as often as such a look is, and sums to one over the words that can be said', () => {
    const live = { value: 230, unit: 'V', full: 230 } as const
    expect(chance({ word: 'live' }, live)).toBe(0.98)
    expect(chance({ value: 229, unit: 'V' }, live)).toBe(0.98)
    expect(chance({ word: 'dead' }, live)).toBe(0.01)
    const half = { value: 104, unit: 'V', full: 230 } as const
    const said = [{ word: 'live' }, { word: 'dead' }].map((found) => chance(found, half))
    expect(said[0] + said[1]).toBeLessThanOrEqual(1)
    expect(chance({ value: 105, unit: 'V' }, half)).toBe(0.98)
  })

  it('is as right where two parts divide the volts, each as much as 30 % off what is usual; and not where they cannot', () => {
    const usual = fc.double({ min: 20, max: 20_000, noNaN: true })
    const off = fc.double({ min: 0.7, max: 1.3, noNaN: true })
    const divided = (first: number, second: number) => (230 * second) / (first + second)
    fc.assert(
      fc.property(usual, usual, off, off, (first, second, a, b) => {
        const expected = { value: divided(first, second), unit: 'V', full: 230 } as const
        expect(chance({ value: divided(first * a, second * b), unit: 'V' }, expected)).toBe(0.98)
      }),
    )
    expect(chance({ value: 225, unit: 'V' }, { value: 115, unit: 'V', full: 230 })).toBe(0.01)
    expect(chance({ value: 115, unit: 'V' }, { value: 230, unit: 'V', full: 230 })).toBe(0.01)
  })

  it('is any of the answers where its simulation does not decide it', () => {
    expect(chance({ word: 'live' }, 'open')).toBeCloseTo(1 / 3, 12)
    for (const see of looksAt(midPosition)) {
      const shown: Expected[] = ['open', { word: 'one way' }, { word: 'another' }]
      const { candidate, answers } = answersAhead(
        see,
        shown.map((expected) => ({ expected, beside: [] })),
        {},
      )!(1, [])
      shown.forEach((one, suspect) => {
        const all = [...candidate.answers].map(([, likelihood]) => likelihood[suspect])
        expect(all.reduce((x, y) => x + y)).toBeCloseTo(1, 12)
        const likeliest = Math.max(...all)
        if (one !== 'open') expect(candidate.answers.get((one as { word: string }).word)![suspect]).toBe(likeliest)
      })
      expect([...answers.values()]).toContainEqual({ word: 'another' })
    }
    // Two readings that an instrument cannot tell apart are one answer, and no look that tells anything.
    const watts = (value: number) => ({ expected: { value, unit: 'W' } as const, beside: [] })
    const power = { at: 'points', with: 'power', red: 'spur.L' } as const
    expect(answersAhead(power, [watts(6), watts(6.2)], {})).toBeUndefined()
    expect([...answersAhead(power, [watts(0), watts(6), watts(6.2)], {})!(1, []).answers.keys()]).toEqual([
      '0 W',
      '6 W',
    ])
    // What a pump or a boiler draws beside a valve is a usual value: nobody tells a valve's watts from it.
    expect(answersAhead(power, [watts(43), watts(49)], {})).toBeUndefined()
  })
})

/** One act by chance, and one look by chance after it. */
function lookOn(circuit: Circuit, log: HuntEntry[], sim: Simulation, chance: number): void {
  const acts = ['programmer.heating=on', 'programmer.heating=off', 'stat-1.set=30', 'stat-1.set=5']
  const [device] = acts[chance % acts.length].split('.')
  if (
    circuit.deviceIndex.has(device) &&
    circuit.devices[circuit.deviceIndex.get(device)!].controlIndex.has(acts[chance % 4].split(/[.=]/)[1])
  )
    done(log, sim, acts[chance % acts.length])
  done(log, sim, 'settle')
  const looks = circuit.atoms
    .filter((a) => a.kind === 'centre')
    .map((a): Look => ({ at: 'points', with: 'tester', red: a.ref }))
  const see = looks[chance % looks.length]
  log.push({ id: `e${log.length}`, see: see as never, found: foundAt(sim, see) })
}

function done(log: HuntEntry[], sim: Simulation, text: string): void {
  log.push({ id: `e${log.length}`, do: text })
  if (text === 'settle') return void sim.settle()
  const [, device, control, value] = /^([^.]+)\.([^=]+)=(.*)$/.exec(text)!
  sim.set(device, control, value)
}

/** What somebody finds who reads and writes down rightly; what cannot be known is no answer. */
function foundAt(sim: Simulation, look: Look): Extract<HuntEntry, { see: unknown }>['found'] {
  const shown: LookResult = lookAt(sim, look)
  if ('unknown' in shown || 'chances' in shown) return 'cannot-tell'
  if ('word' in shown) return shown
  return shown.unit === 'V' ? { value: Math.round(shown.value), unit: 'V' } : { value: shown.value, unit: shown.unit }
}
