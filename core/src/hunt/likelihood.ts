import { agrees, lookAt, wordOf, words, type Found, type Look, type LookResult, type WrittenLook } from '../looks'
import type { Instrument } from '../instruments'
import type { Simulation } from '../simulation'
import type { HuntOptions } from './case'
import { complaints, type Complained } from './complaints'

/**
 * How often a careful person answers wrongly, by kind of look: the rates of experience that the trade's evidence is given with.
 * All can be set otherwise for a case.
 */
export const usualErrors: Record<Look['at'], number> = {
  points: 0.02,
  valve: 0.05,
  lever: 0.05,
  motor: 0.1,
  clicks: 0.1,
  pump: 0.05,
  boiler: 0.02,
  display: 0.02,
  lamps: 0.03,
  clock: 0.02,
  'flow-temperature': 0.02,
  pipe: 0.05,
  warmth: 0.05,
  fuse: 0.01,
  trip: 0.01,
  spindle: 0.03,
  eyes: 0.05,
  wiring: 0.05,
}

/** Answers of looks whose words the catalogue's sequences give, and numbers: about so many can be told apart. */
const manyAnswers = 6
/** Volts are live, dead, or neither. */
const voltWords = ['live', 'dead', 'between'] as const

/** The answers a look is taken to have, as words; none where they are too many to be told ahead. */
export function answersOf(see: WrittenLook): readonly string[] {
  if (see.at !== 'points') return words[see.at]
  return see.with === 'tester' || see.with === 'meter' ? voltWords : []
}

/** What a suspect would show: `open` where its simulation does not decide it, and every answer may be. */
export type Expected = LookResult | 'open'

/** What a look shows of an installation, at this moment. */
export function expectedOf(sim: Simulation, look: Look): Expected {
  const shown = lookAt(sim, look)
  return 'unknown' in shown ? 'open' : shown
}

/** What customers say is right three times in four; what an earlier engineer held to be at fault, hardly more. An estimate. */
export const usualToldError = 0.25
export const blamedRightly = 0.5

/**
 * How probable it is that a customer says something that is so, and something that is not. Whoever is mistaken about what is wrong
 * says one of the other things there are to say. That a service is fine is yes or no, and said of what nobody has tried.
 */
export function oddsOfTold({ what }: Complained, errors: HuntOptions['errors']): { hit: number; miss: number } {
  const error = errors.told ?? usualToldError
  return { hit: 1 - error, miss: what === 'is-fine' ? error : error / (complaints.length - 2) }
}

/** How many answers a look is taken to have, where what was found is one of them. */
export const answersWith = (see: WrittenLook, found?: Found): number =>
  found && 'at' in found ? manyAnswers : answersOf(see).length || manyAnswers

/** How probable the right answer of a look is, and any one of the others. */
export function oddsOf(
  see: WrittenLook,
  errors: HuntOptions['errors'],
  answers = answersWith(see),
): { hit: number; miss: number } {
  const error = errors[see.at] ?? usualErrors[see.at]
  return { hit: 1 - error, miss: error / (answers - 1) }
}

/** Of what is seen on its way: it comes as early, or as late, as usual with this weight. */
const usualTime = 0.5

/** Of something as probable as this at its usual time, and so probable at others; `even`: it may be any of these times. */
export function timed([usual = 0, ...beside]: readonly number[], even = false): number {
  if (beside.length === 0) return usual
  if (even) return [usual, ...beside].reduce((sum, one) => sum + one, 0) / (1 + beside.length)
  return usualTime * usual + ((1 - usualTime) * beside.reduce((sum, one) => sum + one, 0)) / beside.length
}

/** The chance of what was found, where it may have been looked at a little early or late. */
export const chanceWith = (
  { expected, beside, even }: { expected: Expected; beside: readonly Expected[]; even?: boolean },
  see: WrittenLook,
  found: Found,
  errors: HuntOptions['errors'],
): number =>
  timed(
    [expected, ...beside].map((one) => chanceOf(one, see, found, errors)),
    even,
  )

/**
 * What a part really draws, the ohms of its winding, how hot its water is, nobody knows before: the model has usual values. By so
 * much two numbers may differ, as a share of the larger, before they are told apart. Estimates.
 */
const spread = { W: 0.45, Ω: 0.5, MΩ: 0.6, '°C': 0.15 } as const

/** Could what was found be what is expected, whatever the parts are that are really there? */
export function isAlike(expected: LookResult, found: LookResult, instrument?: Instrument): boolean {
  if (agrees(expected, found, instrument)) return true
  if (!('value' in expected && 'value' in found) || expected.unit !== found.unit) return false
  if (expected.value === null || found.value === null) return false
  if (expected.unit === 'V') {
    const isSameWord = wordOf(expected) === wordOf(found)
    return isSameVolts(expected.value, found.value, isSameWord) || isSameDivision(expected, found.value)
  }
  // Nothing, or a closed contact, is not a little of what is there.
  const [less, more] = [expected.value, found.value].sort((x, y) => x - y) as [number, number]
  return less > closed[expected.unit] && more - less <= spread[expected.unit] * more
}
/**
 * How much an open core picks up depends on cables nobody has measured: what is neither is one, and of what is dead so many volts.
 * Live at extra-low voltage is not live at mains.
 */
function isSameVolts(one: number, other: number, sameWord: boolean): boolean {
  const [less, more] = [one, other].sort((x, y) => x - y) as [number, number]
  return sameWord && (more - less <= pickedUp || more <= 3 * less)
}
const pickedUp = 15

/**
 * Two parts in series divide the volts as their impedances are to each other, and each may be as much as 30 % off what is usual: so may
 * what is on the one be to what is on the other.
 */
function isSameDivision(expected: { value: number | null } | { value: number; full: number }, found: number): boolean {
  if (expected.value === null || !('full' in expected)) return false
  const { value, full } = expected
  if (Math.min(value, found) <= 0 || Math.max(value, found) >= full) return false
  const [less, more] = [value, found].map((volts) => volts / (full - volts)).sort((x, y) => x - y) as [number, number]
  return more * (1 - offUsual) <= less * (1 + offUsual)
}
const offUsual = 0.3
const closed = { W: 1, Ω: 2, MΩ: 0.1, '°C': 0 } as const

/** The chance of what was found where so much is expected. Above 0, at most 1. */
export function chanceOf(expected: Expected, see: WrittenLook, found: Found, errors: HuntOptions['errors']): number {
  const answers = answersWith(see, found)
  if (expected === 'open') return 1 / answers
  const { hit, miss } = oddsOf(see, errors, answers)
  if ('chances' in expected) return chanceAmong(expected, 'word' in found ? found.word : '', { hit, miss })
  const shown = shownWhere(expected, found)
  if ('at' in expected && 'at' in shown) return Math.max(miss, hit * agreedPlaces(expected.at, shown.at))
  // Volts that are neither may be called either.
  if ('word' in shown && wordOf(expected) === undefined) return hit / 2
  return isAlike(expected, shown, see.at === 'points' ? see.with : undefined) ? hit : miss
}

/** How far places that were named agree with those expected: all of them; or some, the others overlooked or not told; else not at all. */
function agreedPlaces(expected: readonly string[] = [], named: readonly string[] = []): number {
  if (named.some((place) => !expected.includes(place))) return 0
  return expected.every((place) => named.includes(place)) ? 1 : 1 / 2
}

/** The chance of a word where any of several may be seen. */
export function chanceAmong(
  { chances }: { chances: Readonly<Record<string, number>> },
  word: string,
  { hit, miss }: { hit: number; miss: number },
): number {
  const own = chances[word] ?? 0
  return own * hit + (1 - own) * miss
}

/** What was written down, as a look shows it: volts against the full volts that are expected there. */
const shownWhere = (expected: LookResult, found: Found): LookResult =>
  'unit' in found && found.unit === 'V' ? { ...found, full: 'full' in expected ? expected.full : found.value } : found

/** What is shown as one of the answers: two readings of one live terminal are the same answer. */
export const answerFor = ({ at }: WrittenLook, shown: LookResult): string =>
  'word' in shown
    ? wordAnswer(shown)
    : (wordOf(shown) ?? (at === 'points' && 'full' in shown ? 'between' : JSON.stringify(shown)))

/** A word as an answer's name: with the places that it is said of. */
export const wordAnswer = ({ word, at = [] }: Extract<LookResult, { word: string }>): string => [word, ...at].join(' ')
