import { ApiProblem, changedMeanwhile } from './problem'

/** What a writer says about what is there: a version, or that nothing is. */
export type Precondition = { version: number } | 'nothing there'

export const etag = (version: number) => `"${version}"`

/** Reads If-Match or If-None-Match. A write of something versioned must say what it writes over. */
export function preconditionOf(headers: { 'if-match'?: string; 'if-none-match'?: string }): Precondition {
  if (headers['if-none-match'] === '*') return 'nothing there'
  const match = /^(?:W\/)?"(\d+)"$/.exec(headers['if-match'] ?? '')
  if (match) return { version: Number(match[1]) }
  throw new ApiProblem(428, 'Say what you write over', [
    { field: 'If-Match', reason: 'send the ETag you read, or If-None-Match: * for something new' },
  ])
}

/**
 * Decides on a write: `write` to go on, `repeat` where the very same content stands there already (an answer was lost and
 * the client has sent it again). Throws 412 where something else is there.
 */
export function judge(
  precondition: Precondition,
  found: { version: number } | null,
  same: boolean,
): 'write' | 'repeat' {
  const fits = precondition === 'nothing there' ? found === null : found?.version === precondition.version
  if (fits) return 'write'
  if (found && same) return 'repeat'
  throw changedMeanwhile()
}
