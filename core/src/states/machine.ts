import { type Circuit, type CircuitState, type Electrics } from '../circuit'
import {
  behaviours,
  Bus,
  checkOf,
  holds,
  lockedOut,
  noDamage,
  readGates,
  readRising,
  Travel,
  type BehaviourState,
  type Check,
  type DamageState,
  type Drives,
  type View,
} from '../simulation'
import { flowsOf } from '../water'
import type { Stands, Waters } from '../trace'
import { Answers, MIDDLE, WORKING, type Answer } from './answers'
import { inputsOf, type Input } from './inputs'
import { Misses } from './misses'
import { PENDING, slotsOf, type Slot } from './slots'

/**
 * An installation with time taken out: contacts, valves, bus messages and sequences stand as they do in the simulation and
 * answer by the same conditions, but nothing says how long a thing takes. What may happen next is asked and chosen.
 *
 * One machine serves a whole exploration: {@link load} puts it into a state, {@link save} says which state it is in.
 */
export class Machine implements Stands, Waters {
  readonly inputs: Input[]
  /** Every place of a state's text: what stands there. */
  readonly slots: Slot[]
  /** A change in mid travel has been made; it is forgotten when everything rests. */
  changed = false

  private readonly values: (string | number)[]
  private readonly sensing: Uint8Array
  private readonly closed: Uint8Array
  private readonly energised: Uint8Array
  private readonly working: Uint8Array
  private readonly travel: Travel
  private readonly bus: Bus
  private readonly phases: BehaviourState[]
  private readonly view: View
  private readonly damage: DamageState
  private readonly supplied: Uint8Array
  private readonly gates: { gates: Uint8Array; pumps: Uint8Array }
  private readonly rising: Uint8Array
  /** Of every actuator, the positions it is told apart at: 0, where its switches change, 1, and between any two of them. */
  private readonly places: number[][]
  /** Per contact and per role of a sequence, its condition made ready. */
  private readonly checks: Check[]
  private readonly watches: Record<string, Check>[]
  private readonly warm: Check[]
  private known: Float64Array | undefined
  private readonly answers: Answers
  private readonly misses: Misses
  private now!: Answer
  private readonly text: Uint8Array
  private readonly dead: string

  constructor(
    readonly circuit: Circuit,
    damage?: DamageState,
  ) {
    this.inputs = inputsOf(circuit)
    this.damage = damage ?? noDamage(circuit)
    this.answers = new Answers(circuit, this.damage)
    this.values = circuit.controls.map((c) => c.initial)
    this.sensing = new Uint8Array(circuit.sensors.length)
    for (const { leaves, beside } of this.inputs)
      for (const leaf of leaves) if (beside && leaf.kind === 'sensor') this.sensing[leaf.sensor] = beside.asks ? 1 : 0
    this.closed = new Uint8Array(circuit.contacts.length)
    this.misses = new Misses(circuit, this.damage)
    this.energised = new Uint8Array(circuit.loads.length)
    this.supplied = new Uint8Array(circuit.loads.length)
    this.working = new Uint8Array(circuit.loads.length)
    this.travel = new Travel(circuit)
    this.bus = new Bus(circuit)
    this.phases = circuit.behaviours.map((b) => behaviours[b.part.behaviour].initial)
    this.gates = {
      gates: new Uint8Array(circuit.water.ways.length),
      pumps: new Uint8Array(circuit.water.ways.length),
    }
    this.rising = new Uint8Array(circuit.water.emitters.length)
    const { devices } = circuit
    this.checks = circuit.contacts.map((c) => checkOf(c.closedWhen, devices[c.device]))
    this.watches = circuit.behaviours.map(({ device, watches }) =>
      Object.fromEntries(Object.entries(watches).map(([role, c]) => [role, checkOf(c, devices[device])])),
    )
    this.warm = circuit.water.sources.map(({ when, device }) => checkOf(when, devices[device]))
    this.places = circuit.actuators.map(({ makesAt, letsGoAt, latchedAt }, i) => {
      const latched = this.drives.latched(i) ? [latchedAt] : []
      const marks = [...new Set([0, ...makesAt, ...letsGoAt, ...latched, 1])].sort((x, y) => x - y)
      return marks.flatMap((mark, i) => (i === 0 ? [mark] : [(marks[i - 1] + mark) / 2, mark]))
    })
    this.slots = slotsOf(
      {
        circuit,
        damage: this.damage,
        values: this.values,
        sensing: this.sensing,
        closed: this.closed,
        missing: this.misses.missing,
        energised: this.energised,
        working: this.working,
        travel: this.travel,
        bus: this.bus,
        phases: this.phases,
        places: this.places,
        placeOf: (actuator) => this.placeOf(actuator),
      },
      this.inputs,
    )
    this.text = new Uint8Array(this.slots.length + 1)
    this.view = {
      controls: this.values,
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
      timed: () => false,
    }
    this.dead = String.fromCharCode.apply(null, this.save() as unknown as number[])
    this.react()
  }

  // What is asked of a moment, as of a simulation.

  contactAsked(contact: number): boolean {
    const c = this.circuit.contacts[contact]
    const { loads } = this.circuit
    for (let i = 0; i < loads.length; i++) this.supplied[i] = loads[i].ownSupply ? 1 : this.energised[i]
    const view = { ...this.view, energised: this.supplied, linked: () => false }
    return this.checks[contact](view) !== c.inverted
  }
  loadEnergised(load: number): boolean {
    return this.energised[load] === 1
  }
  loadWorking(load: number): boolean {
    return this.working[load] === 1
  }
  actuatorPosition(actuator: number): number {
    return this.travel.position[actuator]
  }
  sourceHot(source: number): boolean {
    return this.warm[source](this.view)
  }
  emitterGives(emitter: number): boolean {
    const { part, device } = this.circuit.water.emitters[emitter]
    return part.when === undefined || holds(part.when, this.circuit.devices[device], this.view)
  }
  phase(behaviour: number): BehaviourState {
    return this.phases[behaviour]
  }
  /** The electrical answer for how contacts stand. */
  get answer(): Answer {
    return this.now
  }
  /** The state of everything that decides joins, as it stands. */
  get joins(): CircuitState {
    return { ...this.damage, closed: this.closed }
  }
  get contactsText(): string {
    return String.fromCharCode(...this.closed)
  }

  // What may happen next.

  /** Contacts that do not stand as their condition says. Of one changeover, what breaks goes before what makes. */
  dueContacts(): number[] {
    const { contacts } = this.circuit
    const due: number[] = []
    for (let i = 0; i < contacts.length; i++) {
      const held = this.damage.heldContacts[i]
      const makes = this.misses.missing[i] === 0 && this.asked(i)
      const wanted = held === 0 || held === 1 ? held : makes ? 1 : 0
      if (wanted !== this.closed[i]) due.push(i)
    }
    if (due.length < 2) return due
    return due.filter(
      (i) =>
        this.closed[i] === 1 ||
        !due.some(
          (k) =>
            this.closed[k] === 1 && contacts[k].part === contacts[i].part && contacts[k].device === contacts[i].device,
        ),
    )
  }
  switchContact(contact: number): void {
    this.closed[contact] = 1 - this.closed[contact]
    this.react()
  }
  private asked(contact: number): boolean {
    return this.checks[contact](this.view) !== this.circuit.contacts[contact].inverted
  }
  get makesAtTimes(): boolean {
    return this.misses.any
  }
  /** May this contact, which is due, fail to make this time? */
  mayMiss(contact: number): boolean {
    return this.closed[contact] === 0 && this.misses.has(contact)
  }
  /** It does not make this time; it may the next time it is asked. */
  missContact(contact: number): void {
    this.misses.missing[contact] = 1
    this.react()
  }
  /** Valves on their way. */
  movers(): number[] {
    const moving: number[] = []
    const { velocity } = this.travel
    for (let i = 0; i < velocity.length; i++) if (velocity[i] !== 0) moving.push(i)
    return moving
  }
  /** Takes a valve on its way to the next place at which something may switch, or to its end. */
  advance(actuator: number): void {
    const { position, velocity } = this.travel
    const places = this.places[actuator]
    const at = this.placeOf(actuator)
    const step = velocity[actuator] > 0 ? 1 : -1
    // Between two marks the next is one on; a valve that sets out from a mark stands between already.
    position[actuator] = places[at + step]
    this.react()
  }
  /** Bus ports with a message under way. */
  messages(): number[] {
    const { due } = this.bus
    const under: number[] = []
    for (let i = 0; i < due.length; i++) if (due[i] < Infinity) under.push(i)
    return under
  }
  deliver(port: number): void {
    this.bus.due[port] = 0
    this.react()
  }
  /** Sequences in a phase that ends by itself: self-check, proving of flow, overrun. */
  pending(): number[] {
    const all: number[] = []
    for (let i = 0; i < this.phases.length; i++) if (this.phases[i].until < Infinity) all.push(i)
    return all
  }
  expire(behaviour: number): void {
    this.phases[behaviour] = { phase: this.phases[behaviour].phase, until: 0 }
    this.react()
  }
  asks(input: number): boolean {
    return this.inputs[input].leaves.every((leaf) =>
      leaf.kind === 'sensor' ? this.sensing[leaf.sensor] === 1 : String(this.values[leaf.control]) === leaf.asking,
    )
  }
  /** The world or a hand changes one input: it asks, or stops asking. */
  change(input: number): void {
    const asking = !this.asks(input)
    for (const leaf of this.inputs[input].leaves)
      if (leaf.kind === 'choice') this.values[leaf.control] = asking ? leaf.asking : leaf.resting
      else this.sensing[leaf.sensor] = asking && !this.damage.deadSensors[leaf.sensor] ? 1 : 0
    this.react()
  }
  /**
   * Goes on for as long as only one thing can happen next. False where that never ends. `passed` is told every moment on the
   * way.
   */
  follow(passed: () => void): boolean {
    for (let n = 0; n < 400; n++) {
      passed()
      if (this.now.short || this.now.burnt >= 0) return true
      const due = this.dueContacts()
      if (due.length > 1 || (due.length === 1 && this.mayMiss(due[0]))) return true
      if (due.length === 1) {
        this.switchContact(due[0])
        continue
      }
      const moving = this.movers()
      const under = this.messages()
      if (moving.length + under.length === 0) {
        // At rest again, it does not matter what was changed on the way.
        this.changed = false
        return true
      }
      if (!this.changed || moving.length + under.length > 1) return true
      if (moving.length === 1) this.advance(moving[0])
      else this.deliver(under[0])
    }
    return false
  }
  /** Everything as it stands before the supply comes on. */
  restart(): void {
    this.load(this.dead)
    this.react()
  }
  /**
   * Brings everything to rest, one thing after the other, as it comes: where an exploration starts. False where it never rests.
   * Contacts that make at times only make, or with `misses` miss.
   */
  rest(misses = false): boolean {
    for (let n = 0; n < 2000; n++) {
      const due = this.dueContacts()
      const moving = this.movers()
      const under = this.messages()
      const pending = this.pending()
      if (due.length > 0) {
        if (misses && this.mayMiss(due[0])) this.missContact(due[0])
        else this.switchContact(due[0])
      } else if (moving.length > 0) this.advance(moving[0])
      else if (under.length > 0) this.deliver(under[0])
      else if (pending.length > 0) this.expire(pending[0])
      else return true
      if (this.now.short) return true
    }
    return false
  }

  // States as text: one character a place.

  save(): Uint8Array {
    const { text, slots } = this
    for (let i = 0; i < slots.length; i++) text[i] = slots[i].read()
    text[slots.length] = this.changed ? 1 : 0
    return text
  }
  load(state: string): void {
    const { slots } = this
    for (let i = 0; i < slots.length; i++) slots[i].write(state.charCodeAt(i))
    this.changed = state.charCodeAt(slots.length) === 1
    this.now = this.answers.of(this.closed)
    this.waterMoved()
  }

  // How a state comes about.

  /** Everything but contacts answers at once to what it sees. */
  private react(): void {
    this.now = this.answers.of(this.closed)
    if (this.now.short) return
    this.updateLoads()
    this.updateTravel()
    if (this.now.electrics) this.updateBus(this.now.electrics)
    this.waterMoved()
    this.updateBehaviours()
    this.misses.forget((contact) => this.asked(contact))
  }

  private updateLoads(): void {
    const { volts } = this.now
    const { loads } = this.circuit
    for (let i = 0; i < volts.length; i++) {
      const on =
        volts[i] === WORKING || (volts[i] === MIDDLE && this.energised[i] === 1) || this.damage.heldLoads[i] === 1
      this.energised[i] = on ? 1 : 0
      if (loads[i].part.work) this.working[i] = on && !this.damage.jammedLoads[i] ? 1 : 0
    }
  }

  private readonly drives: Drives = {
    turns: (load) => this.energised[load] === 1 && !this.damage.jammedLoads[load],
    holds: (load) => this.now.held[load] === 1,
    latched: (actuator) => {
      const latch = this.circuit.actuators[actuator].part.latch
      return latch !== undefined && this.values[this.latchControl(actuator)] === latch.latched
    },
    unlatch: (actuator) => {
      this.values[this.latchControl(actuator)] = this.circuit.actuators[actuator].part.latch!.free
    },
    moved: () => undefined,
  }

  private latchControl(actuator: number): number {
    const { device, part } = this.circuit.actuators[actuator]
    return this.circuit.devices[device].controlIndex.get(part.latch!.control)!
  }

  private updateTravel(): void {
    const { travel } = this
    travel.update(this.damage, this.drives)
    const { position, velocity } = travel
    for (let n = 0; n < 4; n++) {
      let left = false
      for (let i = 0; i < position.length; i++) {
        if (velocity[i] === 0) continue
        const places = this.places[i]
        const step = velocity[i] > 0 ? 1 : -1
        const { makesAt, letsGoAt, latchedAt } = this.circuit.actuators[i]
        const marks = step > 0 ? makesAt : letsGoAt
        let at = this.placeOf(i)
        if (at % 2 === 0) at += step
        // What switches nothing on its way is passed at once: nobody could tell before from after.
        while (
          at % 2 === 1 &&
          !marks.includes(places[at + step]) &&
          !(latchedAt > 0 && places[at + step] === latchedAt)
        ) {
          at += step
          if (at > 0 && at < places.length - 1) at += step
        }
        if (position[i] === places[at]) continue
        position[i] = places[at]
        left = true
      }
      if (!left) return
      travel.update(this.damage, this.drives)
    }
  }

  private placeOf(actuator: number): number {
    const places = this.places[actuator]
    const at = places.indexOf(this.travel.position[actuator])
    if (at >= 0) return at
    // Seized part way: the nearest place.
    let best = 0
    for (let i = 1; i < places.length; i++)
      if (
        Math.abs(places[i] - this.travel.position[actuator]) < Math.abs(places[best] - this.travel.position[actuator])
      )
        best = i
    return best
  }

  private updateBus(electrics: Electrics): void {
    const { buses, devices } = this.circuit
    this.bus.update(
      0,
      electrics,
      (load) => this.energised[load] === 1,
      (port) => this.damage.silentBuses[port] === 1,
      (port, request) => holds(buses[port].part.requests![request]!, devices[buses[port].device], this.view),
      () => undefined,
    )
  }

  private waterMoved(): void {
    this.known = undefined
  }
  /** Flow through every way, l/h: worked out when somebody looks. */
  get flows(): Float64Array {
    if (this.known) return this.known
    readGates(this.circuit, this.plant, this.gates)
    if (this.circuit.water.emitters.some((e) => e.rise > 0)) readRising(this.circuit, this.plant, this.rising)
    return (this.known = flowsOf(this.circuit, { ...this.gates, rising: this.rising }))
  }
  private readonly plant = {
    position: (actuator: number) => this.travel.position[actuator],
    passes: (port: number) => this.damage.passingPorts[port] === 1,
    working: (load: number) => this.working[load] === 1,
    hot: (source: number) => this.sourceHot(source),
  }

  private updateBehaviours(): void {
    const { circuit } = this
    circuit.behaviours.forEach(({ part, figures, throws }, i) => {
      for (let n = 0; n < 20; n++) {
        const seen: Record<string, boolean> = { minded: false, overheated: false }
        const watches = this.watches[i]
        for (const role in watches) seen[role] = watches[role](this.view)
        const before = this.phases[i]
        const next = this.damage.lockedOut[i]
          ? lockedOut(before, seen)
          : behaviours[part.behaviour].react(before, seen, figures, 0)
        if (next === before) break
        this.phases[i] = next.until > 0 && next.until < Infinity ? { phase: next.phase, until: PENDING } : next
        if (next.phase === before.phase) continue
        if (throws && next.phase === 'lockout' && !this.damage.lockedOut[i]) this.values[throws.control] = throws.to
        this.waterMoved()
      }
    })
  }
}
