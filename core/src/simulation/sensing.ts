import type { CompiledSensor } from '../circuit'

/**
 * Does a sensor ask for heat at this temperature (°C)? It asks at half the narrow differential below the set-point and
 * is satisfied half of it above. Without its accelerator a bimetal overshoots: it lets go only a whole wide differential
 * above where it asked. In between it stays as it was.
 */
export function senses(
  sensor: CompiledSensor,
  temperature: number,
  set: number,
  heated: boolean,
  before: boolean,
): boolean {
  const narrow = sensor.accelerator?.differential ?? sensor.differential
  const lower = set - narrow / 2
  const upper = !sensor.accelerator || heated ? set + narrow / 2 : lower + sensor.differential
  if (temperature <= lower) return true
  if (temperature >= upper) return false
  return before
}
