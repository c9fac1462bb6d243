import fc from 'fast-check'
import { compile, type Circuit } from '../circuit'
import { examples } from '../examples'
import { hypothesesOf, circuitOfVariant } from '../hypotheses'
import type { Installation } from '../installation'
import { planBriefSchema, planSystem } from '../planning'
import { flagsOf } from '../simulation'
import { breachKey, explored, type Exploration } from '.'

/** Two-port zones of which no two are alike: their end switches make at different places. */
function unlike(heating: number, hotWater = true): Installation {
  const circuits = [
    ...Array.from({ length: heating }, (_, i) => ({ kind: 'heating', name: `Zone ${i + 1}` })),
    ...(hotWater ? [{ kind: 'hot-water', name: 'Hot water' }] : []),
  ]
  const doc = planSystem(planBriefSchema.parse({ scheme: 'two-port', circuits }), 'zones', 'Zones')
  const valves = doc.intent.demands.flatMap((d) => d.circuit.valves.map((v) => v.device))
  const devices = doc.devices.map((d) =>
    valves.includes(d.id) ? { ...d, settings: { ...d.settings, makes: 0.8 + 0.01 * valves.indexOf(d.id) } } : d,
  )
  return { ...doc, devices }
}

const keys = ({ breaches }: Exploration) => breaches.map((b) => breachKey(b.breach)).sort()
const rowOf = ({ wanted, disturbed }: Exploration['table'][number]) => `${wanted.join(' ')}|${disturbed.join(' ')}`
const texts = ({ outcomes }: Exploration['table'][number]) => outcomes.map((o) => JSON.stringify(o)).sort()

/**
 * Finds the same, and judges every row alike in which so few are wanted. Outcomes of a row are those that were met: where something
 * wrong opens circuits that nobody wants, all of them together are among those that were not.
 */
function expectSame(few: Exploration, all: Exploration): void {
  expect(keys(few)).toEqual(keys(all))
  const whole = new Map(all.table.map((row) => [rowOf(row), row]))
  for (const row of few.table) {
    const same = whole.get(rowOf(row))!
    if (row.wanted.length < few.fewAtOnce!.atOnce - 1)
      expect([rowOf(row), row.right]).toEqual([rowOf(same), same.right])
    expect(texts(same)).toEqual(expect.arrayContaining(texts(row)))
  }
}

describe('circuits that act on each other only through what they call', () => {
  it('are found in systems of several zones, and not where one circuit says what another does', () => {
    const few = examples.flatMap(({ id, installation }) => {
      const { fewAtOnce } = explored(compile(installation), { mostStates: 2 })
      return fewAtOnce ? [[id, fewAtOnce.circuits]] : []
    })
    expect(few).toEqual([['two-port-five-heating-hot-water', 6]])
  })

  it('do a few at a time all that they do together', () => {
    for (const circuit of [compile(unlike(4)), compile(unlike(5, false))]) {
      const [few, all] = [explored(circuit), explored(circuit, { fewAtOnce: false })]
      expect([few.fewAtOnce, all.fewAtOnce]).toEqual([{ circuits: 5, atOnce: 3 }, undefined])
      expect([few.complete, all.complete]).toEqual([true, true])
      expect(few.states).toBeLessThan(0.8 * all.states)
      expectSame(few, all)
    }
  })

  const whole = compile(unlike(3))
  const hypotheses = hypothesesOf(whole)

  it('do so whatever single thing is wrong with wiring, settings or parts', () => {
    let reduced = 0
    fc.assert(
      fc.property(fc.nat(hypotheses.length - 1), (n) => {
        const { variant, label } = hypotheses[n]
        const circuit: Circuit = circuitOfVariant(whole, variant)
        const flags = flagsOf(circuit, variant.defects)
        const few = explored(circuit, { flags, mostStates: 6000 })
        if (!few.fewAtOnce) return
        reduced++
        const all = explored(circuit, { flags, mostStates: 20_000, fewAtOnce: false })
        fc.pre(few.complete && all.complete)
        expect([label, keys(few)]).toEqual([label, keys(all)])
        expectSame(few, all)
      }),
      { numRuns: 10 },
    )
    expect(reduced).toBeGreaterThan(0)
  })

  it('end where they would multiply: eight that are unlike, with hot water, in a few ten thousand states', () => {
    const { states, complete, breaches, fewAtOnce, table } = explored(compile(unlike(8)))
    expect({ complete, breaches, fewAtOnce }).toEqual({
      complete: true,
      breaches: [],
      fewAtOnce: { circuits: 9, atOnce: 3 },
    })
    expect(states).toBeLessThan(20_000)
    // Together once, besides: every demand at the same time.
    expect(table.map((row) => row.wanted.length)).toContain(9)
  })
})
