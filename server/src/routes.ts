import { Router, type RouterContext } from '@koa/router'
import type { MikroORM } from '@mikro-orm/libsql'
import { clientIdSchema, endpoints, openApi, typeIdSchema, type Operation } from '@nobbet/contract'
import { isShipped, problemsOf, readDeviceType, type DeviceType } from '@nobbet/core'
import type { z } from 'zod'
import { integrityOf } from './database'
import { JobService } from './job-service'
import { etag, preconditionOf } from './preconditions'
import { ApiProblem } from './problem'
import { PhotoService } from './photo-service'
import { TypeService } from './type-service'

const version = '0.1.0'

/** Parses what a request brought; a misfit is told by field and reason, and nothing has been stored. */
function parsed<T>(schema: z.ZodType<T>, value: unknown, at = ''): T {
  const result = schema.safeParse(value)
  if (result.success) return result.data
  const errors = problemsOf(result.error).map((p) => ({ ...p, field: [at, p.field].filter(Boolean).join('.') }))
  throw new ApiProblem(422, 'Some of this cannot be used', errors)
}

/** A device type must be whole, and called otherwise than those that ship. */
function wholeType(id: string, definition: unknown): DeviceType {
  const read = readDeviceType(definition)
  const problems = 'problems' in read ? read.problems : []
  if ('type' in read) {
    if (read.type.id !== id) problems.push({ field: 'id', reason: `is not "${id}", under which it is written` })
    if (isShipped(id)) problems.push({ field: 'id', reason: `"${id}" is the id of a type that ships` })
    if (problems.length === 0) return read.type
  }
  const errors = problems.map((p) => ({ ...p, field: ['definition', p.field].filter(Boolean).join('.') }))
  throw new ApiProblem(422, 'This device type cannot be used', errors)
}

interface Call {
  jobs: JobService
  types: TypeService
  photos: PhotoService
  /** A path parameter, parsed as an id. */
  id(name: string): string
  ctx: RouterContext
  body: unknown
}
type Handler = (call: Call) => Promise<unknown>

const versioned = (ctx: RouterContext, answer: { version: number }) => {
  ctx.set('ETag', etag(answer.version))
  return answer
}

/** Records are taken in one after the other: each finds what the one before has made of the job. */
let last: Promise<unknown> = Promise.resolve()
function oneByOne<T>(write: () => Promise<T>): Promise<T> {
  const mine = last.then(write, write)
  last = mine.catch(() => undefined)
  return mine
}

function handlers(orm: MikroORM): Record<Operation, Handler> {
  return {
    async health() {
      const integrity = await integrityOf(orm)
      return { status: integrity === 'ok' ? 'ok' : 'damaged', integrity, version }
    },
    listJobs: ({ jobs }) => jobs.list(),
    readJob: async ({ jobs, id }) => jobs.read(id('job')),
    readLog: async ({ jobs, id, ctx }) => jobs.tail(id('job'), parsed(endpoints.readLog.query, { ...ctx.query }).after),
    writeLog: async ({ jobs, id, body }) => {
      const write = parsed(endpoints.writeLog.request, body)
      return oneByOne(() => jobs.record(id('job'), write))
    },
    listPhotos: ({ photos, id }) => photos.list(id('job')),
    writePhoto: ({ photos, id, body }) =>
      photos.write(id('job'), id('photo'), parsed(endpoints.writePhoto.request, body)),
    deletePhoto: ({ photos, id }) => photos.remove(id('job'), id('photo')),
    listTypes: ({ types }) => types.list(),
    writeType: async ({ types, ctx, body }) => {
      const id = parsed(typeIdSchema, ctx.params.type, 'type')
      // Read by the catalogue, which says of every part what is missing; the contract's schema alone would not.
      const type = wholeType(id, (body as { definition?: unknown } | undefined)?.definition)
      return versioned(ctx, await types.write(id, type, preconditionOf(ctx.headers)))
    },
    deleteType: async ({ types, ctx }) => types.remove(parsed(typeIdSchema, ctx.params.type, 'type')),
  }
}

/** Routes by the contract's table of endpoints: one handler each, no endpoint without one. */
export function apiRouter(orm: MikroORM, now: () => Date): Router {
  const router = new Router()
  const table = handlers(orm)
  for (const [operation, endpoint] of Object.entries(endpoints)) {
    router[endpoint.method](endpoint.path.replace(/\{(\w+)\}/g, ':$1'), async (ctx) => {
      const answer = await table[operation as Operation]({
        jobs: new JobService(orm.em.fork(), now),
        types: new TypeService(orm.em.fork(), now),
        photos: new PhotoService(orm.em.fork(), now),
        id: (name) => parsed(clientIdSchema, ctx.params[name], name),
        ctx,
        body: (ctx.request as { body?: unknown }).body,
      })
      if (answer === undefined) ctx.status = 204
      else ctx.body = answer
    })
  }
  const document = openApi(version)
  router.get('/api/openapi.json', (ctx) => {
    ctx.body = document
  })
  return router
}
