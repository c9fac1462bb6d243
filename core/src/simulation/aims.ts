import type { Aim } from '../catalogue'
import type { CompiledDevice } from '../circuit'
import { holds, type View } from './conditions'

/** Indoors, the slope of the heating curve, and the least flow temperature it gives, °C and K/K: usual values. */
const indoors = 20
const slope = 1.6
const leastFlow = 25

/**
 * °C to which the water of a source is to be heated: the first aim whose condition holds. An outdoor sensor, where one is
 * fitted, lowers it by a straight heating curve; a controller on the bus asks for its own.
 */
export function aimOf(
  aims: readonly Aim[],
  device: CompiledDevice,
  view: View,
  outdoors: number | undefined,
  asked: (port: number) => number | undefined,
): number | undefined {
  const aim = aims.find((a) => a.when === undefined || holds(a.when, device, view))
  if (!aim) return undefined
  const port = aim.overBus === undefined ? undefined : device.busIndex.get(aim.overBus)
  const set = (port === undefined ? undefined : asked(port)) ?? device.amount(aim.celsius)
  if (aim.compensatedBy === undefined || outdoors === undefined) return set
  if (device.amount({ setting: aim.compensatedBy }) !== 1) return set
  return Math.min(set, Math.max(leastFlow, indoors + slope * (indoors - outdoors)))
}
