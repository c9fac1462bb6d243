import { z } from 'zod'
import { DocumentError, installationSchema, problemsOf, type Installation } from '../installation'
import { planBriefSchema, planSystem } from '../planning'
import { surveySchema, type Survey } from '../survey'
import { readInstallation } from './installation-file'
import { parsedJson } from './json'

const shape = z.object({
  format: z.literal('nobbet-survey', { error: '"format" must be "nobbet-survey"' }),
  version: z.literal(1, { error: 'it was written by a newer Nobbet; this one knows version 1' }),
  /** What is fitted: the devices, and what would be joined with what; or a brief of it, which is planned. */
  installation: z.unknown().optional(),
  brief: planBriefSchema.optional(),
  survey: surveySchema,
})
const surveyFileSchema = shape.refine(
  ({ installation, brief }) => (installation === undefined) !== (brief === undefined),
  { path: ['installation'], message: 'give either an installation or a brief' },
)

export interface SurveyFile {
  installation: Installation
  survey: Survey
}

/** Reads a survey: JSON. Throws {@link DocumentError} with field and reason. */
export function readSurvey(text: string): SurveyFile {
  const read = surveyFileSchema.safeParse(parsedJson(text))
  if (!read.success) throw new DocumentError(problemsOf(read.error))
  const { installation, brief, survey } = read.data
  const planned = brief && planSystem(brief, 'surveyed', 'As planned, assumed')
  return { installation: planned ?? readInstallation(JSON.stringify(installation)), survey }
}

/** The published JSON Schema of a survey. */
export const surveyJsonSchema = (): Record<string, unknown> => ({
  ...z.toJSONSchema(shape.extend({ installation: installationSchema.optional() }), { io: 'input' }),
  title: 'Nobbet survey',
})
