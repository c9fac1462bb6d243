import type { Context } from 'koa'
import parseRange from 'range-parser'
import type { Picture } from '../photos/photo-service'
import { ApiProblem } from './problem'

/** Answers with a picture, or with one range of its bytes; a browser that has it already is told so. */
export function answerPicture(ctx: Context, { bytes, type, digest }: Picture, which: string): void {
  ctx.set('ETag', `"${digest.slice(0, 32)}-${which}"`)
  // A photo never changes; it can only be taken down.
  ctx.set('Cache-Control', 'private, max-age=86400')
  ctx.set('Accept-Ranges', 'bytes')
  ctx.type = type
  ctx.status = 200
  if (ctx.fresh) {
    ctx.status = 304
    return
  }
  const asked = ctx.get('Range')
  const ranges = asked && !ctx.get('If-Range') ? parseRange(bytes.length, asked) : undefined
  if (ranges === -1)
    throw new ApiProblem(
      416,
      'There is no such part of this',
      [{ field: 'Range', reason: `is not within 0 to ${bytes.length - 1}` }],
      undefined,
      {
        'Content-Range': `bytes */${bytes.length}`,
      },
    )
  // Several ranges at once nobody asks for; then the whole is an answer too.
  if (Array.isArray(ranges) && ranges.type === 'bytes' && ranges.length === 1) {
    const [{ start, end }] = ranges
    ctx.status = 206
    ctx.set('Content-Range', `bytes ${start}-${end}/${bytes.length}`)
    ctx.body = bytes.subarray(start, end + 1)
  } else ctx.body = bytes
}
