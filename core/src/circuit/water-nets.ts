import type { Aim, Condition, Emitter, HeatSource, Port, Store, Waterway } from '../catalogue'

/** A way for water between two nets of pipes, with what opens and drives it. */
export interface CompiledWay {
  device: number
  part: Waterway | Port
  /** Nets of pipes at its ends. */
  from: number
  to: number
  /** kPa at 1000 l/h. */
  kpa: number
  /** The valve's port that opens it, by its number among all ports. */
  port?: number
  pump?: { load: number; head: number; most: number }
  oneWay: boolean
  /** Difference in kPa from which it opens by itself; 0 where it is simply open. */
  opensAt: number
}
export interface CompiledHeatSource {
  device: number
  part: HeatSource
  /** The way whose water it heats; undefined where it stands in a cylinder. */
  way?: number
  when: Condition
  most: number
  least: number
  capacity: number
  /** °C at which its limit trips; Infinity where it has none. */
  limit: number
  aims: readonly Aim[]
}
export interface CompiledEmitter {
  device: number
  part: Emitter
  way: number
  /** W/K between its water and what it warms. */
  perKelvin: number
  capacity: number
  rise: number
}
export interface CompiledStore {
  device: number
  part: Store
  litres: number
  loses: number
}

/** The pipework made ready for computing. Pipes, and tees, join connections to nets of one pressure. */
export interface WaterCircuit {
  nets: number
  /** The net of a connection, `owner.connection`; a tee has one net. */
  netOf: Map<string, number>
  ways: CompiledWay[]
  sources: CompiledHeatSource[]
  emitters: CompiledEmitter[]
  stores: CompiledStore[]
}
