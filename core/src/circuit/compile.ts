import { typeIn } from '../catalogue'
import type { End, Installation } from '../installation'
import { cableCapacitances } from './capacitance'
import { withPlant } from '../plant'
import type { Atom, Circuit } from './circuit'
import { compileDevice, type AddEdge } from './compile-device'
import { compileWater } from './water-circuit'

/**
 * Compiles a parsed installation to atoms and edges, and its pipework, assumed where it has none, to nets and ways. Pure; takes a document that {@link parseInstallation} accepted,
 * so a reference that does not resolve is a programming error and throws.
 */
export function compile(document: Installation): Circuit {
  const installation = withPlant(document)
  const circuit: Circuit = {
    installation,
    pipesAssumed: installation !== document,
    omega: 2 * Math.PI * installation.supply.frequency,
    atoms: [],
    atomIndex: new Map(),
    edges: [],
    edgesAt: [],
    devices: [],
    deviceIndex: new Map(),
    contacts: [],
    loads: [],
    branches: [],
    insulations: [],
    diodes: [],
    transformers: [],
    fuses: [],
    trips: [],
    actuators: [],
    cams: [],
    ports: [],
    sensors: [],
    behaviours: [],
    buses: [],
    sources: [],
    water: { nets: 0, netOf: new Map(), ways: [], sources: [], emitters: [], stores: [] },
    controls: [],
  }
  const addAtom = (atom: Omit<Atom, 'uncertain'>): number => {
    const index = circuit.atoms.push({ ...atom, uncertain: false }) - 1
    circuit.atomIndex.set(atom.ref, index)
    circuit.edgesAt.push([])
    return index
  }
  const addEdge: AddEdge = (a, b, rest) => {
    const index = circuit.edges.push({ ...rest, a, b }) - 1
    circuit.edgesAt[a].push(index)
    if (b !== a) circuit.edgesAt[b].push(index)
    return index
  }
  const atomAt = (ref: string): number => {
    const index = circuit.atomIndex.get(ref)
    if (index === undefined) throw new Error(`no terminal "${ref}"`)
    return index
  }

  for (const device of installation.devices) {
    for (const t of typeIn(installation, device.type).terminals) {
      addAtom({
        ref: `${device.id}.${t.id}`,
        owner: device.id,
        legend: device.legends?.[t.id] ?? t.legend,
        kind: t.internal ? 'internal' : 'device',
        role: t.role,
      })
    }
  }
  for (const centre of installation.wiringCentres)
    for (const t of centre.terminals)
      addAtom({ ref: `${centre.id}.${t.id}`, owner: centre.id, legend: t.legend, kind: 'centre' })
  for (const c of installation.connectors) addAtom({ ref: c.id, owner: c.id, legend: c.name, kind: 'connector' })

  for (const device of installation.devices) compileDevice(circuit, device.id, addEdge, atomAt)

  for (const cable of installation.cables) {
    const ends = cable.cores.map((core) => {
      const [a, b] = core.ends.map((end: End, i) => {
        if (end.at === 'terminal' || end.at === 'parked') return atomAt(end.terminal)
        if (end.at === 'connector') return atomAt(end.connector)
        const ref = `${cable.id}.${core.id}.${i + 1}`
        return addAtom({
          ref,
          owner: cable.id,
          legend: `${core.colour} of ${cable.label}, ${end.at}`,
          kind: 'free-end',
        })
      })
      if (core.ends.some((end) => end.at === 'unknown')) circuit.atoms[a].uncertain = circuit.atoms[b].uncertain = true
      addEdge(a, b, { kind: 'core', cable, core })
      return [a, b] as const
    })
    circuit.branches.push(...cableCapacitances(cable, ends, circuit.omega))
  }
  for (const link of installation.links)
    if (link.kind !== 'cut') addEdge(atomAt(link.between[0]), atomAt(link.between[1]), { kind: 'link', link })
  circuit.water = compileWater(circuit)
  return circuit
}
