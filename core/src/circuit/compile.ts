import { typeIn } from '../catalogue'
import type { Cable, End, Installation, Link } from '../installation'
import { cableCapacitances } from './capacitance'
import type { AtomId, EdgeId } from './ids'
import { withPipework } from '../pipework'
import type { Atom, Branch, Circuit, Edge } from './circuit'
import { compileDevice, type AddEdge } from './compile-device'
import { compileWater } from './water-circuit'

/** How a circuit was compiled: what of it another one can take over as it is. */
interface Origin {
  document: Installation
  /** How many of its atoms, edges and branches come before those of cables and links. */
  atoms: number
  edges: number
  branches: number
  cables: Map<Cable, CompiledCable>
  links: Map<Link, Edge>
}
interface CompiledCable {
  /** The number of its first free end, where it has any: they are numbered as they come. */
  freeFrom: number
  free: Atom[]
  edges: Edge[]
  branches: Branch[]
  uncertain: AtomId[]
}
const origins = new WeakMap<Circuit, Origin>()

/**
 * Compiles a parsed installation to atoms and edges, and its pipework, assumed where it has none, to nets and ways. Pure; takes a document that {@link parseInstallation} accepted,
 * so a reference that does not resolve is a programming error and throws.
 *
 * With `like`, a circuit compiled before, what stands in both documents is taken over from it, the very same objects: of one that
 * differs in a few conductors and links, little is made anew. The result is the same as without.
 */
export function compile(document: Installation, like?: Circuit): Circuit {
  const origin = like && origins.get(like)
  if (!origin) return wired(document, begun(document))
  // The circuit's own document has the pipes that were laid in: what is compiled from that has them as its own.
  if (sameBefore(document, like.installation)) return wired(document, takenOver(document, like, origin))
  const asBefore = sameBefore(document, origin.document) && noneLaidIn(document, like)
  return wired(document, asBefore ? takenOver(withPipesOf(document, like), like, origin, true) : begun(document))
}

/** A circuit with everything but cables and links, how much that is, and what was compiled of those before. */
interface Start {
  circuit: Circuit
  sizes: Pick<Origin, 'atoms' | 'edges' | 'branches'>
  before?: Pick<Origin, 'cables' | 'links'>
}

function begun(document: Installation): Start {
  const installation = withPipework(document)
  const circuit: Circuit = {
    installation,
    pipesAssumed: installation !== document,
    omega: 2 * Math.PI * installation.supply.frequency,
    atoms: [],
    atomIndex: new Map(),
    edges: [],
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
  const addAtom = (atom: Omit<Atom, 'uncertain'>): void => {
    circuit.atomIndex.set(atom.ref, (circuit.atoms.push({ ...atom, uncertain: false }) - 1) as AtomId)
  }
  const addEdge: AddEdge = (a, b, rest) => (circuit.edges.push({ ...rest, a, b }) - 1) as EdgeId
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
  for (const device of installation.devices)
    compileDevice(circuit, device.id, addEdge, (ref) => atomAt(circuit.atomIndex, ref))
  circuit.water = compileWater(circuit)
  const { atoms, edges, branches } = circuit
  const sizes = { atoms: atoms.length, edges: edges.length, branches: branches.length }
  return { circuit, sizes }
}

function atomAt(atomIndex: ReadonlyMap<string, AtomId>, ref: string): AtomId {
  const index = atomIndex.get(ref)
  if (index === undefined) throw new Error(`no terminal "${ref}"`)
  return index
}

/** Do two documents differ in nothing that is compiled before cables and links? */
function sameBefore(one: Installation, other: Installation): boolean {
  const { supply, types, places, devices, connectors, pipes, tees, intent, provenance } = other
  if (one.supply !== supply || one.provenance !== provenance || one.intent !== intent) return false
  if (one.devices !== devices || one.types !== types || one.connectors !== connectors) return false
  if (one.places !== places || one.pipes !== pipes || one.tees !== tees) return false
  return (
    one.wiringCentres === other.wiringCentres ||
    (one.wiringCentres.length === other.wiringCentres.length &&
      one.wiringCentres.every(({ id, terminals }, i) => {
        const was = other.wiringCentres[i]
        return (
          was.id === id &&
          was.terminals.length === terminals.length &&
          terminals.every((t, k) => t.id === was.terminals[k].id && t.legend === was.terminals[k].legend)
        )
      }))
  )
}

/** Pipework that is laid in takes names that nothing has yet: does a new cable or link take none of them from it? */
function noneLaidIn({ cables, links }: Installation, { installation, pipesAssumed }: Circuit): boolean {
  if (!pipesAssumed) return true
  const names = new Set([...installation.devices, ...installation.tees].map(({ id }) => id))
  return [...cables, ...links].every(({ id }) => !names.has(id))
}

/** The document with the pipework of a circuit that was laid in for the same devices. */
function withPipesOf(document: Installation, { installation, pipesAssumed }: Circuit): Installation {
  if (!pipesAssumed) return document
  const { devices, types, places, pipes, tees, intent } = installation
  return { ...document, devices, types, places, pipes, tees, intent }
}

function takenOver(installation: Installation, like: Circuit, before: Origin, laidIn = false): Start {
  const { atoms, edges, branches } = before
  const circuit: Circuit = {
    ...like,
    installation,
    pipesAssumed: laidIn && like.pipesAssumed,
    atoms: like.atoms.slice(0, atoms),
    edges: like.edges.slice(0, edges),
    branches: like.branches.slice(0, branches),
  }
  circuit.atoms.forEach((atom, i) => {
    if (atom.uncertain) circuit.atoms[i] = { ...atom, uncertain: false }
  })
  return { circuit, sizes: { atoms, edges, branches }, before }
}

/** Adds cables and links. What `before` has of the same cable or link, with nothing renumbered, is taken over. */
function wired(document: Installation, { circuit, sizes, before }: Start): Circuit {
  const { installation } = circuit
  const origin: Origin = { document, ...sizes, cables: new Map(), links: new Map() }
  for (const cable of installation.cables) {
    let made = before?.cables.get(cable)
    if (!made || (made.free.length > 0 && made.freeFrom !== circuit.atoms.length)) made = compileCable(circuit, cable)
    circuit.atoms.push(...made.free)
    for (const atom of made.uncertain)
      if (!circuit.atoms[atom].uncertain) circuit.atoms[atom] = { ...circuit.atoms[atom], uncertain: true }
    circuit.edges.push(...made.edges)
    circuit.branches.push(...made.branches)
    origin.cables.set(cable, made)
  }
  for (const link of installation.links) {
    if (link.kind === 'cut') continue
    const edge = before?.links.get(link) ?? compileLink(circuit, link)
    circuit.edges.push(edge)
    origin.links.set(link, edge)
  }
  nameFreeEnds(circuit, sizes.atoms)
  origins.set(circuit, origin)
  return circuit
}

function compileLink({ atomIndex }: Circuit, link: Link): Edge {
  const [a, b] = link.between.map((ref) => atomAt(atomIndex, ref))
  return { kind: 'link', link, a, b }
}

/** Atoms from `first` on are free ends. Where the index, another circuit's, has just them too, it serves both. */
function nameFreeEnds(circuit: Circuit, first: number): void {
  const { atoms, atomIndex } = circuit
  const free = atoms.slice(first)
  if (atomIndex.size === atoms.length && free.every(({ ref }, i) => atomIndex.get(ref) === first + i)) return
  circuit.atomIndex = new Map(atoms.map(({ ref }, i) => [ref, i as AtomId]))
}

function compileCable(circuit: Circuit, cable: Cable): CompiledCable {
  const freeFrom = circuit.atoms.length
  const free: Atom[] = []
  const uncertain: AtomId[] = []
  const ends = cable.cores.map((core): readonly [AtomId, AtomId] => {
    const [a, b] = core.ends.map((end: End, i): AtomId => {
      if (end.at === 'terminal' || end.at === 'parked') return atomAt(circuit.atomIndex, end.terminal)
      if (end.at === 'connector') return atomAt(circuit.atomIndex, end.connector)
      const ref = `${cable.id}.${core.id}.${i + 1}`
      const legend = `${core.colour} of ${cable.label}, ${end.at}`
      const place = freeFrom + free.length
      free.push({ ref, owner: cable.id, legend, kind: 'free-end', uncertain: false })
      return place as AtomId
    })
    if (core.ends.some((end) => end.at === 'unknown')) uncertain.push(a, b)
    return [a, b]
  })
  return {
    freeFrom,
    free,
    edges: ends.map(([a, b], i): Edge => ({ kind: 'core', cable, core: cable.cores[i], a, b })),
    branches: cableCapacitances(cable, ends, circuit.omega),
    uncertain,
  }
}
