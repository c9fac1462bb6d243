import { wholeState, type Circuit, type CircuitState } from '../circuit'

/** One thing that is broken, by the compiled part it breaks. A fault is a list of these. */
export type Damage =
  | { part: 'edge'; index: number }
  | { part: 'contact'; index: number; held: 'open' | 'closed' | 'at-times' }
  | { part: 'load'; index: number; how: 'open' | 'jammed' | 'held' }
  | { part: 'actuator'; index: number; held: number }
  | { part: 'spring'; index: number }
  | { part: 'turned'; index: number }
  | { part: 'fuse'; index: number }
  | { part: 'insulation'; index: number }
  | { part: 'transformer'; index: number }
  | { part: 'diode'; index: number; how: 'open' | 'short' }
  | { part: 'sensor'; index: number }
  | { part: 'behaviour'; index: number }
  | { part: 'bus'; index: number }
  | { part: 'port'; index: number }

export const NOT_HELD = -1
/** Of a contact: makes at every other operation. */
export const AT_TIMES = 2

/** All the damage an installation has taken: part of its state, never of its document. */
export interface DamageState extends Omit<CircuitState, 'closed'> {
  /** -1 free, 0 held open, 1 held closed, 2 makes at times only. */
  heldContacts: Int8Array
  jammedLoads: Uint8Array
  /** 1 where a load is taken for energised whatever reaches it. */
  heldLoads: Uint8Array
  /** -1 free, else the position it is held at. */
  heldActuators: Float64Array
  /** 1 where nothing takes the travel back. */
  brokenSprings: Uint8Array
  /** 1 where the head is fitted turned. */
  turnedHeads: Uint8Array
  /** 1 where a sensor never asks. */
  deadSensors: Uint8Array
  /** 1 where a sequence has locked itself out. */
  lockedOut: Uint8Array
  /** 1 where a bus port is silent. */
  silentBuses: Uint8Array
  /** 1 where a water port lets by while it is shut. */
  passingPorts: Uint8Array
}

/** The damage that shows in the circuit, as text; contacts that are held show by where they stand. */
export const damageKey = (d: DamageState): string =>
  [d.blown, d.broken, d.openLoads, d.openTransformers, d.failedInsulation, d.openDiodes, d.shortedDiodes]
    .map((bits) => bits.reduce((key, bit, i) => (bit ? `${key},${i}` : key), ''))
    .join(';')

/**
 * What is broken of one device, as text: two devices of one type with the same text are broken alike. Conductors belong to no
 * device and are left out.
 */
export function deviceDamageText(circuit: Circuit, d: DamageState, device: number): string {
  const of = (parts: readonly { device: number }[], ...arrays: ArrayLike<number>[]): string =>
    parts.flatMap((part, i) => (part.device === device ? [arrays.map((a) => a[i]).join('/')] : [])).join()
  return [
    of(circuit.contacts, d.heldContacts),
    of(circuit.loads, d.openLoads, d.jammedLoads, d.heldLoads),
    of(circuit.actuators, d.heldActuators, d.brokenSprings, d.turnedHeads),
    of(circuit.fuses, d.blown),
    of(circuit.insulations, d.failedInsulation),
    of(circuit.transformers, d.openTransformers),
    of(circuit.diodes, d.openDiodes, d.shortedDiodes),
    of(circuit.sensors, d.deadSensors),
    of(circuit.behaviours, d.lockedOut),
    of(circuit.buses, d.silentBuses),
    of(circuit.ports, d.passingPorts),
  ].join(';')
}

export const noDamage = (circuit: Circuit): DamageState =>
  copyDamage({
    ...wholeState(circuit),
    heldContacts: new Int8Array(circuit.contacts.length).fill(NOT_HELD),
    jammedLoads: new Uint8Array(circuit.loads.length),
    heldActuators: new Float64Array(circuit.actuators.length).fill(NOT_HELD),
    brokenSprings: new Uint8Array(circuit.actuators.length),
    turnedHeads: new Uint8Array(circuit.actuators.length),
    heldLoads: new Uint8Array(circuit.loads.length),
    deadSensors: new Uint8Array(circuit.sensors.length),
    lockedOut: new Uint8Array(circuit.behaviours.length),
    silentBuses: new Uint8Array(circuit.buses.length),
    passingPorts: new Uint8Array(circuit.ports.length),
  })

export const copyDamage = (from: DamageState): DamageState => ({
  blown: from.blown.slice(),
  broken: from.broken.slice(),
  openLoads: from.openLoads.slice(),
  openTransformers: from.openTransformers.slice(),
  failedInsulation: from.failedInsulation.slice(),
  openDiodes: from.openDiodes.slice(),
  shortedDiodes: from.shortedDiodes.slice(),
  heldContacts: from.heldContacts.slice(),
  jammedLoads: from.jammedLoads.slice(),
  heldActuators: from.heldActuators.slice(),
  brokenSprings: from.brokenSprings.slice(),
  turnedHeads: from.turnedHeads.slice(),
  heldLoads: from.heldLoads.slice(),
  deadSensors: from.deadSensors.slice(),
  lockedOut: from.lockedOut.slice(),
  silentBuses: from.silentBuses.slice(),
  passingPorts: from.passingPorts.slice(),
})

const heldAs = { open: 0, closed: 1, 'at-times': AT_TIMES } as const
const loadDamage = { open: 'openLoads', jammed: 'jammedLoads', held: 'heldLoads' } as const

export function inflict(state: DamageState, damage: Damage, present: boolean): void {
  const bit = present ? 1 : 0
  switch (damage.part) {
    case 'edge':
      state.broken[damage.index] = bit
      break
    case 'contact':
      state.heldContacts[damage.index] = present ? heldAs[damage.held] : NOT_HELD
      break
    case 'load':
      state[loadDamage[damage.how]][damage.index] = bit
      break
    case 'actuator':
      state.heldActuators[damage.index] = present ? damage.held : NOT_HELD
      break
    case 'spring':
      state.brokenSprings[damage.index] = bit
      break
    case 'turned':
      state.turnedHeads[damage.index] = bit
      break
    case 'fuse':
      state.blown[damage.index] = bit
      break
    case 'insulation':
      state.failedInsulation[damage.index] = bit
      break
    case 'transformer':
      state.openTransformers[damage.index] = bit
      break
    case 'diode':
      ;(damage.how === 'open' ? state.openDiodes : state.shortedDiodes)[damage.index] = bit
      break
    case 'sensor':
      state.deadSensors[damage.index] = bit
      break
    case 'behaviour':
      state.lockedOut[damage.index] = bit
      break
    case 'bus':
      state.silentBuses[damage.index] = bit
      break
    case 'port':
      state.passingPorts[damage.index] = bit
      break
  }
}
