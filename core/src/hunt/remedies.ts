import type { Hypothesis } from '../hypotheses'
import type { Remedy } from '../inference'
import { nth } from '../lists'
import type { Hunt } from './hunt'
import { explaining, leaving, minutesOfRemedy } from './minutes'
import { causesOf } from './suspects'

/** What could be mended, the remedies of suspects that are cured by the same one together. */
export interface HuntRemedy {
  /** Empty where there is nothing to mend but to say how it works, and where it has been done. */
  text: string
  /** It has been done: what is left is to see that it cured, and to go. */
  done?: true
  /** Of its suspects those that would be no cause of a call: nothing that can be looked at would show them. */
  silent?: string[]
  /** Of all weight, from 0 to 1. */
  share: number
  /** Ids of the suspects that it would cure; of two at once, of those of them that have not been put right. */
  suspects: string[]
}

/**
 * What is cured by the same remedy has the same key: a part is changed for all that may be the matter with it. The first clause says
 * what is changed; what else there may be to it, or to be looked at before, follows.
 */
export function remedyKey({ id, kind, remedy }: Hypothesis): string {
  const owner = kind === 'part' ? id.split('.')[0] : remedy === '' ? '' : id
  return `${owner}|${/^[^,.;]*/.exec(remedy)?.[0]}`
}

/**
 * The remedies of some suspects, each as it is weighed among them and as it is told. `alike`: per suspect a number, the same of those
 * that do the same. What does all that an installation in order does, and nothing found speaks for, is no cause of a call: there is
 * nothing to be mended but to say so.
 */
export function remediesOf(
  hunt: Hunt,
  suspects: readonly number[],
  alike: readonly number[],
): { remedy: Remedy; told: HuntRemedy }[] {
  const { shares } = hunt.ranking()
  const gained = (suspect: number) => nth(shares, suspect) / nth(hunt.suspects, suspect).prior
  const order = suspects.findIndex((suspect) => nth(hunt.suspects, suspect).hypothesis?.kind === 'nothing-wrong')
  const inOrder = order < 0 ? NaN : gained(nth(suspects, order))
  const isSilent = (suspect: number, i: number) =>
    nth(alike, i) === alike[order] && gained(suspect) < inOrder * (1 + 1e-6)
  const found = new Map<string, { remedy: Remedy & { cures: boolean[] }; told: HuntRemedy }>()
  const { mended, circuit } = hunt
  const weigh = (cause: Hypothesis, suspect: number, i: number) => {
    const { id, remedy: text } = cause
    const done = mended.has(id)
    const silent = !done && cause.kind !== 'nothing-wrong' && isSilent(suspect, i)
    const key = done ? 'done' : silent ? '|' : remedyKey(cause)
    let one = found.get(key)
    if (!one) {
      const minutes = done ? leaving : silent ? explaining : minutesOfRemedy(circuit, cause)
      const told: HuntRemedy = { text: done || silent ? '' : text, ...(done && { done }), share: 0, suspects: [] }
      one = { remedy: { ...minutes, cures: suspects.map(() => false) }, told }
      found.set(key, one)
    }
    if (!one.told.suspects.includes(id)) one.told.suspects.push(id)
    if (silent) one.told.silent = [...(one.told.silent ?? []), id]
    // Both of two may go with the same part.
    if (!nth(one.remedy.cures, i)) one.told.share += nth(shares, suspect)
    one.remedy.cures[i] = true
  }
  suspects.forEach((suspect, i) => {
    const causes = causesOf(nth(hunt.suspects, suspect))
    const left = causes.filter(({ id }) => !mended.has(id))
    // Of two of which neither was put right, each is worth putting right.
    for (const cause of left.length > 0 ? left : causes.slice(0, 1)) weigh(cause, suspect, i)
  })
  return [...found.values()]
}
