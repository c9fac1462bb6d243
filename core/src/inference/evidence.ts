/** Something that was found, as each suspect would have it. */
export interface Evidence {
  id: string
  /** What was looked at, and how, whatever state it was in. Answers of one source share what makes them wrong. */
  source: string
  /** How probable this answer is for whom it is the right one, and by mistake for whom it is another: 1 > hit > miss > 0. */
  hit: number
  miss: number
  /** Per suspect, how probable this answer is if it is so: from `miss` to `hit`, between them where the suspect leaves it open. */
  likelihood: Float64Array
}

export interface Weighing {
  /** Per suspect its share of all weight, from 0 to 1. */
  shares: Float64Array
  /** Natural logarithm of the probability of all that was found, before any of it was. */
  logProbability: number
}

/**
 * How often what made one reading wrong makes the next one of the same thing wrong as well: the wrong terminal, a lead that
 * makes no contact, a name that was mixed up. An estimate, for want of figures.
 */
export const sharedError = 0.7

/**
 * Bayes' rule over suspects of which one is the case. What was found in different sources is taken as independent once it is
 * known which suspect it is; within one source, with {@link sharedError}, either all answers are right or all are mistaken.
 *
 * The order of the evidence makes no difference, to the last digit.
 *
 * @param priors per suspect, relative weight from 0 on; at least one above 0.
 * @throws RangeError where no suspect has any weight.
 */
export function weighed(priors: ArrayLike<number>, evidence: readonly Evidence[]): Weighing {
  const logs = Float64Array.from({ length: priors.length }, (_, i) => Math.log(priors[i] ?? 0))
  const before = logSum(logs)
  if (before === -Infinity) throw new RangeError('no suspect has any weight')
  logLikelihoods(logs.length, evidence).forEach((log, i) => (logs[i] = (logs[i] ?? 0) + log))
  const all = logSum(logs)
  return { shares: logs.map((log) => Math.exp(log - all)), logProbability: all - before }
}

/** Per suspect the natural logarithm of how probable everything found is, if it is so. */
export function logLikelihoods(suspects: number, evidence: readonly Evidence[]): Float64Array {
  const logs = new Float64Array(suspects)
  for (const [, found] of bySource(evidence))
    for (let i = 0; i < suspects; i++) logs[i] = (logs[i] ?? 0) + Math.log(together(found, i))
  return logs
}

/**
 * Per suspect, how probable an answer is after others of the same source: what a second look adds to a first one that may have been
 * mistaken. Over the answers of a look it sums to 1 as before.
 */
export const givenBefore = (before: readonly Evidence[], next: Evidence): Float64Array =>
  before.length === 0
    ? next.likelihood
    : next.likelihood.map((_, i) => together([...before, next], i) / together(before, i))

/** Probability of everything found at one source, under one suspect. */
function together(found: readonly Evidence[], suspect: number): number {
  const [first] = found
  if (!first || found.length < 2) return first?.likelihood[suspect] ?? 1
  let [apart, right, wrong] = [1, first.hit, 1 - first.hit]
  for (const { likelihood, hit, miss } of found) {
    const one = likelihood[suspect] ?? 0
    // How far this suspect agrees with the answer.
    const agreed = (one - miss) / (hit - miss)
    apart *= one
    right *= agreed
    wrong *= ((1 - agreed) * miss) / (1 - hit)
  }
  return sharedError * (right + wrong) + (1 - sharedError) * apart
}

/** In an order that depends on what was found, not on when. */
function bySource(evidence: readonly Evidence[]): [string, Evidence[]][] {
  const sources = new Map<string, Evidence[]>()
  for (const one of evidence) sources.set(one.source, [...(sources.get(one.source) ?? []), one])
  const byId = (x: Evidence, y: Evidence) => (x.id < y.id ? -1 : 1)
  return [...sources.entries()]
    .map(([source, found]): [string, Evidence[]] => [source, found.sort(byId)])
    .sort(([x], [y]) => (x < y ? -1 : 1))
}

/** Logarithm of a sum, of logarithms: nothing is lost where all are far below 0. */
function logSum(logs: Float64Array): number {
  const most = logs.reduce((x, y) => Math.max(x, y), -Infinity)
  if (most === -Infinity) return most
  return most + Math.log(logs.reduce((sum, log) => sum + Math.exp(log - most), 0))
}
