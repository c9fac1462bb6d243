import { nth } from '../lists'
import { logLikelihoods } from '../inference'
import { Alterations, asOne, behavesAs, combinable, weightOf, type Together } from './together'
import type { HuntEntry } from './case'
import type { Hunt } from './hunt'
import { actPartsConductors } from './rewiring'

/** So many at a time, between which it can be left. */
const batch = 40
const mostTold = 12
/** Threes are made of so many of the best pairs, each with everything else. */
const pairsGoneOnWith = 300

/** Several causes at once that may be the case. */
export interface Several {
  ids: string[]
  labels: string[]
  /** Of all weight, singles and all several looked at, from 0 to 1. */
  share: number
  /** Natural logarithm of its weight. */
  weight: number
}

/** How far it has been gone through those of one size. */
export interface GoneThrough {
  done: number
  of: number
  /** Of their weight before anything was found, how much has been looked at, from 0 to 1. */
  lookedAt: number
}

export interface AtOnce {
  pairs: GoneThrough
  /** Where three at once were asked for, and the pairs are through. */
  threes?: GoneThrough
  /** Of all weight, that of those looked at. */
  share: number
  /** All pairs not looked at, however well they fit, have at most so much of the weight. */
  restAtMost: number
  /** The likeliest first. */
  best: Several[]
  /** Natural logarithms of weights: of all singles, of those looked at, and of all pairs if each fitted as well as anything can. */
  weights: { singles: number; several: number; pairsAtBest: number }
}

/** What is told of runs of the same hunt, each of which has gone through some of the pairs. */
export function mergedAtOnce(parts: readonly AtOnce[]): AtOnce {
  const sumOf = (count: (pairs: GoneThrough) => number) => parts.reduce((sum, { pairs }) => sum + count(pairs), 0)
  const several = new Sum()
  for (const { weights } of parts) several.add(weights.several)
  const { singles, pairsAtBest } = nth(parts, 0).weights
  const threes = parts.find((part) => part.threes)?.threes
  return toldOf({
    pairs: { done: sumOf(({ done }) => done), of: sumOf((pairs) => pairs.of), lookedAt: sumOf((p) => p.lookedAt) },
    ...(threes && { threes }),
    best: parts.flatMap(({ best }) => best),
    weights: { singles, several: several.log, pairsAtBest },
  })
}

/** The shares that weights come to. */
function toldOf(
  known: Omit<AtOnce, 'share' | 'restAtMost' | 'best'> & { best: readonly Omit<Several, 'share'>[] },
): AtOnce {
  const { singles, several, pairsAtBest } = known.weights
  const sum = new Sum()
  sum.add(singles)
  sum.add(several)
  const shareOf = (weight: number) => Math.exp(weight - sum.log)
  const rest = Math.exp(Math.log(Math.max(0, 1 - known.pairs.lookedAt)) + pairsAtBest - sum.log)
  const best = [...known.best].sort((x, y) => y.weight - x.weight).slice(0, mostTold)
  return {
    ...known,
    share: shareOf(several),
    restAtMost: rest / (1 + rest),
    best: best.map((one) => ({ ...one, share: shareOf(one.weight) })),
  }
}

interface Gone {
  of: Together
  /** Logarithm of its weight after everything found. */
  weight: number
  likelihood: number
}

export interface AtOnceOptions {
  /** So many pairs at most. */
  most?: number
  /** So many threes besides. */
  threes?: number
  /** It ends where the pairs left can have no more of the weight than this. */
  enough?: number
  /** One of several runs that share the pairs among them: which, from 0 on, of how many. */
  part?: { at: number; of: number }
}

/**
 * Two causes at once, and on request three, gone along the same log: those first whose weights are high and which fit what was
 * found, each finding as well as one of them does. Gives what it has come to after every few of them; it ends when all have been
 * looked at, or the `most` of them, or when all that is left of the pairs can have no more than `enough` of the weight. Several that
 * cannot all be so (one conductor in two places) are left out.
 */
export function* atOnceOf(
  hunt: Hunt,
  log: readonly HuntEntry[],
  { most = Infinity, threes = 0, enough = 0, part = { at: 0, of: 1 } }: AtOnceOptions = {},
): Generator<AtOnce, void> {
  const { singles } = hunt
  const fits = hunt.logLikelihoods().slice(0, singles.length)
  const fitOf = new Map(singles.map(({ id }, i) => [id, nth(fits, i)]))
  const singleWeights = new Sum()
  fits.forEach((fit, i) => singleWeights.add(Math.log(nth(singles, i).prior) + fit))
  const several = new Sum()
  const best: Gone[] = []
  const evidence = hunt.weighing.evidence.map((one) => ({ ...one, likelihood: Float64Array.of(one.hit) }))
  const bestFit = nth(logLikelihoods(1, evidence), 0)
  const pairMass = weightOf(singles, 2).mass

  const told = (pairs: GoneThrough, three?: GoneThrough): AtOnce =>
    toldOf({
      pairs,
      ...(three && { threes: three }),
      weights: { singles: singleWeights.log, several: several.log, pairsAtBest: Math.log(pairMass) + bestFit },
      best: best.map(({ of: { causes }, weight }) => ({
        ids: causes.map(({ id }) => id),
        labels: causes.map(({ label }) => label),
        weight,
      })),
    })
  const note = (gone: Gone) => {
    several.add(gone.weight)
    const at = best.findIndex(({ weight }) => weight < gone.weight)
    best.splice(at < 0 ? best.length : at, 0, gone)
    best.length = Math.min(best.length, mostTold)
  }

  // Every run of several goes through other batches, the likeliest of all of them first.
  const pairs = hunt.pairsInOrder().filter((_, i) => Math.floor(i / batch) % part.of === part.at)
  const gone: Gone[] = []
  let at: GoneThrough = { done: 0, of: Math.min(most, pairs.length), lookedAt: 0 }
  for (const some of goneThrough(hunt, log, pairs, most)) {
    some.gone.forEach(note)
    if (threes > 0) gone.push(...some.gone)
    at = { ...at, done: some.done, lookedAt: some.mass / pairMass }
    const now = told(at)
    yield now
    if (now.restAtMost <= enough) break
  }
  if (threes === 0) return
  const listed = threesInOrder(hunt, gone, fitOf)
  const { mass } = weightOf(singles, 3)
  for (const some of goneThrough(hunt, log, listed, threes)) {
    some.gone.forEach(note)
    yield told(at, { done: some.done, of: Math.min(threes, listed.length), lookedAt: some.mass / mass })
  }
}

/** Follows some along the log, a batch at a time. */
function* goneThrough(
  hunt: Hunt,
  log: readonly HuntEntry[],
  list: readonly Together[],
  most: number,
): Generator<{ gone: Gone[]; done: number; mass: number }, void> {
  let mass = 0
  const { circuit } = hunt
  const known = new Map<string, number>()
  const alterations = new Alterations(circuit)
  const mayBeKnown = log.every(hangsOnBehaviour)
  for (let from = 0; from < Math.min(most, list.length); from += batch) {
    const some = list.slice(from, Math.min(most, from + batch))
    const possible = some.flatMap((of) => {
      const one = asOne(circuit, of, alterations)
      return one ? [{ of, one, as: (mayBeKnown && behavesAs(one)) || one.suspect.id }] : []
    })
    mass += some.reduce((sum, { prior }) => sum + prior, 0)
    const done = from + some.length
    const fresh = [...new Map(possible.filter(({ as }) => !known.has(as)).map((p) => [p.as, p])).values()]
    if (fresh.length > 0) {
      const together = hunt.of(fresh.map(({ one }) => one))
      together.follow(log)
      together.logLikelihoods().forEach((likelihood, i) => known.set(nth(fresh, i).as, likelihood))
    }
    const gone = possible.map(({ of, as }): Gone => {
      const likelihood = known.get(as) ?? -Infinity
      return { of, likelihood, weight: Math.log(of.prior) + likelihood }
    })
    yield { gone, done, mass }
  }
}

/** What is found there hangs on what an installation does, and on nothing that two which do the same may differ in. */
const hangsOnBehaviour = (entry: HuntEntry): boolean =>
  'do' in entry ? !actPartsConductors(entry.do) : 'says' in entry || ('see' in entry && entry.see.at !== 'wiring')

/** The best pairs with a third beside them, each three once, the likeliest first by their weights and by what fits better. */
function threesInOrder({ singles }: Hunt, pairs: readonly Gone[], fitOf: ReadonlyMap<string, number>): Together[] {
  const { weigh } = weightOf(singles, 3)
  const listed = combinable(singles)
  const seen = new Set<string>()
  const best = [...pairs].sort((x, y) => y.weight - x.weight).slice(0, pairsGoneOnWith)
  return ranked(
    best.flatMap(({ of: { causes }, likelihood }) =>
      listed.flatMap((third) => {
        if (causes.some(({ id }) => id === third.id)) return []
        const three = [...causes, third]
        const key = three
          .map(({ id }) => id)
          .sort()
          .join(' + ')
        if (seen.has(key)) return []
        seen.add(key)
        return [{ causes: three, prior: weigh(...three), fit: Math.max(likelihood, fitOf.get(third.id) ?? -Infinity) }]
      }),
    ),
  )
}

const ranked = (all: readonly (Together & { fit: number })[]): Together[] =>
  all
    .map((one) => ({ one, rank: Math.log(one.prior) + one.fit }))
    .sort((x, y) => y.rank - x.rank)
    .map(({ one: { causes, prior } }) => ({ causes, prior }))

/** A sum of what is given by its logarithms: nothing is lost where all are far below 0. */
class Sum {
  private highest = -Infinity
  private sum = 0

  add(log: number): void {
    if (log === -Infinity) return
    if (log > this.highest) {
      this.sum *= Math.exp(this.highest - log)
      this.highest = log
    }
    this.sum += Math.exp(log - this.highest)
  }
  get log(): number {
    return this.sum === 0 ? -Infinity : this.highest + Math.log(this.sum)
  }
}
