import { agrees, lookAt, wordOf, words, type Found, type Look, type LookResult } from '../looks'
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

/** The answers a look is taken to have, as words. */
export const answersOf = (at: Look['at']): readonly string[] => (at === 'points' ? voltWords : words[at])
const answerCount = (at: Look['at']): number => answersOf(at).length || manyAnswers

/** What the engineer is taken to know in advance of a look at a system that goes round and round: nothing but its noise. */
const open = (sim: Simulation, look: Look): boolean => sim.hunting && look.at !== 'motor'

/** The chance of what was found, if what the simulation shows is so. Above 0, at most 1. */
export function chanceOf(sim: Simulation, look: Look, found: Found, errors: HuntOptions['errors']): number {
  const answers = answerCount(look.at)
  const shown = lookAt(sim, look)
  if (open(sim, look) || 'unknown' in shown) return 1 / answers
  const error = errors[look.at] ?? usualErrors[look.at]
  const instrument = look.at === 'points' ? look.with : undefined
  return agrees(shown, shownAs(found, sim.circuit), instrument) ? 1 - error : error / (answers - 1)
}

/** The chance of what was found where nothing is known of the cause: any answer may be. */
export const chanceAtRandom = ({ at }: Look): number => 1 / answerCount(at)

/** Per answer of a look its chance, if what the simulation shows is so. */
export function chancesOf(sim: Simulation, look: Look, errors: HuntOptions['errors']): number[] {
  const answers = answersOf(look.at)
  const shown = lookAt(sim, look)
  if (open(sim, look) || 'unknown' in shown) return answers.map(() => 1 / answers.length)
  const error = errors[look.at] ?? usualErrors[look.at]
  const expected = wordOf(shown) ?? 'between'
  return answers.map((answer) => (answer === expected ? 1 - error : error / (answers.length - 1)))
}

/** What the simulation shows, as it would be told. */
export function expectedOf(sim: Simulation, look: Look): LookResult | 'open' {
  return open(sim, look) ? 'open' : lookAt(sim, look)
}

/** What was found as one of the answers: two readings of one live terminal are the same answer. */
export const wordFor = (found: Found, circuit: Circuit): string =>
  wordOf(shownAs(found, circuit)) ?? ('unit' in found && found.unit === 'V' ? 'between' : JSON.stringify(found))

const shownAs = (found: Found, circuit: Circuit): LookResult => {
  if ('word' in found) return found
  return found.unit === 'V' ? { ...found, full: circuit.installation.supply.volts } : found
}
