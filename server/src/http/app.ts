import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { constants } from 'node:zlib'
import { bodyParser } from '@koa/bodyparser'
import Koa from 'koa'
import compress from 'koa-compress'
import conditional from 'koa-conditional-get'
import etag from '@koa/etag'
import helmet from 'koa-helmet'
import { gate, type Door } from '../access/gate'
import { isApi } from './is-api'
import { ApiProblem } from './problem'
import { bodyLimit, bodyProblem, errorLine, problems } from './problems'
import { apiRouter, type Serving } from './routes'
import { serveWeb } from './web'

export interface AppOptions extends Door, Serving {
  /** Signs cookies. */
  key: string
  /** Folder of the built web application; left out, only the API is served. */
  web?: string
}

export function createApp(options: AppOptions): Koa {
  const { data, key, web } = options
  const app = new Koa()
  app.keys = [key]
  app.on('error', (error: Error & { expose?: boolean; code?: string }, ctx?: Koa.Context) => {
    // A client that went away in mid answer is no fault of the server's.
    const gone = ['ERR_STREAM_PREMATURE_CLOSE', 'ECONNRESET', 'EPIPE', 'ECONNABORTED'].includes(error.code ?? '')
    // The path has ids in it and no customer's word.
    if (!error.expose && !gone) process.stderr.write(`${errorLine(error, ctx && `${ctx.method} ${ctx.path}`)}\n`)
  })
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          'default-src': ["'self'"],
          // The reader of square codes is WebAssembly, and comes from here too; scripts made out of text stay forbidden.
          'script-src': ["'self'", "'wasm-unsafe-eval'"],
          'img-src': ["'self'", 'data:', 'blob:'],
          // React writes style attributes through the object model; SVG presentation and the widgets' inline styles need this.
          'style-src': ["'self'", "'unsafe-inline'"],
          'worker-src': ["'self'"],
          'object-src': ["'none'"],
          'base-uri': ["'none'"],
          'frame-ancestors': ["'none'"],
          'form-action': ["'self'"],
        },
      },
      // With none at all a form's own page would pass for a foreign one.
      referrerPolicy: { policy: 'same-origin' },
      // Over a certificate of one's own a browser must not be told to refuse anything else for months.
      hsts: false,
    }),
  )
  app.use(async (ctx, next) => {
    // The compressor trips over a client that will have none of it.
    ctx.req.headers['accept-encoding'] = ctx.acceptsEncodings('br', 'gzip', 'identity') || 'identity'
    await next()
  })
  app.use(compress({ br: { params: { [constants.BROTLI_PARAM_QUALITY]: 4 } }, gzip: { level: 4 } }))
  app.use(problems(data))
  app.use(async (ctx, next) => {
    if (/%00|\0/.test(ctx.url)) throw new ApiProblem(400, 'There is no such address')
    await next()
  })
  app.use(gate(options))
  app.use(conditional())
  app.use(etag())
  app.use(async (ctx, next) => {
    if (isApi(ctx.path)) {
      // Kept by the browser that asked, and asked about again every time.
      ctx.set('Cache-Control', 'private, no-cache')
      // A form of another origin cannot send these types without asking first.
      const file = /\/file$/i.test(ctx.path)
      const type = file ? 'application/octet-stream' : 'application/json'
      if (ctx.method === 'PUT' && !ctx.is(type))
        throw new ApiProblem(415, file ? 'Send the file itself' : 'Send JSON', [
          { field: 'Content-Type', reason: `must be ${type}` },
        ])
    }
    await next()
  })
  app.use(
    bodyParser({
      enableTypes: ['json'],
      jsonLimit: bodyLimit,
      parsedMethods: ['PUT'],
      onError(error) {
        throw bodyProblem(error)
      },
    }),
  )
  app.use(apiRouter(options).routes())
  app.use(async (ctx, next) => {
    if (isApi(ctx.path)) throw new ApiProblem(ctx.status === 405 ? 405 : 404, 'There is no such address')
    await next()
  })
  if (web && existsSync(join(web, 'index.html'))) serveWeb(app, web)
  return app
}
