import type { HypothesisKind } from '../hypotheses'
import { nth } from '../lists'
import type { Contradiction } from '../inference'
import type { HuntEntry } from './case'
import type { Hunt } from './hunt'
import type { Expected } from './likelihood'
import { advice, type Advice, type NextLook } from './next'
import { backText } from './rewiring'
import { disturbedIn } from './standing'
import { unlisted } from './suspects'

/** A suspect in the answer. */
export interface RankedSuspect {
  id: string
  label: string
  remedy: string
  /** Undefined of the one that is not on the list. */
  kind?: HypothesisKind
  /** Relative weight before anything was found. */
  prior: number
  /** Of all weight, from 0 to 1. */
  share: number
  /** Of the one that is not on the list: ids of what it is most like, the likeliest first. */
  like?: string[]
  /** What does not go with it: what it would have shown. */
  against: { finding: string; expected: Expected }[]
}

/** All that a hunt has to say after a log, as data. */
export interface HuntAnswer {
  /** Those with more than a thousandth of the weight, the likeliest first. */
  suspects: RankedSuspect[]
  /** How many have less than that. */
  unlikely: number
  /** Those of them that once were likely: what has ruled them out. */
  ruledOut: RankedSuspect[]
  contradictions: Contradiction[]
  next: NextLook[]
  /** Suspects that no look tells apart any more, as ids. */
  groups: Advice['groups']
  decision: Advice['decision']
  /** What is disturbed for a test and not yet put back, as the acts that put it back. */
  putBack: string[]
}

const listedFrom = 0.001
/** Chances below this speak against a suspect. */
const speaksAgainst = 0.2
const mostRuledOut = 40

/** Every suspect, the likeliest first, each with what speaks against it. */
export function rankedSuspects(hunt: Hunt): RankedSuspect[] {
  const { shares } = hunt.ranking()
  return [...shares.keys()]
    .sort((x, y) => nth(shares, y) - nth(shares, x))
    .map((suspect) => {
      const { id, label, remedy, prior, hypothesis } = nth(hunt.suspects, suspect)
      const against = hunt
        .fits(suspect)
        .filter(({ chance }) => chance < speaksAgainst)
        .map(({ finding, expected }) => ({ finding, expected }))
      const like = id === unlisted ? { like: likeOf(hunt) } : {}
      return { id, label, remedy, prior, kind: hypothesis?.kind, share: nth(shares, suspect), ...like, against }
    })
}

const likeOf = (hunt: Hunt): string[] =>
  hunt
    .likenesses(mostLike)
    .filter(({ share }) => share > 0.1)
    .map(({ suspect }) => nth(hunt.singles, suspect).id)
const mostLike = 3

/** What a hunt that has followed a log has to say. */
export function answerOf(hunt: Hunt, log: readonly HuntEntry[], mostLooks = 5): HuntAnswer {
  const ranked = rankedSuspects(hunt)
  const total = ranked.reduce((sum, { prior }) => sum + prior, 0)
  const rest = ranked.filter(({ share }) => share < listedFrom)
  return {
    suspects: ranked.filter(({ share }) => share >= listedFrom),
    unlikely: rest.length,
    ruledOut: rest
      .filter(({ prior }) => prior / total >= listedFrom)
      .sort((x, y) => y.prior - x.prior)
      .slice(0, mostRuledOut),
    contradictions: hunt.contradictions(),
    ...advice(hunt, log, mostLooks),
    putBack: disturbedIn(log).map(backText),
  }
}
