import { DocumentError } from '../installation'

/** JSON as whatever it holds. Throws {@link DocumentError} where the text is none. */
export function parsedJson(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch (error) {
    throw new DocumentError([{ field: '', reason: `this is not JSON: ${(error as Error).message}` }])
  }
}
