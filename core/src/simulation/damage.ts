import type { Circuit } from '../circuit'

/** One thing that is broken, by the compiled part it breaks. A fault is a list of these. */
export type Damage =
  | { part: 'edge'; index: number }
  | { part: 'contact'; index: number; held: 'open' | 'closed' }
  | { part: 'load'; index: number; how: 'open' | 'jammed' }
  | { part: 'actuator'; index: number; held: 'shut' | 'open' }
  | { part: 'fuse'; index: number }

export const NOT_HELD = -1

/** All the damage an installation has taken: part of its state, never of its document. */
export interface DamageState {
  broken: Uint8Array
  /** -1 free, 0 held open, 1 held closed. */
  heldContacts: Int8Array
  openLoads: Uint8Array
  jammedLoads: Uint8Array
  /** -1 free, 0 held shut, 1 held open. */
  heldActuators: Int8Array
  blown: Uint8Array
}

export const noDamage = (circuit: Circuit): DamageState => ({
  broken: new Uint8Array(circuit.edges.length),
  heldContacts: new Int8Array(circuit.contacts.length).fill(NOT_HELD),
  openLoads: new Uint8Array(circuit.loads.length),
  jammedLoads: new Uint8Array(circuit.loads.length),
  heldActuators: new Int8Array(circuit.actuators.length).fill(NOT_HELD),
  blown: new Uint8Array(circuit.fuses.length),
})

export const copyDamage = (from: DamageState): DamageState => ({
  broken: from.broken.slice(),
  heldContacts: from.heldContacts.slice(),
  openLoads: from.openLoads.slice(),
  jammedLoads: from.jammedLoads.slice(),
  heldActuators: from.heldActuators.slice(),
  blown: from.blown.slice(),
})

export function inflict(state: DamageState, damage: Damage, present: boolean): void {
  const bit = present ? 1 : 0
  switch (damage.part) {
    case 'edge':
      state.broken[damage.index] = bit
      break
    case 'contact':
      state.heldContacts[damage.index] = present ? (damage.held === 'closed' ? 1 : 0) : NOT_HELD
      break
    case 'load':
      ;(damage.how === 'open' ? state.openLoads : state.jammedLoads)[damage.index] = bit
      break
    case 'actuator':
      state.heldActuators[damage.index] = present ? (damage.held === 'open' ? 1 : 0) : NOT_HELD
      break
    case 'fuse':
      state.blown[damage.index] = bit
      break
  }
}
