import { z } from 'zod'
import { DocumentError, printable, problemsOf } from '../installation'
import { planBriefSchema, type PlanBrief } from '../planning'
import { parsedJson } from './json'

/** What is to be planned, as a file. */
const briefFileSchema = z.strictObject({
  format: z.literal('nobbet-brief', { error: () => 'this is not a brief: "format" must be "nobbet-brief"' }),
  version: z.literal(1, { error: () => 'this Nobbet knows version 1' }),
  /** The name of the installation. */
  name: printable(z.string().trim().min(1).max(120)).default('Plan'),
  brief: planBriefSchema,
})

/** Reads a brief: JSON. Throws {@link DocumentError} with field and reason. */
export function readBrief(text: string): { name: string; brief: PlanBrief } {
  const read = briefFileSchema.safeParse(parsedJson(text))
  if (!read.success) throw new DocumentError(problemsOf(read.error))
  return read.data
}

/** The published JSON Schema of a brief. */
export const briefJsonSchema = (): Record<string, unknown> => ({
  ...z.toJSONSchema(briefFileSchema, { io: 'input' }),
  title: 'Nobbet brief',
})
