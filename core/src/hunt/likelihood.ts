import { agrees, lookAt, wordOf, words, type Found, type Look, type LookResult, type WrittenLook } from '../looks'
import type { Circuit } from '../circuit'
import type { Simulation } from '../simulation'
import type { HuntOptions } from './case'

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
  'flow-temperature': 0.02,
  pipe: 0.05,
  warmth: 0.05,
  fuse: 0.01,
}

/** Answers of looks whose words the catalogue's sequences give, and numbers: about so many can be told apart. */
const manyAnswers = 6
/** Volts are live, dead, or neither. */
const voltWords = ['live', 'dead', 'between'] as const

/** The answers a look is taken to have, as words; none where they are too many to be told ahead. */
export const answersOf = ({ at }: WrittenLook): readonly string[] => (at === 'points' ? voltWords : words[at])

/** What a suspect would show: `open` where its simulation does not decide it, and every answer may be. */
export type Expected = LookResult | 'open'

/** Of a system that goes round and round nothing but its noise is known in advance. */
export function expectedOf(sim: Simulation, look: Look): Expected {
  if (sim.hunting && look.at !== 'motor') return 'open'
  const shown = lookAt(sim, look)
  return 'unknown' in shown ? 'open' : shown
}

/** The chance of what was found where so much is expected. Above 0, at most 1. */
export function chanceOf(
  expected: Expected,
  see: WrittenLook,
  found: LookResult,
  errors: HuntOptions['errors'],
): number {
  const answers = answersOf(see).length || manyAnswers
  if (expected === 'open') return 1 / answers
  const error = errors[see.at] ?? usualErrors[see.at]
  // Volts that are neither may be called either.
  if ('word' in found && wordOf(expected) === undefined) return (1 - error) / 2
  const agreed = agrees(expected, found, see.at === 'points' ? see.with : undefined)
  return agreed ? 1 - error : error / (answers - 1)
}

/** Per answer of a look its chance where so much is expected. */
export function chancesOf(expected: Expected, see: WrittenLook, errors: HuntOptions['errors']): number[] {
  const answers = answersOf(see)
  if (expected === 'open') return answers.map(() => 1 / answers.length)
  const error = errors[see.at] ?? usualErrors[see.at]
  const word = answerFor(see, expected)
  return answers.map((answer) => (answer === word ? 1 - error : error / (answers.length - 1)))
}

/** What is shown as one of the answers: two readings of one live terminal are the same answer. */
export const answerFor = ({ at }: WrittenLook, shown: LookResult): string =>
  wordOf(shown) ?? (at === 'points' && 'full' in shown ? 'between' : JSON.stringify(shown))

/** What was written down, as a look shows it. */
export const shownAs = (found: Found, { installation }: Circuit): LookResult =>
  'unit' in found && found.unit === 'V' ? { ...found, full: installation.supply.volts } : found
