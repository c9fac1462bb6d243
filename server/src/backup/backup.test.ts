import { mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { BackupList } from '@nobbet/contract'
import { logged, opening, openStage, type Stage } from '../../testing'
import { backUp, soundContent } from './backups'

const folders: string[] = []
const folder = () => {
  const made = mkdtempSync(join(tmpdir(), 'nobbet-backup-'))
  folders.push(made)
  return made
}
afterAll(() => folders.forEach((f) => rmSync(f, { recursive: true, force: true })))

let stage: Stage
beforeEach(async () => void (stage = await openStage({ data: folder() })))
afterEach(() => stage.stop())
const note = (text: string) => stage.record('job-kept-1', [logged({ do: 'note', text })])
const notesOf = async (at: Stage) =>
  (
    (await at.call('GET', '/api/jobs/job-kept-1/log')).body.entries as { entry: { do: string; text: string } }[]
  ).flatMap((e) => (e.entry.do === 'note' ? [e.entry.text] : []))
const file = (data: string, name: string) => join(data, 'backups', `${name}.sqlite`)
const upload = (at: Stage, name: string, bytes: Uint8Array) =>
  at.call('PUT', `/api/backups/${name}/file`, bytes, { 'content-type': 'application/octet-stream' })

describe('a backup', () => {
  it('taken while much is written is one moment of it, and is the same wherever it is brought back', async () => {
    await stage.record('job-kept-1', [opening('Kept House')])
    let writing = true
    const writes = (async () => {
      let n = 0
      for (; writing; n++) expect((await note(`note ${n}`)).status).toBe(200)
      return n
    })()
    const made = await stage.call('PUT', '/api/backups/under-load', {})
    expect(made.body).toMatchObject({ jobs: 1 })
    writing = false
    expect(await writes).toBeGreaterThan(0)

    const elsewhere = await openStage({ data: folder() })
    await elsewhere.record('job-other-1', [opening('Another House')])
    expect((await upload(elsewhere, 'from-afar', readFileSync(file(stage.data, 'under-load')))).body).toMatchObject({
      jobs: 1,
    })
    const restored = await elsewhere.call('PUT', '/api/backups/from-afar/restored', {})
    expect(restored.body).toMatchObject({ jobs: 1, kept: expect.stringMatching(/^before-restore-/) })
    const there = await notesOf(elsewhere)
    expect(there).toEqual(Array.from({ length: made.body.entries - 1 }, (_, i) => `note ${i}`))
    // What was there is kept, whole.
    expect(await soundContent(file(elsewhere.data, restored.body.kept))).toMatchObject({ jobs: 1 })
    await elsewhere.call('PUT', `/api/backups/${restored.body.kept}/restored`, {})
    expect((await elsewhere.call('GET', '/api/jobs/job-other-1')).status).toBe(200)
    await elsewhere.stop()
  })

  it('that was brought back is another line of data, and gives no number out again', async () => {
    await stage.record('job-kept-1', [opening('Kept House')])
    await stage.call('PUT', '/api/backups/early-one', {})
    const { number, lineage } = (await note('after the backup')).body
    await stage.call('PUT', '/api/backups/early-one/restored', {})
    const after = (await note('after the restore')).body
    expect(await notesOf(stage)).toEqual(['after the restore'])
    expect(after.lineage).not.toBe(lineage)
    expect(after.number).toBeGreaterThan(number)
  })

  it('that is damaged, something else or of a newer Nobbet is refused, and leaves no trace', async () => {
    await stage.record('job-kept-1', [opening('Kept House')])
    await stage.call('PUT', '/api/backups/sound-one', {})
    const sound = readFileSync(file(stage.data, 'sound-one'))
    const spoilt = Buffer.concat([sound.subarray(0, 8192), Buffer.alloc(4096, 0xa5), sound.subarray(12_288)])
    for (const bytes of [Buffer.from('Dear Sir, '.repeat(100)), spoilt, sound.subarray(0, sound.length / 2)]) {
      const answer = await upload(stage, 'from-afar', bytes)
      expect([answer.status, answer.body.detail]).toEqual([422, expect.stringMatching(/damaged/)])
    }
    writeFileSync(file(stage.data, 'spoilt-one'), spoilt)
    expect((await stage.call('PUT', '/api/backups/spoilt-one/restored', {})).status).toBe(422)
    expect((await stage.call('GET', '/api/jobs/job-kept-1')).status).toBe(200)
    expect(readdirSync(join(stage.data, 'backups')).filter((f) => /afar|half|before/.test(f))).toEqual([])
  })

  it('is given out as the file it is, for its owner’s eyes only', async () => {
    await stage.record('job-kept-1', [opening('Kept House')])
    await stage.call('PUT', '/api/backups/sound-one', {})
    const response = await fetch(new URL('/api/backups/sound-one/file', stage.url()))
    expect(response.headers.get('content-disposition')).toContain('nobbet-sound-one.sqlite')
    expect(Buffer.from(await response.arrayBuffer()).equals(readFileSync(file(stage.data, 'sound-one')))).toBe(true)
    expect(statSync(file(stage.data, 'sound-one')).mode & 0o077).toBe(0)
    await expect(backUp(stage.data, file(stage.data, 'sound-one'))).rejects.toThrow('is there already')
  })
})

it('is made by itself on each day that the data are used, and seven of them stay', async () => {
  let today = 1
  const own = await openStage({ data: folder(), now: () => new Date(Date.UTC(2026, 10, today, 8)) })
  await own.call('PUT', '/api/backups/by-hand-1', {})
  const list = async () => ((await own.call('GET', '/api/backups')).body as BackupList).backups.map((b) => b.name)
  for (; today <= 10; today++) {
    await own.record(`job-day-${today}`, [opening(`House ${today}`)])
    await own.restart()
    while (!(await list()).includes(`day-2026-11-${String(today).padStart(2, '0')}`))
      await new Promise((done) => setTimeout(done, 20))
  }
  // A day on which nothing was done needs no backup.
  await own.restart()
  await own.restart()
  const backups = await list()
  const days = backups.filter((name) => name.startsWith('day-'))
  expect(days.sort()).toEqual([4, 5, 6, 7, 8, 9, 10].map((d) => `day-2026-11-${String(d).padStart(2, '0')}`))
  expect(backups).toContain('by-hand-1')
  await own.stop()
})
