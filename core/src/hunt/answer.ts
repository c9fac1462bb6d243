import type { Hypothesis, HypothesisKind } from '../hypotheses'
import { nth } from '../lists'
import type { Contradiction } from '../inference'
import type { HuntEntry } from './case'
import type { Hunt } from './hunt'
import type { Expected } from './likelihood'
import { advice, type Advice, type NextLook } from './next'
import { toPutBack } from './standing'
import { remedyKey } from './remedies'
import { unlisted } from './suspects'

/** A suspect in the answer. */
export interface RankedSuspect {
  id: string
  label: string
  remedy: string
  /** Undefined of the one that is not on the list. */
  kind?: HypothesisKind
  /** What is put right with the same remedy has the same; empty of the one that is not on the list. */
  group: string
  /** Relative weight before anything was found. */
  prior: number
  /** Of all weight, from 0 to 1. */
  share: number
  /** Where several things are wrong at once, each of them. */
  causes?: Pick<Hypothesis, 'id' | 'label' | 'remedy' | 'kind'>[]
  /** Of the one that is not on the list: ids of what it is most like, the likeliest first. */
  like?: string[]
  /** What does not go with it: what it would have shown. */
  against: { finding: string; expected: Expected }[]
  /** The findings that speak for it: at least twice as probable with it as they were before anything was found. */
  supported: string[]
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
  /** What tests have left otherwise than it was, as the acts that put it back. */
  putBack: string[]
}

const listedFrom = 0.001
/** Chances below this speak against a suspect. */
const speaksAgainst = 0.2
const speaksFor = 2
/** Less than this part of what it had: it was ruled out, and not only outweighed. */
const lostFrom = 0.2
const mostRuledOut = 40

/** Every suspect, the likeliest first, each with what speaks against it. */
export function rankedSuspects(hunt: Hunt): RankedSuspect[] {
  const { shares } = hunt.ranking()
  const usual = usualChances(hunt)
  return [...shares.keys()]
    .sort((x, y) => nth(shares, y) - nth(shares, x))
    .map((suspect) => {
      const { id, label, remedy, prior, hypothesis, causes: several } = nth(hunt.suspects, suspect)
      const fits = hunt.fits(suspect)
      const against = fits
        .filter(({ chance }) => chance < speaksAgainst)
        .map(({ finding, expected }) => ({ finding, expected }))
      const supported = fits.flatMap(({ finding, chance }, i) =>
        chance >= speaksFor * nth(usual, i) && id !== unlisted ? [finding] : [],
      )
      const causes = several?.map(({ id, label, remedy, kind }) => ({ id, label, remedy, kind }))
      const like = id === unlisted ? { like: likeOf(hunt) } : {}
      const group = hypothesis ? remedyKey(hypothesis) : ''
      const share = nth(shares, suspect)
      const told = { id, label, remedy, prior, kind: hypothesis?.kind, group, share }
      return { ...told, ...(causes && { causes }), ...like, against, supported }
    })
}

/** Per finding how probable it is before anything else was found. */
function usualChances(hunt: Hunt): number[] {
  const all = hunt.suspects.reduce((sum, { prior }) => sum + prior, 0)
  return hunt.weighing.evidence.map(({ likelihood }) =>
    hunt.suspects.reduce((sum, { prior }, i) => sum + (prior / all) * nth(likelihood, i), 0),
  )
}

const likeOf = (hunt: Hunt): string[] =>
  hunt
    .likenesses(mostLike)
    .filter(({ share }) => share > 0.1)
    .map(({ suspect }) => nth(hunt.singles, suspect).id)
const mostLike = 3

/** What a hunt that has followed a log has to say. */
export const answerOf = (hunt: Hunt, log: readonly HuntEntry[], mostLooks = 5): HuntAnswer => ({
  ...standingOf(hunt, log),
  ...advice(hunt, log, mostLooks),
})

/** How the suspects stand: what there is to say at once, before it is worked out what to look at next. */
export type HuntStanding = Omit<HuntAnswer, keyof Advice>

export function standingOf(hunt: Hunt, log: readonly HuntEntry[]): HuntStanding {
  const ranked = rankedSuspects(hunt)
  const total = ranked.reduce((sum, { prior }) => sum + prior, 0)
  const rest = ranked.filter(({ share }) => share < listedFrom)
  return {
    suspects: ranked.filter(({ share }) => share >= listedFrom),
    unlikely: rest.length,
    ruledOut: rest
      .filter(({ prior, share }) => prior / total >= listedFrom && share < lostFrom * (prior / total))
      .sort((x, y) => y.prior - x.prior)
      .slice(0, mostRuledOut),
    contradictions: hunt.contradictions(),
    putBack: toPutBack(hunt.circuit, log),
  }
}
