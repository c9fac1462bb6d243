import { readFileSync } from 'node:fs'
import { DocumentError, exampleById, parseInstallation, typeDirectory, type Installation } from '@nobbet/core'
import { UsageError } from './usage-error'

/** Reads an installation from a file, from standard input (`-`), or a shipped example by its name. */
export function loadInstallation(name: string): Installation {
  const example = exampleById(name)
  if (example) return example.installation
  const json = readJson(name, 'neither a file nor a shipped example (see "examples")')
  try {
    return parseInstallation(json, typeDirectory)
  } catch (error) {
    if (error instanceof DocumentError) throw new UsageError(`"${name}" is not an installation: ${error.message}`)
    throw error
  }
}

/** Reads JSON from a file or from standard input (`-`); `otherwise` says what else the name could have been. */
export function readJson(name: string, otherwise = 'there is no such file'): unknown {
  let text: string
  try {
    text = readFileSync(name === '-' ? 0 : name, 'utf8')
  } catch {
    throw new UsageError(`cannot read "${name}": ${otherwise}`)
  }
  try {
    return JSON.parse(text)
  } catch (error) {
    throw new UsageError(`"${name}" is not JSON: ${(error as Error).message}`)
  }
}
