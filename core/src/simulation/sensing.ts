import type { CompiledSensor } from '../circuit'

/**
 * The temperatures (°C) at which a sensor asks for heat and at which it is satisfied: half the narrow differential below the
 * set-point and half of it above. Without its accelerator a bimetal overshoots: it lets go only a whole wide differential
 * above where it asked.
 */
export function thresholds(sensor: CompiledSensor, set: number, heated: boolean): { lower: number; upper: number } {
  const narrow = sensor.accelerator?.differential ?? sensor.differential
  const lower = set - narrow / 2
  const upper = !sensor.accelerator || heated ? set + narrow / 2 : lower + sensor.differential
  return { lower, upper }
}

/** Does a sensor ask at this temperature? Between its thresholds it stays as it was. */
export function senses(
  sensor: CompiledSensor,
  temperature: number,
  set: number,
  heated: boolean,
  before: boolean,
): boolean {
  const { lower, upper } = thresholds(sensor, set, heated)
  if (temperature <= lower) return true
  if (temperature >= upper) return false
  return before
}
