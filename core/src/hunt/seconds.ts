import type { Circuit } from '../circuit'
import { nth } from '../lists'
import { asOne, combinable, weightOf, type Cause, type One, type Together } from './together'
import { unlisted, type Suspect } from './suspects'

/** So many are followed: a twentieth of a second's work. */
const mostSeconds = 60

/** What a single suspect makes of every finding, with nothing put right: probabilities. */
export type ChancesOf = (single: number) => readonly number[]

/** A pair, and the logarithm of its weight after everything found, as far as can be said without going along the log with it. */
export type RankedPair = Together & { rank: number }

/** Causes that make the same of everything found, each of them alone; the likeliest first. */
interface Alike {
  causes: Cause[]
  logs: Float64Array
  /** The findings that were made before they were put right. */
  until: number
}

/** Two kinds of causes, one of each at once, and how that goes with what was found, as the logarithm of a probability. */
interface Both {
  kinds: readonly [Alike, Alike]
  fit: number
}

/**
 * Two at once as they may go with what was found: where either of the two may have shown, as well as the one of them that fits better;
 * once one of them was put right, as the other; once both were, as nothing wrong. That is told of kinds of causes, of which there are fewer than causes, let alone pairs.
 */
export class Seconds {
  private readonly both: Both[]
  /** Per single suspect. */
  private readonly chances: readonly (readonly number[])[]
  /** What it makes of everything found that nothing is wrong. */
  private readonly whole?: Float64Array
  private readonly weigh: (...causes: Suspect[]) => number

  /** @param mended ids of what was put right, each with how many findings were made before. */
  constructor(
    private readonly singles: readonly Suspect[],
    chancesOf: ChancesOf,
    private readonly mended: ReadonlyMap<string, number>,
  ) {
    this.weigh = weightOf(singles, 2).weigh
    this.chances = singles.map((_, single) => chancesOf(single))
    const kinds = this.kinds()
    const whole = singles.findIndex(({ hypothesis }) => hypothesis?.kind === 'nothing-wrong')
    if (whole >= 0) this.whole = Float64Array.from(nth(this.chances, whole), Math.log)
    this.both = kinds.flatMap((one, x) =>
      kinds
        .slice(x)
        .filter((other) => other !== one || one.causes.length > 1)
        .map((other): Both => ({ kinds: [one, other], fit: this.fitOf(one, other) })),
    )
  }

  private kinds(): Alike[] {
    const chancesOf = new Map(this.singles.map(({ id }, i) => [id, nth(this.chances, i)]))
    const kinds = new Map<string, Alike>()
    for (const cause of combinable(this.singles)) {
      const chances = chancesOf.get(cause.id) ?? []
      const until = this.mended.get(cause.id) ?? Infinity
      const key = `${until} ${chances.join()}`
      const kind = kinds.get(key)
      if (kind) kind.causes.push(cause)
      else kinds.set(key, { causes: [cause], logs: Float64Array.from(chances, Math.log), until })
    }
    for (const { causes } of kinds.values()) causes.sort((one, other) => other.prior - one.prior)
    return [...kinds.values()]
  }

  /** The share that two at once may have of all weight but that of what is on no list, at most: from 0 to 1. */
  get share(): number {
    const sumOf = (causes: readonly Cause[], power: number) =>
      causes.reduce((sum, { prior }) => sum + prior ** power, 0)
    const scale = this.weigh()
    const two = this.both.reduce((sum, { kinds: [one, other], fit }) => {
      const priors = sumOf(one.causes, 1) * sumOf(other.causes, 1)
      const own = one === other ? (priors - sumOf(one.causes, 2)) / 2 : priors
      return sum + scale * own * Math.exp(fit)
    }, 0)
    const singles = this.singles.reduce((sum, { id, prior }, i) => {
      if (id === unlisted) return sum
      return sum + prior * nth(this.chances, i).reduce((product, chance) => product * chance, 1)
    }, 0)
    return two / (two + singles)
  }

  /** So many of them, or all: those first that may go best with what was found. */
  inOrder(most = Infinity, isThoughtOf: (both: Both) => boolean = () => true): RankedPair[] {
    const blocks = this.both
      .filter(isThoughtOf)
      .map((both) => ({ both, best: this.ranked(both, nth(both.kinds[0].causes, 0), this.firstBeside(both)).rank }))
      .sort((one, other) => other.best - one.best)
    if (most === Infinity) return blocks.flatMap(({ both }) => this.pairsOf(both)).sort(byRank)
    let found: RankedPair[] = []
    for (const { both, best } of blocks) {
      // The pairs of all kinds still to come are no better than this.
      if (found.length >= most && nth(found, most - 1).rank >= best) break
      found = [...found, ...this.pairsOf(both)].sort(byRank).slice(0, most)
    }
    return found
  }

  private firstBeside({ kinds: [one, other] }: Both): Cause {
    return nth(other.causes, one === other ? 1 : 0)
  }

  private pairsOf(both: Both): RankedPair[] {
    const [one, other] = both.kinds
    return one.causes.flatMap((a, x) =>
      (one === other ? one.causes.slice(x + 1) : other.causes).map((b) => this.ranked(both, a, b)),
    )
  }

  private ranked({ fit }: Both, a: Cause, b: Cause): RankedPair {
    const prior = this.weigh(a, b)
    return { causes: [a, b], prior, rank: Math.log(prior) + fit }
  }

  /**
   * Those that may go best, with the circuits that they make: what was put right with something else beside it that is still so; any two,
   * where nothing was.
   */
  suspects(circuit: Circuit): One[] {
    const isThoughtOf = ({ kinds }: Both) => this.mended.size === 0 || kinds.some(({ until }) => until < Infinity)
    return this.inOrder(mostSeconds, isThoughtOf).flatMap((pair) => asOne(circuit, pair) ?? [])
  }

  private fitOf(one: Alike, other: Alike): number {
    let fit = 0
    for (let i = 0; i < one.logs.length; i++) {
      const [own, beside] = [nth(one.logs, i), nth(other.logs, i)]
      const [isOwn, isBeside] = [i < one.until, i < other.until]
      if (isOwn && isBeside) fit += Math.max(own, beside)
      else if (isOwn || isBeside) fit += isOwn ? own : beside
      else fit += this.whole ? nth(this.whole, i) : Math.max(own, beside)
    }
    return fit
  }
}

const byRank = (one: RankedPair, other: RankedPair): number => other.rank - one.rank
