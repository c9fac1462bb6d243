import { entropy, information, outcomesOf, type Candidate } from './looks-ahead'

/** Something that can be done about it: a part changed, a conductor put right, or nothing. */
export interface Remedy {
  /** What doing it takes, in minutes or what is worth as much. */
  cost: number
  /** What having done it for nothing costs beside that: the part, the way back, the customer's trust. In the same minutes. */
  wrong: number
  /** Per suspect, whether it is then cured. */
  cures: readonly boolean[]
}

export interface Decision {
  /** The best remedy as things stand, by its number; undefined where there is none. */
  remedy?: number
  /** How sure that it cures, from 0 to 1. */
  cures: number
  /** What it is expected to cost to do it now. */
  now: number
  /** What it is expected to cost to look on: the looks, and the remedy that they lead to. Infinite where no look tells any more. */
  lookingOn: number
  /** Doing it now costs no more than looking on. */
  stop: boolean
}

/** What a remedy is expected to cost: itself, and what follows where it was none. */
const expected = (shares: Float64Array, { cost, wrong, cures }: Remedy): number =>
  cost + wrong * shares.reduce((sum, share, i) => (cures[i] ? sum : sum + share), 0)

const best = (shares: Float64Array, remedies: readonly Remedy[]): { remedy?: number; costs: number } =>
  remedies.reduce<{ remedy?: number; costs: number }>(
    (least, one, remedy) => {
      const costs = expected(shares, one)
      return costs < least.costs ? { remedy, costs } : least
    },
    { costs: Infinity },
  )

/**
 * The cost of a wrong part against that of more looks. Looking on is taken for the less of two: one look and then the best remedy
 * (the value of information, Howard 1966); or as many as it takes at the best look's rate until the remedy is known, which sees
 * looks that pay only together.
 */
export function decided(shares: Float64Array, remedies: readonly Remedy[], candidates: readonly Candidate[]): Decision {
  const { remedy, costs: now } = best(shares, remedies)
  const chosen = remedies[remedy ?? -1]
  const cures = shares.reduce((sum, share, i) => (chosen?.cures[i] ? sum + share : sum), 0)
  const oneMore = candidates.map((candidate) => {
    const after = outcomesOf(shares, candidate).reduce(
      (sum, o) => sum + o.probability * best(o.shares, remedies).costs,
      0,
    )
    return candidate.minutes + after
  })
  const lookingOn = Math.min(untilKnown(shares, remedies, candidates, now), ...oneMore)
  return { remedy, cures, now, lookingOn, stop: remedy !== undefined && !(lookingOn < now) }
}

/** At the rate of the best look, minutes until the remedy is known, and what that costs; who nothing cures costs what he costs now. */
function untilKnown(
  shares: Float64Array,
  remedies: readonly Remedy[],
  candidates: readonly Candidate[],
  now: number,
): number {
  const classes = Array.from(shares, (_, i) => remedies.findIndex(({ cures }) => cures[i]))
  const summed = (of: (i: number) => number) => {
    const sums = new Float64Array(remedies.length + 1)
    classes.forEach((one, i) => (sums[one + 1] = (sums[one + 1] ?? 0) + of(i)))
    return sums
  }
  const byClass = summed((i) => shares[i] ?? 0)
  const rates = candidates.map(({ minutes, answers }) => {
    const projected = [...answers].map(([answer, likelihood]): [string, Float64Array] => [
      answer,
      summed((i) => (shares[i] ?? 0) * (likelihood[i] ?? 0)).map((joint, c) => (byClass[c] ? joint / byClass[c] : 0)),
    ])
    return information(byClass, { minutes, answers: new Map(projected) }) / minutes
  })
  const rate = Math.max(0, ...rates)
  if (rate < leastRate) return Infinity
  const known = byClass.reduce((sum, share, c) => sum + share * (remedies[c - 1]?.cost ?? now), 0)
  return known + entropy(byClass) / rate
}

/** Bits a minute: what is told more slowly is not told. */
const leastRate = 1e-3
