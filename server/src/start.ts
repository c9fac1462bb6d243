import { rmSync } from 'node:fs'
import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { createApp } from './app'
import { databaseFile, openDatabase } from './database'
import { loadDemo } from './demo-data'
import { StartError } from './start-error'

export interface StartOptions {
  /** Folder of the database. */
  data: string
  /** 0 takes any free port. */
  port: number
  host: string
  web?: string
  demo?: boolean
  /** Throws the present data away first. */
  fresh?: boolean
}

export interface Running {
  url: string
  stop(): Promise<void>
}

const loopback = ['localhost', '127.0.0.1', '[::1]', '::1']

/** Opens the data, serves, and says where. Throws {@link StartError} for what the user can put right. */
export async function start({ data, port, host, web, demo, fresh }: StartOptions): Promise<Running> {
  if (fresh) for (const suffix of ['', '-wal', '-shm']) rmSync(databaseFile(data) + suffix, { force: true })
  const orm = await openDatabase(data)
  try {
    if (demo) await loadDemo(orm)
    const app = createApp({ orm, web, hosts: [...loopback, host] })
    const server = createServer(app.callback())
    await listen(server, port, host)
    const { port: taken } = server.address() as AddressInfo
    return {
      url: `http://${host === '::1' ? '[::1]' : host}:${taken}/`,
      async stop() {
        await new Promise<void>((done) => {
          server.close(() => done())
          server.closeIdleConnections()
        })
        await orm.close()
      },
    }
  } catch (error) {
    await orm.close()
    throw error
  }
}

function listen(server: Server, port: number, host: string): Promise<void> {
  return new Promise((done, failed) => {
    server.once('error', (error: NodeJS.ErrnoException) => {
      if (error.code === 'EADDRINUSE')
        failed(new StartError(`port ${port} is in use: stop what uses it or choose another with NOBBET_PORT`))
      else if (error.code === 'EACCES')
        failed(new StartError(`port ${port} may not be used: choose one above 1023 with NOBBET_PORT`))
      else failed(error)
    })
    server.listen(port, host, () => done())
  })
}
