import { weighed, type Evidence } from './evidence'

/** Something found that the rest makes improbable. */
export interface Contradiction {
  id: string
  /** How probable it was, given everything else that was found: from 0 to 1. */
  probability: number
  /** Ids of what speaks against it: each makes it, for itself, half as probable. */
  against: string[]
}

/** Less probable than this, and something may well have been read or written down wrong. */
export const doubtful = 0.1

/** What was most likely mistaken, the least probable first; empty where everything found goes together. */
export function contradictions(priors: ArrayLike<number>, evidence: readonly Evidence[]): Contradiction[] {
  const logOf = (...found: Evidence[]) => weighed(priors, found).logProbability
  const all = logOf(...evidence)
  return evidence
    .map((one) => ({ one, log: all - logOf(...evidence.filter((other) => other !== one)) }))
    .filter(({ log }) => Math.exp(log) < doubtful)
    .sort((x, y) => x.log - y.log)
    .map(({ one, log }) => ({
      id: one.id,
      probability: Math.exp(log),
      against: evidence
        .filter((other) => other !== one && logOf(one, other) - logOf(other) < logOf(one) - Math.LN2)
        .map(({ id }) => id),
    }))
}
