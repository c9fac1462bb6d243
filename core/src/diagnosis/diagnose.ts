import type { Circuit } from '../circuit'
import { faultsOf, type Fault } from '../hypotheses'
import { candidateStates, observables } from './candidates'
import { costOf } from './costs'
import {
  answers,
  noAnswers,
  observableKey,
  stateKey,
  type Answer,
  type ControlState,
  type Observable,
  type Observation,
} from './observation'
import { Predictor } from './prediction'

/** Relative weight, beside the faults', of a call-out where nothing is wrong (trade estimate). */
const nothingWrongPrior = 3

/** A look that tells less than this is not worth the engineer's way, bits. */
const leastBits = 0.01

/** A suspect: a fault, or `null` for "nothing is wrong, that is how it works". */
export interface Suspect {
  fault: Fault | null
  /** Share of the suspects' weight that stands with it, 0 to 1. */
  share: number
  /** Suspects with the same number answer every look not yet made alike: no reading tells them apart. */
  group: number
}

export interface Excluded {
  fault: Fault | null
  /** Ids of the findings it does not agree with, and what it would have shown. */
  by: { finding: string; expected: Answer }[]
}

export interface NextReading {
  asking: ControlState
  observable: Observable
  /** Expected fall of uncertainty, bits. */
  bits: number
  minutes: number
  /** Per answer: its probability, and how many suspects would remain. */
  outcomes: { answer: Answer; probability: number; remaining: number }[]
}

export interface Diagnosis {
  suspects: Suspect[]
  excluded: Excluded[]
  /** The next readings, best first; empty where no look would tell more. */
  next: NextReading[]
}

export type LoggedFinding = Observation & { id: string }

/**
 * Which single faults, or none, agree with all findings, which finding excludes each of the rest, and which look would
 * tell most per minute. Exact by consistency: a finding is taken as true.
 */
export function diagnose(
  circuit: Circuit,
  findings: readonly LoggedFinding[],
  predictor = new Predictor(circuit),
): Diagnosis {
  const candidates: (Fault | null)[] = [...faultsOf(circuit), null]
  const told = findings.filter((f) => !(noAnswers as readonly string[]).includes(f.result))
  const excluded: Excluded[] = []
  const remaining: { fault: Fault | null; weight: number }[] = []
  for (const fault of candidates) {
    const by: Excluded['by'] = []
    let weight = fault?.prior ?? nothingWrongPrior
    for (const f of told) {
      const expected = predictor.expected(fault, f.asking, f.observable)
      // Where the model leaves the answer open, what was seen was an even chance.
      if (expected === 'either') weight /= 2
      else if (expected !== f.result) by.push({ finding: f.id, expected })
    }
    if (by.length > 0) excluded.push({ fault, by })
    else remaining.push({ fault, weight })
  }
  const done = new Set(findings.map((f) => `${stateKey(f.asking)}|${observableKey(f.observable)}`))
  const looks = candidateStates(circuit)
    .flatMap((asking) => observables(circuit).map((observable) => ({ asking, observable })))
    .filter(({ asking, observable }) => !done.has(`${stateKey(asking)}|${observableKey(observable)}`))
  const signatures = new Map<string, number>()
  const total = remaining.reduce((sum, { weight }) => sum + weight, 0)
  const suspects = remaining
    .map(({ fault, weight }) => {
      const signature = predictor.signature(fault, looks)
      if (!signatures.has(signature)) signatures.set(signature, signatures.size)
      return { fault, share: weight / total, group: signatures.get(signature)! }
    })
    .sort((x, y) => y.share - x.share)
  return {
    suspects,
    excluded,
    next: signatures.size > 1 ? nextReadings(circuit, predictor, suspects, findings, looks) : [],
  }
}

const entropy = (p: number): number => (p <= 0 || p >= 1 ? 0 : -p * Math.log2(p) - (1 - p) * Math.log2(1 - p))

/** Readings not yet made, by expected bits per minute from where the controls stand. */
function nextReadings(
  circuit: Circuit,
  predictor: Predictor,
  suspects: readonly Suspect[],
  findings: readonly LoggedFinding[],
  looks: readonly { asking: ControlState; observable: Observable }[],
): NextReading[] {
  const standing = findings[findings.length - 1]?.asking ?? []
  const readings = looks.flatMap(({ asking, observable }): NextReading[] => {
    const [yes, no] = answers[observable.kind]
    let pYes = 0
    let undecided = 0
    const remaining = { yes: 0, no: 0 }
    for (const { fault, share } of suspects) {
      const expected = predictor.expected(fault, asking, observable)
      if (expected !== no) remaining.yes++
      if (expected !== yes) remaining.no++
      if (expected === yes) pYes += share
      else if (expected === 'either') {
        pYes += share / 2
        undecided += share
      }
    }
    // Mutual information of suspect and answer: the answer's entropy less what chance alone contributes to it.
    const bits = entropy(pYes) - undecided
    if (bits < leastBits) return []
    return [
      {
        asking,
        observable,
        bits,
        minutes: costOf(circuit, observable, asking, standing),
        outcomes: [
          { answer: yes, probability: pYes, remaining: remaining.yes },
          { answer: no, probability: 1 - pYes, remaining: remaining.no },
        ],
      },
    ]
  })
  return readings.sort((x, y) => y.bits / y.minutes - x.bits / x.minutes).slice(0, 5)
}
