import { readFileSync } from 'node:fs'
import {
  DocumentError,
  exampleById,
  readBrief,
  readHuntCase,
  readInstallation,
  readSurvey,
  type Installation,
} from '@nobbet/core'
import { UsageError } from './usage-error'

/** Reads an installation from a file, from standard input (`-`), or a shipped example by its name. */
export function loadInstallation(name: string): Installation {
  const example = exampleById(name)
  if (example) return example.installation
  const text = readText(name, 'neither a file nor a shipped example (see "examples")')
  try {
    return readInstallation(text)
  } catch (error) {
    if (error instanceof DocumentError) throw new UsageError(`"${name}" is not an installation: ${error.message}`)
    throw error
  }
}

/** Reads a file or standard input (`-`); `otherwise` says what else the name could have been. */
function readText(name: string, otherwise: string): string {
  try {
    return readFileSync(name === '-' ? 0 : name, 'utf8')
  } catch {
    throw new UsageError(`cannot read "${name}": ${otherwise}`)
  }
}

/** Reads JSON from a file or from standard input (`-`). */
export function readJson(name: string): unknown {
  const text = readText(name, 'there is no such file')
  try {
    return JSON.parse(text)
  } catch (error) {
    throw new UsageError(`"${name}" is not JSON: ${(error as Error).message}`)
  }
}

/** Reads a case of a hunt from a file or from standard input (`-`). */
export function loadHuntCase(name: string): ReturnType<typeof readHuntCase> {
  try {
    return readHuntCase(readText(name, 'there is no such file'))
  } catch (error) {
    if (error instanceof DocumentError) throw new UsageError(`"${name}" is not a hunt: ${error.message}`)
    throw error
  }
}

/** Reads a survey from a file or from standard input (`-`). */
export function loadSurvey(name: string): ReturnType<typeof readSurvey> {
  try {
    return readSurvey(readText(name, 'there is no such file'))
  } catch (error) {
    if (error instanceof DocumentError) throw new UsageError(`"${name}" is not a survey: ${error.message}`)
    throw error
  }
}

/** Reads a brief from a file or from standard input (`-`). */
export function loadBrief(name: string): ReturnType<typeof readBrief> {
  try {
    return readBrief(readText(name, 'there is no such file'))
  } catch (error) {
    if (error instanceof DocumentError) throw new UsageError(`"${name}" cannot be planned: ${error.message}`)
    throw error
  }
}
