import type { CompiledSensor } from '../circuit'

/** What the pipework and the rooms see of the rest of the simulation. */
export interface SeenByWater {
  /** Where a port's actuator stands, 0 to 1. */
  position(actuator: number): number
  passes(port: number): boolean
  working(load: number): boolean
  /** Does a condition of a water part's device hold? */
  may(source: number): boolean
  /** Is its water hot? */
  hot(source: number): boolean
  gives(emitter: number): boolean
  aims(source: number): number | undefined
  control(control: number): string | number
  heated(sensor: CompiledSensor): boolean
  asks(sensor: number): boolean
}
