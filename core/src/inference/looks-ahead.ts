/** Something that could be looked at next. */
export interface Candidate {
  /** Minutes of the engineer's time, above 0. */
  minutes: number
  /** Per answer it can give, and suspect: how probable the answer is. Over the answers they sum to 1. */
  answers: ReadonlyMap<string, Float64Array>
}

export interface Outcome {
  answer: string
  /** Before it is looked at, from 0 to 1. */
  probability: number
  /** Per suspect its share after this answer. */
  shares: Float64Array
}

/** What each answer would mean and leave. Answers that nobody could get are left out. */
export function outcomesOf(shares: Float64Array, { answers }: Candidate): Outcome[] {
  return [...answers].flatMap(([answer, likelihood]): Outcome[] => {
    const joint = shares.map((share, i) => share * (likelihood[i] ?? 0))
    const probability = joint.reduce((sum, one) => sum + one, 0)
    return probability > 0 ? [{ answer, probability, shares: joint.map((one) => one / probability) }] : []
  })
}

/** Bits of uncertainty, Shannon 1948. */
export const entropy = (shares: Float64Array): number =>
  shares.reduce((sum, share) => (share > 0 ? sum - share * Math.log2(share) : sum), 0)

/**
 * How much of the uncertainty about the suspect a look is expected to take away, bits: never less than nothing, never more than
 * there is.
 */
export function information(shares: Float64Array, candidate: Candidate): number {
  const left = outcomesOf(shares, candidate).reduce((sum, o) => sum + o.probability * entropy(o.shares), 0)
  return Math.max(0, entropy(shares) - left)
}

/**
 * Suspects that no candidate tells apart have the same number, from 0 on in the order of the first of each. Two probabilities
 * count as the same where they differ by less than a millionth.
 */
export function alikeTo(candidates: readonly Candidate[], suspects: number): number[] {
  const numbers = new Map<string, number>()
  return Array.from({ length: suspects }, (_, i) => {
    const signature = candidates
      .map(({ answers }) => [...answers.values()].map((likelihood) => Math.round((likelihood[i] ?? 0) * 1e6)).join())
      .join(';')
    if (!numbers.has(signature)) numbers.set(signature, numbers.size)
    return numbers.get(signature)!
  })
}
