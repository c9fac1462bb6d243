import {
  copyFileSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  rmSync,
  statSync,
  truncateSync,
  writeFileSync,
} from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { JobState } from '@nobbet/contract'
import Database from 'libsql'
import { documentOf, logged, opening, openStage, type Stage } from '../../testing'
import { oldDatabase } from '../../testing/old-database'
import { start } from '..'
import { databaseFile } from './folder'

const folders: string[] = []
const folder = () => {
  const made = mkdtempSync(join(tmpdir(), 'nobbet-damage-'))
  folders.push(made)
  return made
}
afterAll(() => folders.forEach((f) => rmSync(f, { recursive: true, force: true })))
const starting = (data: string) => start({ data, port: 0, host: '127.0.0.1' })

/** A folder with one job, and a backup of it. */
async function kept(): Promise<string> {
  const data = folder()
  const stage = await openStage({ data })
  await stage.record('job-kept-1', [opening('Kept House')])
  await stage.call('PUT', '/api/backups/by-hand-1', {})
  await stage.stop()
  return data
}

describe('data that cannot be used are left alone, and the way back is told', () => {
  it.each<[string, (file: string) => void, RegExp]>([
    ['a text file', (file) => writeFileSync(file, 'Dear Sir, '.repeat(500)), /is not a database\. Nothing was touched/],
    ['a truncated file', (file) => truncateSync(file, 8192), /is damaged\. Nothing was touched/],
    [
      'a page of the jobs overwritten',
      (file) => {
        const whole = readFileSync(file)
        const at = whole.indexOf('Kept House') - (whole.indexOf('Kept House') % 4096)
        writeFileSync(file, Buffer.concat([whole.subarray(0, at), Buffer.alloc(4096, 0xa5), whole.subarray(at + 4096)]))
      },
      /is damaged/,
    ],
    [
      'an empty file beside a whole write-ahead file',
      (file) => {
        writeFileSync(`${file}-wal`, Buffer.alloc(8000, 1))
        truncateSync(file, 0)
      },
      /is empty, but .*-wal beside it holds data/,
    ],
    [
      'the database of something else',
      (file) => {
        rmSync(file)
        const other = new Database(file)
        other.exec('create table recipe (id)')
        other.close()
      },
      /but not one of Nobbet’s/,
    ],
    [
      'a newer one’s database',
      (file) => {
        const newer = new Database(file)
        newer.exec("insert into mikro_orm_migrations (name) values ('2031-01-01-more')")
        // In the file itself, so that whoever opens it next has nothing to bring into it.
        newer.prepare('pragma wal_checkpoint(truncate)').all()
        newer.close()
      },
      /written by a newer Nobbet \(it has "2031-01-01-more"\)/,
    ],
  ])('%s', async (_, spoil, told) => {
    const data = await kept()
    spoil(databaseFile(data))
    const before = readFileSync(databaseFile(data))
    await expect(starting(data)).rejects.toThrow(told)
    if (!/newer/.test(told.source)) await expect(starting(data)).rejects.toThrow(/newest backup is .*by-hand-1\.sqlite/)
    expect(readFileSync(databaseFile(data)).equals(before)).toBe(true)
  })
})

describe('while it runs', () => {
  let stage: Stage
  beforeEach(async () => {
    stage = await openStage({ data: folder() })
    await stage.record('job-runs-1', [opening('Running House')])
  })
  afterEach(() => stage.stop())
  const note = () => stage.record('job-runs-1', [logged({ do: 'note', text: 'here' })])

  it('a full disk is told by 507, nothing is half stored, and it goes on once there is room', async () => {
    const pragma = (sql: string) => stage.execute(`pragma ${sql}`)
    const pages = Number(Object.values((await pragma('page_count'))[0])[0])
    await pragma(`max_page_count = ${pages}`)
    let answer = await note()
    for (let i = 0; answer.status === 200 && i < 200; i++)
      answer = await stage.record(`job-runs-${i + 10}`, [opening('More')])
    expect([answer.status, answer.body.title]).toEqual([507, 'The server’s disk is full'])
    expect((await stage.call('GET', '/api/health')).body.status).toBe('full')
    await pragma('max_page_count = 1000000')
    expect((await note()).status).toBe(200)
    expect((await stage.call('GET', '/api/health')).body.status).toBe('ok')
    expect((await stage.call('GET', '/api/data/check')).body.sound).toBe(true)
  })

  it('a write that another program stands in the way of is told to come again, and nothing of it is stored', async () => {
    const other = new Database(databaseFile(stage.data))
    other.exec('begin immediate')
    const refused = await note()
    expect([refused.status, refused.headers.get('retry-after')]).toEqual([503, '1'])
    other.exec('rollback')
    other.close()
    expect((await stage.call('GET', '/api/jobs/job-runs-1/log')).body.entries).toHaveLength(1)
    expect((await note()).status).toBe(200)
  })

  it('damage is told, nothing more is written, and what can be read is read', async () => {
    const other = mkdtempSync(join(tmpdir(), 'nobbet-other-'))
    folders.push(other)
    await stage.execute('pragma wal_checkpoint(truncate)')
    const file = databaseFile(stage.data)
    const whole = readFileSync(file)
    // Index pages of what nobody reads here.
    const root = Number(
      (await stage.execute("select rootpage from sqlite_schema where name = 'entry_job'"))[0].rootpage,
    )
    writeFileSync(
      file,
      Buffer.concat([whole.subarray(0, (root - 1) * 4096), Buffer.alloc(4096, 0xa5), whole.subarray(root * 4096)]),
    )
    expect((await stage.call('GET', '/api/data/check')).body.sound).toBe(false)
    const refused = await note()
    expect([refused.status, refused.body.title]).toEqual([503, 'The data are damaged'])
    expect((await stage.call('GET', '/api/health')).body).toMatchObject({ status: 'damaged' })
    expect((await stage.call('GET', '/api/jobs')).status).toBe(200)
  })

  it('files are for their owner’s eyes only', () => {
    for (const name of ['nobbet.sqlite', 'nobbet.sqlite-wal', 'lock.sqlite', 'cookie.key'])
      expect([name, statSync(join(stage.data, name)).mode & 0o077]).toEqual([name, 0])
  })
})

it('says nothing of what was being stored where something went wrong that nobody foresaw', async () => {
  const stage = await openStage({ data: folder() })
  const written: string[] = []
  const spy = jest.spyOn(process.stderr, 'write').mockImplementation((text) => written.push(String(text)) > 0)
  const { status } = await stage.record('job-said-1', [opening('Secret Towers')])
  await stage.execute('alter table job rename column standing to finding')
  const broken = await stage.call('GET', '/api/jobs')
  spy.mockRestore()
  expect([status, broken.status]).toEqual([200, 500])
  expect(written.join()).toContain('GET /api/jobs')
  expect(written.join() + JSON.stringify(broken.body)).not.toMatch(/Secret|select|finding/)
  await stage.stop()
})

describe('data of an earlier Nobbet', () => {
  it('are copied first, lose their control characters, have figures that can be, and keep everything else', async () => {
    const data = folder()
    const document = documentOf('Old House')
    const faint = { volts: 1e-300, frequency: 50 as const }
    const wiring = { ...document.wiring, name: 'Old\n.control\nhouse', supply: faint }
    const brief = { ...document.brief, symptom: 'cold\nand\u0007 damp' }
    const entry = { do: 'open', brief, status: 'open', wiring }
    oldDatabase(data, '2026-11-26c-steady-data', (old) => {
      const say = (sql: string, ...values: unknown[]) => old.prepare(sql).run(...values)
      say('insert into job values (?, ?, ?, ?, ?, ?)', 'job-ages-1', JSON.stringify(brief), 'open', 1, 1, 1)
      say('insert into draft values (?, ?, ?, ?)', 'job-ages-1', JSON.stringify(wiring), 1, 1)
      say(
        'insert into revision values (?, ?, ?, ?, ?, ?)',
        'rev-ages-1',
        'job-ages-1',
        'planned',
        'Plan',
        JSON.stringify(wiring),
        1,
      )
      say(
        'insert into photo values (?, ?, ?, ?, ?, ?)',
        'photo-ages-1',
        'job-ages-1',
        'rev-ages-1',
        'lid\toff',
        'data:image/png;base64,iVBORw0KGgo=',
        1,
      )
      say(
        'insert into entry values (?, ?, ?, ?, ?, ?, ?, ?)',
        1,
        'entry-ages-1',
        'job-ages-1',
        'A',
        'visit-1',
        1,
        JSON.stringify(entry),
        1,
      )
    })
    const before = join(folder(), 'before.sqlite')
    copyFileSync(databaseFile(data), before)
    mkdirSync(join(data, 'backups'))
    const stage = await openStage({ data })
    const job = (await stage.call('GET', '/api/jobs/job-ages-1')).body as JobState
    expect(job.document.wiring).toEqual({ ...wiring, name: 'Old .control house', supply: { ...faint, volts: 50 } })
    expect(job.document.brief.symptom).toBe('cold\nand  damp')
    const { photos } = (await stage.call('GET', '/api/jobs/job-ages-1/photos')).body
    expect(photos).toEqual([expect.objectContaining({ caption: 'lid off', type: 'image/png', bytes: 8 })])
    expect(readFileSync(join(data, 'backups/before-2026-11-26c-steady-data.sqlite')).equals(readFileSync(before))).toBe(
      true,
    )
    await stage.stop()
  })
})
