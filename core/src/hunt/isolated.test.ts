import fc from 'fast-check'
import { circuitOf } from '../../testing'
import { LINE, NEUTRAL, type Circuit } from '../circuit'
import { examples } from '../examples'
import { hypothesesOf, restOf, type Hypothesis } from '../hypotheses'
import { isolatorsOf } from '../inputs'
import type { Simulation } from '../simulation'
import { perform } from './acts'
import { statesAhead } from './ahead'
import { asEntries, toPutBack } from './standing'

const suspects = new Map<string, { circuit: Circuit; all: Hypothesis[] }>()
function suspectsOf(example: string) {
  let known = suspects.get(example)
  if (!known) {
    const circuit = circuitOf(example)
    suspects.set(example, (known = { circuit, all: hypothesesOf(circuit) }))
  }
  return known
}

/** Every point outside the supplies' own insides that is joined to a line or a neutral. */
const joined = ({ circuit, electrics: { nets } }: Simulation): string[] =>
  circuit.atoms.flatMap(({ kind, ref }, i) =>
    kind !== 'internal' && nets.poles[nets.netOf[i]] & (LINE | NEUTRAL) ? [ref] : [],
  )

/** A pole of an isolator that stays joined when it is switched off: that is why it is proved dead. */
const isWelded = (circuit: Circuit, { variant: { defects } }: Hypothesis): boolean =>
  defects.some(
    (defect) =>
      defect.part === 'contact' &&
      defect.held !== 'open' &&
      isolatorsOf(circuit).some(
        ({ device }) => circuit.devices[circuit.contacts[defect.index].device].device.id === device,
      ),
  )

describe('what the hunt calls isolated', () => {
  const isDead = (example: string, nth: number, asked: string[]) => {
    const { circuit, all } = suspectsOf(example)
    const suspect = all[nth % all.length]
    if (isWelded(circuit, suspect)) return
    const dead = statesAhead(circuit, asEntries(asked)).find(({ isolated }) => isolated)!
    const sim = restOf(circuit, suspect.variant)
    for (const act of [...asked, 'wait=5s', ...dead.acts, 'wait=1s']) perform(sim, act)
    expect([example, suspect.id, joined(sim)]).toEqual([example, suspect.id, []])
  }
  const asking = (example: string) => statesAhead(suspectsOf(example).circuit, [], true).map(({ acts }) => [...acts])

  it('is joined to no pole of any supply, whatever is wrong, unless the isolator itself has welded', () => {
    fc.assert(
      fc.property(fc.constantFrom(...examples.map(({ id }) => id)), fc.nat(), fc.nat(), (id, suspect, state) => {
        const states = asking(id)
        isDead(id, suspect, states[state % states.length])
      }),
      { numRuns: 150 },
    )
  })

  it('is so for every suspect where there is a second supply', () => {
    for (const example of ['single-zone-electric', 'unvented'])
      suspectsOf(example).all.forEach((_, nth) => isDead(example, nth, asking(example).at(-1)!))
  })

  it('is fed again by what is put back at the end, and the log told of both', () => {
    for (const { id } of examples) {
      const { circuit } = suspectsOf(id)
      const sim = restOf(circuit, suspectsOf(id).all[0].variant)
      const before = joined(sim)
      const dead = statesAhead(circuit, []).find(({ isolated }) => isolated)!
      const back = toPutBack(circuit, asEntries(dead.acts))
      expect(back.length).toBe(dead.acts.length)
      for (const act of [...dead.acts, ...back, 'wait=1s']) perform(sim, act)
      expect(joined(sim)).toEqual(before)
    }
  })
})
