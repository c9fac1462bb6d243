import {
  type EdgeId,
  type NetId,
  currentBounds,
  currentsWithin,
  EARTH,
  LINE,
  NEUTRAL,
  type ElectricalAnswer,
  type Circuit,
  type Electrics,
} from '../circuit'

/** A cartridge fuse carries this multiple of its rating without end (its conventional non-fusing current). */
const carries = 1.6
/**
 * Melting time t = meltSeconds / (m² − carries²) at m times the rating: ten seconds at twice, half a second at three
 * and a half times, milliseconds at a short. The usual course of a cartridge fuse for plugs and spurs.
 */
const meltSeconds = 5
/** Nothing melts in less: a whole step of the clock. */
const leastMs = 1
/** A residual current device opens within this, ms (usual; 300 ms are allowed at its rating, 40 ms at five times). */
const tripMs = 30
/** From this multiple of its rating the release of a residual current device goes through though the fault has gone. */
const certainTrip = 5

/** What a protective device is about to do. */
interface Overload {
  /** Milliseconds from when it began. */
  ms: number
  /** It happens even if its cause ends before. */
  certain: boolean
}

interface Overloads {
  /** By number: of fuses, and of residual trips. */
  fuses: ReadonlyMap<number, Overload>
  trips: ReadonlyMap<number, Overload>
}

const none: Overloads = { fuses: new Map(), trips: new Map() }
const overloadsByState = new WeakMap<ElectricalAnswer, Overloads>()

/** What protective devices look at: whole electrical states are worked out only where there is something to look for. */
export interface Protected {
  readonly circuit: Circuit
  readonly electrics: Electrics
  readonly insulationFailed: boolean
}

/** Fuses that carry more than they can, and residual trips that see a difference, in one electrical state. */
function overloads(at: Protected, answer: ElectricalAnswer): Overloads {
  const { circuit } = at
  if (!answer.mainsShort && circuit.trips.length === 0 && !at.insulationFailed && cannotOverload(circuit)) return none
  const found = overloadsByState.get(answer)
  if (found) return found
  const { electrics } = at
  const { state, nets } = electrics
  const bounds = currentBounds(electrics)
  const currents = new Map<number, ReturnType<typeof currentsWithin>>()
  const through = (edge: EdgeId) => {
    const net = nets.netOf[circuit.edges[edge].a]
    if (!currents.has(net)) currents.set(net, currentsWithin(electrics, net))
    return currents.get(net)!.get(edge) ?? { re: 0, im: 0, mean: 0 }
  }
  const isShort = (net: NetId) => (nets.poles[net] & LINE) !== 0 && (nets.poles[net] & (NEUTRAL | EARTH)) !== 0

  const fuses = new Map<number, Overload>()
  circuit.fuses.forEach(({ edge, amps }, i) => {
    const net = nets.netOf[circuit.edges[edge].a]
    if (state.blown[i] || (!isShort(net) && bounds[net] <= carries * amps)) return
    const { re, im, mean } = through(edge)
    const multiple = Math.hypot(re, im, mean) / amps
    if (multiple > carries)
      fuses.set(i, { ms: (1000 * meltSeconds) / (multiple * multiple - carries * carries), certain: false })
  })
  const trips = new Map<number, Overload>()
  circuit.trips.forEach(({ contacts, amps }, i) => {
    const [line, neutral] = contacts.map((c) => through(circuit.contacts[c].edge))
    const residual = Math.hypot(line.re + neutral.re, line.im + neutral.im)
    if (residual >= amps) trips.set(i, { ms: tripMs, certain: residual >= certainTrip * amps })
  })
  const result = { fuses, trips }
  overloadsByState.set(answer, result)
  return result
}

const cannotByLoads = new WeakMap<Circuit['loads'], boolean>()

/** Would every load at once, at full volts, still be carried by the smallest fuse? */
function cannotOverload(circuit: Circuit): boolean {
  let verdict = cannotByLoads.get(circuit.loads)
  if (verdict === undefined) {
    const most = circuit.loads.reduce((sum, { nominal }, i) => {
      const branch = circuit.branches.find((b) => b.of.kind === 'load' && b.of.load === i)!
      return sum + Math.hypot(branch.y.re, branch.y.im) * Math.max(nominal, circuit.installation.supply.volts)
    }, 0)
    const smallest = Math.min(...circuit.fuses.map((f) => f.amps))
    verdict = most <= carries * smallest && circuit.transformers.length === 0
    cannotByLoads.set(circuit.loads, verdict)
  }
  return verdict
}

/** The clocks of the protective devices of one simulation. Times in simulated milliseconds. */
export class Protection {
  private fuseDue: Float64Array
  private tripDue: Float64Array
  private certain: Uint8Array
  /** Released, its contacts not yet apart. */
  private released: Uint8Array
  /** Melting times before rounding: of two fuses due at one moment the faster opens first. */
  private melting: Float64Array

  constructor(circuit: Circuit, from?: Protection) {
    this.fuseDue = from ? from.fuseDue.slice() : new Float64Array(circuit.fuses.length).fill(Infinity)
    this.tripDue = from ? from.tripDue.slice() : new Float64Array(circuit.trips.length).fill(Infinity)
    this.certain = from ? from.certain.slice() : new Uint8Array(circuit.trips.length)
    this.released = from ? from.released.slice() : new Uint8Array(circuit.trips.length)
    this.melting = from ? from.melting.slice() : new Float64Array(circuit.fuses.length).fill(Infinity)
  }

  /** Starts and stops the clocks as the currents are now. */
  watch(at: Protected, answer: ElectricalAnswer, now: number): void {
    const { fuses, trips } = overloads(at, answer)
    for (let i = 0; i < this.fuseDue.length; i++) {
      const overload = fuses.get(i)
      this.melting[i] = overload ? overload.ms : Infinity
      const due = overload ? now + Math.max(leastMs, Math.ceil(overload.ms)) : Infinity
      this.fuseDue[i] = overload ? Math.min(this.fuseDue[i], due) : Infinity
    }
    for (let i = 0; i < this.tripDue.length; i++) {
      const overload = trips.get(i)
      if (!overload) this.released[i] = 0
      if (overload && this.released[i]) continue
      if (overload) {
        this.tripDue[i] = Math.min(this.tripDue[i], now + overload.ms)
        if (overload.certain) this.certain[i] = 1
      } else if (!this.certain[i]) this.tripDue[i] = Infinity
    }
  }

  nextAt(): number {
    let next = Infinity
    for (const due of this.fuseDue) if (due < next) next = due
    for (const due of this.tripDue) if (due < next) next = due
    return next
  }

  /** The fuse that opens now: of several, the one that melts first. The others are looked at again after it. */
  blowing(now: number): number | undefined {
    let first: number | undefined
    this.fuseDue.forEach((due, i) => {
      if (due <= now && (first === undefined || this.melting[i] < this.melting[first])) first = i
    })
    if (first !== undefined) this.fuseDue[first] = Infinity
    return first
  }

  /** Residual trips that open now. */
  tripping(now: number): number[] {
    const due = [...this.tripDue.keys()].filter((i) => this.tripDue[i] <= now)
    for (const i of due) {
      this.tripDue[i] = Infinity
      this.certain[i] = 0
      this.released[i] = 1
    }
    return due
  }
}
