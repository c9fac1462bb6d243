import {
  emptyNets,
  energised,
  fusesInShort,
  mergeNets,
  potentials,
  shortCircuit,
  type Circuit,
  type Joins,
  type Nets,
  type Potential,
} from '../circuit'
import { ActionError } from './actions'
import { behaviours, type BehaviourState } from './behaviours'
import { holds, type View } from './conditions'
import { copyDamage, inflict, noDamage, NOT_HELD, type Damage, type DamageState } from './damage'
import type { Motion, SimEvent } from './events'
import { Rounds } from './rounds'
import { senses } from './sensing'

/** Contacts break before they make, and neither takes no time: nothing can loop in zero time. Usual values. */
const breakMs = 2
const makeMs = 5
/** A fuse of a few amperes on a short of some hundred melts before any contact can answer (usual let-through energy). */
const fuseMs = 1

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
  private readonly energisedLoads: Uint8Array
  private readonly working: Uint8Array
  private phases: BehaviourState[]
  private damage: DamageState
  private fuseDue = Infinity
  private shorted = false
  private readonly nets: Nets
  private readonly view: View
  private readonly rounds: Rounds
  private potentialCache: Potential[] | undefined

  /** Starts with every control at rest, everything settled, at time 0 with an empty history. */
  constructor(
    readonly circuit: Circuit,
    from?: Simulation,
  ) {
    this.nets = emptyNets(circuit)
    this.controls = from ? from.controls.slice() : circuit.controls.map((c) => c.initial)
    this.closed = from ? from.closed.slice() : new Uint8Array(circuit.contacts.length)
    this.contactDue = from ? from.contactDue.slice() : new Float64Array(circuit.contacts.length).fill(Infinity)
    this.position = from ? from.position.slice() : new Float64Array(circuit.actuators.length)
    this.velocity = from ? from.velocity.slice() : new Float64Array(circuit.actuators.length)
    this.motion = from ? from.motion.slice() : circuit.actuators.map(() => 'shut' as const)
    this.sensing = from ? from.sensing.slice() : new Uint8Array(circuit.sensors.length)
    this.energisedLoads = from ? from.energisedLoads.slice() : new Uint8Array(circuit.loads.length)
    this.working = from ? from.working.slice() : new Uint8Array(circuit.loads.length)
    this.phases = from ? from.phases.slice() : circuit.behaviours.map((b) => behaviours[b.part.behaviour].initial)
    this.damage = from ? copyDamage(from.damage) : noDamage(circuit)
    this.rounds = from ? from.rounds.copy() : new Rounds()
    this.view = {
      controls: this.controls,
      energised: this.energisedLoads,
      sensing: this.sensing,
      position: this.position,
      velocity: this.velocity,
      phase: (i) => this.phases[i].phase,
    }
    if (from) {
      this.time = from.time
      this.history = from.history.slice()
      this.hunting = from.hunting
      this.fuseDue = from.fuseDue
      this.shorted = from.shorted
      mergeNets(circuit, this.joins, this.nets)
    } else {
      this.react()
      this.settle()
      this.time = 0
      this.history = []
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
    this.log({ time: this.time, kind: present ? 'fault' : 'mend', fault })
    this.touched()
  }

  /** Simulated time in ms of the next event, Infinity where nothing is under way. */
  nextEventAt(): number {
    let next = this.fuseDue
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

  get joins(): Joins {
    return { closed: this.closed, blown: this.damage.blown, broken: this.damage.broken }
  }
  /** Is line joined to neutral or earth just now? */
  get shortNow(): boolean {
    return this.shorted
  }
  potentials(): Potential[] {
    this.potentialCache ??= potentials(this.circuit, this.nets, this.damage.openLoads)
    return this.potentialCache
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
  actuatorHeld(actuator: number): boolean {
    return this.damage.heldActuators[actuator] !== NOT_HELD
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
    let target = v > 0 ? 1 : 0
    if (v > 0)
      for (const t of this.circuit.actuators[i].thresholds)
        if (t > p) {
          target = Math.min(t, 1)
          break
        }
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
    if (this.fuseDue <= this.time) this.blowFuse()
    mergeNets(this.circuit, this.joins, this.nets)
    this.potentialCache = undefined
    this.noticeShort()
    this.updateLoads()
    this.updateTravel()
    this.updateSensors()
    this.updateBehaviours()
    this.scheduleContacts()
    this.countVisit()
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
    const now = shortCircuit(this.circuit, this.nets)
    if (now && !this.shorted) this.log({ time: this.time, kind: 'short' })
    if (now && this.fuseDue === Infinity) this.fuseDue = this.time + fuseMs
    if (!now) this.fuseDue = Infinity
    this.shorted = now
  }

  private blowFuse(): void {
    this.fuseDue = Infinity
    const [fuse] = fusesInShort(this.circuit, this.joins)
    // A short with no protective device in its path cannot be cleared; it stays declared by `shortNow`.
    if (fuse === undefined) return
    this.damage.blown[fuse] = 1
    const { device, part } = this.circuit.fuses[fuse]
    this.log({ time: this.time, kind: 'fuse', device: this.circuit.devices[device].device.id, part: part.id })
  }

  private updateLoads(): void {
    this.circuit.loads.forEach(({ device, part }, i) => {
      const on = !this.damage.openLoads[i] && energised(this.circuit, this.nets, i) ? 1 : 0
      this.energisedLoads[i] = on
      if (!part.work) return
      const works = on && !this.damage.jammedLoads[i] ? 1 : 0
      if (works === this.working[i]) return
      this.working[i] = works
      const id = this.circuit.devices[device].device.id
      this.log({ time: this.time, kind: 'work', device: id, part: part.id, running: works === 1 })
    })
  }

  private updateTravel(): void {
    this.circuit.actuators.forEach(({ device, part, drivenBy, openMs, returnMs }, i) => {
      const held = this.damage.heldActuators[i]
      if (held !== NOT_HELD) this.position[i] = held
      const p = this.position[i]
      const driven = this.energisedLoads[drivenBy] === 1
      let v = 0
      if (held === NOT_HELD) v = driven ? (p < 1 ? 1 / openMs : 0) : p > 0 ? -1 / returnMs : 0
      this.velocity[i] = v
      const motion: Motion = v > 0 ? 'opening' : v < 0 ? 'closing' : p >= 1 ? 'open' : p <= 0 ? 'shut' : 'stopped'
      if (motion === this.motion[i]) return
      this.motion[i] = motion
      const id = this.circuit.devices[device].device.id
      this.log({ time: this.time, kind: 'travel', device: id, part: part.id, motion, position: p })
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
    // A short is under way to a fuse: whatever repeats, that does not.
    if (!this.rounds.enter(state) || this.hunting || this.shorted) return
    this.hunting = true
    this.log({ time: this.time, kind: 'hunting' })
  }
}
