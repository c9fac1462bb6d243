import type { Circuit } from '../circuit'
import { nth } from '../lists'
import { asOne, combinable, weightOf, type Cause, type Together } from './together'
import type { Suspect } from './suspects'

/** So many are followed: a twentieth of a second's work. */
const mostSeconds = 60

/** What a single suspect makes of every finding, with nothing put right: probabilities. */
export type ChancesOf = (single: number) => readonly number[]

/**
 * What was put right, and something else beside it that is still so: those pairs that may go best with what was found. Before it was
 * put right either of the two may have shown; afterwards only the other.
 *
 * @param mended ids of what was put right, each with how many findings were made before.
 */
export function secondsOf(
  circuit: Circuit,
  singles: readonly Suspect[],
  mended: ReadonlyMap<string, number>,
  chancesOf: ChancesOf,
): Suspect[] {
  const { weigh } = weightOf(singles, 2)
  const numberOf = new Map(singles.map(({ id }, i) => [id, i]))
  const logsOf = new Map<string, readonly number[]>()
  const logs = ({ id }: Cause) => {
    const known = logsOf.get(id) ?? chancesOf(numberOf.get(id) ?? -1).map(Math.log)
    logsOf.set(id, known)
    return known
  }
  const listed = combinable(singles)
  const first = listed.filter(({ id }) => mended.has(id))
  const pairs = first.flatMap((a) =>
    listed.flatMap((b): (Together & { rank: number })[] => {
      // Of two that were both put right, one pair.
      if (b.id === a.id || (mended.has(b.id) && b.id < a.id)) return []
      const prior = weigh(a, b)
      const [ofA, ofB] = [logs(a), logs(b)]
      const until = mended.get(a.id) ?? 0
      const fit = ofB.reduce((sum, log, i) => sum + (i < until ? Math.max(log, nth(ofA, i)) : log), 0)
      return [{ causes: [a, b], prior, rank: Math.log(prior) + fit }]
    }),
  )
  pairs.sort((x, y) => y.rank - x.rank)
  return pairs.slice(0, mostSeconds).flatMap((pair) => asOne(circuit, pair)?.suspect ?? [])
}
