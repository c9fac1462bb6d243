import { nth } from '../lists'
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
  /** The best remedy as things stand, by its number; undefined where none is worth what it costs. */
  remedy?: number
  /** How sure that it cures, from 0 to 1. */
  cures: number
  /** What it is expected to cost to do it now, and whatever else after it until it is cured. */
  now: number
  /** What it is expected to cost to look on: the looks, and the remedy that they lead to. Infinite where no look tells any more. */
  lookingOn: number
  /** Doing it now, or leaving it where nothing is worth doing, costs no more than looking on. */
  stop: boolean
}

/** What can be done, and what it costs where nothing of it cures, in the same minutes: another visit. */
export interface Outlook {
  remedies: readonly Remedy[]
  unmended: number
}

/**
 * One remedy after the other until it is cured, the one first that cures most for what it costs: which that is, and what all of it
 * is expected to cost (the expected cost of repair of Heckerman, Breese and Rommelse, 1995). Remedies that cure the same suspect
 * are not expected to fail together.
 */
function repaired(shares: Float64Array, { remedies, unmended }: Outlook): { remedy?: number; costs: number } {
  const left = Float64Array.from(shares)
  const open = new Set(remedies.keys())
  let remaining = 1
  let costs = 0
  let first: { remedy: number; costs: number; left: number } | undefined
  // What follows a remedy that was none is a second visit at the worst.
  const atWorst = () => (first ? first.costs + first.left * unmended : unmended)
  while (open.size > 0 && remaining > negligible && costs < atWorst()) {
    let best: { remedy: number; cured: number; worth: number } | undefined
    for (const remedy of open) {
      const { cost, wrong, cures } = nth(remedies, remedy)
      const cured = left.reduce((sum, share, i) => (cures[i] ? sum + share : sum), 0)
      const worth = cured / (cost + wrong)
      if (!best || worth > best.worth) best = { remedy, cured, worth }
    }
    if (!best || best.cured === 0) break
    const { cost, wrong, cures } = nth(remedies, best.remedy)
    costs += remaining * cost + (remaining - best.cured) * wrong
    remaining -= best.cured
    first ??= { remedy: best.remedy, costs, left: remaining }
    open.delete(best.remedy)
    cures.forEach((is, i) => is && (left[i] = 0))
  }
  const mended = Math.min(costs + Math.max(0, remaining) * unmended, atWorst())
  return mended < unmended ? { remedy: first?.remedy, costs: mended } : { costs: unmended }
}
/** Of the weight; what is less likely is not gone after to its end. */
const negligible = 1e-3

/**
 * The cost of a wrong part against that of more looks. Looking on is taken for the less of two: one look and then the best remedy
 * (the value of information, Howard 1966); or as many as it takes at the best look's rate until the remedy is known, which sees
 * looks that pay only together.
 */
export function decided(shares: Float64Array, outlook: Outlook, candidates: readonly Candidate[]): Decision {
  const { remedy, costs: now } = repaired(shares, outlook)
  const chosen = outlook.remedies[remedy ?? -1]
  const cures = shares.reduce((sum, share, i) => (chosen?.cures[i] ? sum + share : sum), 0)
  const oneMore = candidates.map((candidate) => {
    const after = outcomesOf(shares, candidate).reduce(
      (sum, o) => sum + o.probability * repaired(o.shares, outlook).costs,
      0,
    )
    return candidate.minutes + after
  })
  const lookingOn = Math.min(untilKnown(shares, outlook, candidates), ...oneMore)
  return { remedy, cures, now, lookingOn, stop: !(lookingOn < now) }
}

/** At the rate of the best look, minutes until it is known which remedy cures, if one does, and what that costs. */
function untilKnown(shares: Float64Array, { remedies, unmended }: Outlook, candidates: readonly Candidate[]): number {
  const classes = Array.from(shares, (_, i) => remedies.findIndex(({ cures }) => cures[i]))
  const summed = (of: (i: number) => number) => {
    const sums = new Float64Array(remedies.length)
    classes.forEach((one, i) => (sums[one] = (sums[one] ?? 0) + of(i)))
    return sums
  }
  const joint = summed((i) => shares[i] ?? 0)
  const mended = joint.reduce((sum, share) => sum + share, 0)
  if (mended === 0) return Infinity
  const byClass = joint.map((share) => share / mended)
  const rates = candidates.map(({ minutes, answers }) => {
    const projected = [...answers].map(([answer, likelihood]): [string, Float64Array] => [
      answer,
      summed((i) => (shares[i] ?? 0) * (likelihood[i] ?? 0)).map((both, c) => (joint[c] ? both / joint[c] : 0)),
    ])
    return information(byClass, { minutes, answers: new Map(projected) }) / minutes
  })
  const rate = Math.max(0, ...rates)
  if (rate < leastRate) return Infinity
  const known = joint.reduce((sum, share, c) => sum + share * (remedies[c]?.cost ?? 0), (1 - mended) * unmended)
  return known + entropy(byClass) / rate
}

/** Bits a minute: what is told more slowly is not told. */
const leastRate = 1e-3
