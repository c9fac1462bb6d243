import type { LookResult } from '../looks'
import { nth } from '../lists'
import type { Contradiction } from '../inference'
import type { HuntEntry } from './case'
import type { Hunt } from './hunt'
import { advice, type NextLook } from './next'

/** A suspect in the answer. */
export interface RankedSuspect {
  id: string
  label: string
  remedy: string
  /** Of all weight, from 0 to 1. */
  share: number
  /** What does not go with it: what it would have shown, and how probable what was found then is. */
  against: { finding: string; expected: LookResult | 'open'; chance: number }[]
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
  decision: {
    /** Looking any further costs more than it saves. */
    stop: boolean
    /** The remedy to go for, or while more is to be looked at the likeliest: how sure it cures, and which suspects. */
    remedy?: { text: string; share: number; suspects: string[] }
  }
}

const listedFrom = 0.001
/** Chances below this speak against a suspect. */
const speaksAgainst = 0.2
const mostRuledOut = 40

/** What a hunt that has followed a log has to say. */
export function answerOf(hunt: Hunt, log: readonly HuntEntry[], mostLooks = 5): HuntAnswer {
  const { shares } = hunt.ranking()
  const total = hunt.suspects.reduce((sum, { prior }) => sum + prior, 0)
  const order = [...shares.keys()].sort((x, y) => nth(shares, y) - nth(shares, x))
  const ranked = (suspect: number): RankedSuspect => {
    const { id, label, remedy } = nth(hunt.suspects, suspect)
    const against = hunt.fits(suspect).filter(({ chance }) => chance < speaksAgainst)
    return { id, label, remedy, share: nth(shares, suspect), against }
  }
  const likely = order.filter((suspect) => nth(shares, suspect) >= listedFrom)
  const rest = order.slice(likely.length)
  const ruledOut = rest
    .filter((suspect) => nth(hunt.suspects, suspect).prior / total >= listedFrom)
    .sort((x, y) => nth(hunt.suspects, y).prior - nth(hunt.suspects, x).prior)
  const { next, decision } = advice(hunt, log, mostLooks)
  return {
    suspects: likely.map(ranked),
    unlikely: rest.length,
    ruledOut: ruledOut.slice(0, mostRuledOut).map(ranked),
    contradictions: hunt.contradictions(),
    next,
    decision: {
      stop: decision.stop,
      ...(decision.what && {
        remedy: {
          text: decision.what.text,
          share: decision.what.share,
          suspects: decision.what.suspects.map((suspect) => nth(hunt.suspects, suspect).id),
        },
      }),
    },
  }
}
