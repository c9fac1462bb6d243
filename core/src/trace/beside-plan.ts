import type { AtomId, Circuit, EdgeId } from '../circuit'
import { departuresFrom, type Departed } from '../departures'
import { placeOf } from '../installation'
import { gateGraph } from './gates'

/** A wiring beside the plan it was made by. Without a plan it is its own, and nothing departs. */
export interface BesidePlan {
  plan: Circuit
  /** Where a terminal of the plan is here; undefined where there is none of that name. */
  atomOf(planned: AtomId): AtomId | undefined
  /** What a planned conductor, link, contact or fuse is here; undefined where nothing is there between the same terminals. */
  edgeOf(planned: EdgeId): EdgeId | undefined
  /** Conductors and links here that join what the plan keeps apart. */
  strays: ReadonlySet<EdgeId>
  /** How a conductor or link, of here or of the plan, stands otherwise than planned. */
  departed(of: Circuit, edge: EdgeId): Departed[]
}

const known = new WeakMap<Circuit, WeakMap<Circuit, BesidePlan>>()

/** {@link BesidePlan}, remembered for as long as both live. */
export function besidePlan(here: Circuit, plan: Circuit = here): BesidePlan {
  let of = known.get(here)
  if (!of) known.set(here, (of = new WeakMap<Circuit, BesidePlan>()))
  let made = of.get(plan)
  if (!made) of.set(plan, (made = here === plan ? alone(here) : compared(here, plan)))
  return made
}

const alone = (plan: Circuit): BesidePlan => ({
  plan,
  atomOf: (atom) => atom,
  edgeOf: (edge) => edge,
  strays: new Set(),
  departed: () => [],
})

/** What an edge is, and between which terminals: the same in two states of an installation. */
function keyOf(circuit: Circuit, index: EdgeId): string {
  const edge = circuit.edges[index]
  const between = [circuit.atoms[edge.a].ref, circuit.atoms[edge.b].ref].sort().join(' ')
  const device = (i: number) => circuit.devices[i].device.id
  switch (edge.kind) {
    case 'core':
      return `core ${edge.cable.id}.${edge.core.id} ${between}`
    case 'link':
      return `link ${between}`
    case 'strap':
      return `strap ${device(edge.device)}.${edge.part} ${between}`
    case 'contact': {
      const contact = circuit.contacts[edge.contact]
      return `contact ${device(contact.device)}.${contact.part.id} ${contact.throw}`
    }
    case 'fuse': {
      const fuse = circuit.fuses[edge.fuse]
      return `fuse ${device(fuse.device)}.${fuse.part.id}`
    }
  }
}

function compared(here: Circuit, plan: Circuit): BesidePlan {
  const edges = new Map<string, EdgeId>()
  for (let i = 0 as EdgeId; i < here.edges.length; i++) edges.set(keyOf(here, i), i)
  const atomOf = (atom: AtomId) => here.atomIndex.get(plan.atoms[atom].ref)
  const { netOf } = gateGraph(plan)
  const plannedNet = (atom: AtomId) => {
    const planned = plan.atomIndex.get(here.atoms[atom].ref)
    return planned === undefined ? undefined : netOf[planned]
  }
  const strays = new Set<EdgeId>()
  here.edges.forEach((edge, i) => {
    if (edge.kind !== 'core' && edge.kind !== 'link') return
    const [a, b] = [edge.a, edge.b].map(plannedNet)
    if (a !== undefined && b !== undefined && a !== b) strays.add(i as EdgeId)
  })
  const departures = departuresFrom(plan.installation, here.installation).map(({ what }) => what)
  return {
    plan,
    atomOf,
    edgeOf: (edge) => edges.get(keyOf(plan, edge)),
    strays,
    departed: (of, edge) => named(plan, here, departures, of, edge),
  }
}

function named(plan: Circuit, here: Circuit, departures: readonly Departed[], of: Circuit, index: EdgeId): Departed[] {
  const edge = of.edges[index]
  if (edge.kind === 'link') {
    const ends = [...edge.link.between].sort().join()
    return departures.filter((d) => 'between' in d && [...d.between].sort().join() === ends)
  }
  if (edge.kind !== 'core') return []
  const [cable, core] = [edge.cable.id, edge.core.id]
  const own = departures.filter(
    (d) =>
      (d.kind === 'core' && d.core.cable === cable && d.core.core === core) ||
      (d.kind === 'exchanged' && d.cores.some((c) => c.cable === cable && c.core === core)),
  )
  const pairs = own.filter((d) => d.kind === 'exchanged')
  if (own.length > 0) return pairs.length > 0 ? pairs : own
  const find = ({ installation }: Circuit) =>
    installation.cables.find((c) => c.id === cable)?.cores.find((k) => k.id === core)
  const looks = { colour: edge.core.colour, label: edge.cable.label }
  const [was, is] = [find(plan), find(here)]
  if (!was) return [{ kind: 'core-extra', core: { cable, core }, ...looks }]
  if (!is) return [{ kind: 'core-gone', core: { cable, core }, ...looks }]
  return ([0, 1] as const).flatMap((end): Departed[] => {
    const [at, belongs] = [placeOf(is.ends[end]) ?? '', placeOf(was.ends[end]) ?? '']
    return at === belongs ? [] : [{ kind: 'core', core: { cable, core, end }, at, belongs }]
  })
}
