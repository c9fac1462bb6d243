import fc from 'fast-check'
import {
  alikeTo,
  contradictions,
  decided,
  entropy,
  givenBefore,
  information,
  likeness,
  outcomesOf,
  weighed,
  type Candidate,
  type Evidence,
  type Remedy,
} from '.'

const [hit, miss] = [0.98, 0.02]
const found = (id: string, likelihood: number[], source = id): Evidence => ({
  id,
  source,
  hit,
  miss,
  likelihood: Float64Array.from(likelihood),
})
const look = (minutes: number, ...answers: number[][]): Candidate => ({
  minutes,
  answers: new Map(answers.map((likelihood, i) => [`answer ${i}`, Float64Array.from(likelihood)])),
})
const yesNo = (minutes: number, yes: number[]) =>
  look(
    minutes,
    yes,
    yes.map((p) => 1 - p),
  )

const likely = fc.double({ min: miss, max: hit, noNaN: true })
const weights = fc.array(fc.double({ min: 1e-3, max: 10, noNaN: true }), { minLength: 4, maxLength: 4 })
const someEvidence = fc
  .array(fc.tuple(fc.constantFrom('a', 'b', 'c'), fc.array(likely, { minLength: 4, maxLength: 4 })), {
    maxLength: 7,
  })
  .map((all) => all.map(([source, likelihood], i) => found(`finding ${i}`, likelihood, source)))
const someLook = fc
  .tuple(
    fc.double({ min: 0.1, max: 30, noNaN: true }),
    fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 4, maxLength: 4 }),
  )
  .map(([minutes, yes]) => yesNo(minutes, yes))

describe('weighing suspects', () => {
  it('follows Bayes’ rule', () => {
    const { shares, logProbability } = weighed([1, 3], [found('one', [0.98, 0.02])])
    expect(shares[0]).toBeCloseTo(0.98 / (0.98 + 3 * 0.02), 12)
    expect(Math.exp(logProbability)).toBeCloseTo((0.98 + 3 * 0.02) / 4, 12)
  })

  it('does not depend on the order in which things were found, to the last digit; none is ever quite out', () => {
    fc.assert(
      fc.property(weights, someEvidence, fc.nat(), (priors, evidence, turn) => {
        const turned = evidence.map((_, i) => evidence[(i + turn) % evidence.length]).reverse()
        const { shares } = weighed(priors, evidence)
        expect([...weighed(priors, turned).shares]).toEqual([...shares])
        for (const share of shares) expect(share).toBeGreaterThan(0)
        expect(shares.reduce((x, y) => x + y)).toBeCloseTo(1, 9)
      }),
    )
  })

  it('takes the same look made again for something, and for less than another look', () => {
    const likelihood = [0.98, 0.02]
    const share = (...evidence: Evidence[]) => weighed([1, 1], evidence).shares[1]
    const once = share(found('one', likelihood))
    const again = share(found('one', likelihood, 'box 4'), found('two', likelihood, 'box 4'))
    const elsewhere = share(found('one', likelihood), found('two', likelihood))
    expect(elsewhere).toBeLessThan(again)
    expect(again).toBeLessThan(once)
  })

  it('takes a first look for mistaken where a second, in another state, is so as well: not both of two', () => {
    const before = [found('at rest', [hit, miss], 'box 4')]
    const then = found('driven', [hit, miss], 'box 4')
    const [right, mistaken] = givenBefore(before, then)
    expect(right).toBeGreaterThan(hit)
    expect(mistaken).toBeGreaterThan(0.5)
    // Where the second contradicts the first, one of them is a mistake for everybody.
    const share = weighed([1, 1], [...before, found('driven', [miss, hit], 'box 4')]).shares[0]
    expect(share).toBeCloseTo(0.5, 9)
  })

  it('of the answers of a second look makes one in all, whatever the first was', () => {
    fc.assert(
      fc.property(fc.array(likely, { minLength: 1, maxLength: 4 }), likely, (first, yes) => {
        const before = first.map((p, i) => found(`before ${i}`, [p], 'one'))
        const answers = [yes, 1 - yes].map((p, i) => givenBefore(before, found(`answer ${i}`, [p], 'one'))[0])
        expect(answers[0] + answers[1]).toBeCloseTo(1, 9)
      }),
    )
  })

  it('is not led astray by a thousand small probabilities', () => {
    const evidence = Array.from({ length: 1000 }, (_, i) => found(`finding ${i}`, [0.02, 0.022]))
    expect(weighed([1, 1], evidence).shares[1]).toBeCloseTo(1, 6)
  })

  it('refuses suspects without any weight', () => {
    expect(() => weighed([0, 0], [])).toThrow(RangeError)
  })
})

describe('something on no list', () => {
  it('shows mostly what it is like, and is never out for what that would not show', () => {
    const source = { hit: 0.98, miss: 0.01 }
    expect(likeness(0.98, source)).toBeLessThan(0.98)
    expect(likeness(0.98, source)).toBeGreaterThan(0.75)
    expect(likeness(0.01, source)).toBeGreaterThan(5 * 0.01)
    fc.assert(
      fc.property(fc.double({ min: 0.01, max: 0.98, noNaN: true }), (right) => {
        // Of three answers; what one has more, the others have less.
        const answers = [right, (1 - right) / 2, (1 - right) / 2].map((one) => likeness(one, source))
        expect(answers.reduce((x, y) => x + y)).toBeCloseTo(1, 9)
      }),
    )
  })
})

describe('what does not go together', () => {
  it('is told, the finding most likely mistaken first, with what speaks against it', () => {
    const evidence = [
      found('lever', [0.95, 0.05]),
      found('volts at the motor', [0.98, 0.02]),
      found('hum', [0.9, 0.1]),
      found('boiler', [0.02, 0.98]),
    ]
    const [first, ...others] = contradictions([1, 1], evidence)
    expect(first).toMatchObject({ id: 'boiler', against: expect.arrayContaining(['lever', 'volts at the motor']) })
    expect(first.probability).toBeLessThan(0.03)
    expect(others).toEqual([])
  })

  it('is nothing where all of it does', () => {
    expect(contradictions([1, 1], [found('one', [0.98, 0.02]), found('two', [0.9, 0.2])])).toEqual([])
  })
})

describe('a look that is still to come', () => {
  it('tells no less than nothing and no more than is not known; on average the shares stay as they are', () => {
    fc.assert(
      fc.property(weights, someLook, (priors, candidate) => {
        const { shares } = weighed(priors, [])
        const bits = information(shares, candidate)
        expect(bits).toBeGreaterThanOrEqual(0)
        expect(bits).toBeLessThanOrEqual(entropy(shares) + 1e-9)
        const outcomes = outcomesOf(shares, candidate)
        shares.forEach((share, i) =>
          expect(outcomes.reduce((sum, o) => sum + o.probability * o.shares[i], 0)).toBeCloseTo(share, 9),
        )
      }),
    )
  })

  it('that splits four equal suspects in two tells one bit, one that is a toss of a coin under each of them nothing', () => {
    const shares = new Float64Array(4).fill(0.25)
    expect(information(shares, yesNo(1, [1, 1, 0, 0]))).toBeCloseTo(1, 12)
    expect(information(shares, yesNo(1, [0.5, 0.5, 0.5, 0.5]))).toBeCloseTo(0, 12)
  })

  it('leaves those alike that every look has alike', () => {
    const looks = [yesNo(1, [1, 0, 1, 1]), yesNo(1, [0.5, 0, 0.5, 0.2])]
    expect(alikeTo(looks, 4)).toEqual([0, 1, 0, 2])
    expect(alikeTo([], 3)).toEqual([0, 0, 0])
  })
})

describe('when to stop', () => {
  const head: Remedy = { cost: 25, wrong: 60, cures: [true, false] }
  const thermostat: Remedy = { cost: 20, wrong: 50, cures: [false, true] }
  const both = { remedies: [head, thermostat], unmended: 120 }

  it('looks on while a wrong part costs more than that', () => {
    const decision = decided(Float64Array.of(0.6, 0.4), both, [yesNo(2, [0.98, 0.02]), yesNo(9, [1, 0])])
    expect(decision.stop).toBe(false)
    expect(decision.lookingOn).toBeLessThan(decision.now)
  })

  it('looks on where no single look pays, and several together do', () => {
    // Eight remedies, of which each look halves those that are left: after one, the best is still most likely wrong.
    const remedies = Array.from({ length: 8 }, (_, k): Remedy => ({
      cost: 10,
      wrong: 30,
      cures: Array.from({ length: 8 }, (__, i) => i === k),
    }))
    const halves = [1, 2, 4].map((bit) =>
      yesNo(
        5,
        Array.from({ length: 8 }, (_, i) => (i & bit ? 1 : 0)),
      ),
    )
    const decision = decided(new Float64Array(8).fill(1 / 8), { remedies, unmended: 120 }, halves)
    expect(decision.lookingOn).toBeCloseTo(10 + 3 * 5, 9)
    expect(decision.stop).toBe(false)
  })

  it('changes the part where it is all but sure, or where no look tells more', () => {
    const sure = decided(Float64Array.of(0.99, 0.01), both, [yesNo(2, [0.98, 0.02])])
    expect(sure).toMatchObject({ stop: true, remedy: 0, cures: expect.closeTo(0.99, 9) })
    const blind = decided(Float64Array.of(0.5, 0.5), both, [yesNo(2, [0.7, 0.7])])
    expect(blind).toMatchObject({ stop: true, remedy: 1 })
  })

  it('counts a remedy that was none as a beginning: what is cheap and unlikely is not gone for first', () => {
    const wire: Remedy = { cost: 10, wrong: 15, cures: [false, false, true] }
    const of = (cures: boolean[]): Remedy => ({ cost: 25, wrong: 70, cures })
    const remedies = [wire, of([true, false, false]), of([false, true, false])]
    const { remedy, now, cures } = decided(Float64Array.of(0.7, 0.26, 0.04), { remedies, unmended: 120 }, [])
    expect(remedy).toBe(1)
    expect(cures).toBeCloseTo(0.7, 9)
    // The likely head; then the other; then the wire.
    expect(now).toBeCloseTo(25 + 0.3 * (70 + 25) + 0.04 * (70 + 10), 9)
    // Never more than another visit after the first that was none.
    const dear = [...remedies.slice(0, 2), { ...of([false, true, false]), cost: 900 }]
    expect(decided(Float64Array.of(0.7, 0.26, 0.04), { remedies: dear, unmended: 120 }, []).now).toBeCloseTo(
      25 + 0.3 * (70 + 120),
      9,
    )
  })

  it('stops just where looking on would cost more', () => {
    fc.assert(
      fc.property(weights, fc.array(someLook, { maxLength: 4 }), (priors, candidates) => {
        const remedies = priors.map((_, i): Remedy => ({
          cost: 10 + i,
          wrong: 60,
          cures: priors.map((__, k) => k === i),
        }))
        const { shares } = weighed(priors, [])
        const { lookingOn, now, stop } = decided(shares, { remedies, unmended: 120 }, candidates)
        expect(stop).toBe(lookingOn >= now)
        expect(lookingOn).toBeGreaterThanOrEqual(Math.min(Infinity, ...candidates.map((c) => c.minutes)))
      }),
    )
  })
})
