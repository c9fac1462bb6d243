import { contradictions, logLikelihoods, weighed, type Contradiction, type Evidence, type Weighing } from '../inference'
import { nth } from '../lists'
import { unlisted, type Suspect } from './suspects'

/** Something that what is on no list looks like, with its part of all such likenesses, from 0 to 1. */
export interface Likeness {
  /** By its number among the single suspects. */
  suspect: number
  share: number
}

/**
 * What was found, weighed. What is on no list is weighed as many: each looks mostly like one of the single suspects. The evidence
 * has the suspects first, and a likeness of each single one after them.
 */
export class HuntWeighing {
  readonly ranking: Weighing
  private readonly priors: Float64Array
  private readonly shares: Float64Array
  private readonly unlisted: number

  constructor(
    private readonly suspects: readonly Suspect[],
    singles: number,
    readonly evidence: readonly Evidence[],
  ) {
    const own = suspects.length
    this.unlisted = suspects.findIndex(({ id }) => id === unlisted)
    const unlistedPrior = suspects[this.unlisted]?.prior ?? 0
    const listed = suspects.slice(0, singles).map(({ prior }, i) => (i === this.unlisted ? 0 : prior))
    const all = listed.reduce((sum, prior) => sum + prior, 0)
    this.priors = Float64Array.from({ length: own + singles }, (_, i) => {
      if (i < own) return i === this.unlisted ? 0 : nth(suspects, i).prior
      return (unlistedPrior * nth(listed, i - own)) / all
    })
    const { shares, logProbability } = weighed(this.priors, evidence)
    this.shares = shares
    this.ranking = { shares: this.collapsed(shares), logProbability }
  }

  /** Of values per suspect and likeness, those per suspect: of what is on no list, the sum of its likenesses. */
  private collapsed(values: Float64Array): Float64Array {
    const own = values.slice(0, this.suspects.length)
    if (this.unlisted >= 0) own[this.unlisted] = values.slice(own.length).reduce((sum, one) => sum + one, 0)
    return own
  }

  /** The likeliest of them first. */
  likenesses(most: number): Likeness[] {
    const all = Array.from(this.shares.slice(this.suspects.length), (share, suspect) => ({ suspect, share }))
    const best = all.sort((x, y) => y.share - x.share).slice(0, most)
    const sum = best.reduce((total, { share }) => total + share, 0)
    return best.map(({ suspect, share }) => ({ suspect, share: share / sum }))
  }

  logLikelihoods(): Float64Array {
    const { shares, logProbability } = this.ranking
    const before = this.collapsed(this.priors)
    const total = before.reduce((sum, one) => sum + one, 0)
    const logs = logLikelihoods(this.priors.length, this.evidence).slice(0, before.length)
    if (this.unlisted >= 0)
      logs[this.unlisted] = Math.log((nth(shares, this.unlisted) * total) / nth(before, this.unlisted)) + logProbability
    return logs
  }

  contradictions(): Contradiction[] {
    return contradictions(this.priors, this.evidence)
  }

  /** How probable one finding is for a suspect. */
  chanceOf(suspect: number, { likelihood }: Evidence): number {
    if (suspect !== this.unlisted) return nth(likelihood, suspect)
    const own = this.suspects.length
    const joint = this.priors.reduce((sum, prior, i) => (i < own ? sum : sum + prior * nth(likelihood, i)), 0)
    return joint / nth(this.suspects, suspect).prior
  }
}
