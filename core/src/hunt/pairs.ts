import type { Circuit } from '../circuit'
import { logLikelihoods } from '../inference'
import { circuitOfVariant, variantOf, type Hypothesis } from '../hypotheses'
import { nth } from '../lists'
import { EditError, type Change } from '../installation'
import type { HuntEntry } from './case'
import { Ground } from './ground'
import { Hunt } from './hunt'
import type { Suspect } from './suspects'

/** Share of calls with two causes at once; an estimate. */
export const pairShare = 0.05
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
  const { circuit, options, suspects } = hunt
  const singles = logLikelihoods(suspects.length, hunt.evidence)
  const total = suspects.reduce((sum, { prior }) => sum + prior, 0)
  const pairs = inOrder(suspects, singles)
  const mass = pairs.reduce((sum, { prior }) => sum + prior, 0)
  const found: { pair: Paired; log: number }[] = []
  let [done, looked] = [0, 0]
  const told = (): Pairs => {
    const weight = (one: { pair: Paired; log: number }) => Math.log((pairShare * one.pair.prior) / mass) + one.log
    const logs = [
      ...Array.from(singles, (single, i) => Math.log(((1 - pairShare) * nth(suspects, i).prior) / total) + single),
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
    const both = new Hunt(circuit, options, ground)
    // Whatever else was put right changes nothing of these.
    const own = new Set(together.flatMap(({ pair: { a, b } }) => [a.id, b.id]))
    both.follow(log.filter((entry) => !('mended' in entry) || own.has(entry.mended)))
    const logs = logLikelihoods(together.length, both.evidence)
    together.forEach(({ pair }, i) => found.push({ pair, log: nth(logs, i) }))
    done += some.length
    looked += some.reduce((sum, { prior }) => sum + prior, 0)
    yield told()
  }
}

interface Paired {
  a: Suspect & { hypothesis: Hypothesis }
  b: Suspect & { hypothesis: Hypothesis }
  prior: number
}

/** All pairs that could be, the likeliest first by their weights and by the better fit of the two. */
function inOrder(suspects: readonly Suspect[], logs: Float64Array): Paired[] {
  const listed = suspects.flatMap((suspect, i) => {
    const { hypothesis } = suspect
    return hypothesis && hypothesis.kind !== 'nothing-wrong'
      ? [{ suspect: { ...suspect, hypothesis }, log: nth(logs, i) }]
      : []
  })
  const pairs: (Paired & { rank: number })[] = []
  listed.forEach((a, i) => {
    for (const b of listed.slice(i + 1)) {
      const prior = a.suspect.prior * b.suspect.prior
      pairs.push({ a: a.suspect, b: b.suspect, prior, rank: Math.log(prior) + Math.max(a.log, b.log) })
    }
  })
  return pairs.sort((x, y) => y.rank - x.rank)
}

/** Both as one suspect; undefined where they cannot both be so. */
function asOne(circuit: Circuit, { a, b, prior }: Paired): Suspect | undefined {
  const causes = [a.hypothesis, b.hypothesis]
  const [one = [], other = []] = causes.map(({ variant }) => (variant.change?.changes ?? []).flatMap(touched))
  if (one.some((thing) => other.includes(thing))) return undefined
  const variant = variantOf(causes)
  try {
    circuitOfVariant(circuit, variant)
  } catch (error) {
    if (error instanceof EditError) return undefined
    throw error
  }
  const id = `${a.id} + ${b.id}`
  const hypothesis: Hypothesis = { ...a.hypothesis, id, label: `${a.label}; ${b.label}`, variant }
  return { id, label: hypothesis.label, remedy: '', prior, hypothesis, causes }
}

/** What a change is of: two changes of one thing cannot both stand. That a terminal takes a conductor more hinders nobody. */
function touched(change: Change): string[] {
  if (change.do === 'end') return [`${change.cable}.${change.core}.${change.end}`]
  if (change.do === 'put' && change.in === 'devices') return [change.value.id]
  if (change.do === 'put' && change.in === 'links') return [change.value.between.join('+')]
  return change.do === 'drop' ? [change.id] : []
}
