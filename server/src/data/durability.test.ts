import { spawn, type ChildProcess } from 'node:child_process'
import { copyFileSync, mkdtempSync, rmSync } from 'node:fs'
import { connect } from 'node:net'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import type { LogTail } from '@nobbet/contract'
import Database from 'libsql'
import { logged } from '../../testing'
import { closeDatabase, openDatabase } from './database'
import { backupsIn, databaseFile } from './folder'

const root = resolve(__dirname, '../../..')
const folders: string[] = []
const folder = () => {
  const made = mkdtempSync(join(tmpdir(), 'nobbet-durable-'))
  folders.push(made)
  return made
}
afterAll(() => folders.forEach((f) => rmSync(f, { recursive: true, force: true })))

/** The server as a process of its own, as the user runs it. */
function serve(data: string, ...flags: string[]): Promise<{ process: ChildProcess; url: string }> {
  const child = spawn(process.execPath, ['--import', 'tsx', 'server/src/main.ts', ...flags], {
    cwd: root,
    env: { ...process.env, NOBBET_DATA: data, NOBBET_PORT: '0' },
  })
  return new Promise((done, failed) => {
    let said = ''
    child.stdout.on('data', (chunk) => {
      said += chunk
      const url = /Nobbet is at (\S+)/.exec(said)?.[1]
      if (url) done({ process: child, url })
    })
    let told = ''
    child.stderr.on('data', (chunk) => (told += chunk))
    child.once('close', (code) => failed(new Error(`ended with ${code}: ${told}`)))
  })
}
const stopped = (child: ChildProcess, signal: NodeJS.Signals) =>
  new Promise<number | null>((done) => {
    child.removeAllListeners('close')
    child.once('close', (code) => done(code))
    child.kill(signal)
  })

const job = 'demo-quay-cottage'
const put = (url: string, id: string) =>
  fetch(`${url}api/jobs/${job}/log`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ after: 0, entries: [logged({ do: 'note', text: id }, id)] }),
  })
const notes = async (url: string): Promise<string[]> => {
  const { entries } = (await (await fetch(`${url}api/jobs/${job}/log`)).json()) as LogTail
  return entries.filter((e) => e.entry.do === 'note').map((e) => e.id)
}

describe('the data', () => {
  it('loses no acknowledged write when the process is killed, and stops cleanly when asked', async () => {
    const data = folder()
    const first = await serve(data, '--demo')
    for (let i = 0; i < 20; i++) expect((await put(first.url, `note-000-${i}`)).status).toBe(200)
    await stopped(first.process, 'SIGKILL')

    const second = await serve(data)
    expect(await notes(second.url)).toEqual(Array.from({ length: 20 }, (_, i) => `note-000-${i}`))
    expect(await (await fetch(`${second.url}api/health`)).json()).toMatchObject({ status: 'ok' })
    expect(await stopped(second.process, 'SIGTERM')).toBe(0)
  })

  it('is put among the backups by --fresh, and stays whole there', async () => {
    const data = folder()
    const first = await serve(data, '--demo')
    await put(first.url, 'note-0001')
    await stopped(first.process, 'SIGKILL')
    const fresh = await serve(data, '--demo', '--fresh')
    expect(await notes(fresh.url)).toEqual([])
    await stopped(fresh.process, 'SIGTERM')
    const aside = backupsIn(data).find((b) => b.name.startsWith('before-fresh-'))!
    const kept = new Database(join(data, 'backups', `${aside.name}.sqlite`))
    expect(kept.prepare("select id from entry where id = 'note-0001'").all()).toHaveLength(1)
    kept.close()
  })

  it('is one server’s alone: a second one says so and ends, --fresh or not, and nothing is gone', async () => {
    const data = folder()
    const first = await serve(data, '--demo')
    await put(first.url, 'note-0001')
    await expect(serve(data, '--demo', '--fresh')).rejects.toThrow('ended with 1')
    await expect(serve(data)).rejects.toThrow(/in use by another Nobbet \(process \d+\): stop that one first/)
    expect(await notes(first.url)).toEqual(['note-0001'])
    await stopped(first.process, 'SIGTERM')
  })

  it('stands in its one file after a stop, which comes within five seconds whatever connections are open', async () => {
    const data = folder()
    const { process: server, url } = await serve(data, '--demo')
    await put(url, 'note-0001')
    const { hostname, port } = new URL(url)
    const idle = connect(Number(port), hostname)
    const half = connect(Number(port), hostname, () => half.write('PUT /api/jobs/x/log HTTP/1.1\r\nContent-Le'))
    for (const socket of [idle, half]) socket.on('error', () => undefined)
    await new Promise((done) => half.once('connect', done))
    const before = Date.now()
    expect(await stopped(server, 'SIGTERM')).toBe(0)
    expect(Date.now() - before).toBeLessThan(5000)
    const copy = join(folder(), 'copy.sqlite')
    copyFileSync(databaseFile(data), copy)
    const alone = new Database(copy)
    expect(alone.prepare("select id from entry where id = 'note-0001'").all()).toHaveLength(1)
    alone.close()
  })

  it('is held to its pragmas on every connection, however often one is made anew', async () => {
    const orm = await openDatabase(folder())
    const client = (orm.em.getConnection() as unknown as { getKnex(): Knex }).getKnex().client
    for (let i = 0; i < 2; i++) {
      const connection = await client.acquireConnection()
      const read = (pragma: string) => Object.values(connection.prepare(`pragma ${pragma}`).all()[0] as object)[0]
      expect(['journal_mode', 'synchronous', 'foreign_keys', 'busy_timeout'].map(read)).toEqual(['wal', 2, 1, 800])
      // The pool throws it away and makes another one.
      connection.__knex__disposed = new Error('thrown away')
      await client.releaseConnection(connection)
    }
    await closeDatabase(orm)
  })
})

interface Knex {
  client: {
    // eslint-disable-next-line @typescript-eslint/no-explicit-any -- the pool's own connection, which has no type
    acquireConnection(): Promise<any>
    releaseConnection(connection: unknown): Promise<void>
  }
}
