import { z } from 'zod'
import { idSchema, terminalRefSchema } from '../installation'
import { words, type WrittenLook } from '../looks'

/** What was looked at. Findings were so before hunts had a log of acts and looks; what was recorded so is still read. */
export const observableSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('terminal'), terminal: terminalRefSchema }),
  z.object({ kind: z.literal('valve'), device: idSchema }),
  z.object({ kind: z.literal('boiler'), device: idSchema }),
  z.object({ kind: z.literal('pump'), device: idSchema }),
])
export type Observable = z.infer<typeof observableSchema>

/** The two answers each kind of look can give, the positive one first. */
export const answers = {
  terminal: words.points,
  valve: words.valve,
  boiler: words.boiler,
  pump: words.pump,
} as const satisfies Record<Observable['kind'], readonly [string, string]>

/** Nothing was learnt: the look could not be had, or did not tell. The next reading is then another one. */
export const noAnswers = ['cannot-do', 'cannot-tell'] as const

/**
 * The controls in which a look was made: the contacts that were set to ask (`device.contact`), all others at rest, and
 * everything settled: valves at the end of their travel, overrun over.
 */
export const controlStateSchema = z.array(terminalRefSchema).max(40)
export type { ControlState } from '../hunt'

export const findingResultSchema = z.enum([
  ...answers.terminal,
  ...answers.valve,
  ...answers.boiler,
  ...answers.pump,
  ...noAnswers,
])
export type FindingResult = z.infer<typeof findingResultSchema>

/** One finding from site. */
export const observationSchema = z
  .object({ asking: controlStateSchema, observable: observableSchema, result: findingResultSchema })
  .refine(
    ({ observable, result }) =>
      (answers[observable.kind] as readonly string[]).includes(result) ||
      (noAnswers as readonly string[]).includes(result),
    { path: ['result'], message: 'that is no answer to this kind of look' },
  )
export type Observation = z.infer<typeof observationSchema>

/** What is looked at, with what: a terminal is read with a low-impedance tester, a valve by whether it stands open at all. */
export const lookFor = (observable: Observable): WrittenLook =>
  observable.kind === 'terminal'
    ? { at: 'points', with: 'tester', red: observable.terminal }
    : { at: observable.kind, device: observable.device }
