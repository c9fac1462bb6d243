import { parseAction } from '@nobbet/core'
import { z } from 'zod'
import { clientIdSchema, line } from './basics'

/** Something done to an installation, as an address writes it: `programmer.heating=on`, `wait=20s`, `fault=NAME`. */
const actSchema = line('an act', 250).superRefine((text, context) => {
  try {
    parseAction(text)
  } catch (error) {
    context.addIssue({ code: 'custom', message: (error as Error).message })
  }
})

export const mostActs = 500

/** Acts in order, with what was put in that is wrong and the time that passed, under a name. */
export const scenarioSchema = z.strictObject({
  name: line('the name'),
  acts: z.array(actSchema).max(mostActs, `at most ${mostActs} acts`),
})
export type Scenario = z.infer<typeof scenarioSchema>

/** A scenario kept with a job. */
export const keptScenarioSchema = scenarioSchema.extend({ id: clientIdSchema })
export type KeptScenario = z.infer<typeof keptScenarioSchema>

/** A scenario as a file. */
export const scenarioFileSchema = scenarioSchema.extend({
  format: z.literal('nobbet-scenario', { error: 'this is no file of a scenario' }),
  version: z.literal(1, { error: 'this file is of a newer version' }),
})
export type ScenarioFile = z.infer<typeof scenarioFileSchema>
