import type { Condition, Programme } from '../catalogue'
import { potentials, type Circuit, type Electrics, type Potential } from '../circuit'
import type { Heat } from '../heat'
import { aimOf } from './aims'
import { behaviours, type BehaviourState } from './behaviours'
import { Bus, type BusReading } from './bus'
import { Clock } from './clock'
import { holds, type View } from './conditions'
import { copyDamage, noDamage, NOT_HELD, type DamageState } from './damage'
import type { Motion } from './events'
import type { Plant } from './plant'
import { Surroundings } from './surroundings'
import { Switches } from './switches'
import { Travel } from './travel'

/** Water that a hand calls hot, °C. */
const hotFrom = 30

/** An installation at one moment: its whole state, and everything that can be asked of it. How it goes on is the simulation's. */
export abstract class Moment {
  /** Whole milliseconds since the start. */
  time = 0

  protected readonly controls: (string | number)[]
  protected readonly switches: Switches
  protected readonly travel: Travel
  protected readonly bus: Bus
  protected readonly clock: Clock
  protected readonly surroundings: Surroundings
  protected readonly sensing: Uint8Array
  protected readonly energisedLoads: Uint8Array
  protected readonly working: Uint8Array
  protected phases: BehaviourState[]
  protected damage: DamageState
  protected shorted = false
  protected now!: Electrics
  protected readonly view: View

  constructor(
    readonly circuit: Circuit,
    from?: Moment,
  ) {
    this.controls = from ? from.controls.slice() : circuit.controls.map((c) => c.initial)
    this.switches = new Switches(circuit, from?.switches)
    this.travel = new Travel(circuit, from?.travel)
    this.bus = new Bus(circuit, from?.bus)
    this.clock = new Clock(circuit, from?.clock)
    this.surroundings = new Surroundings(circuit, from?.surroundings)
    this.sensing = from ? from.sensing.slice() : new Uint8Array(circuit.sensors.length)
    this.energisedLoads = from ? from.energisedLoads.slice() : new Uint8Array(circuit.loads.length)
    this.working = from ? from.working.slice() : new Uint8Array(circuit.loads.length)
    this.phases = from ? from.phases.slice() : circuit.behaviours.map((b) => behaviours[b.part.behaviour].initial)
    this.damage = from ? copyDamage(from.damage) : noDamage(circuit)
    if (from) {
      this.time = from.time
      this.shorted = from.shorted
      this.now = from.now
    }
    this.view = {
      controls: this.controls,
      energised: this.energisedLoads,
      working: this.working,
      sensing: this.sensing,
      position: this.travel.position,
      velocity: this.travel.velocity,
      cams: this.travel.cams,
      phase: (i) => this.phases[i].phase,
      linked: (port) => this.bus.linked(port),
      hears: (port, request) => this.bus.hears(port, request),
      flow: (way) => this.surroundings.flows[way],
      timed: (control) => this.clock.timed(control, this.controls[control], this.time),
    }
  }

  /** The electrical answer for the state it is in. */
  get electrics(): Electrics {
    return this.now
  }
  /** The model of heat, where temperatures go their own way. */
  get heat(): Heat | undefined {
    return this.surroundings.heat
  }
  /** Flow through every way for water, l/h, in the direction in which the way is named. */
  get flows(): Float64Array {
    return this.surroundings.flows
  }
  /** °C of the pipes at `from` and at `to` of every way, as a hand would feel them. */
  pipeTemperatures(): Float64Array {
    return this.surroundings.pipeTemperatures(this.plant, this.time)
  }
  /** Minutes after Monday's midnight; undefined while no clock is set. */
  get minuteOfWeek(): number | undefined {
    return this.clock.minuteOfWeek(this.time)
  }
  /** Is the water of this heat source hot: as the model of heat, its own thermostat, or its burner says? */
  sourceHot(source: number): boolean {
    return this.plant.hot(source)
  }
  /** Does this emitter give off its heat: does its fan, where it has one, run? */
  emitterGives(emitter: number): boolean {
    return this.plant.gives(emitter)
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
    return this.switches.closed[contact] === 1
  }
  /** Should this throw be closed, by its own device's condition? Differs from what it is when it has failed or is on its way. */
  contactShouldBeClosed(contact: number): boolean {
    const c = this.circuit.contacts[contact]
    return holds(c.closedWhen, this.circuit.devices[c.device], this.view) !== c.inverted
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
    const c = this.circuit.contacts[contact]
    const energised = this.energisedLoads.map((on, i) => (this.circuit.loads[i].ownSupply ? 1 : on))
    const supplied: View = { ...this.view, controls, energised, linked: () => false }
    return holds(c.closedWhen, this.circuit.devices[c.device], supplied) !== c.inverted
  }
  /** The week that a device's clock goes by for a control; empty where it has none. */
  programmeOf(device: string, control: string): Programme {
    const { device: own, type } = this.circuit.devices[this.circuit.deviceIndex.get(device)!]
    return own.programme?.[control] ?? type.controls.find((c) => c.id === control)?.timed?.usual ?? []
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
    return this.travel.position[actuator]
  }
  actuatorMotion(actuator: number): Motion {
    return this.travel.motion[actuator]
  }
  /** Does it not move at all, by hand or motor? */
  actuatorSeized(actuator: number): boolean {
    return this.damage.heldActuators[actuator] !== NOT_HELD
  }
  /** Is its travel not free: seized somewhere, or with nothing to take it back? */
  actuatorHeld(actuator: number): boolean {
    return this.damage.heldActuators[actuator] !== NOT_HELD || this.damage.brokenSprings[actuator] === 1
  }
  loadJammed(load: number): boolean {
    return this.damage.jammedLoads[load] === 1
  }
  /** Is this input taken for energised whatever reaches it? */
  loadHeld(load: number): boolean {
    return this.damage.heldLoads[load] === 1
  }
  sensorDead(sensor: number): boolean {
    return this.damage.deadSensors[sensor] === 1
  }
  portPasses(port: number): boolean {
    return this.damage.passingPorts[port] === 1
  }
  behaviourLockedOut(behaviour: number): boolean {
    return this.damage.lockedOut[behaviour] === 1
  }
  /** Does a condition of this device hold just now? */
  conditionHolds(condition: Condition, device: number): boolean {
    return holds(condition, this.circuit.devices[device], this.view)
  }
  /** How every bus link stands. */
  busReadings(): BusReading[] {
    return this.bus.readings(this.now)
  }
  busSilent(port: number): boolean {
    return this.damage.silentBuses[port] === 1
  }
  sensorAsks(sensor: number): boolean {
    return this.sensing[sensor] === 1
  }
  phase(behaviour: number): BehaviourState {
    return this.phases[behaviour]
  }

  /** What water and heat see of the rest. */
  protected readonly plant: Plant = {
    position: (actuator) => this.travel.position[actuator],
    passes: (port) => this.damage.passingPorts[port] === 1,
    working: (load) => this.working[load] === 1,
    may: (source) => {
      const { when, device } = this.circuit.water.sources[source]
      return holds(when, this.circuit.devices[device], this.view)
    },
    hot: (source) => {
      const { device } = this.circuit.water.sources[source]
      const { heat } = this.surroundings
      const lump = heat?.lumps.sourceLump[source]
      if (heat && lump !== undefined) return heat.celsius[lump] >= hotFrom
      const { type, controlIndex } = this.circuit.devices[device]
      const felt = type.controls.find((c) => c.kind === 'number' && c.feels === 'water')
      return felt ? Number(this.controls[controlIndex.get(felt.id)!]) >= hotFrom : this.plant.may(source)
    },
    gives: (emitter) => {
      const { part, device } = this.circuit.water.emitters[emitter]
      return part.when === undefined || holds(part.when, this.circuit.devices[device], this.view)
    },
    aims: (source) => {
      const { device, aims } = this.circuit.water.sources[source]
      const outdoors = this.surroundings.heat?.outdoorsAt(this.time)
      return aimOf(aims, this.circuit.devices[device], this.view, outdoors, (port) => this.flowAsked(port))
    },
    control: (control) => this.controls[control],
    heated: ({ accelerator }) => accelerator !== undefined && this.energisedLoads[accelerator.load] === 1,
    asks: (sensor) => this.sensing[sensor] === 1,
  }

  /** The flow temperature that a controller asks of a boiler's bus port, °C. */
  private flowAsked(port: number): number | undefined {
    const reading = this.bus.readings(this.now).find((r) => r.boiler === port && r.linked)
    if (!reading) return undefined
    const { device, part } = this.circuit.buses[reading.controller]
    const { controlIndex } = this.circuit.devices[device]
    return part.flow === undefined ? undefined : Number(this.controls[controlIndex.get(part.flow)!])
  }
}
