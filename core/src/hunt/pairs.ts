import { nth } from '../lists'
import { asOne, pairable, pairWeight, type Paired } from './both'
import type { HuntEntry } from './case'
import { Ground } from './ground'
import { Hunt } from './hunt'
import type { Suspect } from './suspects'

/** So many at a time, between which it can be left. */
const atOnce = 40
const mostTold = 12

export interface Pair {
  ids: [string, string]
  labels: [string, string]
  /** Of all weight, singles and the pairs looked at, from 0 to 1. */
  share: number
}

export interface Pairs {
  /** Of the weight of all pairs before anything was found, how much has been looked at, from 0 to 1. */
  lookedAt: number
  done: number
  of: number
  /** Of all weight, singles and pairs, that of the pairs looked at. */
  share: number
  /** The likeliest pairs first. */
  best: Pair[]
}

/**
 * Two causes at once, gone along the same log: those first whose weights are high and one of which fits what was found. Gives what
 * it has come to after every few of them; it ends when all have been looked at, or the `most` of them. Two that cannot both be so
 * (one conductor in two places) are left out.
 */
export function* pairsOf(hunt: Hunt, log: readonly HuntEntry[], most = Infinity): Generator<Pairs, void> {
  const { circuit, options, singles: suspects } = hunt
  const singles = hunt.logLikelihoods().slice(0, suspects.length)
  const pairs = inOrder(suspects, singles)
  const mass = pairs.reduce((sum, { prior }) => sum + prior, 0)
  const found: { pair: Paired; log: number }[] = []
  let [done, looked] = [0, 0]
  const told = (): Pairs => {
    const weight = (one: { pair: Paired; log: number }) => Math.log(one.pair.prior) + one.log
    const logs = [
      ...Array.from(singles, (single, i) => Math.log(nth(suspects, i).prior) + single),
      ...found.map(weight),
    ]
    const highest = logs.reduce((x, y) => Math.max(x, y), -Infinity)
    const all = logs.reduce((sum, one) => sum + Math.exp(one - highest), 0)
    const shares = found.map((one) => ({ ...one, share: Math.exp(weight(one) - highest) / all }))
    shares.sort((x, y) => y.share - x.share)
    return {
      lookedAt: looked / mass,
      done,
      of: Math.min(most, pairs.length),
      share: shares.reduce((sum, { share }) => sum + share, 0),
      best: shares.slice(0, mostTold).map(({ pair: { a, b }, share }) => ({
        ids: [a.id, b.id],
        labels: [a.label, b.label],
        share,
      })),
    }
  }
  for (let from = 0; from < Math.min(most, pairs.length); from += atOnce) {
    const some = pairs.slice(from, Math.min(most, from + atOnce))
    const together = some.flatMap((pair) => {
      const suspect = asOne(circuit, pair)
      return suspect ? [{ pair, suspect }] : []
    })
    const ground = new Ground(
      circuit,
      together.map(({ suspect }) => suspect),
    )
    const both = new Hunt(circuit, options, ground, true)
    // Whatever else was put right changes nothing of these.
    const own = new Set(together.flatMap(({ pair: { a, b } }) => [a.id, b.id]))
    both.follow(log.filter((entry) => !('mended' in entry) || own.has(entry.mended)))
    const logs = both.logLikelihoods()
    together.forEach(({ pair }, i) => found.push({ pair, log: nth(logs, i) }))
    done += some.length
    looked += some.reduce((sum, { prior }) => sum + prior, 0)
    yield told()
  }
}

/** All pairs that could be, the likeliest first by their weights and by the better fit of the two. */
function inOrder(suspects: readonly Suspect[], logs: Float64Array): Paired[] {
  const weigh = pairWeight(suspects)
  const fit = new Map(suspects.map(({ id }, i) => [id, nth(logs, i)]))
  const fitOf = ({ id }: Suspect) => fit.get(id) ?? -Infinity
  const listed = pairable(suspects)
  return listed
    .flatMap((a, i) =>
      listed.slice(i + 1).map((b) => {
        const prior = weigh(a, b)
        return { a, b, prior, rank: Math.log(prior) + Math.max(fitOf(a), fitOf(b)) }
      }),
    )
    .sort((x, y) => y.rank - x.rank)
}
