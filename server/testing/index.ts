import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { firstWiring, type Entry, type JobDocument, type LogEntry } from '@nobbet/contract'
import { planBriefSchema } from '@nobbet/core'
import { start, type Running, type StartOptions } from '../src'

export interface Answer {
  status: number
  etag: string | null
  headers: Headers
  // eslint-disable-next-line @typescript-eslint/no-explicit-any -- a test says what it expects of an answer
  body: any
}

/** A server on a database of its own, and a way to call it. */
export interface Stage {
  data: string
  url(): string
  /** Where the network finds it. */
  addresses(): string[]
  call(method: string, path: string, body?: unknown, headers?: Record<string, string>): Promise<Answer>
  /** Records entries in a job's log. */
  record(job: string, entries: LogEntry[], after?: number): Promise<Answer>
  /** SQL on the server's own database, over its own connection. */
  execute(sql: string): Promise<Record<string, unknown>[]>
  restart(): Promise<void>
  /** Ends the server and leaves its data. */
  stop(): Promise<void>
  close(): Promise<void>
}

export async function openStage(options: Partial<StartOptions> = {}): Promise<Stage> {
  const data = options.data ?? mkdtempSync(join(tmpdir(), 'nobbet-api-'))
  const running = () => start({ port: 0, host: '127.0.0.1', ...options, data })
  let server: Running = await running()
  const call: Stage['call'] = async (method, path, body, headers = {}) => {
    const response = await fetch(new URL(path, server.url), {
      redirect: 'manual',
      method,
      headers: { ...(body !== undefined && { 'content-type': 'application/json' }), ...headers },
      body: body === undefined || typeof body === 'string' || body instanceof Uint8Array ? body : JSON.stringify(body),
    })
    const text = await response.text()
    return {
      status: response.status,
      etag: response.headers.get('etag'),
      headers: response.headers,
      body: text.startsWith('{') || text.startsWith('[') ? JSON.parse(text) : text || undefined,
    }
  }
  return {
    data,
    url: () => server.url,
    addresses: () => server.addresses,
    call,
    record: (job, entries, after = 0) => call('PUT', `/api/jobs/${job}/log`, { after, entries }),
    execute: (sql) => server.execute(sql),
    stop: () => server.stop(),
    async restart() {
      await server.stop()
      server = await running()
    },
    async close() {
      await server.stop()
      rmSync(data, { recursive: true, force: true })
    },
  }
}

export const fitted = planBriefSchema.parse({ scheme: 'two-port', circuits: [{ kind: 'heating', name: 'Flat' }] })

/** A small job at a site. */
export function documentOf(site: string, id = 'flat'): JobDocument {
  const brief = { site, kind: 'fault' as const, symptom: 'cold', earlier: '', engineer: 'A. Engineer', fitted }
  return { brief, status: 'open', wiring: firstWiring(brief, id) }
}

let count = 0
/** An entry as a client sends it, under an id of its own. */
export const logged = (entry: Entry, id = `entry-${String(++count).padStart(4, '0')}`): LogEntry => ({
  id,
  author: 'A. Engineer',
  visit: 'visit-1',
  at: '2026-11-26T09:00:00.000Z',
  entry,
})
export const opening = (site: string, id?: string): LogEntry => logged({ do: 'open', ...documentOf(site) }, id)

/** One field of the brief or wiring set otherwise. */
export const setting = (path: string[], was: unknown, now: unknown): LogEntry =>
  logged({ do: 'edit', label: `${path[path.length - 1]} changed`, changes: [{ do: 'set', path, was, now }] })
