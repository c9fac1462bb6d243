import type { Circuit } from '../circuit'
import { nth } from '../lists'
import { asOne, combinable, weightOf, type Cause, type One, type Together } from './together'
import type { Suspect } from './suspects'

/** So many are followed: a twentieth of a second's work. */
const mostSeconds = 60

/** What a single suspect makes of every finding, with nothing put right: probabilities. */
export type ChancesOf = (single: number) => readonly number[]

/** A pair, and the logarithm of its weight after everything found, as far as can be said without going along the log with it. */
export type RankedPair = Together & { rank: number }

/**
 * Two at once, in the order in which they may go best with what was found: where either of the two may have shown, as well as the one of
 * them that fits better; once one of them was put right, as the other.
 *
 * @param mended ids of what was put right, each with how many findings were made before.
 */
export function pairsInOrder(
  singles: readonly Suspect[],
  chancesOf: ChancesOf,
  mended: ReadonlyMap<string, number>,
  isThoughtOf: (a: Cause, b: Cause) => boolean = () => true,
): RankedPair[] {
  const { weigh } = weightOf(singles, 2)
  const numberOf = new Map(singles.map(({ id }, i) => [id, i]))
  const listed = combinable(singles)
  const logs = listed.map(({ id }) => Float64Array.from(chancesOf(numberOf.get(id) ?? -1), Math.log))
  const until = listed.map(({ id }) => mended.get(id) ?? Infinity)
  const fitOf = (x: number, y: number): number => {
    const [ofX, ofY, untilX, untilY] = [nth(logs, x), nth(logs, y), nth(until, x), nth(until, y)]
    let fit = 0
    // Of two that were both put right, the one put right last is taken to show to the end.
    const [lastX, lastY] = untilX < untilY ? [untilX, Infinity] : [Infinity, untilY]
    for (let i = 0; i < ofX.length; i++) {
      const [own, other] = [nth(ofX, i), nth(ofY, i)]
      fit += i >= lastX ? other : i >= lastY ? own : Math.max(own, other)
    }
    return fit
  }
  return listed
    .flatMap((a, x) =>
      listed.slice(x + 1).flatMap((b, k): RankedPair[] => {
        if (!isThoughtOf(a, b)) return []
        const prior = weigh(a, b)
        return [{ causes: [a, b], prior, rank: Math.log(prior) + fitOf(x, x + 1 + k) }]
      }),
    )
    .sort((one, other) => other.rank - one.rank)
}

/**
 * Two at once that may go best with what was found: what was put right with something else beside it that is still so; any two, where
 * nothing was.
 *
 * @param mended as {@link pairsInOrder} has it.
 */
export function secondsOf(
  circuit: Circuit,
  singles: readonly Suspect[],
  mended: ReadonlyMap<string, number>,
  chancesOf: ChancesOf,
): One[] {
  const isThoughtOf = (a: Cause, b: Cause) => mended.size === 0 || mended.has(a.id) || mended.has(b.id)
  const pairs = pairsInOrder(singles, chancesOf, mended, isThoughtOf).slice(0, mostSeconds)
  return pairs.flatMap((pair) => asOne(circuit, pair) ?? [])
}
