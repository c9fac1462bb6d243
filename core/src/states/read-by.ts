import type { AtomId, NetId, Circuit } from '../circuit'
import { gateGraph } from '../trace'

/**
 * Contacts that can join nothing to anything: at one of their sides is no conductor, no link, no part and no other contact that
 * leads on. Whether such a contact is made, no current, no voltage and no look at a conductor ever tells.
 */
function idleContacts(circuit: Circuit): ReadonlySet<number> {
  const { netOf, gatesAt } = gateGraph(circuit)
  const atoms = new Map<NetId, AtomId[]>()
  circuit.atoms.forEach((_, index) => {
    const atom = index as AtomId
    atoms.set(netOf[atom], [...(atoms.get(netOf[atom]) ?? []), atom])
  })
  const touched = new Set(
    [
      ...circuit.branches.flatMap(({ a, b }) => [a, b]),
      ...circuit.diodes.flatMap(({ anode, cathode }) => [anode, cathode]),
      ...circuit.transformers.flatMap(({ fed, common }) => [fed, common]),
      ...circuit.buses.flatMap(({ a, b }) => [a, b]),
      ...circuit.sources.flatMap(({ line, neutral, earth }) => [line, neutral, earth]),
    ].map((atom) => netOf[atom]),
  )
  /** Nothing but terminals of one device, to which nothing outside of it is joined. */
  const bare = new Set(
    [...atoms].flatMap(([net, here]) => {
      const [{ owner }] = here.map((atom) => circuit.atoms[atom])
      const own = here.every((at) => {
        const atom = circuit.atoms[at]
        return atom.owner === owner && ['device', 'internal'].includes(atom.kind) && !atom.uncertain
      })
      return own && !touched.has(net) ? [net] : []
    }),
  )
  const idle = new Set<number>()
  const leadOn = (net: NetId) => (gatesAt.get(net) ?? []).filter((edge) => !idle.has(edge))
  for (let found = true; found;) {
    found = false
    for (const { edge } of circuit.contacts) {
      if (idle.has(edge)) continue
      const { a, b } = circuit.edges[edge]
      if (![netOf[a], netOf[b]].some((net) => bare.has(net) && leadOn(net).length < 2)) continue
      idle.add(edge)
      found = true
    }
  }
  return idle
}

const idleOf = new WeakMap<Circuit, ReadonlySet<number>>()

/**
 * Whether anything in the installation can come out otherwise by what a sensor says: a contact that joins something, or any other
 * part of its device that speaks of it, or of the control it throws.
 */
export function sensorIsRead(circuit: Circuit, sensor: number): boolean {
  let idle = idleOf.get(circuit)
  if (!idle) idleOf.set(circuit, (idle = idleContacts(circuit)))
  const { device, part } = circuit.sensors[sensor]
  const names = [part.id, ...(part.throws ? [part.throws.control] : [])].map((name) => JSON.stringify(name))
  return circuit.devices[device].type.primitives.some((other) => {
    if (other === part) return false
    const text = JSON.stringify(other)
    if (!names.some((name) => text.includes(name))) return false
    const throws = circuit.contacts.filter((contact) => contact.device === device && contact.part === other)
    return throws.length === 0 || throws.some(({ edge }) => !idle.has(edge))
  })
}
