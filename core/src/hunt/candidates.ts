import type { Circuit } from '../circuit'
import type { ContactRef } from '../installation'
import { nth } from '../lists'
import type { WrittenLook } from '../looks'

/** The contacts that are set to ask, as `device.contact`; all others rest. */
export type ControlState = string[]

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
    const key = [...s].sort().join(' ')
    return !seen.has(key) && seen.add(key)
  })
}

/**
 * Everything that can be looked at without taking anything apart, and every terminal that a probe can reach. Terminals of one
 * owner that are linked read alike; the first stands for all.
 */
export function looksAt(circuit: Circuit): WrittenLook[] {
  const { installation } = circuit
  const found: WrittenLook[] = []
  for (const { device, type } of circuit.devices) {
    const { id } = device
    const moves = type.primitives.filter((p) => p.kind === 'actuator')
    if (moves.some((p) => p.lever)) found.push({ at: 'lever', device: id })
    if (moves.length > 0) found.push({ at: 'motor', device: id })
    if (type.inputs.length > 0) found.push({ at: 'boiler', device: id })
    if (type.primitives.some((p) => p.kind === 'load' && p.work === 'runs')) found.push({ at: 'pump', device: id })
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
      found.push({ at: 'points', with: 'tester', red: atom.ref })
  }
  return found
}

/** A terminal under a fixed lead cannot be reached with a probe; an earth is not read for live. */
function reachable(circuit: Circuit, owner: string, ref: string): boolean {
  const { type } = nth(circuit.devices, circuit.deviceIndex.get(owner)!)
  const terminal = type.terminals.find((t) => `${owner}.${t.id}` === ref)
  return terminal !== undefined && !terminal.lead && terminal.role !== 'earth'
}
