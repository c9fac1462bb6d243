import type { Amount, BusRequest, Condition, Part } from './part'
import type { Emitter, HeatSource, Store, Waterway } from './water-primitives'

export type { Amount, BusRequest, Condition, Failure, FailureMode, Part } from './part'

export type { Aim, Emitter, HeatSource, Store, Waterway } from './water-primitives'

/**
 * The primitives every device type is composed of. Faults, priors and remedies stand on the primitive, so that a new
 * type is traced and hunted through for nothing.
 */

/** What contacts have in common. */
interface Switching extends Part {
  /** Milliseconds after its fellows at which it makes: electronics pull their relays in one after the other. */
  laterMs?: number
}

/** A contact between two terminals. */
export interface Contact extends Switching {
  kind: 'contact'
  a: string
  b: string
  closedWhen: Condition
}

/** One common and two throws: `no` made while operated, `nc` made while released. Breaks before it makes. */
export interface Changeover extends Switching {
  kind: 'changeover'
  common: string
  no: string
  nc: string
  operatedWhen: Condition
}

/** A conductor inside the device that no switch interrupts. */
export interface Strap extends Part {
  kind: 'strap'
  a: string
  b: string
}

/**
 * Anything that draws current between two terminals. It is an impedance: a resistance from its power at nominal
 * voltage, or, where it is a winding, a DC resistance in series with an inductance that has its iron loss beside it.
 */
export interface Load extends Part {
  kind: 'load'
  from: string
  to: string
  /** Watts at nominal voltage; a load has this or `ohms`. */
  watts?: Amount
  /** Ohms of a resistive load. */
  ohms?: Amount
  /** Nominal volts; left out, the supply's. */
  volts?: Amount
  /** Power factor at nominal voltage, lagging, above 0 to 1; left out, 1. */
  powerFactor?: Amount
  /** DC resistance of a winding, per cent of its impedance at nominal voltage; left out, the load is resistive. */
  dcPercent?: Amount
  /** Per cent of nominal volts from which it works; left out, 75. */
  pullsIn?: Amount
  /** Per cent of nominal volts below which it lets go again; left out, four fifths of `pullsIn`. */
  dropsOut?: Amount
  /** Per cent of nominal volts, as a mean (DC), from which a rotor at rest is held where it is. */
  holdsOn?: Amount
  /** Volts across it beyond which it burns out for good. */
  withstands?: Amount
  /** Minutes without a pause after which it burns out; left out or 0, it is rated for continuous duty. */
  ratedMinutes?: Amount
  /** A load that does work a person notices: a pump or fan runs, an element heats. */
  work?: 'runs' | 'heats'
  /** Its device's display or lamps hang on it: dark when it has no supply. */
  lights?: true
}

/** A way for current that is there only once insulation has failed. */
export interface Insulation extends Part {
  kind: 'insulation'
  a: string
  b: string
  /** Ohms of the way once the insulation has failed. */
  ohms: Amount
}

/** A resistor and a capacitor in series: a suppressor across an input or a contact. */
export interface Suppressor extends Part {
  kind: 'suppressor'
  a: string
  b: string
  ohms: Amount
  microfarads: Amount
}

/** A diode with a resistor in series: passes half-waves from anode to cathode. */
export interface DiodePath extends Part {
  kind: 'diode'
  anode: string
  cathode: string
  ohms: Amount
}

/** Two windings on one core; nothing joins the secondary to the primary. */
export interface Transformer extends Part {
  kind: 'transformer'
  /** The load that is its primary: magnetising current and losses, and the winding itself. */
  primary: string
  /** The secondary's fed side and its return. */
  fed: string
  common: string
  /** Secondary volts at full load. */
  volts: Amount
  /** Full load, volt-amperes. */
  va: Amount
  /** Per cent by which the secondary rises from full load to none: it sets the internal resistance. */
  regulation: Amount
}

/** Watches the currents of two contacts, line and neutral, and throws a control when they differ. */
export interface ResidualTrip extends Part {
  kind: 'residual-trip'
  contacts: readonly [string, string]
  /** Rated residual current, milliamperes. */
  milliamps: Amount
  throws: { control: string; to: string }
}

/**
 * Travel driven by a load. Position 0 is where it rests undriven, 1 the driven end: shut and open on a normally closed
 * valve. A spring takes it back, unless it is driven both ways.
 */
export interface Actuator extends Part {
  kind: 'actuator'
  drivenBy: string
  /** Seconds from shut to open while driven. */
  openSeconds: Amount
  /** Seconds from the driven end back. */
  returnSeconds: Amount
  /** Driven both ways, without a spring: the load that moves it either way, and without which it stays. */
  movedBy?: string
  /** 1 where a jumper reverses the sense of what drives it. */
  reversed?: Amount
  /** It has a manual lever: stiff while shut, slack while driven. */
  lever?: boolean
  /**
   * The lever can be latched part open, for filling and draining: the control that holds it, which of its values is the
   * latched one, which it falls back to the first time the motor drives, and the travel it is latched at.
   */
  latch?: { control: string; latched: string; free: string; at: Amount }
  /** What its two ends are called where they are not simply shut and open. */
  ends?: { shut: string; open: string; part?: string }
}

/** A water port that an actuator uncovers over a part of its travel. */
export interface Port extends Part {
  kind: 'port'
  actuator: string
  /** Connections it lies between. */
  from: string
  to: string
  /** Pressure lost at 1000 l/h while it is open, kPa. */
  kpa: Amount
  /** Fractions of travel between which water can pass. */
  openFrom: number
  openTo: number
}

/** Compares a temperature with a set-point, with a differential centred on the set-point. */
export interface Sensor extends Part {
  kind: 'sensor'
  /** The control that holds the temperature at the device, °C. */
  reads: string
  /** The control that holds the set-point, °C. */
  setPoint: string
  /** Kelvin between asking and being satisfied. */
  differential: Amount
  /** A load that, while energised, brings the upper threshold down: an accelerator heater. */
  accelerator?: { load: string; differential: Amount }
  /** A limit: above its set-point it throws this control, which only a hand sets back. */
  throws?: { control: string; to: string }
}

/**
 * One end of a two-wire extra-low-voltage link, either polarity. A controller asks, a boiler answers; they hear each
 * other when both are under supply and both wires join them, and each change takes `answerSeconds` to arrive.
 */
export interface BusPort extends Part {
  kind: 'bus'
  a: string
  b: string
  /** The load that shows that its device is under supply. */
  powered: string
  /** Of a controller, the load across the two wires that shows that the boiler feeds the link. */
  heard?: string
  role: 'controller' | 'boiler'
  /** What a controller asks for, and when. */
  requests?: Partial<Record<BusRequest, Condition>>
  /** The control that holds the flow temperature asked for, °C. */
  flow?: string
  /** Seconds from a change at the controller to the boiler's answer. */
  answerSeconds?: Amount
}

export interface Fuse extends Part {
  kind: 'fuse'
  a: string
  b: string
  /** Rated amperes. */
  amps: Amount
}

/** Where the mains comes from; line, neutral and earth are internal terminals. */
export interface Source extends Part {
  kind: 'source'
  line: string
  neutral: string
  earth: string
  /** Ohms from the origin through the supply and back: it bounds the current of a short. */
  loopOhms: Amount
}

/** A sequence that needs code of its own, by the name it has in the simulator. */
export interface BehaviourPart extends Part {
  kind: 'behaviour'
  behaviour: 'boiler-sequence' | 'circulator-call'
  /** What it watches, by the role the behaviour gives it. */
  watches: Record<string, Condition>
  /** The settings it uses, by the name the behaviour gives them. */
  figures: Record<string, Amount>
  /** The control it throws when it locks itself out, which only a hand sets back. */
  throws?: { control: string; to: string }
  /** What a phase is called on this device where it is not the usual word. */
  words?: Readonly<Record<string, string>>
}

export type Primitive =
  | Contact
  | Changeover
  | Strap
  | Load
  | Insulation
  | Suppressor
  | DiodePath
  | Transformer
  | ResidualTrip
  | Actuator
  | Port
  | Sensor
  | Fuse
  | Source
  | BusPort
  | BehaviourPart
  | Waterway
  | HeatSource
  | Emitter
  | Store

/** What a terminal needs or gives; rules are written against these. */
export type TerminalRole =
  | 'permanent-live'
  | 'neutral'
  | 'earth'
  /** The side of a volt-free contact that must be fed from somewhere. */
  | 'contact-feed'
  | 'output'
  | 'input'

export interface TerminalType {
  id: string
  legend: string
  role: TerminalRole
  /** The conductor colour of a fixed lead, where the terminal is one. */
  lead?: 'brown' | 'blue' | 'green-yellow' | 'grey' | 'orange' | 'white' | 'red' | 'yellow'
  /** Extra-low voltage: never mains, and no insulation test. */
  extraLow?: boolean
  /** Inside the device: no conductor can be put on it. */
  internal?: boolean
  /** A tie point: nothing inside leads to it, and that is meant. */
  bare?: boolean
}

/** From this minute of this day a control stands at this value. */
export interface ProgrammeStep {
  /** 0 Monday to 6 Sunday. */
  day: number
  /** Minutes after midnight, 0 to 1439. */
  minute: number
  value: string | number
}
/** A week that repeats; before its first step the last one of the week before holds. */
export type Programme = readonly ProgrammeStep[]

/** How a clock works a control: the week it comes with, and the values in which it leaves the control alone. */
export interface Timed {
  usual: Programme
  /**
   * Turned, it stands at what the programme says; else the programme only answers "timed" to the conditions of its device.
   */
  turns?: true
  /** Values, of a control that it turns, at which it leaves it alone: switched off by hand. */
  leaves?: readonly string[]
  /** The programme is followed only while another control of the device stands so. */
  while?: { control: string; is: readonly string[] }
}

/** What around a device an ambient number is, so that a model of heat can say it. */
export type Felt = 'room' | 'outdoors' | 'cylinder' | 'water' | 'return' | 'emitter'

export type Control =
  | {
      kind: 'choice'
      id: string
      label: string
      /** Seldom: not one of the positions a hand goes to every day. */
      values: readonly { id: string; label: string; seldom?: true }[]
      initial: string
      /** Not a switch for a demand but how things stand with the device: a link lost, a latch left over. */
      ambient?: boolean
      timed?: Timed
      /** Goes back by itself: minutes after which it stands at `to` again. */
      returns?: { from: string; minutes: number; to: string }
    }
  | {
      kind: 'number'
      id: string
      label: string
      unit: string
      min: number
      max: number
      step: number
      initial: number
      /** Not a knob but the world around the device: a room's or a cylinder's temperature. */
      ambient?: boolean
      feels?: Felt
      timed?: Timed
    }

export interface Setting {
  id: string
  label: string
  unit: string
  min: number
  max: number
  default: number
  /** Where the default comes from. */
  origin: string
  /** The values in words, where it is a jumper or a choice at set-up. */
  choices?: readonly { value: number; label: string }[]
  /** Nobody sets it, and it may as well be so from its maker: nothing is wrong then. */
  mayBe?: { value: number; label: string }
}

/** The shelves of the catalogue, in the order in which they are shown. */
export const families = {
  supply: 'Supply',
  timing: 'Programmers and receivers',
  thermostats: 'Thermostats',
  valves: 'Valves',
  relays: 'Relays and transformers',
  boilers: 'Boilers and heat pumps',
  water: 'Pumps, fans, heaters',
  circuits: 'Radiators, cylinders, bypass',
} as const
export type Family = keyof typeof families

export interface DeviceType {
  id: string
  version: number
  name: string
  family: Family
  /** One paragraph: how it works. */
  about: string
  /** Where it usually stands. */
  stands: string
  terminals: readonly TerminalType[]
  controls: readonly Control[]
  settings: readonly Setting[]
  primitives: readonly Primitive[]
  /** Inputs a demand can end at: the terminal and the load that hears the call. */
  inputs: readonly { id: string; terminal: string; load: string }[]
}
