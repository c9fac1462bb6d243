import type { RequestListener, Server } from 'node:http'
import { listen, type NetworkOptions } from './access/listeners'
import { signingKey } from './access/key'
import { PairingCode } from './access/pairing'
import { SecurityLog } from './access/security-log'
import { BackupService } from './backup/backup-service'
import { Data } from './data/data'
import { loadDemo } from './data/demo-data'
import { lockFolder, makeFolder, setAside } from './data/folder'
import { createApp } from './http/app'
import { JobListService } from './jobs/job-list'

export interface StartOptions extends NetworkOptions {
  /** Folder of the database. */
  data: string
  web?: string
  demo?: boolean
  /** Begins with no data; those that are there are moved among the backups. */
  fresh?: boolean
  /** Megabytes that all photos may take together. */
  photoMb?: number
  now?: () => Date
}

export interface Running {
  url: string
  /** Where others in the network find it. */
  addresses: string[]
  /** Where the data went that were there before a fresh start. */
  aside?: string
  /** SQL on its own connection, for tests that put something in its way. */
  execute(sql: string): Promise<Record<string, unknown>[]>
  stop(): Promise<void>
}

/** How long a request that is under way when the server stops may take, ms. */
const graceMs = 3500
const hourMs = 3_600_000

/**
 * Takes the folder, then the port, and only then touches the data; serves, and says where. Throws StartError for what the user can put
 * right.
 */
export async function start(options: StartOptions): Promise<Running> {
  const { data: folder, web, demo, fresh, photoMb = 2000, now = () => new Date() } = options
  makeFolder(folder)
  const lock = lockFolder(folder)
  const busy = new InFlight()
  let handle: RequestListener = (_, response) =>
    response.writeHead(503, { 'Retry-After': '1', Connection: 'close' }).end('Nobbet is starting')
  let servers: Server[] = []
  let data: Data | undefined
  try {
    const {
      url,
      addresses,
      encrypted,
      servers: listening,
    } = await listen((request, response) => busy.through(request, response, handle), options)
    servers = listening
    const aside = fresh ? setAside(folder, 'before-fresh', now()) : undefined
    data = await Data.open(folder)
    if (demo) await loadDemo(data, now)
    const log = new SecurityLog(folder, now)
    const backups = new BackupService(data, now)
    const app = createApp({
      data,
      log,
      backups,
      now,
      web,
      pairing: new PairingCode(now),
      key: signingKey(folder),
      photoRoom: photoMb * 1e6,
      network: () => ({ addresses, encrypted }),
    })
    const answer = app.callback()
    handle = (request, response) => void answer(request, response)
    const opened = data
    const upkeep = async () => {
      if (opened.trouble === 'damaged') return
      try {
        await backups.daily()
        await new JobListService(opened.em(), now).empty()
      } catch (error) {
        // Told with the next request; an hour later it is tried again.
        opened.note(error)
      }
    }
    let keeping = upkeep()
    const hourly = setInterval(() => {
      keeping = upkeep()
    }, hourMs)
    hourly.unref()
    return {
      url,
      addresses,
      ...(aside && { aside }),
      execute: (sql) => opened.em().execute<Record<string, unknown>[]>(sql),
      async stop() {
        clearInterval(hourly)
        await busy.ended(servers, graceMs)
        await Promise.race([keeping, new Promise((done) => setTimeout(done, 1000).unref())])
        await opened.close().finally(() => lock.release())
      },
    }
  } catch (error) {
    for (const server of servers) server.close()
    await data?.close().catch(() => undefined)
    lock.release()
    throw error
  }
}

/** Requests that are being answered. */
class InFlight {
  private count = 0
  private waiting: (() => void) | undefined

  through(...[request, response, handle]: [...Parameters<RequestListener>, RequestListener]): void {
    this.count++
    response.once('close', () => {
      if (--this.count === 0) this.waiting?.()
    })
    handle(request, response)
  }

  /** Takes no more requests, lets those under way end, and hangs up on everybody; at the latest after `ms`. */
  async ended(servers: readonly Server[], ms: number): Promise<void> {
    for (const server of servers) server.close()
    if (this.count > 0)
      await new Promise<void>((done) => {
        this.waiting = done
        setTimeout(done, ms)
      })
    for (const server of servers) server.closeAllConnections()
  }
}
