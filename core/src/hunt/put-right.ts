import { isOf, tells } from './along'
import type { HuntEntry } from './case'
import { causesOf, type Suspect } from './suspects'

/** Ids of what was put right, or went with a part that was changed, in the order of the log; what went twice is there twice. */
const allMended = (suspects: readonly Suspect[], log: readonly HuntEntry[]): { id: string; at: number }[] =>
  log.flatMap((entry, at) => {
    if ('mended' in entry) return [{ id: entry.mended, at }]
    if (!('renew' in entry)) return []
    return suspects.flatMap((suspect) =>
      causesOf(suspect).flatMap((one) => (isOf(one, entry) ? [{ id: one.id, at }] : [])),
    )
  })

/** Ids of what was put right, or went with a part that was changed. */
export const mendedIn = (suspects: readonly Suspect[], log: readonly HuntEntry[]): ReadonlySet<string> =>
  new Set(allMended(suspects, log).map(({ id }) => id))

/** The same, each with how many findings were made before it was put right first. */
export function mendedAfter(suspects: readonly Suspect[], log: readonly HuntEntry[]): ReadonlyMap<string, number> {
  const after = new Map<string, number>()
  for (const { id, at } of allMended(suspects, log))
    if (!after.has(id)) after.set(id, log.slice(0, at).filter(tells).length)
  return after
}
