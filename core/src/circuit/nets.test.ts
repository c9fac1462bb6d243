import type { AtomId } from './ids'
import fc from 'fast-check'
import { circuitOf, installationOf } from '../../testing'
import { examples } from '../examples'
import { compile, conductingPath, conducts, emptyNets, mergeNets, type Circuit, type Joins } from '.'

const joinsFrom = (circuit: Circuit, closed: boolean[], broken: number[] = []): Joins => ({
  closed: Uint8Array.from(circuit.contacts, (_, i) => (closed[i] ? 1 : 0)),
  blown: new Uint8Array(circuit.fuses.length),
  brokenEdges: Uint8Array.from(circuit.edges, (_, i) => (broken.includes(i) ? 1 : 0)),
})

/** A circuit, any of its contacts closed, and up to four edges broken. */
const state = fc.constantFrom(...examples.map((e) => e.id)).chain((id) => {
  const circuit = circuitOf(id)
  return fc
    .tuple(
      fc.array(fc.boolean(), { minLength: circuit.contacts.length, maxLength: circuit.contacts.length }),
      fc.array(fc.nat({ max: circuit.edges.length - 1 }), { maxLength: 4 }),
    )
    .map(([closed, broken]) => ({ id, closed, broken }))
})

describe('nets', () => {
  it('two atoms are in one net exactly when a conducting path leads from one to the other', () => {
    fc.assert(
      fc.property(state, fc.nat(), fc.nat(), ({ id, closed, broken }, x, y) => {
        const circuit = circuitOf(id)
        const joins = joinsFrom(circuit, closed, broken)
        const { netOf } = mergeNets(circuit, joins, emptyNets(circuit))
        const [a, b] = [x, y].map((n) => (n % circuit.atoms.length) as AtomId)
        const path = conductingPath(circuit, joins, a, (atom) => atom === b)
        expect(netOf[a] === netOf[b]).toBe(path !== undefined)
        for (const edge of path ?? []) expect(conducts(circuit, joins, edge)).toBe(true)
      }),
    )
  })

  it('do not depend on the order in which cables and links stand in the document', () => {
    const partition = (circuit: Circuit) => {
      const joins = joinsFrom(
        circuit,
        circuit.contacts.map(() => true),
      )
      const { netOf } = mergeNets(circuit, joins, emptyNets(circuit))
      const nets = new Map<number, string[]>()
      circuit.atoms.forEach((atom, i) => nets.set(netOf[i], [...(nets.get(netOf[i]) ?? []), atom.ref]))
      return [...nets.values()].map((refs) => refs.sort().join(' ')).sort()
    }
    const doc = installationOf('two-port-two-heating-hot-water')
    const shuffled = installationOf('two-port-two-heating-hot-water')
    shuffled.cables.reverse()
    shuffled.links.reverse()
    shuffled.devices.reverse()
    // Free ends carry their cable's id, not a number: nothing else may change either.
    expect(partition(compile(shuffled))).toEqual(partition(compile(doc)))
  })

  it('a cut link joins nothing', () => {
    const doc = installationOf('two-port-heating')
    doc.links[0].kind = 'cut'
    const circuit = compile(doc)
    const { netOf } = mergeNets(circuit, joinsFrom(circuit, []), emptyNets(circuit))
    const at = (ref: string) => netOf[circuit.atomIndex.get(ref)!]
    expect(at('wc.1')).not.toBe(at('wc.2'))
  })

  it('a joint in a connector, and a parked end, are joined like any terminal', () => {
    const doc = installationOf('two-port-heating')
    doc.connectors.push({ id: 'joint', name: 'Joint behind the plate', place: 'controls', ways: 3 })
    const cores = doc.cables.find((c) => c.id === 'programmer-cable')!.cores
    cores.find((k) => k.id === 'black')!.ends[0] = { at: 'connector', connector: 'joint' }
    cores.find((k) => k.id === 'grey')!.ends[0] = { at: 'connector', connector: 'joint' }
    const circuit = compile(doc)
    const { netOf } = mergeNets(circuit, joinsFrom(circuit, []), emptyNets(circuit))
    const spare = cores.find((k) => k.id === 'grey')!.ends[1]
    if (spare.at !== 'parked') throw new Error('the grey core is spare')
    expect(netOf[circuit.atomIndex.get(spare.terminal)!]).toBe(netOf[circuit.atomIndex.get('joint')!])
  })
})
