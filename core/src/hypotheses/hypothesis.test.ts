import fc from 'fast-check'
import { circuitOf } from '../../testing'
import { examples } from '../examples'
import { compile } from '../circuit'
import { edited } from '../installation'
import { Simulation } from '../simulation'
import { circuitOfVariant, hypothesesOf, restOf, type HypothesisKind } from '.'

const known = examples.map(({ installation }) => {
  const circuit = compile(installation)
  return { circuit, hypotheses: hypothesesOf(circuit), rest: new Simulation(circuit) }
})
const anyHypothesis = fc
  .tuple(fc.constantFrom(...known), fc.nat())
  .map(([{ circuit, hypotheses, rest }, n]) => ({ circuit, rest, hypothesis: hypotheses[n % hypotheses.length] }))

/** Everything that a moment says of its parts, by names: two circuits may number their conductors otherwise. */
const told = (sim: Simulation) => ({
  potentials: sim.potentials(),
  contacts: sim.circuit.contacts.map((_, i) => sim.contactClosed(i)),
  loads: sim.circuit.loads.map((_, i) => [sim.loadEnergised(i), sim.loadWorking(i)]),
  valves: sim.circuit.actuators.map((_, i) => [sim.actuatorPosition(i), sim.actuatorMotion(i)]),
  phases: sim.circuit.behaviours.map((_, i) => sim.phase(i).phase),
})

describe('a hypothesis', () => {
  it('is of every kind in some example, with a name of its own and a weight', () => {
    const kinds = new Set<HypothesisKind>()
    for (const { hypotheses } of known) {
      expect(new Set(hypotheses.map((h) => h.id)).size).toBe(hypotheses.length)
      for (const { kind, prior, label } of hypotheses) {
        kinds.add(kind)
        expect([label, prior > 0]).toEqual([label, true])
      }
    }
    expect([...kinds].sort()).toEqual([
      'conductor',
      'core-moved',
      'cores-exchanged',
      'factory-link',
      'link-extra',
      'link-missing',
      'nothing-wrong',
      'part',
      'setting',
      'short',
      'start',
    ])
  })

  it('of wiring or a setting comes to rest as the altered document does on its own', () => {
    fc.assert(
      fc.property(anyHypothesis, ({ circuit, rest, hypothesis: { variant } }) => {
        fc.pre(variant.change !== undefined)
        const alone = new Simulation(compile(edited(circuit.installation, variant.change).doc))
        expect(told(restOf(circuit, variant, rest))).toEqual(told(alone))
      }),
      { numRuns: 150 },
    )
  })

  it('shares the devices of its installation wherever only conductors and links differ', () => {
    fc.assert(
      fc.property(anyHypothesis, ({ circuit, hypothesis: { variant } }) => {
        const changes = variant.change?.changes ?? []
        fc.pre(!changes.some((change) => change.do === 'put' && change.in === 'devices'))
        const { devices, loads, contacts, water } = circuitOfVariant(circuit, variant)
        expect(
          [devices, loads, contacts, water].map(
            (x, i) => x === [circuit.devices, circuit.loads, circuit.contacts, circuit.water][i],
          ),
        ).toEqual([true, true, true, true])
      }),
    )
  })

  it('leaves the simulation that it starts from as it is', () => {
    fc.assert(
      fc.property(anyHypothesis, ({ circuit, rest, hypothesis }) => {
        const before = JSON.stringify(told(rest))
        restOf(circuit, hypothesis.variant, rest)
        expect(JSON.stringify(told(rest))).toBe(before)
      }),
      { numRuns: 40 },
    )
  })
})

it('a clock that may be wrong is that of a control: nobody draws hot water by one', () => {
  const clocks = (id: string) =>
    hypothesesOf(circuitOf(id))
      .map((one) => one.id)
      .filter((one) => /^start \S+ clock$/.test(one))
  expect(clocks('two-port-heating-hot-water')).toEqual(['start programmer clock'])
  expect(clocks('single-zone')).toEqual([])
})
