import { join } from 'node:path'
import type Koa from 'koa'
import serve from 'koa-static'
import { isApi } from './is-api'

/** The built application: files under their hashed names for ever, everything else by the one page. */
export function serveWeb(app: Koa, web: string): void {
  const assets = join(web, 'assets')
  const files = serve(web, {
    setHeaders: (res, path) => {
      res.setHeader('Cache-Control', path.startsWith(assets) ? 'public, max-age=31536000, immutable' : 'no-cache')
    },
  })
  app.use(async (ctx, next) => {
    if (isApi(ctx.path)) await next()
    else await files(ctx, next)
  })
  app.use(async (ctx, next) => {
    if (isApi(ctx.path) || !['GET', 'HEAD'].includes(ctx.method) || ctx.path.includes('.')) {
      await next()
      return
    }
    ctx.path = '/index.html'
    await files(ctx, next)
  })
}
