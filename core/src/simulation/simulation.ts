import { electricsOf, shortCircuit, type Circuit } from '../circuit'
import type { Scenario } from '../heat'
import { ActionError } from './actions'
import { behaviours, lockedOut } from './behaviours'
import { holds } from './conditions'
import { damageKey, inflict, type Damage } from './damage'
import type { SimEvent } from './events'
import { Moment } from './moment'
import { Protection } from './protection'
import { Rounds } from './rounds'
import { senses } from './sensing'
import type { Drives } from './travel'

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
export class Simulation extends Moment {
  /** Everything that happened since the start, oldest first. */
  history: SimEvent[] = []
  hunting = false

  private readonly burnDue: Float64Array
  /** Everything the damage says about the circuit, as text: half of what names an electrical state. */
  private damageKey: string
  private readonly protection: Protection
  private readonly rounds: Rounds

  /** Starts with every control at rest, everything settled, at time 0 with an empty history. */
  constructor(circuit: Circuit, from?: Simulation) {
    super(circuit, from)
    this.burnDue = from ? from.burnDue.slice() : new Float64Array(circuit.loads.length).fill(Infinity)
    this.damageKey = from ? from.damageKey : damageKey(this.damage)
    this.protection = new Protection(circuit, from?.protection)
    this.rounds = from ? from.rounds.copy() : new Rounds()
    if (from) {
      this.history = from.history.slice()
      this.hunting = from.hunting
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
    const index = controlIndex.get(control)!
    this.clock.touched(index, this.controls[index], this.time)
    this.log({ time: this.time, kind: 'control', device, control, value })
    this.touched()
  }

  /** Sets every device's clock: now is this many minutes after Monday's midnight. */
  setClock(minuteOfWeek: number): void {
    this.clock.set(this.time, minuteOfWeek)
    const { heat } = this.surroundings
    if (heat) this.live(heat.scenario)
    else this.touched()
  }

  /**
   * Lets rooms, cylinders and water warm and cool by themselves, in such a house and weather; without a scenario a hand sets
   * what is felt, as at the start. Without a clock it is Monday, midnight.
   */
  live(scenario: Scenario | undefined): void {
    if (scenario && !this.clock.isSet) this.clock.set(this.time, 0)
    const startHour = (this.clock.minuteOfWeek(this.time) ?? 0) / 60 - this.time / 3_600_000
    this.surroundings.live(scenario, this.time, startHour)
    this.feel()
    this.touched()
  }

  /** Breaks or mends parts, under the name it is to have in the history. */
  apply(fault: string, damage: readonly Damage[], present: boolean): void {
    for (const d of damage) inflict(this.damage, d, present)
    this.damageKey = damageKey(this.damage)
    this.log({ time: this.time, kind: present ? 'fault' : 'mend', fault })
    this.touched()
  }

  /** When next anything happens, of the installation's own or from outside, in ms; Infinity where nothing will. */
  nextAt(): number {
    return Math.min(this.nextEventAt(), this.nextOutside())
  }

  /** When a clock or a temperature next changes something, in ms; Infinity where neither does. */
  private nextOutside(): number {
    return Math.min(this.clock.nextAt(this.time), this.surroundings.heat?.nextAt ?? Infinity)
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
    if (outside <= own) this.rounds.forget()
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

  /** Runs until nothing is under way, the installation is found hunting, or `cap` events have passed. */
  settle(cap = 2000): Verdict {
    for (let events = 0; events < cap; events++) {
      if (this.hunting) return 'hunting'
      if (this.nextEventAt() === Infinity) return 'settled'
      this.step()
    }
    return this.hunting ? 'hunting' : 'unfinished'
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

  private moveTo(time: number): void {
    const ms = time - this.time
    this.time = time
    if (ms <= 0) return
    this.travel.pass(ms)
    this.surroundings.heat?.passTo(time)
    this.feel()
  }

  private feel(): void {
    this.surroundings.feel(this.time, (control, celsius) => (this.controls[control] = celsius))
  }

  /** Everything that happens at one instant: due contacts and fuses switch, then each part answers what it sees. */
  private react(): void {
    this.turnByClock()
    this.switches.switchDue(this.time, this.damage, this.contactSwitched)
    this.openProtection()
    this.burnLoads()
    this.now = electricsOf(this.circuit, { ...this.damage, closed: this.switches.closed }, this.stateKey())
    this.noticeShort()
    this.protection.watch(this.now, this.time)
    this.updateLoads()
    this.travel.update(this.damage, this.drives)
    this.updateSensors()
    this.updateBus()
    this.surroundings.updateWater(this.plant, this.time)
    this.updateBehaviours()
    this.surroundings.updateHeat(this.plant, this.time)
    this.switches.schedule(this.time, this.damage, (i) => this.contactShouldBeClosed(i))
    this.countVisit()
  }

  /** Names the electrical state: contacts sixteen to a character, then the damage. */
  private stateKey(): string {
    const { closed } = this.switches
    let key = ''
    for (let i = 0; i < closed.length; i += 16) {
      let bits = 0
      for (let k = 0; k < 16 && i + k < closed.length; k++) bits |= closed[i + k] << k
      key += String.fromCharCode(bits)
    }
    return `${key}|${this.damageKey}`
  }

  private readonly contactSwitched = (i: number, closed: boolean): void => {
    const { device, part, throw: name } = this.circuit.contacts[i]
    this.log({ time: this.time, kind: 'contact', device: this.idOf(device), part: part.id, throw: name, closed })
  }

  private idOf(device: number): string {
    return this.circuit.devices[device].device.id
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
      this.damage.openLoads[i] = 1
      this.damageKey = damageKey(this.damage)
      const { device, part } = this.circuit.loads[i]
      this.log({ time: this.time, kind: 'burnt', device: this.idOf(device), part: part.id })
    })
  }

  private updateLoads(): void {
    // A short lasts some milliseconds; what hangs on the supply rides through them on what it has stored.
    if (this.shorted && this.protection.nextAt() < Infinity) return
    this.circuit.loads.forEach(({ device, part, pullsIn, dropsOut, withstands, ratedMs }, i) => {
      const whole = !this.damage.openLoads[i]
      const volts = this.now.loadVolts[i]
      const works = whole && volts >= (this.energisedLoads[i] ? dropsOut : pullsIn)
      const on = works || this.damage.heldLoads[i] ? 1 : 0
      this.energisedLoads[i] = on
      const burns = !whole ? Infinity : volts > withstands ? burnMs : on ? ratedMs : Infinity
      this.burnDue[i] = burns === Infinity ? Infinity : Math.min(this.burnDue[i], this.time + burns)
      if (!part.work) return
      const running = on && !this.damage.jammedLoads[i] ? 1 : 0
      if (running === this.working[i]) return
      this.working[i] = running
      this.log({ time: this.time, kind: 'work', device: this.idOf(device), part: part.id, running: running === 1 })
    })
  }

  /** What the valves see of the rest. */
  private readonly drives: Drives = {
    turns: (load) => this.energisedLoads[load] === 1 && !this.damage.jammedLoads[load],
    holds: (load) => this.loadHolds(load),
    latched: (actuator) => {
      const latch = this.circuit.actuators[actuator].part.latch
      return latch !== undefined && this.controls[this.latchControl(actuator)] === latch.latched
    },
    unlatch: (actuator) => {
      const { device, part } = this.circuit.actuators[actuator]
      this.controls[this.latchControl(actuator)] = part.latch!.free
      this.log({ time: this.time, kind: 'unlatched', device: this.idOf(device), part: part.id })
    },
    moved: (actuator, motion, position) => {
      const { device, part } = this.circuit.actuators[actuator]
      this.log({ time: this.time, kind: 'travel', device: this.idOf(device), part: part.id, motion, position })
    },
  }

  private latchControl(actuator: number): number {
    const { device, part } = this.circuit.actuators[actuator]
    return this.circuit.devices[device].controlIndex.get(part.latch!.control)!
  }

  private updateSensors(): void {
    this.circuit.sensors.forEach((sensor, i) => {
      const heated = sensor.accelerator !== undefined && this.energisedLoads[sensor.accelerator.load] === 1
      const temperature = Number(this.controls[sensor.reads])
      const set = Number(this.controls[sensor.setPoint])
      const asks = !this.damage.deadSensors[i] && senses(sensor, temperature, set, heated, this.sensing[i] === 1)
      this.sensing[i] = asks ? 1 : 0
      const { throws, device, part } = sensor
      if (!throws || asks || this.controls[throws.control] === throws.to) return
      this.controls[throws.control] = throws.to
      this.log({ time: this.time, kind: 'limit', device: this.idOf(device), part: part.id })
    })
  }

  private updateBus(): void {
    const { buses, devices } = this.circuit
    if (buses.length === 0) return
    this.bus.update(
      this.time,
      this.now,
      (load) => this.energisedLoads[load] === 1,
      (port) => this.damage.silentBuses[port] === 1,
      (port, request) => holds(buses[port].part.requests![request]!, devices[buses[port].device], this.view),
      (port, linked) => {
        const { device, part } = buses[port]
        this.log({ time: this.time, kind: 'bus', device: this.idOf(device), part: part.id, linked })
      },
    )
  }

  private turnByClock(): void {
    const index = (device: number, control: string) => this.circuit.devices[device].controlIndex.get(control)!
    for (const { control, value } of this.clock.turns(this.time, this.controls, index)) {
      this.controls[control] = value
      const { device, id } = this.circuit.controls[control]
      this.log({ time: this.time, kind: 'clock', device: this.idOf(device), control: id, value: String(value) })
    }
  }

  private updateBehaviours(): void {
    this.circuit.behaviours.forEach(({ device, part, watches, figures, throws }, i) => {
      for (;;) {
        const seen: Record<string, boolean> = { minded: this.surroundings.heat !== undefined }
        for (const role in watches) seen[role] = holds(watches[role], this.circuit.devices[device], this.view)
        seen.overheated = this.surroundings.overheated(device)
        const now = this.phases[i]
        const next = this.damage.lockedOut[i]
          ? lockedOut(now, seen)
          : behaviours[part.behaviour].react(now, seen, figures, this.time)
        if (next === now) break
        const changed = next.phase !== now.phase
        this.phases[i] = next
        if (!changed) continue
        this.log({ time: this.time, kind: 'phase', device: this.idOf(device), part: part.id, phase: next.phase })
        if (throws && next.phase === 'lockout' && !this.damage.lockedOut[i]) this.controls[throws.control] = throws.to
        // Fired or not, warmth may drive the water or cease to.
        this.surroundings.updateWater(this.plant, this.time)
      }
    })
  }

  private countVisit(): void {
    const phases = this.phases.map((p) => p.phase).join()
    const { blown } = this.damage
    const state = [
      this.switches.closed.join(''),
      this.travel.motion.join(),
      this.sensing.join(''),
      phases,
      blown.join(''),
    ].join('|')
    // An overload is under way to a fuse: whatever repeats, that does not.
    if (!this.rounds.enter(state) || this.hunting || this.protection.nextAt() < Infinity) return
    this.hunting = true
    this.log({ time: this.time, kind: 'hunting' })
  }
}
