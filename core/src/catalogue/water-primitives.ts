import type { Amount, Condition, Part } from './part'

/** A way for water between two connections of a device; pipes join connections. */
export interface Waterway extends Part {
  kind: 'waterway'
  /** Connections, in the direction in which a pump drives and a check valve lets by. */
  from: string
  to: string
  /** Pressure lost at 1000 l/h, kPa; it grows with the square of the flow. */
  kpa: Amount
  /** Driven while a load works: kPa against shut valves, and l/h with nothing in the way. */
  pump?: { load: string; head: Amount; most: Amount }
  /** Lets nothing back. */
  oneWay?: true
  /** Opens by itself from this difference in pressure, kPa: a bypass. */
  opensAt?: Amount
}

/** What the water of a source is to be heated to. */
export interface Aim {
  /** Holds where this is the one; left out, always. */
  when?: Condition
  celsius: Amount
  /** An outdoor sensor lowers it while this setting stands at 1. */
  compensatedBy?: string
  /** A controller on this bus port asks for its own. */
  overBus?: string
}

/** Heat from a burner or an element, into water on its way or straight into a cylinder. */
export interface HeatSource extends Part {
  kind: 'heat-source'
  /** The waterway whose water it heats; left out, the cylinder it stands in. */
  way?: string
  /** Holds while it may heat. */
  when: Condition
  /** Watts: all it has, and the least to which it turns itself down. */
  most: Amount
  least: Amount
  /** Water and metal that it heats itself, Wh/K; a source without a waterway has none. */
  capacity?: Amount
  /** The first whose condition holds; none, and it heats for as long as it may. */
  aims?: readonly Aim[]
  /** °C of its water at which its own limit trips; left out, it has none. */
  limit?: Amount
  /** Its water is measured where it is heated, so that it minds it without flow too; else it then overheats. */
  mindsItself?: true
}

/** Where water gives off its heat on its way. */
export interface Emitter extends Part {
  kind: 'emitter'
  way: string
  into: 'room' | 'cylinder'
  /** Watts given off while water and what it warms are `kelvin` apart. */
  watts: Amount
  kelvin: number
  /** Its own water and metal, Wh/K. */
  capacity: Amount
  /** Gives off only while this holds: a fan runs. */
  when?: Condition
  /** Metres above the boiler: what drives water by its warmth alone. */
  rise: Amount
}

/** A body of hot water that is drawn off and filled up cold. */
export interface Store extends Part {
  kind: 'store'
  litres: Amount
  /** Watts lost per kelvin above the space around it. */
  loses: Amount
  /** The control that says what is drawn, and litres a minute by its value. */
  draws: { control: string; litresPerMinute: Readonly<Record<string, number>> }
}
