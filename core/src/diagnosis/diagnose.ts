import type { Circuit } from '../circuit'
import {
  actsTo,
  advice,
  Hunt,
  rankedSuspects,
  settle,
  type HuntEntry,
  type HuntRemedy,
  type RankedSuspect,
} from '../hunt'
import { nth } from '../lists'
import {
  findingResultSchema,
  type ControlState,
  type FindingResult,
  type Observable,
  type Observation,
} from './observation'
import { lookFor, observableOf, observables } from './observables'

/** Something that may be the case. */
export type Suspect = Omit<RankedSuspect, 'kind'> & {
  /** The fault that Trace can put in to watch it; none for a miswiring, and for nothing wrong. */
  fault?: string
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
  enough?: HuntRemedy
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
  const ranked = rankedSuspects(hunt).map(({ kind, ...suspect }): Suspect => ({
    ...suspect,
    ...((kind === 'part' || kind === 'conductor') && { fault: suspect.id }),
  }))
  const least = counted * nth(ranked, 0).share
  const { next, decision } = advice(hunt, log, mostNext, {
    looks: observables(circuit).map(lookFor),
    controlsOnly: true,
  })
  const standing = findings.at(-1)?.asking ?? []
  return {
    suspects: ranked.filter(({ share }) => share >= least),
    unlikely: ranked.filter(({ share }) => share < least),
    next: next.flatMap(({ asking = standing, see, bits, minutes, outcomes }) =>
      observableOf(see).map((observable) => ({
        asking,
        observable,
        bits,
        minutes,
        outcomes: outcomes.flatMap(({ answer, probability, remaining }) => {
          const known = findingResultSchema.safeParse(answer)
          return known.success ? [{ answer: known.data, probability, remaining }] : []
        }),
      })),
    ),
    doubtful: hunt.contradictions().map(({ id }) => id),
    enough: decision.stop ? decision.remedy : undefined,
  }
}
const mostNext = 5

/** The findings as somebody does and sees them, one after the other. */
function logOf(circuit: Circuit, findings: readonly LoggedFinding[]): HuntEntry[] {
  const log: HuntEntry[] = []
  for (const { id, asking, observable, result } of findings) {
    const acts = actsTo(circuit, asking, log)
    for (const text of acts.length > 0 ? [...acts, settle] : []) log.push({ id: `act-${log.length}`, do: text })
    const found = result === 'cannot-do' || result === 'cannot-tell' ? result : { word: result }
    log.push({ id, see: lookFor(observable), found })
  }
  return log
}
