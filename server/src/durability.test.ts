import { spawn, type ChildProcess } from 'node:child_process'
import { existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { Migrator } from '@mikro-orm/migrations'
import type { LogTail } from '@nobbet/contract'
import { logged } from '../testing'
import { databaseFile, integrityOf, openDatabase } from './database'

const root = resolve(__dirname, '../..')
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
    child.once('exit', (code) => failed(new Error(`ended with ${code}`)))
  })
}
const stopped = (child: ChildProcess, signal: NodeJS.Signals) =>
  new Promise<number | null>((done) => {
    child.removeAllListeners('exit')
    child.once('exit', (code) => done(code))
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
  }, 40_000)

  it('is renewed by --fresh and only by that', async () => {
    const data = folder()
    const first = await serve(data, '--demo')
    await put(first.url, 'note-0001')
    await stopped(first.process, 'SIGTERM')
    const kept = await serve(data, '--demo')
    expect(await notes(kept.url)).toHaveLength(1)
    await stopped(kept.process, 'SIGTERM')
    const fresh = await serve(data, '--demo', '--fresh')
    expect(await notes(fresh.url)).toEqual([])
    await stopped(fresh.process, 'SIGTERM')
  }, 60_000)

  it('is copied beside itself before a pending migration touches it', async () => {
    const data = folder()
    const orm = await openDatabase(data)
    expect(readdirSync(data).filter((f) => f.includes('before'))).toEqual([])
    await new Migrator(orm.em as never).down()
    await orm.close()
    const again = await openDatabase(data)
    expect(readdirSync(data).some((f) => f.includes('.before-'))).toBe(true)
    expect(await integrityOf(again)).toBe('ok')
    await again.close()
    expect(existsSync(databaseFile(data))).toBe(true)
  })

  it('is written ahead and holds to its foreign keys', async () => {
    const orm = await openDatabase(folder())
    const connection = orm.em.getConnection()
    expect(await connection.execute('pragma journal_mode')).toEqual([{ journal_mode: 'wal' }])
    await expect(connection.execute("insert into draft values ('nobody', '{}', 1, 0)")).rejects.toThrow(/FOREIGN KEY/i)
    await orm.close()
  })
})
