import fc from 'fast-check'
import { circuitOf } from '../../testing'
import { faultsOf, type Fault } from '../hypotheses'
import { flagsOf, Simulation } from '.'

const circuit = circuitOf('mid-position')
const faults = faultsOf(circuit)
const anyFault = fc.constantFrom(...faults)
const text = (list: readonly Fault[]) =>
  JSON.stringify(
    flagsOf(
      circuit,
      list.flatMap((f) => f.defects),
    ),
  )

describe('what is wrong with the parts', () => {
  it('is a set: the order in which defects come to it does not matter, nor how often', () => {
    fc.assert(
      fc.property(fc.array(anyFault, { maxLength: 6 }), fc.nat(), (list, n) => {
        const at = list.length === 0 ? 0 : n % list.length
        const turned = [...list.slice(at), ...list.slice(0, at)].reverse()
        expect(text(turned)).toBe(text(list))
        expect(text([...list, ...list])).toBe(text(list))
      }),
    )
  })

  it('put in and mended in any order, the set alone decides what a simulation comes to', () => {
    fc.assert(
      fc.property(anyFault, anyFault, fc.boolean(), (one, other, oneFirst) => {
        fc.pre(one.name !== other.name)
        const both = new Simulation(circuit)
        for (const fault of oneFirst ? [one, other] : [other, one]) both.putIn(fault.name, fault.defects)
        both.mend(one.name, one.defects)
        const alone = new Simulation(circuit)
        alone.putIn(other.name, other.defects)
        expect(both.joins.brokenEdges).toEqual(alone.joins.brokenEdges)
        expect(both.wrong).toEqual([other.name])
        const says = (sim: Simulation) =>
          JSON.stringify({ ...sim.joins, closed: undefined }) +
          circuit.contacts.map((_, i) => sim.contactHeld(i)).join() +
          circuit.actuators.map((_, i) => sim.actuatorHeld(i)).join()
        expect(says(both)).toBe(says(alone))
      }),
    )
  })

  it('is another thing than what happened: a fuse that blew stays blown when its cause is mended, until it is replaced', () => {
    const pump = faults.find((f) => f.defects.some((d) => d.part === 'insulation'))!
    const fuse = faults.find((f) => f.defects.some((d) => d.part === 'fuse'))!
    const [{ index }] = fuse.defects
    const sim = new Simulation(circuit)
    sim.set('programmer', 'heating', 'on')
    sim.set('stat-1', 'set', '30')
    sim.settle()
    sim.putIn(pump.name, pump.defects)
    sim.settle()
    expect(sim.fuseBlown(index)).toBe(true)
    sim.mend(pump.name, pump.defects)
    expect([sim.fuseBlown(index), sim.wrong]).toEqual([true, []])
    sim.mend(fuse.name, fuse.defects)
    sim.settle()
    expect(sim.fuseBlown(index)).toBe(false)
  })
})
