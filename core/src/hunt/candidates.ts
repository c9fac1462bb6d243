import { hasClock } from '../catalogue'
import { wiredNets, type Circuit } from '../circuit'
import { actionsFor, supplyActions } from '../inputs'
import type { ContactRef, Demand } from '../installation'
import { deadTests } from '../instruments'
import { nth } from '../lists'
import { comparedAt, type WrittenLook } from '../looks'
import { formatAction } from '../simulation'

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
function candidateStates(circuit: Circuit): ControlState[] {
  const { demands } = circuit.installation.intent
  const contacts = askableContacts(circuit)
  const states: ControlState[] = [
    [],
    ...demands.map(contactsOf),
    contacts.map(keyOf),
    contacts.filter((c) => c.role === 'channel').map(keyOf),
    contacts.filter((c) => c.role === 'thermostat').map(keyOf),
  ]
  return onceEach(states)
}

function onceEach(states: readonly ControlState[]): ControlState[] {
  const seen = new Set<string>()
  return states.filter((s) => {
    const key = [...s].sort().join(' ')
    return !seen.has(key) && seen.add(key)
  })
}

/**
 * The same, as they are come to from where the controls ask for `asking` now, with as little set as will do: what does not ask for a
 * service by itself (a thermostat whose channel is off) is left as it stands.
 */
export const statesFrom = (circuit: Circuit, asking: ControlState): ControlState[] =>
  onceEach(candidateStates(circuit).map((wanted) => leastMoved(circuit, wanted, asking)))

function leastMoved(circuit: Circuit, wanted: ControlState, asking: ControlState): ControlState {
  const left = new Set(asking.filter((key) => !wanted.includes(key)))
  const asks = (key: string) => wanted.includes(key) || left.has(key)
  for (const demand of circuit.installation.intent.demands) {
    const own = contactsOf(demand)
    if (own.every((key) => wanted.includes(key)) || !own.every(asks)) continue
    const goes = own.find((key) => left.has(key))
    if (goes !== undefined) left.delete(goes)
  }
  return askableContacts(circuit).map(keyOf).filter(asks)
}

/** The services that a state asks for: every contact of theirs does. */
export const askedFor = (circuit: Circuit, asking: ControlState): Demand[] =>
  circuit.installation.intent.demands.filter((demand) => contactsOf(demand).every((key) => asking.includes(key)))

const contactsOf = ({ channel, thermostat }: Demand): string[] =>
  [channel, thermostat].flatMap((at) => (at ? [keyOf(at)] : []))

/** What isolates every supply, or brings it back, as acts of a log; nothing where that cannot be done here. */
export const supplyActs = (circuit: Circuit, on: boolean): string[] => supplyActions(circuit, on).map(formatAction)

/**
 * Every other way a control can be set that is no service's own and no isolator's. How a thing stands with a device (a lever, a
 * lockout) is nothing one sets for a test but back to where it should be: a reset, a lever freed.
 */
export function otherActs(circuit: Circuit): string[] {
  const own = new Set(
    [
      ...askableContacts(circuit).flatMap((contact) => actionsFor(circuit, contact, true).map(formatAction)),
      ...supplyActs(circuit, true),
    ].map((text) => text.slice(0, text.indexOf('='))),
  )
  return circuit.devices.flatMap(({ device, type }) =>
    type.controls.flatMap((control) => {
      if (control.kind !== 'choice' || own.has(`${device.id}.${control.id}`)) return []
      const values = control.ambient ? [control.initial] : control.values.map(({ id }) => id)
      return values.map((id) => `${device.id}.${control.id}=${id}`)
    }),
  )
}

/**
 * Everything that can be looked at without taking anything apart, and every terminal that a probe can reach. Terminals of one
 * owner that are linked read alike; the first stands for all.
 */
export function looksAt(circuit: Circuit): readonly WrittenLook[] {
  return onceFor(looks, circuit, liveLooksAt)
}

const [looks, deadLooks] = [
  new WeakMap<Circuit, readonly WrittenLook[]>(),
  new WeakMap<Circuit, readonly WrittenLook[]>(),
]

function onceFor<T>(known: WeakMap<Circuit, T>, circuit: Circuit, make: (circuit: Circuit) => T): T {
  let made = known.get(circuit)
  if (made === undefined) known.set(circuit, (made = make(circuit)))
  return made
}

function liveLooksAt(circuit: Circuit): WrittenLook[] {
  const { installation } = circuit
  const found: WrittenLook[] = []
  for (const { device, type } of circuit.devices) {
    const { id } = device
    const moves = type.primitives.filter((p) => p.kind === 'actuator')
    if (moves.some((p) => p.lever)) found.push({ at: 'lever', device: id })
    if (moves.length > 0) found.push({ at: 'motor', device: id }, { at: 'spindle', device: id })
    if (hasClock(type)) found.push({ at: 'clock', device: id })
    if (type.inputs.length > 0) found.push({ at: 'boiler', device: id }, { at: 'display', device: id })
    for (const part of type.primitives) {
      if (part.kind === 'load' && part.work === 'runs') found.push({ at: 'pump', device: id })
      if (part.kind === 'load' && part.lights) found.push({ at: 'lamps', device: id })
      if (part.kind === 'fuse') found.push({ at: 'fuse', device: id })
      if (part.kind === 'residual-trip') found.push({ at: 'trip', device: id })
      if (part.kind === 'port') found.push({ at: 'pipe', connection: `${id}.${part.to}` })
    }
    const source = circuit.sources.find((s) => nth(circuit.devices, s.device).device.id === id)
    const line = source && type.terminals.find((t) => !t.internal)
    if (line) found.push({ at: 'points', with: 'power', red: `${id}.${line.id}` })
  }
  for (const { device } of circuit.water.emitters)
    found.push({ at: 'warmth', device: nth(circuit.devices, device).device.id })
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
  const seen = new Set<string>()
  return found.filter((look) => {
    const key = JSON.stringify(look)
    return !seen.has(key) && seen.add(key)
  })
}

/**
 * Looks at what is isolated: over each winding, and each contact that a person can set, from where a probe reaches both ends;
 * from whatever may leak to where it would leak; and, covers off, by the eyes.
 */
export function deadLooksAt(circuit: Circuit): readonly WrittenLook[] {
  return onceFor(deadLooks, circuit, deadLooksOf)
}

function deadLooksOf(circuit: Circuit): WrittenLook[] {
  const probes = probesOf(circuit)
  const found = new Map<string, WrittenLook>()
  const add = (look: WrittenLook) => found.set(JSON.stringify(look), look)
  const over = (device: number, a: string, b: string, instrument: 'resistance' | 'insulation') => {
    const { id } = nth(circuit.devices, device).device
    const [red, black] = [a, b].map((terminal) => probes(`${id}.${terminal}`))
    if (red === undefined || black === undefined || red === black) return
    add({ at: 'points', with: instrument, red, black })
  }
  const { earth } = circuit.sources[0] ?? {}
  circuit.devices.forEach(({ device: { id }, type }, device) => {
    if (canBeOpened(circuit, id)) add({ at: 'eyes', thing: id })
    if (canBeOpened(circuit, id) && comparedAt(circuit.installation, id) > 0) add({ at: 'wiring', thing: id })
    for (const { id: terminal, role } of type.terminals) {
      const red = role === 'earth' ? probes(`${id}.${terminal}`, true) : undefined
      if (red !== undefined && earth !== undefined) add({ at: 'points', with: 'earth', red })
    }
    for (const part of type.primitives) {
      if (part.kind === 'load' && part.dcPercent !== undefined) over(device, part.from, part.to, 'resistance')
      if (part.kind === 'contact') over(device, part.a, part.b, 'resistance')
      if (part.kind === 'insulation') {
        over(device, part.a, part.b, 'insulation')
        // An ohmmeter tells less of it, but may be put where no insulation tester may.
        over(device, part.a, part.b, 'resistance')
      }
    }
  })
  for (const { id } of circuit.installation.wiringCentres) {
    add({ at: 'eyes', thing: id })
    add({ at: 'wiring', thing: id })
  }
  return [...found.values()]
}

/** A device whose terminals lie under a cover that comes off: one with nothing but a fixed lead is left shut. */
export const canBeOpened = (circuit: Circuit, id: string): boolean =>
  nth(circuit.devices, circuit.deviceIndex.get(id) ?? -1).type.terminals.some((t) =>
    reachable(circuit, id, `${id}.${t.id}`, true),
  )

/**
 * Where a probe is put to be on the conductor of a terminal: in the wiring centre where it comes there, else at the terminal;
 * `there`, at the terminal itself.
 */
export function probesOf(circuit: Circuit): (ref: string, there?: boolean) => string | undefined {
  const nets = wiredNets(circuit)
  const inCentre = new Map<number, string>()
  circuit.atoms.forEach(({ kind, ref }, i) => {
    const net = nth(nets, i)
    if (kind === 'centre' && !inCentre.has(net)) inCentre.set(net, ref)
  })
  return (ref, there = false) => {
    const atom = circuit.atomIndex.get(ref)
    if (atom === undefined) return undefined
    const { kind, owner } = nth(circuit.atoms, atom)
    if (kind === 'internal') return undefined
    const own = reachable(circuit, owner, ref, true) ? ref : undefined
    return there ? own : (inCentre.get(nth(nets, atom)) ?? own)
  }
}

/** It is made with the supply off: a dead test, a head or a cover taken off. */
export const needsIsolation = (see: WrittenLook): boolean => isDeadTest(see) || see.at === 'spindle' || isByEye(see)

/** What lies there is looked at, not what it does. */
export const isByEye = (see: WrittenLook): boolean => see.at === 'eyes' || see.at === 'wiring'

export const isDeadTest = (see: WrittenLook): boolean => see.at === 'points' && deadTests.has(see.with)

/** A terminal under a fixed lead cannot be reached with a probe; an earth is not read for live. */
function reachable(circuit: Circuit, owner: string, ref: string, earthToo = false): boolean {
  const index = circuit.deviceIndex.get(owner)
  if (index === undefined) return false
  const { type } = nth(circuit.devices, index)
  const terminal = type.terminals.find((t) => `${owner}.${t.id}` === ref)
  return terminal !== undefined && !terminal.lead && (earthToo || terminal.role !== 'earth')
}
