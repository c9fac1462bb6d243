import type { Circuit } from '../circuit'
import { circuitOfVariant, variantOf, type Hypothesis } from '../hypotheses'
import { EditError, type Change } from '../installation'
import type { Suspect } from './suspects'

/** Share of calls with two causes at once; an estimate. */
export const pairShare = 0.05

/** A suspect that something is really the matter with. */
export type Cause = Suspect & { hypothesis: Hypothesis }

export interface Paired {
  a: Cause
  b: Cause
  /** Relative weight, as {@link pairWeight} has it. */
  prior: number
}

/** Suspects two of which may be the case together: where nothing is to be mended, nothing more is the matter. */
export const pairable = (suspects: readonly Suspect[]): Cause[] =>
  suspects.flatMap((suspect) => {
    const { hypothesis } = suspect
    return hypothesis && hypothesis.remedy !== '' ? [{ ...suspect, hypothesis }] : []
  })

/** The weight of two at once beside those of single suspects: in proportion to both, all pairs together {@link pairShare} of all. */
export function pairWeight(suspects: readonly Suspect[]): (a: Suspect, b: Suspect) => number {
  const sumOf = (values: readonly number[]) => values.reduce((sum, one) => sum + one, 0)
  const single = pairable(suspects).map(({ prior }) => prior)
  const mass = (sumOf(single) ** 2 - sumOf(single.map((prior) => prior ** 2))) / 2
  const scale = (sumOf(suspects.map(({ prior }) => prior)) * pairShare) / (1 - pairShare) / mass
  return (a, b) => scale * a.prior * b.prior
}

/** Both as one suspect; undefined where they cannot both be so (one conductor in two places). */
export function asOne(circuit: Circuit, { a, b, prior }: Paired): Suspect | undefined {
  const causes = [a.hypothesis, b.hypothesis]
  const [one = [], other = []] = causes.map(({ variant }) => (variant.change?.changes ?? []).flatMap(touched))
  if (one.some((thing) => other.includes(thing))) return undefined
  const variant = variantOf(causes)
  try {
    circuitOfVariant(circuit, variant)
  } catch (error) {
    if (error instanceof EditError) return undefined
    throw error
  }
  const id = `${a.id} + ${b.id}`
  const hypothesis: Hypothesis = { ...a.hypothesis, id, label: `${a.label}; ${b.label}`, variant }
  return { id, label: hypothesis.label, remedy: '', prior, hypothesis, causes }
}

/** What a change is of: two changes of one thing cannot both stand. That a terminal takes a conductor more hinders nobody. */
function touched(change: Change): string[] {
  if (change.do === 'end') return [`${change.cable}.${change.core}.${change.end}`]
  if (change.do === 'put' && change.in === 'devices') return [change.value.id]
  if (change.do === 'put' && change.in === 'links') return [change.value.between.join('+')]
  return change.do === 'drop' ? [change.id] : []
}
