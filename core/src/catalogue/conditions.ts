import type { Condition } from './primitives'

/** A condition that is not made of others: one control, sensor, travel, load or behaviour. */
export type ConditionLeaf = Exclude<Condition, { all: unknown } | { any: unknown } | { not: unknown }>

/** Everything a condition looks at, whatever way it is put together. */
export function leavesOf(condition: Condition): ConditionLeaf[] {
  if ('all' in condition) return condition.all.flatMap(leavesOf)
  if ('any' in condition) return condition.any.flatMap(leavesOf)
  if ('not' in condition) return leavesOf(condition.not)
  return [condition]
}
