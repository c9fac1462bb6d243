import { compile } from '../circuit'
import { exampleById, examples } from '../examples'
import type { Installation } from '../installation'
import { inputsApart } from './apart'
import { explored } from './explore'
import { inputsOf } from './free-inputs'

/** Values that name something of the installation itself, by their field. */
const naming = ['terminal', 'from', 'to', 'device', 'place', 'boiler', 'connector', 'leadOf']

/** An installation under other names. */
function renamed(doc: Installation): Installation {
  const b = (name: string) => `b-${name}`
  const inside = <T>(value: T): T =>
    JSON.parse(JSON.stringify(value), (key, inner: unknown) =>
      naming.includes(key) && typeof inner === 'string' ? b(inner) : inner,
    ) as T
  const listed = <T extends { id: string }>(list: readonly T[]): T[] => list.map((x) => ({ ...inside(x), id: b(x.id) }))
  return {
    ...doc,
    places: listed(doc.places),
    devices: listed(doc.devices),
    wiringCentres: listed(doc.wiringCentres),
    connectors: listed(doc.connectors),
    cables: listed(doc.cables),
    links: listed(doc.links).map((l) => ({ ...l, between: [b(l.between[0]), b(l.between[1])] })),
    pipes: listed(doc.pipes),
    tees: listed(doc.tees),
    intent: {
      demands: listed(doc.intent.demands).map((d) => ({
        ...d,
        companions: d.companions.map(b),
        circuit: { ...d.circuit, runs: d.circuit.runs?.map(b), emitters: d.circuit.emitters?.map(b) },
      })),
    },
  }
}

/** Two installations in one document, with nothing between them. */
function besideIt(one: Installation, doc: Installation): Installation {
  const other = renamed(doc)
  const both = <K extends keyof Installation>(key: K) =>
    [...(one[key] as unknown[]), ...(other[key] as unknown[])] as Installation[K]
  return {
    ...one,
    types: [...new Map([...one.types, ...other.types].map((t) => [t.id, t])).values()],
    places: both('places'),
    devices: both('devices'),
    wiringCentres: both('wiringCentres'),
    connectors: both('connectors'),
    cables: both('cables'),
    links: both('links'),
    pipes: both('pipes'),
    tees: both('tees'),
    intent: { demands: [...one.intent.demands, ...other.intent.demands] },
  }
}

const groupsOf = (doc: Installation) => {
  const circuit = compile(doc)
  return inputsApart(circuit, inputsOf(circuit))
}
const example = (id: string) => exampleById(id)!.installation
const told = (doc: Installation) => {
  const { states, settled, complete, breaches, table } = explored(compile(doc))
  return { states, settled, complete, breaches: breaches.map((b) => b.breach.property).sort(), rows: table.length }
}

describe('circuits that share nothing', () => {
  it('are in the installations that ship an immersion heater on a spur of its own, and nothing else', () => {
    const apart = examples.flatMap(({ id, installation }) => {
      const circuit = compile(installation)
      const inputs = inputsOf(circuit)
      const [, ...more] = inputsApart(circuit, inputs)
      return more.map((group) => [id, ...group.map((i) => inputs[i].device)])
    })
    expect(apart).toEqual([['unvented', 'immersion']])
  })

  it('add up, where looked at together they would multiply, and are found to do what each does alone', () => {
    const [one, other] = [example('two-port-heating-hot-water'), example('diverter')]
    expect(groupsOf(besideIt(one, other))).toHaveLength(2)
    const [a, b, both] = [told(one), told(other), told(besideIt(one, other))]
    expect(both).toMatchObject({ complete: true, states: a.states + b.states, settled: a.settled + b.settled })
    expect(both.breaches).toEqual([...a.breaches, ...b.breaches].sort())
    // Nothing wanted is a row of both.
    expect(both.rows).toBe(a.rows + b.rows - 1)
  })

  it('are found to be broken just as each alone', () => {
    const broken = structuredClone(example('two-port-heating-hot-water'))
    // The heating valve's motor is fed for good: it opens with nobody asking.
    const lead = broken.cables.find((c) => c.leadOf === 'zv-1')!
    lead.cores.find((c) => c.colour === 'brown')!.ends[1] = { at: 'terminal', terminal: 'wc.1' }
    const alone = explored(compile(broken)).breaches.map((x) => x.breach.property)
    expect(alone.length).toBeGreaterThan(0)
    const both = explored(compile(besideIt(example('diverter'), broken))).breaches.map((x) => x.breach.property)
    // A boiler that runs with nobody asking runs just so while the other system's demand is on, which is told of it too.
    expect(new Set(both)).toEqual(new Set([...alone, 'no-call-without-demand']))
    expect(alone).toContain('all-off-ends-calls')
  })

  it('are one as soon as a single conductor lies between them', () => {
    const doc = structuredClone(besideIt(example('two-port-heating-hot-water'), example('diverter')))
    doc.cables.push({
      id: 'between',
      label: 'Between',
      ratedForMains: true,
      cores: [
        {
          id: 'c',
          colour: 'green-yellow',
          areaMm2: 0.75,
          ends: [
            { at: 'terminal', terminal: 'wc.1' },
            { at: 'terminal', terminal: 'b-wc.1' },
          ],
        },
      ],
    })
    expect(groupsOf(doc)).toHaveLength(1)
  })
})
