import { electricsOf, potentials, shortCircuit, type Circuit, type Electrics, type Potential } from '../circuit'
import { ActionError } from './actions'
import { behaviours, type BehaviourState } from './behaviours'
import { holds, type View } from './conditions'
import { copyDamage, damageKey, inflict, noDamage, NOT_HELD, type Damage, type DamageState } from './damage'
import type { Motion, SimEvent } from './events'
import { Protection } from './protection'
import { Rounds } from './rounds'
import { senses } from './sensing'

/** Contacts break before they make, and neither takes no time: nothing can loop in zero time. Usual values. */
const breakMs = 2
const makeMs = 5
/** A load under more volts than it withstands is gone in this: usual for small electronics and windings. */
const burnMs = 20
/** Travel is counted in fractions; sums of floating steps may fall short of a threshold by a rounding. */
const travelTolerance = 1e-9

/** Events that leave something broken or open. */
const lasting: ReadonlySet<SimEvent['kind']> = new Set(['short', 'fuse', 'trip', 'burnt'])

export type Verdict = 'settled' | 'hunting' | 'unfinished'

/**
 * An installation in time. Event-driven and deterministic: the same actions give the same history. Times are whole
 * milliseconds from the start; between events only valve travel changes, in straight lines.
 *
 * @example
 * const sim = new Simulation(compile(installation))
 * sim.set('programmer', 'heating', 'on')
 * sim.settle() // 'settled'
 * sim.potentialAt('boiler.SL') // { state: 'live', volts: 230 }
 */
export class Simulation {
  time = 0
  /** Everything that happened since the start, oldest first. */
  history: SimEvent[] = []
  hunting = false

  private readonly controls: (string | number)[]
  private readonly closed: Uint8Array
  private readonly contactDue: Float64Array
  private readonly position: Float64Array
  private readonly velocity: Float64Array
  private readonly motion: Motion[]
  private readonly sensing: Uint8Array
  private readonly cams: Uint8Array
  private readonly energisedLoads: Uint8Array
  private readonly burnDue: Float64Array
  private readonly working: Uint8Array
  private phases: BehaviourState[]
  private damage: DamageState
  /** Everything the damage says about the circuit, as text: half of what names an electrical state. */
  private damageKey: string
  private readonly protection: Protection
  private shorted = false
  private now!: Electrics
  private readonly view: View
  private readonly rounds: Rounds

  /** Starts with every control at rest, everything settled, at time 0 with an empty history. */
  constructor(
    readonly circuit: Circuit,
    from?: Simulation,
  ) {
    this.controls = from ? from.controls.slice() : circuit.controls.map((c) => c.initial)
    this.closed = from ? from.closed.slice() : new Uint8Array(circuit.contacts.length)
    this.contactDue = from ? from.contactDue.slice() : new Float64Array(circuit.contacts.length).fill(Infinity)
    this.position = from ? from.position.slice() : new Float64Array(circuit.actuators.length)
    this.velocity = from ? from.velocity.slice() : new Float64Array(circuit.actuators.length)
    this.motion = from ? from.motion.slice() : circuit.actuators.map(() => 'shut' as const)
    this.sensing = from ? from.sensing.slice() : new Uint8Array(circuit.sensors.length)
    this.cams = from ? from.cams.slice() : new Uint8Array(circuit.cams.length)
    this.burnDue = from ? from.burnDue.slice() : new Float64Array(circuit.loads.length).fill(Infinity)
    this.energisedLoads = from ? from.energisedLoads.slice() : new Uint8Array(circuit.loads.length)
    this.working = from ? from.working.slice() : new Uint8Array(circuit.loads.length)
    this.phases = from ? from.phases.slice() : circuit.behaviours.map((b) => behaviours[b.part.behaviour].initial)
    this.damage = from ? copyDamage(from.damage) : noDamage(circuit)
    this.damageKey = from ? from.damageKey : damageKey(this.damage)
    this.protection = new Protection(circuit, from?.protection)
    this.rounds = from ? from.rounds.copy() : new Rounds()
    this.view = {
      controls: this.controls,
      energised: this.energisedLoads,
      sensing: this.sensing,
      position: this.position,
      velocity: this.velocity,
      cams: this.cams,
      phase: (i) => this.phases[i].phase,
    }
    if (from) {
      this.time = from.time
      this.history = from.history.slice()
      this.hunting = from.hunting
      this.shorted = from.shorted
      this.now = from.now
    } else {
      this.react()
      this.settle()
      this.time = 0
      // What the wiring did to itself as the supply came on is part of the story; relays pulling in are not.
      this.history = this.history.filter((e) => lasting.has(e.kind)).map((e) => ({ ...e, time: 0 }))
    }
  }

  /** A simulation that goes its own way from here. */
  fork(): Simulation {
    return new Simulation(this.circuit, this)
  }

  /** Sets a control. Throws {@link ActionError} where device, control or value do not exist. */
  set(device: string, control: string, value: string): void {
    const at = this.circuit.deviceIndex.get(device)
    if (at === undefined) throw new ActionError(`there is no device "${device}"`)
    const { type, controlIndex } = this.circuit.devices[at]
    const kind = type.controls.find((c) => c.id === control)
    if (!kind) {
      const known = type.controls.map((c) => c.id).join(', ')
      throw new ActionError(`"${device}" has no control "${control}"${known ? `: it has ${known}` : ''}`)
    }
    if (kind.kind === 'choice') {
      if (!kind.values.some((v) => v.id === value))
        throw new ActionError(`${device}.${control} is ${kind.values.map((v) => v.id).join(' or ')}, not "${value}"`)
      this.controls[controlIndex.get(control)!] = value
    } else {
      const number = Number(value)
      if (!Number.isFinite(number) || number < kind.min || number > kind.max)
        throw new ActionError(`${device}.${control} is ${kind.min} to ${kind.max} ${kind.unit}, not "${value}"`)
      this.controls[controlIndex.get(control)!] = number
    }
    this.log({ time: this.time, kind: 'control', device, control, value })
    this.touched()
  }

  /** Breaks or mends parts, under the name it is to have in the history. */
  apply(fault: string, damage: readonly Damage[], present: boolean): void {
    for (const d of damage) inflict(this.damage, d, present)
    this.damageKey = damageKey(this.damage)
    this.log({ time: this.time, kind: present ? 'fault' : 'mend', fault })
    this.touched()
  }

  /** Simulated time in ms of the next event, Infinity where nothing is under way. */
  nextEventAt(): number {
    let next = this.protection.nextAt()
    for (const due of this.burnDue) if (due < next) next = due
    for (let i = 0; i < this.contactDue.length; i++) if (this.contactDue[i] < next) next = this.contactDue[i]
    for (let i = 0; i < this.position.length; i++) {
      const at = this.travelEventAt(i)
      if (at < next) next = at
    }
    for (const phase of this.phases) if (phase.until < next) next = phase.until
    return next
  }

  /** Goes to the next event and through everything that happens at that instant. False where nothing is under way. */
  step(): boolean {
    const next = this.nextEventAt()
    if (next === Infinity) return false
    this.moveTo(next)
    this.react()
    return true
  }

  /** Lets `ms` milliseconds pass. Stops early, and says so, after `cap` events. */
  run(ms: number, cap = 200_000): boolean {
    const until = this.time + ms
    for (let events = 0; this.nextEventAt() <= until; events++) {
      if (events >= cap) return false
      this.step()
    }
    this.moveTo(until)
    return true
  }

  /** Runs until nothing is under way, the installation is found hunting, or `cap` events have passed. */
  settle(cap = 2000): Verdict {
    for (let events = 0; events < cap; events++) {
      if (this.hunting) return 'hunting'
      if (!this.step()) return 'settled'
    }
    return this.hunting ? 'hunting' : 'unfinished'
  }

  // What can be asked of it.

  /** The electrical answer for the state it is in. */
  get electrics(): Electrics {
    return this.now
  }
  /** Is line joined to neutral or earth just now? */
  get shortNow(): boolean {
    return this.shorted
  }
  potentials(): Potential[] {
    return potentials(this.now)
  }
  potentialAt(ref: string): Potential {
    return this.potentials()[this.circuit.atomIndex.get(ref)!]
  }
  control(device: string, control: string): string | number {
    return this.controls[this.circuit.devices[this.circuit.deviceIndex.get(device)!].controlIndex.get(control)!]
  }
  contactClosed(contact: number): boolean {
    return this.closed[contact] === 1
  }
  /** Should this throw be closed, by its own device's condition? Differs from what it is when it has failed or is on its way. */
  contactShouldBeClosed(contact: number): boolean {
    const c = this.circuit.contacts[contact]
    return holds(c.closedWhen, this.circuit.devices[c.device], this.view) !== c.inverted
  }
  /** Does its device ask for this throw to be closed, by controls and what it senses, supply taken as given? */
  contactAsked(contact: number): boolean {
    const c = this.circuit.contacts[contact]
    const supplied = { ...this.view, energised: new Uint8Array(this.energisedLoads.length).fill(1) }
    return holds(c.closedWhen, this.circuit.devices[c.device], supplied) !== c.inverted
  }
  contactHeld(contact: number): boolean {
    return this.damage.heldContacts[contact] !== NOT_HELD
  }
  edgeBroken(edge: number): boolean {
    return this.damage.broken[edge] === 1
  }
  fuseBlown(fuse: number): boolean {
    return this.damage.blown[fuse] === 1
  }
  loadEnergised(load: number): boolean {
    return this.energisedLoads[load] === 1
  }
  /** Do half-waves through this winding hold its rotor? */
  loadHolds(load: number): boolean {
    return this.damage.openLoads[load] === 0 && this.now.loadMeans[load] >= this.circuit.loads[load].holdsOn
  }
  loadOpen(load: number): boolean {
    return this.damage.openLoads[load] === 1
  }
  loadWorking(load: number): boolean {
    return this.working[load] === 1
  }
  actuatorPosition(actuator: number): number {
    return this.position[actuator]
  }
  actuatorMotion(actuator: number): Motion {
    return this.motion[actuator]
  }
  /** Is its travel not free: seized somewhere, or with nothing to take it back? */
  actuatorHeld(actuator: number): boolean {
    return this.damage.heldActuators[actuator] !== NOT_HELD || this.damage.brokenSprings[actuator] === 1
  }
  loadJammed(load: number): boolean {
    return this.damage.jammedLoads[load] === 1
  }
  sensorAsks(sensor: number): boolean {
    return this.sensing[sensor] === 1
  }
  phase(behaviour: number): BehaviourState {
    return this.phases[behaviour]
  }

  // How it goes on.

  private log(event: SimEvent): void {
    this.history.push(event)
  }

  private touched(): void {
    this.rounds.forget()
    this.hunting = false
    this.react()
  }

  private travelEventAt(i: number): number {
    const v = this.velocity[i]
    if (v === 0) return Infinity
    const p = this.position[i]
    const { thresholds, releases } = this.circuit.actuators[i]
    const target =
      v > 0 ? Math.min(1, thresholds.find((t) => t > p) ?? 1) : Math.max(0, releases.findLast((t) => t < p) ?? 0)
    return Math.max(this.time + 1, Math.ceil(this.time + (target - p) / v - 1e-6))
  }

  private moveTo(time: number): void {
    const ms = time - this.time
    this.time = time
    if (ms === 0) return
    for (let i = 0; i < this.position.length; i++)
      this.position[i] = Math.min(1, Math.max(0, this.position[i] + this.velocity[i] * ms))
  }

  /** Everything that happens at one instant: due contacts and fuses switch, then each part answers what it sees. */
  private react(): void {
    this.switchDueContacts()
    this.openProtection()
    this.burnLoads()
    this.now = electricsOf(this.circuit, { ...this.damage, closed: this.closed }, this.stateKey())
    this.noticeShort()
    this.protection.watch(this.now, this.time)
    this.updateLoads()
    this.updateTravel()
    this.updateCams()
    this.updateSensors()
    this.updateBehaviours()
    this.scheduleContacts()
    this.countVisit()
  }

  /** Names the electrical state: contacts sixteen to a character, then the damage. */
  private stateKey(): string {
    let key = ''
    for (let i = 0; i < this.closed.length; i += 16) {
      let bits = 0
      for (let k = 0; k < 16 && i + k < this.closed.length; k++) bits |= this.closed[i + k] << k
      key += String.fromCharCode(bits)
    }
    return `${key}|${this.damageKey}`
  }

  private switchDueContacts(): void {
    for (let i = 0; i < this.closed.length; i++) {
      const held = this.damage.heldContacts[i]
      if (held !== NOT_HELD) {
        this.contactDue[i] = Infinity
        if (this.closed[i] !== held) this.switchContact(i, held)
      } else if (this.contactDue[i] <= this.time) {
        this.contactDue[i] = Infinity
        this.switchContact(i, this.closed[i] ? 0 : 1)
      }
    }
  }

  private switchContact(i: number, to: number): void {
    this.closed[i] = to
    const { device, part, throw: name } = this.circuit.contacts[i]
    const id = this.circuit.devices[device].device.id
    this.log({ time: this.time, kind: 'contact', device: id, part: part.id, throw: name, closed: to === 1 })
  }

  private noticeShort(): void {
    const now = shortCircuit(this.circuit, this.now.nets)
    if (now && !this.shorted) this.log({ time: this.time, kind: 'short' })
    this.shorted = now
  }

  private openProtection(): void {
    const fuse = this.protection.blowing(this.time)
    if (fuse !== undefined) {
      this.damage.blown[fuse] = 1
      this.damageKey = damageKey(this.damage)
      const { device, part } = this.circuit.fuses[fuse]
      this.log({ time: this.time, kind: 'fuse', device: this.circuit.devices[device].device.id, part: part.id })
    }
    for (const trip of this.protection.tripping(this.time)) {
      const { device, part } = this.circuit.trips[trip]
      const { control, to } = part.throws
      this.controls[this.circuit.devices[device].controlIndex.get(control)!] = to
      this.log({ time: this.time, kind: 'trip', device: this.circuit.devices[device].device.id, part: part.id })
    }
  }

  private burnLoads(): void {
    this.burnDue.forEach((due, i) => {
      if (due > this.time) return
      this.burnDue[i] = Infinity
      this.damage.openLoads[i] = 1
      this.damageKey = damageKey(this.damage)
      const { device, part } = this.circuit.loads[i]
      this.log({ time: this.time, kind: 'burnt', device: this.circuit.devices[device].device.id, part: part.id })
    })
  }

  private updateLoads(): void {
    // A short lasts some milliseconds; what hangs on the supply rides through them on what it has stored.
    if (this.shorted && this.protection.nextAt() < Infinity) return
    this.circuit.loads.forEach(({ device, part, pullsIn, dropsOut, withstands }, i) => {
      const whole = !this.damage.openLoads[i]
      const volts = this.now.loadVolts[i]
      const on = whole && volts >= (this.energisedLoads[i] ? dropsOut : pullsIn) ? 1 : 0
      this.energisedLoads[i] = on
      if (!whole || volts <= withstands) this.burnDue[i] = Infinity
      else if (this.burnDue[i] === Infinity) this.burnDue[i] = this.time + burnMs
      if (!part.work) return
      const works = on && !this.damage.jammedLoads[i] ? 1 : 0
      if (works === this.working[i]) return
      this.working[i] = works
      const id = this.circuit.devices[device].device.id
      this.log({ time: this.time, kind: 'work', device: id, part: part.id, running: works === 1 })
    })
  }

  private updateTravel(): void {
    this.circuit.actuators.forEach(({ device, part, drivenBy, movedBy, reversed, openMs, returnMs }, i) => {
      const held = this.damage.heldActuators[i]
      if (held !== NOT_HELD) this.position[i] = held
      const p = this.position[i]
      const turns = (load: number) => this.energisedLoads[load] === 1 && !this.damage.jammedLoads[load]
      const driven = turns(drivenBy) !== reversed
      // Half-waves hold a rotor that is at rest or driving; they cannot stop one on its way back.
      const holding = this.loadHolds(drivenBy) && this.velocity[i] >= 0 && p > 0
      const stays = movedBy === undefined ? holding || this.damage.brokenSprings[i] === 1 : !turns(movedBy)
      const moves = held === NOT_HELD && (movedBy === undefined || !stays)
      let v = 0
      if (moves) v = driven ? (p < 1 ? 1 / openMs : 0) : p > 0 && !stays ? -1 / returnMs : 0
      this.velocity[i] = v
      const resting: Motion = p >= 1 ? 'open' : p <= 0 ? 'shut' : holding ? 'held' : 'stopped'
      const motion: Motion = v > 0 ? 'opening' : v < 0 ? 'closing' : resting
      if (motion === this.motion[i]) return
      this.motion[i] = motion
      const id = this.circuit.devices[device].device.id
      this.log({ time: this.time, kind: 'travel', device: id, part: part.id, motion, position: p })
    })
  }

  private updateCams(): void {
    this.circuit.cams.forEach(({ actuator, reached, releasedAt }, i) => {
      const p = this.position[actuator]
      if (p >= reached - travelTolerance) this.cams[i] = 1
      else if (p <= releasedAt + travelTolerance) this.cams[i] = 0
    })
  }

  private updateSensors(): void {
    this.circuit.sensors.forEach((sensor, i) => {
      const heated = sensor.accelerator !== undefined && this.energisedLoads[sensor.accelerator.load] === 1
      const temperature = Number(this.controls[sensor.reads])
      const set = Number(this.controls[sensor.setPoint])
      this.sensing[i] = senses(sensor, temperature, set, heated, this.sensing[i] === 1) ? 1 : 0
    })
  }

  private updateBehaviours(): void {
    this.circuit.behaviours.forEach(({ device, part, watches, figures }, i) => {
      const seen: Record<string, boolean> = {}
      for (const role in watches) seen[role] = this.energisedLoads[watches[role]] === 1
      for (;;) {
        const next = behaviours[part.behaviour].react(this.phases[i], seen, figures, this.time)
        if (next === this.phases[i]) break
        const changed = next.phase !== this.phases[i].phase
        this.phases[i] = next
        if (changed) {
          const id = this.circuit.devices[device].device.id
          this.log({ time: this.time, kind: 'phase', device: id, part: part.id, phase: next.phase })
        }
      }
    })
  }

  private scheduleContacts(): void {
    for (let i = 0; i < this.closed.length; i++) {
      if (this.damage.heldContacts[i] !== NOT_HELD) continue
      const wanted = this.contactShouldBeClosed(i) ? 1 : 0
      if (wanted === this.closed[i]) this.contactDue[i] = Infinity
      else if (this.contactDue[i] === Infinity) this.contactDue[i] = this.time + (wanted ? makeMs : breakMs)
    }
  }

  private countVisit(): void {
    const phases = this.phases.map((p) => p.phase).join()
    const { blown } = this.damage
    const state = [this.closed.join(''), this.motion.join(), this.sensing.join(''), phases, blown.join('')].join('|')
    // An overload is under way to a fuse: whatever repeats, that does not.
    if (!this.rounds.enter(state) || this.hunting || this.protection.nextAt() < Infinity) return
    this.hunting = true
    this.log({ time: this.time, kind: 'hunting' })
  }
}
