import { wholeState, type Circuit, type CircuitState } from '../circuit'

/** One thing that is broken, by the compiled part it breaks. A fault is a list of these. */
export type Damage =
  | { part: 'edge'; index: number }
  | { part: 'contact'; index: number; held: 'open' | 'closed' }
  | { part: 'load'; index: number; how: 'open' | 'jammed' }
  | { part: 'actuator'; index: number; held: number }
  | { part: 'spring'; index: number }
  | { part: 'fuse'; index: number }
  | { part: 'insulation'; index: number }
  | { part: 'transformer'; index: number }
  | { part: 'diode'; index: number; how: 'open' | 'short' }

export const NOT_HELD = -1

/** All the damage an installation has taken: part of its state, never of its document. */
export interface DamageState extends Omit<CircuitState, 'closed'> {
  /** -1 free, 0 held open, 1 held closed. */
  heldContacts: Int8Array
  jammedLoads: Uint8Array
  /** -1 free, else the position it is held at. */
  heldActuators: Float64Array
  /** 1 where nothing takes the travel back. */
  brokenSprings: Uint8Array
}

/** The damage that shows in the circuit, as text; contacts that are held show by where they stand. */
export const damageKey = (d: DamageState): string =>
  [d.blown, d.broken, d.openLoads, d.openTransformers, d.failedInsulation, d.openDiodes, d.shortedDiodes]
    .map((bits) => bits.reduce((key, bit, i) => (bit ? `${key},${i}` : key), ''))
    .join(';')

export const noDamage = (circuit: Circuit): DamageState =>
  copyDamage({
    ...wholeState(circuit),
    heldContacts: new Int8Array(circuit.contacts.length).fill(NOT_HELD),
    jammedLoads: new Uint8Array(circuit.loads.length),
    heldActuators: new Float64Array(circuit.actuators.length).fill(NOT_HELD),
    brokenSprings: new Uint8Array(circuit.actuators.length),
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
      state.heldActuators[damage.index] = present ? damage.held : NOT_HELD
      break
    case 'spring':
      state.brokenSprings[damage.index] = bit
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
  }
}
