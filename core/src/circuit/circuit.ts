import type {
  Actuator,
  Amount,
  BehaviourPart,
  Changeover,
  Condition,
  Contact,
  DeviceType,
  Fuse,
  Load,
  Sensor,
  TerminalRole,
} from '../catalogue'
import type { Cable, Core, Device, Installation, Link } from '../installation'

/** A point conductors can be joined at: a terminal, a connector, or the free end of a conductor. */
export interface Atom {
  /** `owner.terminal`; for a free conductor end `cable.core` with the end's number behind it. */
  ref: string
  owner: string
  legend: string
  kind: 'device' | 'internal' | 'centre' | 'connector' | 'free-end'
  role?: TerminalRole
  /** A conductor here has an end nobody has found: what is joined to this point is not fully known. */
  uncertain: boolean
}

interface EdgeBase {
  a: number
  b: number
}
/** What joins two atoms, with its identity, so that a path can be told hop by hop and a fault taken out of it. */
export type Edge = EdgeBase &
  (
    | { kind: 'core'; cable: Cable; core: Core }
    | { kind: 'link'; link: Link }
    | { kind: 'strap'; device: number; part: string; label: string }
    | { kind: 'contact'; contact: number }
    | { kind: 'fuse'; fuse: number }
  )

/** One throw of a contact or changeover. */
export interface ContactThrow {
  device: number
  part: Contact | Changeover
  /** `made` for a plain contact, `no` and `nc` for the throws of a changeover. */
  throw: 'made' | 'no' | 'nc'
  edge: number
  /** Closed when the condition says so, or for a normally closed throw when it does not. */
  closedWhen: Condition
  inverted: boolean
}

export interface CompiledDevice {
  device: Device
  type: DeviceType
  /** Index of each control's value in the simulation's vector. */
  controlIndex: Map<string, number>
  loadIndex: Map<string, number>
  actuatorIndex: Map<string, number>
  sensorIndex: Map<string, number>
  behaviourIndex: Map<string, number>
  /** A figure in its own unit, from the device's settings, else the type's default. */
  amount(amount: Amount): number
}

export interface CompiledLoad {
  device: number
  part: Load
  a: number
  b: number
  watts: number
}
export interface CompiledFuse {
  device: number
  part: Fuse
  edge: number
  amps: number
}
export interface CompiledActuator {
  device: number
  part: Actuator
  drivenBy: number
  openMs: number
  returnMs: number
  /** Fractions of travel at which some contact switches, ascending. */
  thresholds: number[]
}
export interface CompiledSensor {
  device: number
  part: Sensor
  reads: number
  setPoint: number
  differential: number
  accelerator?: { load: number; differential: number }
}
export interface CompiledBehaviour {
  device: number
  part: BehaviourPart
  watches: Record<string, number>
  figures: Record<string, number>
}
export interface CompiledSource {
  device: number
  line: number
  neutral: number
  earth: number
}

/** The installation made ready for computing: indices instead of names. Holds no state; one serves many simulations. */
export interface Circuit {
  installation: Installation
  atoms: Atom[]
  atomIndex: Map<string, number>
  edges: Edge[]
  /** Edges at each atom. */
  edgesAt: number[][]
  devices: CompiledDevice[]
  deviceIndex: Map<string, number>
  contacts: ContactThrow[]
  loads: CompiledLoad[]
  fuses: CompiledFuse[]
  actuators: CompiledActuator[]
  sensors: CompiledSensor[]
  behaviours: CompiledBehaviour[]
  sources: CompiledSource[]
  /** Owner and initial value of each control, in vector order. */
  controls: { device: number; id: string; initial: string | number }[]
}

/** The other end of an edge. */
export const across = (edge: Edge, atom: number): number => (edge.a === atom ? edge.b : edge.a)
