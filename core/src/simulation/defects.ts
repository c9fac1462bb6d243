import { wholeState, type Circuit, type CircuitState } from '../circuit'

/** One thing that is wrong with a part, by the compiled part. A fault is a list of these. */
export type Defect =
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
export const HELD_OPEN = 0
export const HELD_CLOSED = 1
/** Of a contact: makes at every other operation. */
export const AT_TIMES = 2

/** Of every part, what is wrong with it: what a set of defects comes to. Never of the installation's document. */
export interface PartFlags extends Omit<CircuitState, 'closed'> {
  /** {@link NOT_HELD}, {@link HELD_OPEN}, {@link HELD_CLOSED} or {@link AT_TIMES}. */
  heldContacts: Int8Array
  jammedLoads: Uint8Array
  /** 1 where a load is taken for energised whatever reaches it. */
  heldLoads: Uint8Array
  /** {@link NOT_HELD}, else the position it is held at, 0 to 1. */
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

export const noDefects = (circuit: Circuit): PartFlags => {
  const { blown, brokenEdges, openLoads, openTransformers, failedInsulation, openDiodes, shortedDiodes } =
    wholeState(circuit)
  return {
    blown,
    brokenEdges,
    openLoads,
    openTransformers,
    failedInsulation,
    openDiodes,
    shortedDiodes,
    heldContacts: new Int8Array(circuit.contacts.length).fill(NOT_HELD),
    jammedLoads: new Uint8Array(circuit.loads.length),
    heldLoads: new Uint8Array(circuit.loads.length),
    heldActuators: new Float64Array(circuit.actuators.length).fill(NOT_HELD),
    brokenSprings: new Uint8Array(circuit.actuators.length),
    turnedHeads: new Uint8Array(circuit.actuators.length),
    deadSensors: new Uint8Array(circuit.sensors.length),
    lockedOut: new Uint8Array(circuit.behaviours.length),
    silentBuses: new Uint8Array(circuit.buses.length),
    passingPorts: new Uint8Array(circuit.ports.length),
  }
}

/** What a set of defects comes to, in whatever order they are given. */
export function flagsOf(circuit: Circuit, defects: Iterable<Defect>): PartFlags {
  const flags = noDefects(circuit)
  for (const defect of defects) addTo(flags, defect)
  return flags
}

const heldAs = { open: HELD_OPEN, closed: HELD_CLOSED, 'at-times': AT_TIMES } as const
const loadFlags = { open: 'openLoads', jammed: 'jammedLoads', held: 'heldLoads' } as const

/**
 * Two defects of one part: a contact that conducts nothing conducts nothing, welded or not, and one that is welded does not miss;
 * of two places at which a valve sticks, it sticks at the first it comes to from rest.
 */
const stronger = (before: number, added: number): number => (before === NOT_HELD ? added : Math.min(before, added))

function addTo(flags: PartFlags, defect: Defect): void {
  const { index } = defect
  switch (defect.part) {
    case 'edge':
      flags.brokenEdges[index] = 1
      break
    case 'contact':
      flags.heldContacts[index] = stronger(flags.heldContacts[index], heldAs[defect.held])
      break
    case 'load':
      flags[loadFlags[defect.how]][index] = 1
      break
    case 'actuator':
      flags.heldActuators[index] = stronger(flags.heldActuators[index], defect.held)
      break
    case 'spring':
      flags.brokenSprings[index] = 1
      break
    case 'turned':
      flags.turnedHeads[index] = 1
      break
    case 'fuse':
      flags.blown[index] = 1
      break
    case 'insulation':
      flags.failedInsulation[index] = 1
      break
    case 'transformer':
      flags.openTransformers[index] = 1
      break
    case 'diode':
      ;(defect.how === 'open' ? flags.openDiodes : flags.shortedDiodes)[index] = 1
      break
    case 'sensor':
      flags.deadSensors[index] = 1
      break
    case 'behaviour':
      flags.lockedOut[index] = 1
      break
    case 'bus':
      flags.silentBuses[index] = 1
      break
    case 'port':
      flags.passingPorts[index] = 1
      break
  }
}

/** The flags that show in the circuit, as text; contacts that are held show by where they stand. */
export const flagsKey = (flags: PartFlags): string =>
  [
    flags.blown,
    flags.brokenEdges,
    flags.openLoads,
    flags.openTransformers,
    flags.failedInsulation,
    flags.openDiodes,
    flags.shortedDiodes,
  ]
    .map((bits) => bits.reduce((key, bit, i) => (bit ? `${key},${i}` : key), ''))
    .join(';')

/**
 * What is wrong with one device, as text: two devices of one type with the same text are broken alike. Conductors belong to no
 * device and are left out.
 */
export function deviceFlagsText(circuit: Circuit, flags: PartFlags, device: number): string {
  const of = (parts: readonly { device: number }[], ...arrays: ArrayLike<number>[]): string =>
    parts.flatMap((part, i) => (part.device === device ? [arrays.map((a) => a[i]).join('/')] : [])).join()
  return [
    of(circuit.contacts, flags.heldContacts),
    of(circuit.loads, flags.openLoads, flags.jammedLoads, flags.heldLoads),
    of(circuit.actuators, flags.heldActuators, flags.brokenSprings, flags.turnedHeads),
    of(circuit.fuses, flags.blown),
    of(circuit.insulations, flags.failedInsulation),
    of(circuit.transformers, flags.openTransformers),
    of(circuit.diodes, flags.openDiodes, flags.shortedDiodes),
    of(circuit.sensors, flags.deadSensors),
    of(circuit.behaviours, flags.lockedOut),
    of(circuit.buses, flags.silentBuses),
    of(circuit.ports, flags.passingPorts),
  ].join(';')
}
