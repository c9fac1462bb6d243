import { z } from 'zod'
import { typeDirectory } from '../catalogue'
import { DocumentError, installationSchema, parseInstallation, type Installation } from '../installation'
import { parsedJson } from './json'

/** The version of the document that is written. */
const current = 1

/** What brings a document of an older version to the next one, by the version it comes from. There is no older one yet. */
const migrations: Readonly<Record<number, (document: Record<string, unknown>) => Record<string, unknown>>> = {}

/** An installation as a file: JSON, two spaces, a line feed at the end. */
export const writeInstallation = (installation: Installation): string => `${JSON.stringify(installation, null, 2)}\n`

/**
 * Reads an installation file of this version or an older one. Throws {@link DocumentError} with field and reason: not JSON, of
 * a newer version than is known, or not an installation.
 */
export function readInstallation(text: string): Installation {
  let document = parsedJson(text)
  const told = z.object({ format: z.literal('nobbet-installation'), version: z.number().int() }).safeParse(document)
  if (!told.success)
    throw new DocumentError([
      { field: 'format', reason: 'this is not an installation: "format" must be "nobbet-installation"' },
    ])
  let { version } = told.data
  if (version > current)
    throw new DocumentError([
      { field: 'version', reason: `version ${version} was written by a newer Nobbet; this one knows up to ${current}` },
    ])
  for (let at = document as Record<string, unknown>; version < current; version++) {
    const step = migrations[version]
    if (!step) throw new DocumentError([{ field: 'version', reason: `there has never been a version ${version}` }])
    document = at = step(at)
  }
  return parseInstallation(document, typeDirectory)
}

/** The published JSON Schema of an installation. */
export const installationJsonSchema = (): Record<string, unknown> => ({
  ...z.toJSONSchema(installationSchema, { io: 'input' }),
  title: 'Nobbet installation',
})
