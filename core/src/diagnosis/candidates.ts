import type { Circuit } from '../circuit'
import type { ContactRef } from '../installation'
import { stateKey, type ControlState, type Observable } from './observation'

/** Every contact a person can set to ask: the channels and thermostats of the demands, each once, in order. */
export function askableContacts(circuit: Circuit): (ContactRef & { role: 'channel' | 'thermostat' })[] {
  const found = new Map<string, ContactRef & { role: 'channel' | 'thermostat' }>()
  for (const role of ['channel', 'thermostat'] as const)
    for (const demand of circuit.installation.intent.demands) {
      const at = demand[role]
      if (at) found.set(keyOf(at), { ...at, role })
    }
  return [...found.values()]
}

const keyOf = (at: ContactRef) => `${at.device}.${at.contact}`

/** States of the controls worth testing in: rest, each demand alone, all, and each row of contacts without the other. */
export function candidateStates(circuit: Circuit): ControlState[] {
  const { demands } = circuit.installation.intent
  const contacts = askableContacts(circuit)
  const states: ControlState[] = [
    [],
    ...demands.map((d) => [d.channel, d.thermostat].flatMap((at) => (at ? [keyOf(at)] : []))),
    contacts.map(keyOf),
    contacts.filter((c) => c.role === 'channel').map(keyOf),
    contacts.filter((c) => c.role === 'thermostat').map(keyOf),
  ]
  const seen = new Set<string>()
  return states.filter((s) => {
    const key = stateKey(s)
    return !seen.has(key) && seen.add(key)
  })
}

/**
 * Everything that can be looked at: valves by their levers, boilers by what they show, pumps by hand, and terminals a
 * probe can reach. Terminals of one owner that are linked read alike; the first stands for all.
 */
export function observables(circuit: Circuit): Observable[] {
  const { installation } = circuit
  const found: Observable[] = []
  for (const { device, type } of circuit.devices) {
    if (type.primitives.some((p) => p.kind === 'actuator' && p.lever)) found.push({ kind: 'valve', device: device.id })
    if (type.inputs.length > 0) found.push({ kind: 'boiler', device: device.id })
    if (type.primitives.some((p) => p.kind === 'load' && p.work === 'runs'))
      found.push({ kind: 'pump', device: device.id })
  }
  const linked = new Set(installation.links.filter((l) => l.kind !== 'cut').map((l) => l.between[1]))
  const used = new Set(
    installation.cables.flatMap((c) =>
      c.cores.flatMap((k) => k.ends.flatMap((e) => (e.at === 'terminal' ? [e.terminal] : []))),
    ),
  )
  for (const atom of circuit.atoms) {
    if (!used.has(atom.ref) || linked.has(atom.ref)) continue
    if (atom.kind === 'centre' || (atom.kind === 'device' && reachable(circuit, atom.owner, atom.ref)))
      found.push({ kind: 'terminal', terminal: atom.ref })
  }
  return found
}

/** A terminal under a fixed lead cannot be reached with a probe; an earth is not read for live. */
function reachable(circuit: Circuit, owner: string, ref: string): boolean {
  const { type } = circuit.devices[circuit.deviceIndex.get(owner)!]
  const terminal = type.terminals.find((t) => `${owner}.${t.id}` === ref)
  return terminal !== undefined && !terminal.lead && terminal.role !== 'earth'
}
