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

/** A brief that leaves its wiring centre open: the default stands in it, and what is proposed may be another. */
const leavesCentreOpen = z.object({ brief: z.object({ terminals: z.undefined().optional() }) })

/** Reads a brief: JSON; `centreOpen`: no wiring centre is named in it. Throws {@link DocumentError} with field and reason. */
export function readBrief(text: string): { name: string; brief: PlanBrief; centreOpen: boolean } {
  const parsed = parsedJson(text)
  const read = briefFileSchema.safeParse(parsed)
  if (!read.success) throw new DocumentError(problemsOf(read.error))
  return { name: read.data.name, brief: read.data.brief, centreOpen: leavesCentreOpen.safeParse(parsed).success }
}

/** The published JSON Schema of a brief. */
export const briefJsonSchema = (): Record<string, unknown> => ({
  ...z.toJSONSchema(briefFileSchema, { io: 'input' }),
  title: 'Nobbet brief',
})
