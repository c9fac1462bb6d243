import type { Circuit } from '../circuit'
import { information, outcomesOf, type Candidate } from '../inference'
import { nth } from '../lists'
import type { WrittenLook } from '../looks'
import type { HuntEntry, HuntOptions } from './case'
import { minutesFor } from './minutes'
import { asEntries } from './standing'

/** A look as it would be made from where somebody stands now. */
interface FromHere {
  acts: readonly string[]
  see: WrittenLook
  minutes: number
  candidate: Candidate
  /** What it is expected to tell, bits. */
  bits: number
}

/** Of two figures that are nearly the same, by what share one may be less. */
export const nearly = 0.1
/** So many of the best are followed by another, of so many. */
const [mostFirst, mostSecond] = [10, 12]

/**
 * Looks in the order of what they tell for their time, bits a minute, where each may be followed by another in the same state: once
 * somebody is there with the cover off, the next look costs little. The second is chosen by what the first one answers.
 */
export function twoAhead<L extends FromHere>(
  circuit: Circuit,
  log: readonly HuntEntry[],
  options: HuntOptions,
  shares: Float64Array,
  looks: readonly L[],
): L[] {
  const alone = ({ bits, minutes }: FromHere) => bits / minutes
  const byRate = [...looks].sort((x, y) => alone(y) - alone(x))
  const [first, rest] = [byRate.slice(0, mostFirst), byRate.slice(mostFirst)]
  // What tells most for its way there may not be among the best for its time alone.
  const better = [...first, ...[...rest].sort((x, y) => y.bits - x.bits).slice(0, mostFirst)]
  const rates = new Map(better.map((look): [L, number] => [look, Math.max(alone(look), rateOfTwo(look))]))
  const rate = (look: L) => rates.get(look) ?? alone(look)
  return mostByItselfFirst(byRate.sort((x, y) => rate(y) - rate(x)))

  /** Of looks in one state that come to nearly as much with another after them, the one first that tells most by itself: it may be enough. */
  function mostByItselfFirst(ordered: L[]): L[] {
    const inState = new Map<string, L[]>()
    for (const look of ordered) inState.set(look.acts.join(), [...(inState.get(look.acts.join()) ?? []), look])
    const first = new Map(
      [...inState.values()].map((those): [L, L] => {
        const top = nth(those, 0)
        const close = those.filter((look) => rate(look) >= (1 - nearly) * rate(top))
        return [top, close.reduce((x, y) => (alone(y) > alone(x) ? y : x))]
      }),
    )
    const preferred = new Set(first.values())
    return ordered.flatMap((look) => {
      const instead = first.get(look)
      if (instead === undefined) return preferred.has(look) ? [] : [look]
      return instead === look ? [look] : [instead, look]
    })
  }

  function rateOfTwo(look: L): number {
    const there: HuntEntry[] = [...log, ...asEntries(look.acts), { id: 'first', see: look.see, found: 'cannot-tell' }]
    const seconds = looks
      .filter((other) => other !== look && other.acts.join() === look.acts.join())
      .map(({ see, candidate, bits }) => ({ candidate, bits, ...minutesFor(circuit, there, [], see, options) }))
      .sort((x, y) => y.bits / y.minutes - x.bits / x.minutes)
      .slice(0, mostSecond)
    let [bits, minutes] = [look.bits, look.minutes]
    for (const { probability, shares: left } of outcomesOf(shares, look.candidate)) {
      const next = seconds
        .map((second) => ({ told: information(left, second.candidate), minutes: second.minutes }))
        .reduce((x, y) => (y.told / y.minutes > x.told / x.minutes ? y : x), { told: 0, minutes: 1 })
      if (next.told === 0) continue
      bits += probability * next.told
      minutes += probability * next.minutes
    }
    return bits / minutes
  }
}
