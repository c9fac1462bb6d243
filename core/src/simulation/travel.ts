import type { Circuit } from '../circuit'
import { NOT_HELD, type PartFlags } from './defects'
import type { Motion } from './events'

/** Travel is counted in fractions; sums of floating steps may fall short of a threshold by a rounding. */
export const travelTolerance = 1e-9

/** What moves a valve just now, as the rest of the simulation sees it. */
export interface Drives {
  /** Does this load turn: energised, and not jammed? */
  turns(load: number): boolean
  /** Do half-waves through this winding hold its rotor? */
  holds(load: number): boolean
  /** Is the actuator's lever latched part open? */
  latched(actuator: number): boolean
  /** The motor has driven: the latch lets go. */
  unlatch(actuator: number): void
  moved(actuator: number, motion: Motion, position: number): void
}

/** Where every valve stands, how it moves, and which switches on its gear stand operated. */
export class Travel {
  readonly position: Float64Array
  /** Fractions of travel per millisecond, in straight lines between events. */
  readonly velocity: Float64Array
  readonly motion: Motion[]
  readonly cams: Uint8Array

  constructor(
    private readonly circuit: Circuit,
    from?: Travel,
  ) {
    const n = circuit.actuators.length
    this.position = from ? from.position.slice() : new Float64Array(n)
    this.velocity = from ? from.velocity.slice() : new Float64Array(n)
    this.motion = from ? from.motion.slice() : circuit.actuators.map(() => 'shut' as const)
    this.cams = from ? from.cams.slice() : new Uint8Array(circuit.cams.length)
  }

  /** Simulated time in ms, from `now`, at which something on the way switches or an end is reached. */
  nextAt(now: number): number {
    let next = Infinity
    for (let i = 0; i < this.position.length; i++) {
      const v = this.velocity[i]
      if (v === 0) continue
      const p = this.position[i]
      const { thresholds, releases } = this.circuit.actuators[i]
      const target =
        v > 0 ? Math.min(1, thresholds.find((t) => t > p) ?? 1) : Math.max(0, releases.findLast((t) => t < p) ?? 0)
      const at = Math.max(now + 1, Math.ceil(now + (target - p) / v - 1e-6))
      if (at < next) next = at
    }
    return next
  }

  pass(ms: number): void {
    for (let i = 0; i < this.position.length; i++)
      this.position[i] = Math.min(1, Math.max(0, this.position[i] + this.velocity[i] * ms))
  }

  update(flags: PartFlags, drives: Drives): void {
    this.circuit.actuators.forEach((actuator, i) => {
      const { drivenBy, movedBy, reversed, openMs, returnMs, latchedAt } = actuator
      const held = flags.heldActuators[i]
      if (held !== NOT_HELD) this.position[i] = held
      const driven = drives.turns(drivenBy) !== (reversed !== (flags.turnedHeads[i] === 1))
      if (driven && held === NOT_HELD && drives.latched(i)) drives.unlatch(i)
      if (held === NOT_HELD && drives.latched(i)) this.position[i] = Math.max(this.position[i], latchedAt)
      const p = this.position[i]
      // Half-waves hold a rotor that is at rest or driving; they cannot stop one on its way back.
      const holding = drives.holds(drivenBy) && this.velocity[i] >= 0 && p > 0
      const caught = drives.latched(i) && p <= latchedAt
      const stays = movedBy === undefined ? holding || caught || flags.brokenSprings[i] === 1 : !drives.turns(movedBy)
      const moves = held === NOT_HELD && (movedBy === undefined || !stays)
      let v = 0
      if (moves) v = driven ? (p < 1 ? 1 / openMs : 0) : p > 0 && !stays ? -1 / returnMs : 0
      this.velocity[i] = v
      const resting: Motion = p >= 1 ? 'open' : p <= 0 ? 'shut' : holding ? 'held' : caught ? 'latched' : 'stopped'
      const motion: Motion = v > 0 ? 'opening' : v < 0 ? 'closing' : resting
      if (motion === this.motion[i]) return
      this.motion[i] = motion
      drives.moved(i, motion, p)
    })
    this.circuit.cams.forEach(({ actuator, reached, releasedAt }, i) => {
      const p = this.position[actuator]
      if (p >= reached - travelTolerance) this.cams[i] = 1
      else if (p <= releasedAt + travelTolerance) this.cams[i] = 0
    })
  }
}
