import { givenBefore, likeness, type Candidate, type Evidence } from '../inference'
import { wordOf, type Found, type LookResult, type WrittenLook } from '../looks'
import type { HuntOptions } from './case'
import type { Shows } from './course'
import { answersOf, chanceAmong, isAlike, oddsOf, timed, wordAnswer, type Expected } from './likelihood'

/** An answer that a look can have: its name, and what is then written down. */
interface Answer {
  name: string
  found: Found
}

/**
 * The answers a look may have among some suspects, and how probable each is for each of them; undefined where all of them show the
 * same. Numbers that an instrument cannot tell apart are one answer. `before`: what was found there in other states, as those
 * suspects have it.
 */
export function answersAhead(
  see: WrittenLook,
  shown: readonly Shows[],
  errors: HuntOptions['errors'],
):
  | ((minutes: number, before: readonly Evidence[]) => { answers: ReadonlyMap<string, Found>; candidate: Candidate })
  | undefined {
  const [first] = shown
  if (first && shown.every((one) => one.beside.length === 0 && isSame(one.expected, first.expected))) return undefined
  const namer = namerOf(
    see,
    shown.flatMap(({ expected, beside }) => [expected, ...beside]),
  )
  const nameOf = (one: Expected) => (one === 'open' ? undefined : 'chances' in one ? one : namer.nameOf(one))
  const names = shown.map(({ expected, beside, even, like }) => ({
    own: [nameOf(expected), ...beside.map(nameOf)],
    even,
    like,
  }))
  if (new Set(names.flatMap(({ own }) => own)).size < 2) return undefined
  return (minutes, before) => {
    const { answers } = namer
    const { hit, miss } = oddsOf(see, errors, answers.length)
    const chance = (name: string, own: ReturnType<typeof nameOf>) => {
      if (own === undefined) return 1 / answers.length
      if (typeof own === 'object') return chanceAmong(own, name, { hit, miss })
      return own === name ? hit : miss
    }
    const chances = answers.map(({ name }): [string, Float64Array] => {
      const likelihood = Float64Array.from(names, ({ own, even, like }) => {
        const probability = timed(
          own.map((one) => chance(name, one)),
          even,
        )
        return like ? likeness(probability, { hit, miss }) : probability
      })
      return [name, givenBefore(before, { id: name, source: '', hit, miss, likelihood })]
    })
    return {
      answers: new Map(answers.map(({ name, found }) => [name, found])),
      candidate: { minutes, answers: new Map(chances) },
    }
  }
}

function isSame(one: Expected, other: Expected): boolean {
  if (one === other) return true
  if (one === 'open' || other === 'open') return false
  if ('word' in one && 'word' in other) return wordAnswer(one) === wordAnswer(other)
  return 'value' in one && 'value' in other && one.value === other.value && one.unit === other.unit
}

/** Names what is shown: by its word, or as the number it cannot be told from. */
function namerOf(
  see: WrittenLook,
  expected: readonly Expected[],
): { answers: Answer[]; nameOf: (shown: LookResult) => string } {
  // What is told with its places is no answer without them.
  const isPlaced = (word: string) => expected.some((one) => one !== 'open' && 'at' in one && one.word === word)
  const answers: Answer[] = answersOf(see)
    .filter((word) => !isPlaced(word))
    .map((word) => ({ name: word, found: { word } }))
  const numbers: { shown: LookResult & { value: number | null }; name: string }[] = []
  const add = (name: string, found: Found) => {
    if (!answers.some((a) => a.name === name)) answers.push({ name, found })
    return name
  }
  const instrument = see.at === 'points' ? see.with : undefined
  // One reading has one name, whatever full volts each suspect would expect there.
  const full = Math.min(...expected.flatMap((one) => (one !== 'open' && 'full' in one ? [one.full] : [])))
  const voltsName = (value: number): string => {
    // Mains where extra-low voltage belongs.
    if (value > 3 * full) return add(`${Number(value.toPrecision(2))} V`, { value, unit: 'V' })
    const word = wordOf({ value, unit: 'V', full }) ?? 'between'
    return add(word, { word })
  }
  const nameOf = (shown: LookResult): string => {
    if ('full' in shown) return voltsName(shown.value)
    if ('word' in shown) return add(wordAnswer(shown), shown)
    if (!('value' in shown)) return add('unknown', { word: 'unknown' })
    const alike = numbers.find((n) => isAlike(n.shown, shown, instrument))
    if (alike) return alike.name
    const name = `${shown.value === null ? 'over the range' : Number(shown.value.toPrecision(2))} ${shown.unit}`
    numbers.push({ shown, name })
    return add(name, { value: shown.value, unit: shown.unit })
  }
  // From the least on, so that what is alike does not depend on the order of the suspects.
  const sorted = expected.filter((one): one is LookResult => one !== 'open' && !('chances' in one))
  sorted.sort((x, y) => valueOf(x) - valueOf(y)).forEach(nameOf)
  if (answers.length < 2) add('something else', { word: 'something-else' })
  return { answers, nameOf }
}

const valueOf = (shown: LookResult): number => ('value' in shown ? (shown.value ?? Infinity) : -1)
