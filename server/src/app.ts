import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { bodyParser } from '@koa/bodyparser'
import type { MikroORM } from '@mikro-orm/libsql'
import Koa from 'koa'
import helmet from 'koa-helmet'
import serve from 'koa-static'
import { ApiProblem } from './problem'
import { apiRouter } from './routes'

export interface AppOptions {
  orm: MikroORM
  /** Folder of the built web application; left out, only the API is served. */
  web?: string
  /** Host names the application answers to, without port. Anything else may be a rebinding attack. */
  hosts: readonly string[]
  now?: () => Date
}

/** The largest body taken: an installation with every list full is well below. */
const bodyLimit = '2mb'

export function createApp({ orm, web, hosts, now = () => new Date() }: AppOptions): Koa {
  const app = new Koa()
  app.on('error', (error: Error & { expose?: boolean; code?: string }) => {
    // A client that went away in mid answer is no fault of the server's.
    const gone = error.code === 'ERR_STREAM_PREMATURE_CLOSE' || error.code === 'ECONNRESET' || error.code === 'EPIPE'
    if (!error.expose && !gone) process.stderr.write(`${error.stack ?? error.message}\n`)
  })
  app.use(problems)
  app.use(async (ctx, next) => {
    if (!hosts.includes(ctx.hostname)) throw new ApiProblem(421, `This server does not answer to "${ctx.hostname}"`)
    await next()
  })
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          'default-src': ["'self'"],
          'img-src': ["'self'", 'data:'],
          // React writes style attributes through the object model; SVG presentation and the widgets' inline styles need this.
          'style-src': ["'self'", "'unsafe-inline'"],
          'worker-src': ["'self'"],
          'object-src': ["'none'"],
          'base-uri': ["'none'"],
          'frame-ancestors': ["'none'"],
          'form-action': ["'self'"],
        },
      },
      // Served over plain HTTP on the loopback.
      hsts: false,
    }),
  )
  app.use(async (ctx, next) => {
    if (ctx.path.startsWith('/api/')) {
      ctx.set('Cache-Control', 'no-store')
      // A form of another origin cannot send this type without asking first.
      if (ctx.method === 'PUT' && !ctx.is('application/json'))
        throw new ApiProblem(415, 'Send JSON', [{ field: 'Content-Type', reason: 'must be application/json' }])
    }
    await next()
  })
  app.use(bodyParser({ enableTypes: ['json'], jsonLimit: bodyLimit, parsedMethods: ['PUT'] }))
  const api = apiRouter(orm, now)
  app.use(api.routes())
  app.use(async (ctx, next) => {
    if (ctx.path.startsWith('/api/')) throw new ApiProblem(ctx.status === 405 ? 405 : 404, 'There is no such address')
    await next()
  })
  if (web && existsSync(join(web, 'index.html'))) serveWeb(app, web)
  return app
}

/** Whatever goes wrong is answered as problem details; what was not foreseen keeps its reason to the log. */
async function problems(ctx: Koa.Context, next: Koa.Next): Promise<void> {
  try {
    await next()
  } catch (error) {
    const problem = asProblem(error)
    if (problem.status >= 500) ctx.app.emit('error', error, ctx)
    ctx.status = problem.status
    ctx.body = JSON.stringify(problem)
    ctx.type = 'application/problem+json'
  }
}

function asProblem(error: unknown): ApiProblem {
  if (error instanceof ApiProblem) return error
  const { status, type } = error as { status?: number; type?: string }
  if (status === 413)
    return new ApiProblem(413, 'This is too large', [{ field: 'body', reason: `at most ${bodyLimit}` }])
  if (status === 400 || type === 'entity.parse.failed')
    return new ApiProblem(400, 'This is not JSON', [{ field: 'body', reason: (error as Error).message }])
  if (status && status >= 400 && status < 500) return new ApiProblem(status, (error as Error).message)
  return new ApiProblem(500, 'Something went wrong on the server', undefined, 'Nothing was stored. Try again.')
}

/** The built application: files under their hashed names for ever, everything else by the one page. */
function serveWeb(app: Koa, web: string): void {
  const files = serve(web, {
    maxage: 0,
    setHeaders: (res, path) => {
      if (path.includes('/assets/')) res.setHeader('Cache-Control', 'public, max-age=31536000, immutable')
    },
  })
  app.use(files)
  app.use(async (ctx, next) => {
    if (ctx.method !== 'GET' || ctx.path.includes('.')) return next()
    ctx.path = '/index.html'
    await files(ctx, next)
  })
}
