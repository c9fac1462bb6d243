import type { Circuit, ElectricalAnswer } from '../circuit'
import {
  flagsKey,
  noDefects,
  PlantState,
  readGates,
  readRising,
  type BehaviourState,
  type PartFlags,
} from '../simulation'
import { flowsOf } from '../water'
import type { Input } from '../inputs'
import { inputsOf } from './free-inputs'
import { Misses } from './misses'
import { PENDING, slotsOf, type Slot } from './slots'

/**
 * An installation with time taken out: contacts, valves, bus messages and sequences stand as they do in the simulation and
 * answer by the same conditions, but nothing says how long a thing takes. What may happen next is asked and chosen.
 *
 * One serves a whole exploration: {@link load} puts it into a state, {@link save} says which state it is in.
 */
export class UntimedPlant extends PlantState {
  readonly inputs: Input[]
  /** Every place of a state's text: what stands there. */
  readonly slots: Slot[]
  /** A change in mid travel has been made; it is forgotten when everything rests. */
  changed = false
  /** The contacts that can come to stand otherwise: all, until an exploration knows better. */
  watched: readonly number[]

  readonly flags: PartFlags
  protected readonly flagsKey: string
  private readonly gates: { gates: Uint8Array; pumps: Uint8Array }
  private readonly rising: Uint8Array
  /** Of every actuator, the positions it is told apart at: 0, where its switches change, 1, and between any two of them. */
  private readonly places: number[][]
  private flowsNow: Float64Array | undefined
  /** The flows worked out last, and for what: from one state to the next, valves and pumps mostly stand as they did. */
  private flowsBefore: { gates: Uint8Array; pumps: Uint8Array; rising: Uint8Array; flows: Float64Array } | undefined
  private readonly rises: boolean
  private readonly misses: Misses
  private readonly text: Uint8Array
  private readonly dead: string

  constructor(circuit: Circuit, flags?: PartFlags) {
    super(circuit)
    this.inputs = inputsOf(circuit)
    this.watched = circuit.contacts.map((_, i) => i)
    this.flags = flags ?? noDefects(circuit)
    this.flagsKey = flagsKey(this.flags)
    for (const { leaves, ofNoDemand } of this.inputs)
      for (const leaf of leaves)
        if (ofNoDemand && leaf.kind === 'sensor') this.sensing[leaf.sensor] = ofNoDemand.asks ? 1 : 0
    this.misses = new Misses(circuit, this.flags)
    this.gates = {
      gates: new Uint8Array(circuit.water.ways.length),
      pumps: new Uint8Array(circuit.water.ways.length),
    }
    this.rising = new Uint8Array(circuit.water.emitters.length)
    this.rises = circuit.water.emitters.some((e) => e.rise > 0)
    this.places = circuit.actuators.map(({ makesAt, letsGoAt, latchedAt }, i) => {
      const latched = this.drives.latched(i) ? [latchedAt] : []
      const marks = [...new Set([0, ...makesAt, ...letsGoAt, ...latched, 1])].sort((x, y) => x - y)
      return marks.flatMap((mark, i) => (i === 0 ? [mark] : [(marks[i - 1] + mark) / 2, mark]))
    })
    this.slots = slotsOf(
      {
        circuit,
        flags: this.flags,
        values: this.controls,
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
    this.dead = String.fromCharCode.apply(null, this.save() as unknown as number[])
    this.react()
  }

  /** The electrical answer for how contacts stand. */
  get electrical(): ElectricalAnswer {
    return this.answer
  }
  /** Is any source's line, or both sides of a secondary, joined to what they must not be? */
  get short(): boolean {
    return this.answer.mainsShort || this.answer.secondaryShort
  }
  /** The last load under more volts than it withstands; −1 where there is none. */
  get burnt(): number {
    return this.answer.over.lastIndexOf(1)
  }
  sourceHot(source: number): boolean {
    return this.sourceHeats(source)
  }
  get contactsText(): string {
    return String.fromCharCode(...this.closed)
  }

  // What may happen next.

  /** Contacts that do not stand as their condition says. Of one changeover, what breaks goes before what makes. */
  dueContacts(): number[] {
    const { contacts } = this.circuit
    const due: number[] = []
    for (const i of this.watched) {
      const held = this.flags.heldContacts[i]
      const makes = this.misses.missing[i] === 0 && this.contactShouldBeClosed(i)
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
      leaf.kind === 'sensor' ? this.sensing[leaf.sensor] === 1 : String(this.controls[leaf.control]) === leaf.asking,
    )
  }
  /** The world or a hand changes one input: it asks, or stops asking. */
  change(input: number): void {
    const asking = !this.asks(input)
    for (const leaf of this.inputs[input].leaves)
      if (leaf.kind === 'choice') this.controls[leaf.control] = asking ? leaf.asking : leaf.resting
      else this.sensing[leaf.sensor] = asking && !this.flags.deadSensors[leaf.sensor] ? 1 : 0
    this.react()
  }
  /**
   * Goes on for as long as only one thing can happen next. False where that never ends. `passed` is told every moment on the
   * way.
   */
  follow(passed: () => void): boolean {
    for (let n = 0; n < 400; n++) {
      passed()
      if (this.short || this.burnt >= 0) return true
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
      if (this.short) return true
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
    this.readAnswer()
    this.waterMoved()
  }

  // How a state comes about.

  /** Everything but contacts answers at once to what it sees. */
  private react(): void {
    this.readAnswer()
    if (this.short) return
    this.updateLoads()
    this.updateTravel()
    this.updateBus(0)
    this.waterMoved()
    this.updateSequences(0, false, () => false)
    this.misses.forget((contact) => this.contactShouldBeClosed(contact))
  }

  protected override entered(phase: BehaviourState): BehaviourState {
    return phase.until > 0 && phase.until < Infinity ? { phase: phase.phase, until: PENDING } : phase
  }

  /** No clock is set: what a clock works stays as it is. */
  protected timed(): boolean {
    return false
  }

  protected tell(): void {
    // Nobody listens: what happens is read from the states it leads to.
  }

  private updateTravel(): void {
    const { travel } = this
    travel.update(this.flags, this.drives)
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
      travel.update(this.flags, this.drives)
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

  protected waterMoved(): void {
    this.flowsNow = undefined
  }
  /** Flow through every way, l/h: worked out when somebody looks. */
  get flows(): Float64Array {
    if (this.flowsNow) return this.flowsNow
    const { gates, rising, flowsBefore } = this
    readGates(this.circuit, this.water, gates)
    if (this.rises) readRising(this.circuit, this.water, rising)
    if (
      !flowsBefore ||
      !sameBytes(gates.gates, flowsBefore.gates) ||
      !sameBytes(gates.pumps, flowsBefore.pumps) ||
      !sameBytes(rising, flowsBefore.rising)
    )
      this.flowsBefore = {
        gates: gates.gates.slice(),
        pumps: gates.pumps.slice(),
        rising: rising.slice(),
        flows: flowsOf(this.circuit, { ...gates, rising }),
      }
    return (this.flowsNow = this.flowsBefore!.flows)
  }
  private readonly water = {
    position: (actuator: number) => this.travel.position[actuator],
    passes: (port: number) => this.portPasses(port),
    working: (load: number) => this.working[load] === 1,
    hot: (source: number) => this.sourceHeats(source),
  }
}

function sameBytes(one: Uint8Array, other: Uint8Array): boolean {
  for (let i = 0; i < one.length; i++) if (one[i] !== other[i]) return false
  return true
}
