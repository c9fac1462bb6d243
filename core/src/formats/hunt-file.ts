import { z } from 'zod'
import { huntCaseSchema, type HuntEntry, type HuntOptions } from '../hunt'
import { planSystem } from '../planning'
import { DocumentError, problemsOf, type Installation } from '../installation'
import { readInstallation } from './installation-file'
import { parsedJson } from './json'

/** A case of a hunt, with its installation read as one. */
export interface HuntFile {
  installation: Installation
  log: HuntEntry[]
  options: HuntOptions
}

/** Reads a case: JSON. Throws {@link DocumentError} with field and reason. */
export function readHuntCase(text: string): HuntFile {
  const read = huntCaseSchema.safeParse(parsedJson(text))
  if (!read.success) throw new DocumentError(problemsOf(read.error))
  const { installation, brief, log, options } = read.data
  const planned = brief && planSystem(brief, 'hunted', 'As planned, assumed')
  return { installation: planned ?? readInstallation(JSON.stringify(installation)), log, options }
}

/** The published JSON Schema of a case. */
export const huntCaseJsonSchema = (): Record<string, unknown> => ({
  ...z.toJSONSchema(huntCaseSchema, { io: 'input' }),
  title: 'Nobbet hunt case',
})
