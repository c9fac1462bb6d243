import { pairRequestSchema, type PairedDevice } from '@nobbet/contract'
import type { Context, Next } from 'koa'
import type { Data } from '../data/data'
import { isApi } from '../http/is-api'
import { ApiProblem } from '../http/problem'
import { DeviceService } from './devices'
import { listenerOf } from './listeners'
import { pairingPage } from './pairing-page'
import type { PairingCode } from './pairing'
import type { SecurityLog } from './security-log'

/** Who is asking: somebody at the server's own machine, or a device that was let in. */
export type Caller = { host: true } | { host: false; device: PairedDevice }

export interface Door {
  data: Data
  pairing: PairingCode
  log: SecurityLog
  now: () => Date
}

const cookie = 'nobbet-device'
const loopbackNames = ['localhost', '127.0.0.1', '[::1]', '::1']
const keptForMs = 400 * 86_400_000

export const callerOf = (ctx: Context): Caller => ctx.state.caller as Caller

/**
 * Lets in what comes over the loopback under a name of the loopback, and from the network what carries the cookie of a paired
 * device. Which of the two it is, is told by the socket on which it came; whatever a request says of itself changes nothing.
 */
export function gate(door: Door) {
  return async (ctx: Context, next: Next): Promise<void> => {
    const listener = listenerOf(ctx.req)
    const address = ctx.req.socket.remoteAddress ?? 'unknown'
    const names = listener.local ? loopbackNames : listener.names
    if (!names.includes(ctx.hostname)) {
      door.log.writeOnce('host-name-refused', address)
      throw new ApiProblem(421, 'This server does not answer to that name')
    }
    foreignPage(ctx)
    if (listener.local) {
      ctx.state.caller = { host: true } satisfies Caller
      await next()
      return
    }
    const id = ctx.cookies.get(cookie, { signed: true })
    const device = id ? await new DeviceService(door.data.em(), door.now).known(id) : undefined
    if (device) {
      ctx.state.caller = { host: false, device } satisfies Caller
      await next()
      return
    }
    await stranger(ctx, door, address)
  }
}

/** A write that another web page has sent from within this browser. */
function foreignPage(ctx: Context): void {
  const origin = ctx.get('Origin')
  if (ctx.method === 'GET' || ctx.method === 'HEAD' || !origin) return
  let host: string | undefined
  try {
    host = new URL(origin).host
  } catch {
    // "null", or no address at all.
  }
  if (host !== ctx.host) throw new ApiProblem(403, 'Another web page may not write here')
}

async function stranger(ctx: Context, door: Door, address: string): Promise<void> {
  ctx.set('Cache-Control', 'no-store')
  if (ctx.path === '/pair' && ctx.method === 'POST') return pair(ctx, door, address)
  door.log.writeOnce('stranger-refused', address)
  if (ctx.method !== 'GET' || isApi(ctx.path))
    throw new ApiProblem(
      401,
      'This device is not paired',
      undefined,
      'Open Nobbet in the browser and pair this device.',
    )
  // Whatever was asked for, and nothing but a page: pictures and scripts are not handed out.
  ctx.status = 401
  ctx.type = 'html'
  ctx.body = pairingPage({ code: typeof ctx.query.code === 'string' ? ctx.query.code.slice(0, 12) : '' })
}

async function pair(ctx: Context, door: Door, address: string): Promise<void> {
  const form = Object.fromEntries(new URLSearchParams(await smallBody(ctx)))
  const request = pairRequestSchema.safeParse(form)
  const again = (status: number, problem: string) => {
    ctx.status = status
    ctx.type = 'html'
    ctx.body = pairingPage({ name: String(form.name ?? '').slice(0, 40), problem })
  }
  if (!request.success) return again(422, `${request.error.issues[0].message}.`)
  const { code, name } = request.data
  const attempt = await door.pairing.attempt(code, address)
  if (attempt !== 'right') {
    door.log.write('pairing-refused', { address })
    if (attempt === 'too-many') return again(429, 'Too many tries. Wait ten minutes, then take a new code.')
    return again(403, 'This code is not good, or not good any more. Take a new one on the server’s screen.')
  }
  const device = await new DeviceService(door.data.em(), door.now).add(name)
  door.log.write('paired', { address, device: device.id })
  ctx.cookies.set(cookie, device.id, {
    signed: true,
    httpOnly: true,
    sameSite: 'strict',
    secure: listenerOf(ctx.req).encrypted,
    maxAge: keptForMs,
    overwrite: true,
  })
  ctx.redirect('/')
  ctx.status = 303
}

/** The body of a form of two short fields. */
async function smallBody(ctx: Context): Promise<string> {
  let text = ''
  for await (const chunk of ctx.req) {
    text += String(chunk)
    if (text.length > 2000) throw new ApiProblem(413, 'This is too large')
  }
  return text
}
