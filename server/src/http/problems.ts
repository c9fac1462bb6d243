import type { Context, Next } from 'koa'
import type { Data } from '../data/data'
import { wayBack } from '../data/folder'
import type { DataTrouble } from '../data/failures'
import { BackupError } from '../backup/backups'
import { ApiProblem } from './problem'

/** The largest body taken: an installation with every list full is well below. */
export const bodyLimit = '2mb'

/** What stands in the way of the data, as it is told to a client. */
export function troubleProblem(trouble: DataTrouble, folder: string): ApiProblem {
  switch (trouble) {
    case 'damaged':
      return new ApiProblem(
        503,
        'The data are damaged',
        undefined,
        `Nothing more is written to them. ${wayBack(folder)}.`,
      )
    case 'full':
      return new ApiProblem(
        507,
        'The server’s disk is full',
        undefined,
        'Nothing was stored. Make room on it; then this goes on by itself.',
      )
    case 'read-only':
      return new ApiProblem(
        503,
        'The data folder cannot be written',
        undefined,
        'Nothing was stored. Make it writable; then this goes on by itself.',
      )
    case 'busy':
      return new ApiProblem(
        503,
        'The data are in use by another program',
        undefined,
        'Nothing was stored. Try again.',
        {
          'Retry-After': '1',
        },
      )
  }
}

/** Whatever goes wrong is answered as problem details; what was not foreseen keeps its reason to itself. */
export const problems =
  (data: Data) =>
  async (ctx: Context, next: Next): Promise<void> => {
    try {
      await next()
    } catch (error) {
      const problem = asProblem(error, data)
      if (problem.status === 500) ctx.app.emit('error', error, ctx)
      ctx.status = problem.status
      // What is left of a body that was not read is not read for nothing.
      if (!ctx.req.complete) ctx.set('Connection', 'close')
      ctx.set(problem.headers)
      ctx.body = JSON.stringify(problem)
      ctx.type = 'application/problem+json'
    }
  }

/** What was wrong with a body that could not even be read. */
export function bodyProblem(error: Error & { status?: number; type?: string }): ApiProblem {
  const say = (status: number, title: string, reason: string) =>
    new ApiProblem(status, title, [{ field: 'body', reason }])
  if (error.status === 413) return say(413, 'This is too large', `at most ${bodyLimit}`)
  if (error.status === 415)
    return say(415, 'This cannot be read', 'is in an encoding or alphabet that is not known here')
  if (error.type === 'entity.parse.failed' || error instanceof SyntaxError || error.status === 400)
    return say(400, 'This is not JSON', 'is no JSON object or list')
  // Whatever an unpacker says: there is one for each way of packing, and each has codes of its own.
  return say(400, 'This cannot be unpacked', 'is broken off or not compressed as it says')
}

function asProblem(error: unknown, data: Data): ApiProblem {
  if (error instanceof ApiProblem) return error
  if (error instanceof BackupError)
    return new ApiProblem(422, 'This cannot be done with the backup', undefined, error.message)
  const trouble = data.note(error)
  if (trouble) return troubleProblem(trouble, data.folder)
  const { status, type } = error as { status?: number; type?: string }
  if (error instanceof URIError) return new ApiProblem(400, 'There is no such address')
  if (status && status >= 400 && status < 500)
    return new ApiProblem(status, 'This cannot be used', [{ field: 'request', reason: type ?? `status ${status}` }])
  return new ApiProblem(500, 'Something went wrong on the server', undefined, 'Nothing was stored. Try again.')
}

/** What is written of an error nobody foresaw: where it happened, and not a word of what was being stored. */
export function errorLine(error: Error & { code?: string }, where = ''): string {
  const frames = (error.stack ?? '').split('\n').filter((line) => /^\s+at /.test(line))
  return [`${error.name}${error.code ? ` ${error.code}` : ''} ${where}`.trim(), ...frames].join('\n')
}
