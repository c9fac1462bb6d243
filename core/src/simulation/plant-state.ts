import type { Condition } from '../catalogue'
import {
  type EdgeId,
  answerFor,
  electricsOf,
  MIDDLE,
  WORKING,
  type ElectricalAnswer,
  type Circuit,
  type CircuitState,
  type Electrics,
} from '../circuit'
import { behaviours, lockedOut, type BehaviourState } from './behaviours'
import { Bus } from './bus'
import { checkOf, holds, type Check, type View } from './conditions'
import { NOT_HELD, type PartFlags } from './defects'
import type { Motion, PartEvent } from './events'
import { Travel, type Drives } from './travel'

/** Of a circuit, every condition of its parts made ready: of contacts, of what sequences watch, of sources and emitters. */
interface Checks {
  contacts: Check[]
  watches: Record<string, Check>[]
  sources: Check[]
  emitters: (Check | undefined)[]
}
const checksByContacts = new WeakMap<Circuit['contacts'], Checks>()

function checksOf({ contacts, behaviours: sequences, water, devices }: Circuit): Checks {
  let checks = checksByContacts.get(contacts)
  if (!checks) {
    checks = {
      contacts: contacts.map((c) => checkOf(c.closedWhen, devices[c.device])),
      watches: sequences.map(({ device, watches }) =>
        Object.fromEntries(Object.entries(watches).map(([role, c]) => [role, checkOf(c, devices[device])])),
      ),
      sources: water.sources.map(({ when, device }) => checkOf(when, devices[device])),
      emitters: water.emitters.map(({ part, device }) => part.when && checkOf(part.when, devices[device])),
    }
    checksByContacts.set(contacts, checks)
  }
  return checks
}

/** A sequence answers itself at most so often at one instant. */
const mostAnswers = 20

/**
 * Everything of an installation that can stand one way or another, and what each part does, given what is closed. It knows no
 * time: when a thing happens is the simulation's to say, which of the things that can happen does is for the exploration of all
 * states. What both share stands here once.
 */
export abstract class PlantState {
  protected readonly controls: (string | number)[]
  /** Per contact: 1 where it is closed. */
  protected readonly closed: Uint8Array
  protected readonly travel: Travel
  protected readonly bus: Bus
  /** Per sensor: 1 where it asks. */
  protected readonly sensing: Uint8Array
  protected readonly energised: Uint8Array
  protected readonly working: Uint8Array
  protected readonly phases: BehaviourState[]
  /** What the parts answer to in the electrical state it is in. */
  protected answer!: ElectricalAnswer
  protected readonly view: View
  private readonly checks: Checks

  constructor(
    readonly circuit: Circuit,
    from?: PlantState,
  ) {
    this.controls = from ? from.controls.slice() : circuit.controls.map((c) => c.initial)
    this.closed = from ? from.closed.slice() : new Uint8Array(circuit.contacts.length)
    this.travel = new Travel(circuit, from?.travel)
    this.bus = new Bus(circuit, from?.bus)
    this.sensing = from ? from.sensing.slice() : new Uint8Array(circuit.sensors.length)
    this.energised = from ? from.energised.slice() : new Uint8Array(circuit.loads.length)
    this.working = from ? from.working.slice() : new Uint8Array(circuit.loads.length)
    this.phases = from ? from.phases.slice() : circuit.behaviours.map((b) => behaviours[b.part.behaviour].initial)
    if (from) this.answer = from.answer
    this.checks = checksOf(circuit)
    this.view = {
      controls: this.controls,
      energised: this.energised,
      working: this.working,
      sensing: this.sensing,
      position: this.travel.position,
      velocity: this.travel.velocity,
      cams: this.travel.cams,
      phase: (i) => this.phases[i].phase,
      linked: (port) => this.bus.linked(port),
      hears: (port, request) => this.bus.hears(port, request),
      flow: (way) => this.flows[way],
      timed: (control) => this.timed(control),
    }
  }

  /** What is wrong with the parts, and what has happened to them. */
  protected abstract get flags(): PartFlags
  /** Of {@link flags}, those that show in the circuit, as text. */
  protected abstract get flagsKey(): string
  /** Flow through every way for water, l/h, in the direction in which the way is named. */
  abstract get flows(): Float64Array
  /** Does the clock say on for this control? */
  protected abstract timed(control: number): boolean
  /** Something happened to a part. */
  protected abstract tell(event: PartEvent): void
  /** A valve, a pump or a source is otherwise than it was. */
  protected abstract waterMoved(): void

  // What can be asked of it.

  /** The electrical answer for the state it is in. */
  get electrics(): Electrics {
    return electricsOf(this.circuit, this.stateKey(), () => this.joins)
  }
  /** Everything that decides joins, as it stands. */
  get joins(): CircuitState {
    return { ...this.flags, closed: this.closed }
  }
  contactClosed(contact: number): boolean {
    return this.closed[contact] === 1
  }
  /** Should this throw be closed, by its own device's condition? Differs from what it is when it has failed or is on its way. */
  contactShouldBeClosed(contact: number): boolean {
    return this.checks.contacts[contact](this.view) !== this.circuit.contacts[contact].inverted
  }
  /** Does its device ask for this throw to be closed, by controls and what it senses, supply taken as given and no bus? */
  contactAsked(contact: number): boolean {
    return this.asked(contact, this.controls)
  }
  /** {@link contactAsked}, were a control of the contact's own device to stand otherwise. */
  contactAskedWith(contact: number, control: string, value: string): boolean {
    const controls = this.controls.slice()
    const { device } = this.circuit.contacts[contact]
    controls[this.circuit.devices[device].controlIndex.get(control)!] = value
    return this.asked(contact, controls)
  }
  private asked(contact: number, controls: View['controls']): boolean {
    const { loads } = this.circuit
    const energised = this.energised.map((on, i) => (loads[i].ownSupply ? 1 : on))
    const supplied: View = { ...this.view, controls, energised, linked: () => false }
    return this.checks.contacts[contact](supplied) !== this.circuit.contacts[contact].inverted
  }
  contactHeld(contact: number): boolean {
    return this.flags.heldContacts[contact] !== NOT_HELD
  }
  edgeBroken(edge: EdgeId): boolean {
    return this.flags.brokenEdges[edge] === 1
  }
  fuseBlown(fuse: number): boolean {
    return this.flags.blown[fuse] === 1
  }
  loadEnergised(load: number): boolean {
    return this.energised[load] === 1
  }
  /** Do half-waves through this winding hold its rotor? */
  loadHolds(load: number): boolean {
    return this.answer.holds[load] === 1
  }
  loadOpen(load: number): boolean {
    return this.flags.openLoads[load] === 1
  }
  loadWorking(load: number): boolean {
    return this.working[load] === 1
  }
  actuatorPosition(actuator: number): number {
    return this.travel.position[actuator]
  }
  actuatorMotion(actuator: number): Motion {
    return this.travel.motion[actuator]
  }
  /** Does it not move at all, by hand or motor? */
  actuatorSeized(actuator: number): boolean {
    return this.flags.heldActuators[actuator] !== NOT_HELD
  }
  /** Is its travel not free: seized somewhere, or with nothing to take it back? */
  actuatorHeld(actuator: number): boolean {
    return this.actuatorSeized(actuator) || this.flags.brokenSprings[actuator] === 1
  }
  /** Is its head fitted turned, so that it lets through what it should shut? */
  actuatorTurned(actuator: number): boolean {
    return this.flags.turnedHeads[actuator] === 1
  }
  loadJammed(load: number): boolean {
    return this.flags.jammedLoads[load] === 1
  }
  /** Is this input taken for energised whatever reaches it? */
  loadHeld(load: number): boolean {
    return this.flags.heldLoads[load] === 1
  }
  sensorDead(sensor: number): boolean {
    return this.flags.deadSensors[sensor] === 1
  }
  portPasses(port: number): boolean {
    return this.flags.passingPorts[port] === 1
  }
  behaviourLockedOut(behaviour: number): boolean {
    return this.flags.lockedOut[behaviour] === 1
  }
  busSilent(port: number): boolean {
    return this.flags.silentBuses[port] === 1
  }
  /** Does insulation let current through anywhere? */
  get insulationFailed(): boolean {
    return this.flags.failedInsulation.includes(1)
  }
  /** Does a condition of this device hold just now? */
  conditionHolds(condition: Condition, device: number): boolean {
    return holds(condition, this.circuit.devices[device], this.view)
  }
  sensorAsks(sensor: number): boolean {
    return this.sensing[sensor] === 1
  }
  phase(behaviour: number): BehaviourState {
    return this.phases[behaviour]
  }
  /** Does what heats this source's water do so: may it, by its device's condition? */
  protected sourceHeats(source: number): boolean {
    return this.checks.sources[source](this.view)
  }
  /** Does this emitter give off its heat: does its fan, where it has one, run? */
  emitterGives(emitter: number): boolean {
    return this.checks.emitters[emitter]?.(this.view) ?? true
  }

  // What everything does, given what is closed.

  /** Names the electrical state: contacts sixteen to a character, then what is wrong. */
  protected stateKey(): string {
    const { closed } = this
    let key = ''
    for (let i = 0; i < closed.length; i += 16) {
      let bits = 0
      for (let k = 0; k < 16 && i + k < closed.length; k++) bits |= closed[i + k] << k
      key += String.fromCharCode(bits)
    }
    return `${key}|${this.flagsKey}`
  }

  /** The electrical answer for how contacts stand now. */
  protected readAnswer(): void {
    this.answer = answerFor(this.circuit, this.stateKey(), () => this.joins)
  }

  /** Every load works from its pull-in until its drop-out, and turns unless it is jammed. */
  protected updateLoads(): void {
    const { loads } = this.circuit
    const { levels } = this.answer
    const { heldLoads, jammedLoads } = this.flags
    for (let i = 0; i < levels.length; i++) {
      const on = levels[i] === WORKING || (levels[i] === MIDDLE && this.energised[i] === 1) || heldLoads[i] === 1
      this.energised[i] = on ? 1 : 0
      const { part, device } = loads[i]
      if (!part.work) continue
      const running = on && !jammedLoads[i] ? 1 : 0
      if (running === this.working[i]) continue
      this.working[i] = running
      this.tell({ kind: 'work', device: this.idOf(device), part: part.id, running: running === 1 })
    }
  }

  /** What moves the valves. */
  protected readonly drives: Drives = {
    turns: (load) => this.energised[load] === 1 && !this.flags.jammedLoads[load],
    holds: (load) => this.answer.holds[load] === 1,
    latched: (actuator) => {
      const latch = this.circuit.actuators[actuator].part.latch
      return latch !== undefined && this.controls[this.latchControl(actuator)] === latch.latched
    },
    unlatch: (actuator) => {
      const { device, part } = this.circuit.actuators[actuator]
      this.controls[this.latchControl(actuator)] = part.latch!.free
      this.tell({ kind: 'unlatched', device: this.idOf(device), part: part.id })
    },
    moved: (actuator, motion, position) => {
      const { device, part } = this.circuit.actuators[actuator]
      this.tell({ kind: 'travel', device: this.idOf(device), part: part.id, motion, position })
    },
  }

  private latchControl(actuator: number): number {
    const { device, part } = this.circuit.actuators[actuator]
    return this.circuit.devices[device].controlIndex.get(part.latch!.control)!
  }

  /** What arrives on bus links at `now` (ms), and what sets out. */
  protected updateBus(now: number): void {
    const { buses, devices } = this.circuit
    if (buses.length === 0) return
    this.bus.update(
      now,
      this.answer,
      (load) => this.energised[load] === 1,
      (port) => this.flags.silentBuses[port] === 1,
      (port, request) => holds(buses[port].part.requests![request]!, devices[buses[port].device], this.view),
      (port, linked) => {
        const { device, part } = buses[port]
        this.tell({ kind: 'bus', device: this.idOf(device), part: part.id, linked })
      },
    )
  }

  /**
   * Every sequence goes on by what it watches, until it stays as it is. `now` in ms; `minded` where a model of heat watches over
   * its water, `overheated` where that has grown too hot.
   */
  protected updateSequences(now: number, minded: boolean, overheated: (device: number) => boolean): void {
    const { circuit, phases } = this
    circuit.behaviours.forEach(({ device, part, figures, throws }, i) => {
      const watches = this.checks.watches[i]
      const locked = this.flags.lockedOut[i] === 1
      for (let n = 0; n < mostAnswers; n++) {
        const seen: Record<string, boolean> = { minded }
        for (const role in watches) seen[role] = watches[role](this.view)
        seen.overheated = overheated(device)
        const before = phases[i]
        const next = locked ? lockedOut(before, seen) : behaviours[part.behaviour].react(before, seen, figures, now)
        if (next === before) break
        phases[i] = this.entered(next)
        if (next.phase === before.phase) continue
        this.tell({ kind: 'phase', device: this.idOf(device), part: part.id, phase: next.phase })
        if (throws && next.phase === 'lockout' && !locked) this.controls[throws.control] = throws.to
        // Fired or not, warmth may drive the water or cease to.
        this.waterMoved()
      }
    })
  }

  /** A phase as it is kept: with the time at which it ends. */
  protected entered(phase: BehaviourState): BehaviourState {
    return phase
  }

  protected idOf(device: number): string {
    return this.circuit.devices[device].device.id
  }
}
