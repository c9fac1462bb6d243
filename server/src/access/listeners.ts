import { readFileSync } from 'node:fs'
import { createServer, type IncomingMessage, type RequestListener, type Server } from 'node:http'
import { createServer as createSecureServer } from 'node:https'
import { isIP, type AddressInfo } from 'node:net'
import { hostname, networkInterfaces } from 'node:os'
import { StartError } from '../start-error'

/** One address at which the server can be asked. */
export interface Listener {
  /** Reached from this machine only: who sits at it is trusted. */
  local: boolean
  encrypted: boolean
  /** Names under which it answers; anything else may be a rebinding attack. */
  names: readonly string[]
}

export interface NetworkOptions {
  /** The loopback, an address of this machine, or one that stands for all of them. */
  host: string
  port: number
  /** Names by which it is known in the network, besides its addresses and the machine’s own name. */
  names?: readonly string[]
  /** Files of one's own key and certificate, for what goes over the network. */
  tls?: { key: string; cert: string }
}

const cameBy = new WeakMap<IncomingMessage, Listener>()
/** The listener by which a request has come: the one thing about it that its sender does not choose. */
export const listenerOf = (request: IncomingMessage): Listener => cameBy.get(request)!

const anywhere = ['0.0.0.0', '::', '*']
const loopback = ['127.0.0.1', '::1', 'localhost']
const inAddress = (host: string) => (isIP(host) === 6 ? `[${host}]` : host)

/** Addresses of this machine in its networks. */
const ownAddresses = () =>
  Object.values(networkInterfaces())
    .flat()
    .filter((i) => i && !i.internal && !(i.family === 'IPv6' && i.address.startsWith('fe80')))
    .map((i) => i!.address)

export interface Listening {
  /** Where this machine's own browser finds it. */
  url: string
  /** Where others in the network find it. */
  addresses: string[]
  encrypted: boolean
  servers: Server[]
}

/**
 * Listens on the loopback, and besides on the addresses that were asked for. Throws {@link StartError} where one cannot be had; none
 * is then left listening.
 */
export async function listen(handle: RequestListener, options: NetworkOptions): Promise<Listening> {
  const { host, port } = options
  const local = loopback.includes(host) ? host : '127.0.0.1'
  const outside = loopback.includes(host) ? [] : anywhere.includes(host) ? ownAddresses() : [host]
  const tls = outside.length > 0 ? readTls(options.tls) : undefined
  const servers: Server[] = []
  try {
    const by =
      (listener: Listener): RequestListener =>
      (request, response) => {
        cameBy.set(request, listener)
        handle(request, response)
      }
    const first = steady(createServer(by({ local: true, encrypted: false, names: [] })))
    servers.push(first)
    await taken(first, port, local)
    const { port: got } = first.address() as AddressInfo
    const names = [...outside.map(inAddress), hostname(), `${hostname()}.local`, ...(options.names ?? [])]
    for (const address of outside) {
      const handler = by({ local: false, encrypted: tls !== undefined, names })
      const server = steady(tls ? secure(tls, handler) : createServer(handler))
      servers.push(server)
      await taken(server, got, address)
    }
    return {
      url: `http://${inAddress(local)}:${got}/`,
      addresses: outside.map((address) => `${tls ? 'https' : 'http'}://${inAddress(address)}:${got}/`),
      encrypted: tls !== undefined,
      servers,
    }
  } catch (error) {
    for (const server of servers) server.close()
    throw error
  }
}

function secure(tls: { key: Buffer; cert: Buffer }, handler: RequestListener): Server {
  try {
    return createSecureServer(tls, handler)
  } catch {
    throw new StartError('the key and certificate cannot be used: both must be PEM, and belong together')
  }
}

/** What is no HTTP at all is answered shortly and shut out. */
function steady(server: Server): Server {
  server.on('clientError', (error: NodeJS.ErrnoException, socket) => {
    if (error.code === 'ECONNRESET' || !socket.writable) return socket.destroy()
    const status = error.code === 'HPE_HEADER_OVERFLOW' ? '431 Request Header Fields Too Large' : '400 Bad Request'
    socket.end(
      `HTTP/1.1 ${status}\r\nConnection: close\r\nX-Content-Type-Options: nosniff\r\nContent-Length: 0\r\n\r\n`,
    )
  })
  return server
}

function readTls(files: NetworkOptions['tls']): { key: Buffer; cert: Buffer } | undefined {
  if (!files) return undefined
  const read = (what: string, file: string) => {
    try {
      return readFileSync(file)
    } catch {
      throw new StartError(`cannot read the ${what} ${file}: name another file`)
    }
  }
  return { key: read('key', files.key), cert: read('certificate', files.cert) }
}

function taken(server: Server, port: number, host: string): Promise<void> {
  return new Promise((done, failed) => {
    server.once('error', (error: NodeJS.ErrnoException) => {
      const reasons: Record<string, string> = {
        EADDRINUSE: `port ${port} is in use: stop what uses it or choose another with NOBBET_PORT`,
        EACCES: `port ${port} may not be used: choose one above 1023 with NOBBET_PORT`,
        ENOTFOUND: `there is no "${host}": set NOBBET_HOST to an address of this machine`,
        EAI_AGAIN: `there is no "${host}": set NOBBET_HOST to an address of this machine`,
        EADDRNOTAVAIL: `"${host}" is no address of this machine: set NOBBET_HOST to one that is`,
      }
      const reason = reasons[error.code ?? '']
      failed(reason ? new StartError(reason) : error)
    })
    server.listen(port, host, () => done())
  })
}
