import { Router, type RouterContext } from '@koa/router'
import {
  clientIdSchema,
  endpoints,
  jobListQuerySchema,
  nothingSchema,
  openApi,
  typeIdSchema,
  type Operation,
  type ServerState,
} from '@nobbet/contract'
import { boundsProblem, isShipped, problemsOf, readDeviceType, type DeviceType } from '@nobbet/core'
import type { z } from 'zod'
import { DeviceService } from '../access/devices'
import { callerOf, type Caller, type Door } from '../access/gate'
import type { BackupService } from '../backup/backup-service'
import { InTurn } from '../data/in-turn'
import { JobListService } from '../jobs/job-list'
import { JobService } from '../jobs/job-service'
import { JobTexts } from '../jobs/job-texts'
import { PhotoService } from '../photos/photo-service'
import { TypeService } from '../types/type-service'
import { answerPicture } from './picture-answer'
import { etag, preconditionOf } from './preconditions'
import { ApiProblem } from './problem'
import { troubleProblem } from './problems'

const version = '0.1.0'

export interface Serving extends Door {
  backups: BackupService
  /** Bytes that all photos may take together. */
  photoRoom: number
  /** How it stands in the network. */
  network: () => Pick<ServerState, 'addresses' | 'encrypted'>
}

/** Parses what a request brought; a misfit is told by field and reason, and nothing has been stored. */
function parsed<T>(schema: z.ZodType<T>, value: unknown, at = ''): T {
  const beyond = boundsProblem(value)
  const result = beyond ? undefined : schema.safeParse(value)
  if (result?.success) return result.data
  const problems = beyond ? [beyond] : problemsOf(result!.error)
  const errors = problems.map((p) => ({ ...p, field: [at, p.field].filter(Boolean).join('.') || 'body' }))
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
  texts: JobTexts
  list: JobListService
  types: TypeService
  photos: PhotoService
  devices: DeviceService
  caller: Caller
  /** A path parameter, parsed as an id. */
  id(name: string): string
  ctx: RouterContext
  body: unknown
}
type Handler = (call: Call) => Promise<unknown>
/** An answer that is JSON already. */
class JsonText {
  constructor(readonly text: string) {}
}
/** Answers are made for one reader: compressing them longer than sending them would gain nobody anything. */
const quickly = { br: false as const, gzip: { level: 1 } }
/** What a handler returns that has answered by itself. */
const answered = Symbol('answered')

const versioned = (ctx: RouterContext, answer: { version: number }) => {
  ctx.set('ETag', etag(answer.version))
  return answer
}

function handlers(serving: Serving): Record<Operation, Handler> {
  const { data, backups, log, pairing, now } = serving
  const ipOf = (ctx: RouterContext) => ctx.req.socket.remoteAddress
  return {
    async health() {
      const trouble = data.trouble
      const detail = trouble ? troubleProblem(trouble, data.folder).message : ''
      return { status: trouble ?? 'ok', detail, version }
    },
    listJobs: ({ list, ctx }) => list.page(parsed(jobListQuerySchema, { ...ctx.query })),
    listDues: ({ list }) => list.dues(),
    async readJob({ texts, id, ctx }) {
      const { text, number } = await texts.job(id('job'))
      ctx.set('ETag', `"${number}-${data.lineage}"`)
      return new JsonText(text)
    },
    async deleteJob({ jobs, id, ctx }) {
      await jobs.remove(id('job'), preconditionOf(ctx.headers))
      log.write('job-deleted', { address: ipOf(ctx), job: id('job') })
    },
    async restoreJob({ jobs, id, ctx }) {
      await jobs.restore(id('job'))
      log.write('job-restored', { address: ipOf(ctx), job: id('job') })
    },
    async readLog({ texts, id, ctx }) {
      const { after } = parsed(endpoints.readLog.query, { ...ctx.query })
      return new JsonText(await texts.tail(id('job'), after))
    },
    writeLog: ({ jobs, id, body }) => jobs.record(id('job'), parsed(endpoints.writeLog.request, body)),
    listPhotos: ({ photos, id }) => photos.list(id('job')),
    writePhoto: ({ photos, id, body }) =>
      photos.write(id('job'), id('photo'), parsed(endpoints.writePhoto.request, body)),
    async readImage({ photos, id, ctx }) {
      answerPicture(ctx, await photos.picture(id('job'), id('photo'), 'image'), 'image')
      return answered
    },
    async readThumbnail({ photos, id, ctx }) {
      answerPicture(ctx, await photos.picture(id('job'), id('photo'), 'thumbnail'), 'thumbnail')
      return answered
    },
    deletePhoto: ({ photos, id }) => photos.remove(id('job'), id('photo')),
    listTypes: ({ types }) => types.list(),
    writeType: async ({ types, ctx, body }) => {
      const id = parsed(typeIdSchema, ctx.params.type, 'type')
      // Read by the catalogue, which says of every part what is missing; the contract's schema alone would not.
      const type = wholeType(id, (body as { definition?: unknown } | undefined)?.definition)
      return versioned(ctx, await types.write(id, type, preconditionOf(ctx.headers)))
    },
    async deleteType({ types, ctx }) {
      await types.remove(parsed(typeIdSchema, ctx.params.type, 'type'), preconditionOf(ctx.headers))
      log.write('type-deleted', { address: ipOf(ctx) })
    },
    async server({ caller }) {
      return {
        host: caller.host,
        ...(caller.host ? { folder: data.folder } : { device: caller.device.name }),
        ...serving.network(),
        ...(data.trouble && { trouble: data.trouble }),
      }
    },
    async startPairing() {
      const { code, until } = pairing.start()
      log.write('pairing-started')
      const addresses = serving.network().addresses.map((address) => `${address}pair?code=${code}`)
      return { code, until: until.toISOString(), addresses }
    },
    async stopPairing() {
      pairing.stop()
      log.write('pairing-stopped')
    },
    listDevices: ({ devices }) => devices.list(),
    async revokeDevice({ devices, id }) {
      await devices.revoke(id('device'))
      log.write('device-revoked', { device: id('device') })
    },
    checkData: () => backups.check(),
    listBackups: async () => backups.list(),
    async makeBackup({ id }) {
      const made = await backups.make(id('backup'))
      log.write('backup-made')
      return made
    },
    async readBackup({ id, ctx }) {
      await backups.answer(ctx, id('backup'))
      return answered
    },
    async takeBackup({ id, ctx }) {
      const taken = await backups.takeIn(id('backup'), ctx.req)
      log.write('backup-taken-in', { address: ipOf(ctx) })
      return taken
    },
    async restoreBackup({ id, ctx }) {
      const restored = await backups.restore(id('backup'), now())
      log.write('backup-restored', { address: ipOf(ctx) })
      return restored
    },
  }
}

/** Writes of the server itself rather than of its data: they go on where the data are damaged. */
const besideData = new Set<Operation>(['startPairing', 'stopPairing', 'makeBackup', 'takeBackup', 'restoreBackup'])

/** Routes by the contract's table of endpoints: one handler each, no endpoint without one. */
export function apiRouter(serving: Serving): Router {
  const { data, now, photoRoom } = serving
  const router = new Router()
  const writes = new InTurn()
  const table = handlers(serving)
  for (const [name, endpoint] of Object.entries(endpoints)) {
    const operation = name as Operation
    const reads = endpoint.method === 'get'
    router[endpoint.method](endpoint.path.replace(/\{(\w+)\}/g, ':$1'), async (ctx) => {
      const caller = callerOf(ctx)
      if ('hostOnly' in endpoint && !caller.host)
        throw new ApiProblem(
          403,
          'Only at the server’s own machine',
          undefined,
          'Open Nobbet on the machine it runs on.',
        )
      const body = (ctx.request as { body?: unknown }).body
      if ('request' in endpoint && endpoint.request === nothingSchema) parsed(nothingSchema, body)
      const answer = () => {
        const em = data.em()
        return table[operation]({
          jobs: new JobService(em, now, {
            lineage: data.lineage,
            ...(!caller.host && { device: caller.device.name }),
          }),
          texts: new JobTexts(em, data.lineage),
          list: new JobListService(em, now),
          types: new TypeService(em, now),
          photos: new PhotoService(em, now, photoRoom),
          devices: new DeviceService(em, now),
          caller,
          id: (param) => parsed(clientIdSchema, ctx.params[param], param),
          ctx,
          body,
        })
      }
      const written = async () => {
        // No writes onto damage.
        if (data.trouble === 'damaged') throw troubleProblem('damaged', data.folder)
        const done = await answer()
        data.noteWritten()
        return done
      }
      const beside = besideData.has(operation)
      const alone = operation === 'restoreBackup' || !(reads || beside)
      const done = await (alone ? writes.run(beside ? answer : written) : answer())
      if (done === answered) return
      if (done === undefined) ctx.status = 204
      else {
        // Written once: it is measured, marked and sent as it stands.
        ctx.body = done instanceof JsonText ? done.text : JSON.stringify(done)
        ctx.type = 'application/json'
        ctx.compress = quickly
      }
    })
  }
  const document = openApi(version)
  router.get('/api/openapi.json', (ctx) => {
    ctx.body = document
  })
  return router
}
