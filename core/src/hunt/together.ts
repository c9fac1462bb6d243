import { wiringText, type Circuit } from '../circuit'
import { circuitOfVariant, variantOf, type Hypothesis } from '../hypotheses'
import { nth } from '../lists'
import { Simulation } from '../simulation'
import { EditError, type Change } from '../installation'
import type { Suspect } from './suspects'

/** Share of calls with two causes at once, and with three: estimates. */
const shareOf = { 2: 0.05, 3: 0.0025 } as const

/** A suspect that something is really the matter with. */
export type Cause = Suspect & { hypothesis: Hypothesis }

/** Several causes at once. */
export interface Together {
  causes: readonly Cause[]
  /** Relative weight, as {@link weightOf} has it. */
  prior: number
}

/** Suspects several of which may be the case together: where nothing is to be mended, nothing more is the matter. */
export const combinable = (suspects: readonly Suspect[]): Cause[] =>
  suspects.flatMap((suspect) => {
    const { hypothesis } = suspect
    return hypothesis && hypothesis.remedy !== '' ? [{ ...suspect, hypothesis }] : []
  })

/**
 * The weight of so many at once beside those of single suspects: in proportion to each of them, all such together the share that
 * calls with so many causes have. `mass`: that of all of them.
 */
export function weightOf(
  suspects: readonly Suspect[],
  many: 2 | 3,
): { weigh: (...causes: Suspect[]) => number; mass: number } {
  const priors = combinable(suspects).map(({ prior }) => prior)
  const power = (n: number) => priors.reduce((sum, prior) => sum + prior ** n, 0)
  const [s1, s2, s3] = [power(1), power(2), power(3)]
  // Elementary symmetric sums of two and of three, by Newton's identities.
  const sum = many === 2 ? (s1 ** 2 - s2) / 2 : (s1 ** 3 - 3 * s1 * s2 + 2 * s3) / 6
  const singles = suspects.reduce((all, { prior }) => all + prior, 0)
  const mass = (singles * shareOf[many]) / (1 - shareOf[many])
  return { weigh: (...causes) => (mass / sum) * causes.reduce((product, { prior }) => product * prior, 1), mass }
}

/** Several as one suspect, with the circuit that they make of an installation's. */
export interface One {
  suspect: Suspect & { causes: readonly Hypothesis[] }
  own: Circuit
  /** That circuit at rest, with nothing wrong in it but how it is made, where that has been worked out. Not to be changed: fork it. */
  rest?: Simulation
}

/** What single causes make of an installation: made once for all those that one of them is among. */
export class Alterations {
  private readonly made = new Map<string, { own: Circuit; rest: Simulation }>()

  constructor(private readonly circuit: Circuit) {}

  /** Undefined where not exactly one of the causes alters how the installation is made. */
  of(causes: readonly Hypothesis[]): { own: Circuit; rest: Simulation } | undefined {
    const [altered, another] = causes.filter(({ variant }) => variant.change)
    if (!altered || another) return undefined
    let made = this.made.get(altered.id)
    if (!made) {
      const own = circuitOfVariant(this.circuit, altered.variant)
      made = { own, rest: new Simulation(own) }
      this.made.set(altered.id, made)
    }
    return made
  }
}

/** All of them as one; undefined where they cannot all be so (one conductor in two places). */
export function asOne(circuit: Circuit, { causes, prior }: Together, alterations?: Alterations): One | undefined {
  const wrong = causes.map(({ hypothesis }) => hypothesis)
  const seen = new Set<string>()
  for (const { variant } of wrong) {
    const things = (variant.change?.changes ?? []).flatMap(touched)
    if (things.some((thing) => seen.has(thing))) return undefined
    things.forEach((thing) => seen.add(thing))
  }
  const variant = variantOf(wrong)
  let made: Pick<One, 'own' | 'rest'>
  try {
    made = alterations?.of(wrong) ?? { own: circuitOfVariant(circuit, variant) }
  } catch (error) {
    if (error instanceof EditError) return undefined
    throw error
  }
  const id = causes.map((cause) => cause.id).join(' + ')
  const label = causes.map((cause) => cause.label).join('; ')
  const hypothesis = { ...nth(wrong, 0), id, label, variant }
  return { suspect: { id, label, remedy: '', prior, hypothesis, causes: wrong }, ...made }
}

/**
 * What those have in common that can do and show nothing that differs, as long as no conductor is taken from another: how they are
 * joined, what of parts has failed, where they started. Undefined of what is like nothing else: where a conductor is open, another with
 * the same ends is none the worse; and what is set otherwise is no joint.
 */
export function behavesAs({ suspect: { causes, hypothesis }, own }: One): string | undefined {
  if (causes.some(({ kind }) => kind === 'conductor' || kind === 'setting')) return undefined
  const { defects = [], start = [] } = hypothesis?.variant ?? {}
  return `${wiringText(own)} ${JSON.stringify([defects, start])}`
}

/** What a change is of: two changes of one thing cannot both stand. That a terminal takes a conductor more hinders nobody. */
function touched(change: Change): string[] {
  if (change.do === 'end') return [`${change.cable}.${change.core}.${change.end}`]
  if (change.do === 'put' && change.in === 'devices') return [change.value.id]
  if (change.do === 'put' && change.in === 'links') return [change.value.between.join('+')]
  return change.do === 'drop' ? [change.id] : []
}
