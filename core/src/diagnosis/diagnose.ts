import type { Circuit } from '../circuit'
import { actsTo, advice, Hunt, looksAt, type HuntEntry } from '../hunt'
import { nth } from '../lists'
import type { LookResult } from '../looks'
import type { ControlState, FindingResult, Observable, Observation } from './observation'
import { lookFor, observableOf } from './observables'

/** Something that may be the case. */
export interface Suspect {
  id: string
  /** In the trade's words. */
  label: string
  /** What is then to be done; empty where nothing is. */
  remedy: string
  /** Share of all weight, from 0 to 1. */
  share: number
  /** The fault that Trace can put in to watch it; none for a miswiring, and for nothing wrong. */
  fault?: string
  /** Findings that do not go with it, and what it would have shown. */
  against: { finding: string; expected: LookResult | 'open' }[]
}

export interface NextReading {
  asking: ControlState
  observable: Observable
  /** Expected fall of uncertainty, bits. */
  bits: number
  minutes: number
  /** Per answer: its probability, and how many suspects would remain likely. */
  outcomes: { answer: FindingResult; probability: number; remaining: number }[]
}

export interface Diagnosis {
  /** The likeliest first; those that are less than a fiftieth as likely stand apart. */
  suspects: Suspect[]
  unlikely: Suspect[]
  /** The next readings, best first; empty where no look would tell more. */
  next: NextReading[]
  /** Ids of findings that do not go with the rest, the one most likely mistaken first. */
  doubtful: string[]
  /** Further looks would cost more than they save: what to do, how sure it cures, and the suspects it would cure. */
  enough?: { remedy: string; share: number; suspects: string[] }
}

export type LoggedFinding = Observation & { id: string }

/** From this part of the likeliest one's share on, a suspect is counted as one. */
const counted = 0.02

/**
 * What may be wrong in the light of findings, each made with some contacts asking and everything at rest; which look would tell
 * most per minute; and whether to look any more. The findings are taken in the order they were made in: what a system
 * remembers, a valve that stays over, goes with it. `hunt`, of the same circuit, spares what it has worked out already.
 */
export function diagnose(circuit: Circuit, findings: readonly LoggedFinding[], hunt = new Hunt(circuit)): Diagnosis {
  const log = logOf(circuit, findings)
  hunt.follow(log)
  const { shares } = hunt.ranking()
  const suspectAt = (i: number): Suspect => {
    const { id, label, remedy, hypothesis } = nth(hunt.suspects, i)
    const fault = hypothesis && ['part', 'conductor'].includes(hypothesis.kind) ? { fault: id } : {}
    const against = hunt
      .fits(i)
      .filter(({ chance }) => chance < speaksAgainst)
      .map(({ finding, expected }) => ({ finding, expected }))
    return { id, label, remedy, share: nth(shares, i), ...fault, against }
  }
  const order = [...shares.keys()].sort((x, y) => nth(shares, y) - nth(shares, x))
  const likely = (i: number) => nth(shares, i) >= counted * nth(shares, nth(order, 0))
  const looks = looksAt(circuit).filter((look) => observableOf(look).length > 0 && look.at !== 'lever')
  const levers = looksAt(circuit).flatMap((look) => (look.at === 'lever' ? [{ ...look, at: 'valve' as const }] : []))
  const { next, decision } = advice(hunt, log, mostNext, [...levers, ...looks])
  const standing = findings.at(-1)?.asking ?? []
  return {
    suspects: order.filter(likely).map(suspectAt),
    unlikely: order.filter((i) => !likely(i)).map(suspectAt),
    next: next.flatMap(({ asking = standing, see, bits, minutes, outcomes }) =>
      observableOf(see).map((observable) => ({
        asking,
        observable,
        bits,
        minutes,
        outcomes: outcomes
          .filter(({ answer }) => answer !== 'between')
          .map(({ answer, ...rest }) => ({ answer: answer as FindingResult, ...rest })),
      })),
    ),
    doubtful: hunt.contradictions().map(({ id }) => id),
    ...(decision.stop &&
      decision.what && {
        enough: {
          remedy: decision.what.text,
          share: decision.what.share,
          suspects: decision.what.suspects.map((i) => nth(hunt.suspects, i).id),
        },
      }),
  }
}
/** Chances below this speak against a suspect. */
const speaksAgainst = 0.2
const mostNext = 5

/** The findings as somebody does and sees them, one after the other. */
function logOf(circuit: Circuit, findings: readonly LoggedFinding[]): HuntEntry[] {
  const log: HuntEntry[] = []
  for (const { id, asking, observable, result } of findings) {
    const acts = actsTo(circuit, asking, log)
    for (const text of acts.length > 0 ? [...acts, 'settle'] : []) log.push({ id: `act-${log.length}`, do: text })
    const found = result === 'cannot-do' || result === 'cannot-tell' ? result : { word: result }
    log.push({ id, see: lookFor(observable), found })
  }
  return log
}
