import { hasClock, type Programme } from '../catalogue'
import { potentials, type Circuit, type Potential } from '../circuit'
import type { Heat, Scenario } from '../heat'
import { nth } from '../lists'
import { ActionError } from './actions'
import { aimOf } from './aims'
import type { BusReading } from './bus'
import { Clock } from './clock'
import type { Defect, PartFlags } from './defects'
import { EventLog } from './event-log'
import type { PartEvent, SimEvent } from './events'
import { PartsCondition } from './parts-condition'
import { PlantState } from './plant-state'
import { Protection } from './protection'
import { StateVisits } from './state-visits'
import { senses } from './sensing'
import { Environment } from './environment'
import { Switches } from './switches'
import type { SeenByWater } from './seen-by-water'

/** Water that a hand calls hot, °C. */
const hotFrom = 30
/** A load under more volts than it withstands is gone in this: usual for small electronics and windings. */
const burnMs = 20
/** Events that leave something broken or open. */
const lasting: ReadonlySet<SimEvent['kind']> = new Set(['short', 'fuse', 'trip', 'burnt', 'limit'])

export type Verdict = 'settled' | 'hunting' | 'unfinished'

/** How a stretch of time ended: it passed, or was left since the installation hunts, or after too many events. */
export type Passage = 'passed' | 'hunting' | 'unfinished'

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
export class Simulation extends PlantState {
  /** Whole milliseconds since the start. */
  time = 0
  hunting = false
  private readonly events: EventLog

  private readonly condition: PartsCondition
  private readonly switches: Switches
  private readonly clock: Clock
  private readonly environment: Environment
  private readonly burnDue: Float64Array
  private readonly protection: Protection
  private readonly visits: StateVisits
  private shorted = false

  /** Starts with every control at rest, everything settled, at time 0 with an empty history. */
  constructor(circuit: Circuit, from?: Simulation, defectsOf?: (name: string) => readonly Defect[]) {
    super(circuit, from)
    this.events = from ? from.events.copy() : new EventLog()
    this.condition = new PartsCondition(circuit, from?.condition, defectsOf)
    this.switches = new Switches(circuit, this.closed, from?.switches)
    this.clock = new Clock(circuit, from?.clock)
    this.environment = new Environment(circuit, from?.environment)
    this.burnDue = from ? from.burnDue.slice() : new Float64Array(circuit.loads.length).fill(Infinity)
    this.protection = new Protection(circuit, from?.protection)
    this.visits = from ? from.visits.copy() : new StateVisits()
    if (from) {
      this.time = from.time
      this.shorted = from.shorted
      this.hunting = from.hunting
    } else {
      this.react()
      this.settle()
      this.time = 0
      // What the wiring did to itself as the supply came on is part of the story; relays pulling in are not.
      this.events.replace(this.history.filter((e) => lasting.has(e.kind)).map((e) => ({ ...e, time: 0 })))
    }
  }

  /** A simulation that goes its own way from here. */
  fork(): Simulation {
    return new Simulation(this.circuit, this)
  }

  /**
   * The same at the same moment, joined otherwise: by another circuit of the same devices, which is found at once. `defectsOf`: what
   * is wrong under a name by the parts of that circuit, where they are numbered otherwise.
   */
  rewired(circuit: Circuit, defectsOf?: (name: string) => readonly Defect[]): Simulation {
    const sim = new Simulation(circuit, this, defectsOf)
    sim.touched()
    return sim
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
    const index = controlIndex.get(control)!
    this.clock.touched(index, this.controls[index], this.time)
    this.log({ time: this.time, kind: 'control', device, control, value })
    this.touched()
  }

  /** Sets every device's clock: now is this many minutes after Monday's midnight. */
  setClock(minuteOfWeek: number): void {
    this.clock.set(this.time, minuteOfWeek)
    const { heat } = this.environment
    if (heat) this.letWarm(heat.scenario)
    else this.touched()
  }

  /**
   * The clock of one device shows so many minutes more than it is; 0, it is right. Throws {@link ActionError} where the device has
   * none.
   */
  setLostTime(device: string, minutes: number): void {
    const at = this.circuit.deviceIndex.get(device)
    if (at === undefined) throw new ActionError(`there is no device "${device}"`)
    if (!hasClock(nth(this.circuit.devices, at).type)) throw new ActionError(`"${device}" has no clock`)
    this.clock.setWrong(at, minutes)
    this.touched()
  }
  /** How many minutes more the clock of a device shows than it is; undefined of what has none. */
  lostTime(device: number): number | undefined {
    return hasClock(nth(this.circuit.devices, device).type) ? this.clock.wrong(device) : undefined
  }

  /**
   * Lets rooms, cylinders and water warm and cool by themselves, in such a house and weather; without a scenario a hand sets
   * what is felt, as at the start. Without a clock it is Monday, midnight.
   */
  letWarm(scenario: Scenario | undefined): void {
    if (scenario && !this.clock.isSet) this.clock.set(this.time, 0)
    const startHour = (this.clock.minuteOfWeek(this.time) ?? 0) / 60 - this.time / 3_600_000
    this.environment.begin(scenario, this.time, startHour)
    this.feel()
    this.touched()
  }

  /** Something is wrong with parts from now on, under the name it is to have in the history. */
  putIn(fault: string, defects: readonly Defect[]): void {
    this.condition.putIn(fault, defects)
    this.log({ time: this.time, kind: 'fault', fault })
    this.touched()
  }

  /** What was wrong under this name is so no longer; the parts it speaks of are replaced, and what happened to them with them. */
  mend(fault: string, defects: readonly Defect[]): void {
    this.condition.mend(fault, defects)
    this.log({ time: this.time, kind: 'mend', fault })
    this.touched()
  }

  /** When next anything happens, of the installation's own or from outside, in ms; Infinity where nothing will. */
  nextAt(): number {
    return Math.min(this.nextEventAt(), this.nextOutside())
  }

  /** When a clock or a temperature next changes something, in ms; Infinity where neither does. */
  private nextOutside(): number {
    return Math.min(this.clock.nextAt(this.time), this.environment.heat?.nextAt ?? Infinity)
  }

  /**
   * Simulated time in ms of the next event of the installation's own, Infinity where nothing is under way. What clocks and
   * temperatures bring is not counted: they never end.
   */
  nextEventAt(): number {
    let next = Math.min(this.protection.nextAt(), this.nextMoveAt())
    for (const due of this.burnDue) if (due < next) next = due
    for (const phase of this.phases) if (phase.until < next) next = phase.until
    return next
  }

  /** Simulated time in ms at which the next contact, valve or bus message moves; Infinity where all of them stand still. */
  nextMoveAt(): number {
    return Math.min(this.switches.nextAt(), this.travel.nextAt(this.time), this.bus.nextAt())
  }

  /** Goes to the next event and through everything that happens at that instant. False where nothing is to come. */
  step(): boolean {
    const own = this.nextEventAt()
    const outside = this.nextOutside()
    if (own === Infinity && outside === Infinity) return false
    this.moveTo(Math.min(own, outside))
    // What comes from outside is no round that the installation goes by itself.
    if (outside <= own) this.visits.forget()
    this.react()
    return true
  }

  /**
   * Lets `ms` milliseconds pass. Stops early, and says so, after `cap` events, or as soon as the installation is found hunting:
   * what it goes on to do is known then. Until somebody touches something no more time passes.
   */
  run(ms: number, cap = 500_000): Passage {
    const until = this.time + ms
    for (let events = 0; !this.hunting && this.nextAt() <= until; events++) {
      if (events >= cap) return 'unfinished'
      this.step()
    }
    if (this.hunting) return 'hunting'
    this.moveTo(until)
    return 'passed'
  }

  /** Lets time pass in what was found hunting: it goes on with its round, for `cap` events at most. */
  goRound(ms: number, cap: number): void {
    const until = this.time + ms
    for (let events = 0; events < cap && this.nextAt() <= until; events++) {
      this.step()
      this.hunting = false
    }
    this.moveTo(until)
  }

  /** Runs until nothing is under way, the installation is found hunting, or `cap` events have passed. */
  settle(cap = 2000): Verdict {
    for (let events = 0; events < cap; events++) {
      if (this.hunting) return 'hunting'
      if (this.nextEventAt() === Infinity) return 'settled'
      this.step()
    }
    return this.hunting ? 'hunting' : 'unfinished'
  }

  // What can be asked of a moment in time.

  protected get flags(): PartFlags {
    return this.condition.flags
  }
  protected get flagsKey(): string {
    return this.condition.key
  }
  /** Everything that happened since the start, oldest first; of a very long time, the latest. */
  get history(): readonly SimEvent[] {
    return this.events.all
  }
  /** What is wrong with each part, and what has happened to it since. */
  get wrongParts(): Readonly<PartFlags> {
    return this.flags
  }
  /** The names of what is wrong just now, in the order in which it was put in. */
  get wrong(): string[] {
    return this.condition.wrong
  }
  /** The model of heat, where temperatures go their own way. */
  get heat(): Heat | undefined {
    return this.environment.heat
  }
  get flows(): Float64Array {
    return this.environment.flows
  }
  /** °C of the pipes at `from` and at `to` of every way, as a hand would feel them. */
  pipeTemperatures(): Float64Array {
    return this.environment.pipeTemperatures(this.plant, this.time)
  }
  /** Its pipes are as warm from now on as those of another installation of the same devices and pipes are just now. */
  warmAs(other: Simulation): void {
    this.environment.warmPipes(other.pipeTemperatures(), this.time)
  }
  /** Minutes after Monday's midnight; undefined while no clock is set. */
  get minuteOfWeek(): number | undefined {
    return this.clock.minuteOfWeek(this.time)
  }
  protected timed(control: number): boolean {
    return this.clock.timed(control, this.controls[control], this.time)
  }
  /** Is the water of this heat source hot: as the model of heat, its own thermostat, or its burner says? */
  sourceHot(source: number): boolean {
    return this.plant.hot(source)
  }
  /** Is line joined to neutral or earth just now? */
  get shortNow(): boolean {
    return this.shorted
  }
  potentials(): Potential[] {
    return potentials(this.electrics)
  }
  /** What stands on a terminal, `device.terminal`. */
  potentialAt(ref: string): Potential {
    return this.potentials()[this.circuit.atomIndex.get(ref)!]
  }
  /** How a control stands: the value of a choice, or a number in its own unit. */
  control(device: string, control: string): string | number {
    return this.controls[this.circuit.devices[this.circuit.deviceIndex.get(device)!].controlIndex.get(control)!]
  }
  /** The week that a device's clock goes by for a control; empty where it has none. */
  programmeOf(device: string, control: string): Programme {
    const { device: own, type } = this.circuit.devices[this.circuit.deviceIndex.get(device)!]
    return own.programme?.[control] ?? type.controls.find((c) => c.id === control)?.timed?.usual ?? []
  }
  /** How every bus link stands. */
  busReadings(): BusReading[] {
    return this.bus.readings(this.answer)
  }

  /** What water and heat see of the rest. */
  private readonly plant: SeenByWater = {
    position: (actuator) => this.travel.position[actuator],
    passes: (port) => this.portPasses(port),
    working: (load) => this.working[load] === 1,
    may: (source) => this.sourceHeats(source),
    hot: (source) => {
      const { device } = this.circuit.water.sources[source]
      const { heat } = this.environment
      const lump = heat?.lumps.sourceLump[source]
      if (heat && lump !== undefined) return heat.celsius[lump] >= hotFrom
      const { type, controlIndex } = this.circuit.devices[device]
      const felt = type.controls.find((c) => c.kind === 'number' && c.feels === 'water')
      return felt ? Number(this.controls[controlIndex.get(felt.id)!]) >= hotFrom : this.sourceHeats(source)
    },
    gives: (emitter) => this.emitterGives(emitter),
    aims: (source) => {
      const { device, aims } = this.circuit.water.sources[source]
      const outdoors = this.environment.heat?.outdoorsAt(this.time)
      return aimOf(aims, this.circuit.devices[device], this.view, outdoors, (port) => this.flowAsked(port))
    },
    control: (control) => this.controls[control],
    heated: ({ accelerator }) => accelerator !== undefined && this.energised[accelerator.load] === 1,
    asks: (sensor) => this.sensing[sensor] === 1,
  }

  /** The flow temperature that a controller asks of a boiler's bus port, °C. */
  private flowAsked(port: number): number | undefined {
    const reading = this.busReadings().find((r) => r.boiler === port && r.linked)
    if (!reading) return undefined
    const { device, part } = this.circuit.buses[reading.controller]
    const { controlIndex } = this.circuit.devices[device]
    return part.flow === undefined ? undefined : Number(this.controls[controlIndex.get(part.flow)!])
  }

  // How it goes on.

  protected tell(event: PartEvent): void {
    this.log({ ...event, time: this.time })
  }

  protected waterMoved(): void {
    this.environment.updateWater(this.plant, this.time)
  }

  private log(event: SimEvent): void {
    this.events.add(event)
  }

  private touched(): void {
    this.visits.forget()
    this.hunting = false
    this.react()
  }

  private moveTo(time: number): void {
    const ms = time - this.time
    this.time = time
    if (ms <= 0) return
    this.travel.pass(ms)
    this.environment.heat?.passTo(time)
    this.feel()
  }

  private feel(): void {
    this.environment.feel(this.time, (control, celsius) => (this.controls[control] = celsius))
  }

  /** Everything that happens at one instant: due contacts and fuses switch, then each part answers what it sees. */
  private react(): void {
    this.turnByClock()
    this.switches.switchDue(this.time, this.flags, this.contactSwitched)
    this.openProtection()
    this.burnLoads()
    this.readAnswer()
    this.noticeShort()
    this.protection.watch(this, this.answer, this.time)
    // A short lasts some milliseconds; what hangs on the supply rides through them on what it has stored.
    if (!this.shorted || this.protection.nextAt() === Infinity) {
      this.updateLoads()
      this.updateBurning()
    }
    this.travel.update(this.flags, this.drives)
    this.updateSensors()
    this.updateBus(this.time)
    this.waterMoved()
    this.updateSequences(this.time, this.heat !== undefined, (device) => this.environment.overheated(device))
    this.environment.updateHeat(this.plant, this.time)
    this.switches.schedule(this.time, this.flags, (i) => this.contactShouldBeClosed(i))
    this.countVisit()
  }

  private readonly contactSwitched = (i: number, closed: boolean): void => {
    const { device, part, throw: name } = this.circuit.contacts[i]
    this.log({ time: this.time, kind: 'contact', device: this.idOf(device), part: part.id, throw: name, closed })
  }

  private noticeShort(): void {
    const { mainsShort } = this.answer
    if (mainsShort && !this.shorted) this.log({ time: this.time, kind: 'short' })
    this.shorted = mainsShort
  }

  private openProtection(): void {
    const fuse = this.protection.blowing(this.time)
    if (fuse !== undefined) {
      this.condition.blow(fuse)
      const { device, part } = this.circuit.fuses[fuse]
      this.log({ time: this.time, kind: 'fuse', device: this.idOf(device), part: part.id })
    }
    for (const trip of this.protection.tripping(this.time)) {
      const { device, part } = this.circuit.trips[trip]
      const { control, to } = part.throws
      this.controls[this.circuit.devices[device].controlIndex.get(control)!] = to
      this.log({ time: this.time, kind: 'trip', device: this.idOf(device), part: part.id })
    }
  }

  private burnLoads(): void {
    this.burnDue.forEach((due, i) => {
      if (due > this.time) return
      this.burnDue[i] = Infinity
      this.condition.burn(i)
      const { device, part } = this.circuit.loads[i]
      this.log({ time: this.time, kind: 'burnt', device: this.idOf(device), part: part.id })
    })
  }

  /** Loads under more volts than they withstand, or for longer than they are rated, are on their way to burning out. */
  private updateBurning(): void {
    this.circuit.loads.forEach(({ ratedMs }, i) => {
      const within = this.loadOpen(i) ? Infinity : this.answer.over[i] ? burnMs : this.energised[i] ? ratedMs : Infinity
      this.burnDue[i] = within === Infinity ? Infinity : Math.min(this.burnDue[i], this.time + within)
    })
  }

  private updateSensors(): void {
    this.circuit.sensors.forEach((sensor, i) => {
      const heated = sensor.accelerator !== undefined && this.energised[sensor.accelerator.load] === 1
      const temperature = Number(this.controls[sensor.reads])
      const set = Number(this.controls[sensor.setPoint])
      const asks = !this.flags.deadSensors[i] && senses(sensor, temperature, set, heated, this.sensing[i] === 1)
      this.sensing[i] = asks ? 1 : 0
      const { throws, device, part } = sensor
      if (!throws || asks || this.controls[throws.control] === throws.to) return
      this.controls[throws.control] = throws.to
      this.log({ time: this.time, kind: 'limit', device: this.idOf(device), part: part.id })
    })
  }

  private turnByClock(): void {
    const index = (device: number, control: string) => this.circuit.devices[device].controlIndex.get(control)!
    for (const { control, value } of this.clock.turns(this.time, this.controls, index)) {
      this.controls[control] = value
      const { device, id } = this.circuit.controls[control]
      this.log({ time: this.time, kind: 'clock', device: this.idOf(device), control: id, value: String(value) })
    }
  }

  private countVisit(): void {
    const phases = this.phases.map((p) => p.phase).join()
    const { blown } = this.flags
    const state = [this.closed.join(''), this.travel.motion.join(), this.sensing.join(''), phases, blown.join('')].join(
      '|',
    )
    // An overload is under way to a fuse: whatever repeats, that does not.
    if (!this.visits.enter(state) || this.hunting || this.protection.nextAt() < Infinity) return
    this.hunting = true
    this.log({ time: this.time, kind: 'hunting' })
  }
}
