import type {
  Actuator,
  Amount,
  BehaviourPart,
  BusPort,
  Changeover,
  Condition,
  ConditionLeaf,
  Contact,
  DeviceType,
  DiodePath,
  Fuse,
  Insulation,
  Load,
  Port,
  ResidualTrip,
  Sensor,
  Source,
  TerminalRole,
  Transformer,
} from '../catalogue'
import type { Cable, Core, Device, Installation, Link } from '../installation'
import type { AtomId, EdgeId } from './ids'
import type { Complex, Element } from './impedance'
import type { WaterCircuit } from './water-nets'

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
  a: AtomId
  b: AtomId
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
  edge: EdgeId
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
  busIndex: Map<string, number>
  wayIndex: Map<string, number>
  /** By the condition that speaks of it. */
  camIndex: Map<ConditionLeaf, number>
  /** A figure in its own unit, from the device's settings, else the type's default. */
  amount(amount: Amount): number
}

export interface CompiledLoad {
  device: number
  part: Load
  a: AtomId
  b: AtomId
  element: Element
  /** Volts: nominal, from which it works, below which it lets go, and beyond which it burns out. */
  nominal: number
  pullsIn: number
  dropsOut: number
  withstands: number
  /** Milliseconds without a pause after which it burns out; Infinity where it is rated for continuous duty. */
  ratedMs: number
  /** It is its device's own supply, or fed within the device: what the device asks for does not depend on it. */
  ownSupply: boolean
  /** Mean volts that hold a rotor at rest; Infinity where none do. */
  holdsOn: number
}
/** A linear element between two atoms, with what takes it out of the circuit or puts it in. */
export interface Branch {
  a: AtomId
  b: AtomId
  element: Element
  /** Its admittance at the supply's frequency, 1/Ω. */
  y: Complex
  of:
    | { kind: 'load'; load: number }
    | { kind: 'insulation'; insulation: number }
    | { kind: 'suppressor'; device: number; part: string }
    /** Between two cores of a cable, half of it at each end. */
    | { kind: 'capacitance'; cable: string }
    /** The leads of an instrument. */
    | { kind: 'instrument' }
}
export interface CompiledInsulation {
  device: number
  part: Insulation
}
export interface CompiledDiode {
  device: number
  part: DiodePath
  anode: AtomId
  cathode: AtomId
  ohms: number
}
export interface CompiledTransformer {
  device: number
  part: Transformer
  /** The load that is its primary winding. */
  primary: number
  fed: AtomId
  common: AtomId
  /** Secondary volts without load, per primary volt. */
  ratio: number
  /** Secondary volts at full load and nominal supply. */
  nominal: number
  /** Internal resistance, referred to the secondary. */
  seriesOhms: number
}
export interface CompiledTrip {
  device: number
  part: ResidualTrip
  /** Throws whose currents it compares, line and neutral. */
  contacts: [number, number]
  amps: number
}
export interface CompiledFuse {
  device: number
  part: Fuse
  edge: EdgeId
  amps: number
}
export interface CompiledActuator {
  device: number
  part: Actuator
  drivenBy: number
  /** The load that moves it either way; undefined where a spring takes it back. */
  movedBy?: number
  reversed: boolean
  openMs: number
  returnMs: number
  /** The travel its lever can be latched at; 0 where it has no latch. */
  latchedAt: number
  /** Fractions of travel at which a switch on the gear makes on the way up, and lets go on the way down. */
  makesAt: number[]
  letsGoAt: number[]
  /** Fractions of travel at which something switches or a port opens on the way up, ascending. */
  thresholds: number[]
  /** Fractions of travel at which something lets go or a port shuts on the way down, ascending. */
  releases: number[]
}
/** A switch on the gear that lets go lower than it makes: it remembers which it did last. */
export interface CompiledCam {
  actuator: number
  reached: number
  releasedAt: number
}
export interface CompiledPort {
  device: number
  part: Port
  actuator: number
}
export interface CompiledSensor {
  device: number
  part: Sensor
  reads: number
  setPoint: number
  differential: number
  accelerator?: { load: number; differential: number }
  /** The control it throws above its set-point. */
  throws?: { control: number; to: string }
}
export interface CompiledBehaviour {
  device: number
  part: BehaviourPart
  watches: Record<string, Condition>
  figures: Record<string, number>
  /** The control it throws when it locks itself out. */
  throws?: { control: number; to: string }
}
export interface CompiledBus {
  device: number
  part: BusPort
  a: AtomId
  b: AtomId
  /** The load that shows that its device is under supply. */
  powered: number
  /** Of a controller, the load that shows that the boiler feeds the link. */
  heard?: number
  answerMs: number
}
export interface CompiledSource {
  device: number
  part: Source
  line: AtomId
  neutral: AtomId
  earth: AtomId
  loopOhms: number
}

/** The installation made ready for computing: indices instead of names. Holds no state; one serves many simulations. */
export interface Circuit {
  installation: Installation
  /** The document has no pipes: these were laid in from what it is for. */
  pipesAssumed: boolean
  /** Angular frequency of the supply, rad/s. */
  omega: number
  atoms: Atom[]
  atomIndex: Map<string, AtomId>
  edges: Edge[]
  devices: CompiledDevice[]
  deviceIndex: Map<string, number>
  contacts: ContactThrow[]
  loads: CompiledLoad[]
  branches: Branch[]
  insulations: CompiledInsulation[]
  diodes: CompiledDiode[]
  transformers: CompiledTransformer[]
  fuses: CompiledFuse[]
  trips: CompiledTrip[]
  actuators: CompiledActuator[]
  cams: CompiledCam[]
  ports: CompiledPort[]
  sensors: CompiledSensor[]
  behaviours: CompiledBehaviour[]
  buses: CompiledBus[]
  sources: CompiledSource[]
  water: WaterCircuit
  /** Owner and initial value of each control, in vector order. */
  controls: { device: number; id: string; initial: string | number }[]
}

const edgesByAtom = new WeakMap<Circuit['edges'], EdgeId[][]>()

/** The edges at an atom, by their numbers, in order. */
export function edgesAt({ atoms, edges }: Circuit, atom: AtomId): readonly EdgeId[] {
  let at = edgesByAtom.get(edges)
  if (!at) {
    at = atoms.map((): EdgeId[] => [])
    for (let i = 0 as EdgeId; i < edges.length; i++) {
      at[edges[i].a].push(i)
      if (edges[i].b !== edges[i].a) at[edges[i].b].push(i)
    }
    edgesByAtom.set(edges, at)
  }
  return at[atom]
}

/** The other end of an edge. */
export const across = (edge: Edge, atom: AtomId): AtomId => (edge.a === atom ? edge.b : edge.a)

/** Where a signal can come from: the mains, and the secondary of every transformer. */
export interface Feed {
  line: AtomId
  neutral: AtomId
  /** The transformer whose secondary it is. */
  transformer?: number
}
export const feedsOf = (circuit: Circuit): Feed[] => [
  ...circuit.sources,
  ...circuit.transformers.map(({ fed, common }, transformer) => ({ line: fed, neutral: common, transformer })),
]
