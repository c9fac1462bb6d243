import { grown, type JobState, type LogEntry } from '@nobbet/contract'
import JSZip from 'jszip'
import { documentOf } from '../../testing'
import { ApiError } from '../api/client'
import { asCopy, fileOf, heldOf, opened, sent } from './job-file'

/** Servers in memory: logs and photos by job. */
const logs = new Map<string, LogEntry[]>()
const photosOf = new Map<string, { id: string; [key: string]: unknown }[]>()
let failAfter = Infinity
jest.mock('../api/client', () => ({
  ...jest.requireActual('../api/client'),
  call: (operation: string, options: never) => calls[operation](options),
}))
const at = '2026-11-27T09:00:00.000Z'
const missing = () => new ApiError({ type: 'about:blank', title: 'There is no such job', status: 404 })
const calls: Record<string, (options: { params: { job: string; photo: string }; body: never }) => Promise<unknown>> = {
  readLog: ({ params: { job } }) => {
    const entries = logs.get(job)
    return entries
      ? Promise.resolve({
          entries: entries.map((one, i) => ({ ...one, number: i + 1 })),
          number: entries.length,
          lineage: 'x',
        })
      : Promise.reject(missing())
  },
  listPhotos: ({ params: { job } }) => Promise.resolve({ photos: photosOf.get(job) ?? [], room: { used: 0, most: 1 } }),
  writeLog: ({ params: { job }, body }) => {
    if (--failAfter < 0) return Promise.reject(new TypeError('failed to fetch'))
    const { entries } = body as { entries: LogEntry[] }
    const there = logs.get(job) ?? []
    logs.set(job, [...there, ...entries.filter(({ id }) => !there.some((one) => one.id === id))])
    return Promise.resolve({ entries: [], number: logs.get(job)!.length, lineage: 'x' })
  },
  writePhoto: ({ params: { job, photo }, body }) => {
    const pins: Record<string, unknown> = { ...(body as object) }
    const createdAt = pins.at
    for (const key of ['image', 'thumbnail', 'at']) delete pins[key]
    photosOf.set(job, [...(photosOf.get(job) ?? []), { id: photo, ...pins, type: 'image/jpeg', createdAt, bytes: 3 }])
    return Promise.resolve({})
  },
}
const stateOf = (job: string) =>
  logs.get(job)!.reduce<JobState | undefined>((state, entry) => grown(state, entry, job), undefined)

const entry = (id: string, of: LogEntry['entry']): LogEntry => ({ id, author: 'A', visit: 'visit-1', at, entry: of })
const bytes = new Uint8Array([0xff, 0xd8, 0xff])
beforeEach(() => {
  failAfter = Infinity
  logs.clear()
  photosOf.clear()
  logs.set('job-filed-1', [
    entry('entry-1', {
      do: 'open',
      ...(JSON.parse(JSON.stringify(documentOf('Mill House'))) as ReturnType<typeof documentOf>),
    }),
    entry('entry-2', { do: 'keep', revision: 'revision-1', kind: 'as-found', name: 'As found' }),
    entry('entry-3', { do: 'visit', visit: { id: 'visit-1', who: 'A', why: '', at } }),
    entry('entry-4', {
      do: 'measure',
      measure: { id: 'measure-1', what: 'Link', limits: '', until: '2026-12-01', revision: 'revision-1', at },
    }),
    ...Array.from({ length: 150 }, (_, i) => entry(`note-${i}`, { do: 'note', text: `Note ${i}` })),
  ])
  photosOf.set('job-filed-1', [
    {
      id: 'photo-1',
      revision: 'revision-1',
      caption: 'Lid off',
      spot: { x: 0.5, y: 0.5 },
      type: 'image/jpeg',
      createdAt: at,
      bytes: 3,
    },
  ])
  globalThis.fetch = (() => Promise.resolve({ ok: true, arrayBuffer: () => Promise.resolve(bytes.buffer) })) as never
  globalThis.FileReader = class {
    result = ''
    onload?: () => void
    readAsDataURL() {
      this.result = 'data:;base64,/9j/'
      this.onload?.()
    }
  } as never
})
const asFile = async (job: string) => new File([(await fileOf(job)).bytes], 'job.zip')

describe('a job’s file', () => {
  it('holds the whole job: what is brought in where it was wiped is the same, photos too', async () => {
    const [before, photos] = [stateOf('job-filed-1'), photosOf.get('job-filed-1')]
    const file = await opened(await asFile('job-filed-1'))
    logs.clear()
    photosOf.clear()
    expect([file.site, await heldOf(file)]).toEqual(['Mill House', 'new'])
    const told: number[] = []
    await sent(file, (share) => told.push(share))
    expect(stateOf('job-filed-1')).toEqual(before)
    expect(photosOf.get('job-filed-1')).toEqual(photos)
    expect(told.at(-1)).toBe(1)
    expect(await heldOf(file)).toBe('here')
  })

  it('that was broken off on its way in goes on where it was', async () => {
    const before = stateOf('job-filed-1')
    const file = await opened(await asFile('job-filed-1'))
    logs.clear()
    failAfter = 1
    await expect(sent(file, () => undefined)).rejects.toThrow('failed to fetch')
    expect([logs.get('job-filed-1')!.length, await heldOf(file)]).toEqual([60, 'begun'])
    failAfter = Infinity
    await sent(file, () => undefined)
    expect(stateOf('job-filed-1')).toEqual(before)
  })

  it('comes in beside what is here as a copy: the same job under ids of its own', async () => {
    const file = await opened(await asFile('job-filed-1'))
    logs.set('job-filed-1', [...logs.get('job-filed-1')!, entry('later', { do: 'note', text: 'Later' })])
    expect(await heldOf(file)).toBe('other')
    const copy = asCopy(file, 'job-copy-1')
    await sent(copy, () => undefined)
    const ids = new Set(logs.get('job-filed-1')!.map(({ id }) => id))
    expect(logs.get('job-copy-1')!.filter(({ id }) => ids.has(id))).toEqual([])
    const [revision] = stateOf('job-copy-1')!.revisions
    expect(revision.id).not.toBe('revision-1')
    expect(stateOf('job-copy-1')!.record.measures[0].revision).toBe(revision.id)
    expect(photosOf.get('job-copy-1')).toMatchObject([{ revision: revision.id, caption: 'Lid off' }])
  })

  it.each<[string, () => Promise<JSZip>, RegExp]>([
    ['without its log', async () => new JSZip(), /there is no job.json/],
    ['whose log is no JSON', async () => new JSZip().file('job.json', '{'), /no JSON/],
    [
      'of something else',
      async () => new JSZip().file('job.json', '{"format":"other"}'),
      /format: this is no file of a job/,
    ],
    [
      'whose log does not begin',
      async () => changed((file) => ({ ...file, entries: (file.entries as unknown[]).slice(1) })),
      /the first entry of a job opens it/,
    ],
    ['that lacks a photo', async () => changed((file) => file, 'photos/photo-1'), /the photo photo-1 is missing/],
  ])('%s is refused with the reason, and nothing is sent', async (_, make, reason) => {
    const zip = await make()
    const before = [...logs.keys()]
    await expect(
      opened(new File([new Uint8Array(await zip.generateAsync({ type: 'uint8array' }))], 'x.zip')),
    ).rejects.toThrow(reason)
    expect([...logs.keys()]).toEqual(before)
  })

  async function changed(how: (file: Record<string, unknown>) => unknown, without?: string): Promise<JSZip> {
    const zip = await JSZip.loadAsync((await fileOf('job-filed-1')).bytes)
    zip.file('job.json', JSON.stringify(how(JSON.parse(await zip.file('job.json')!.async('string')))))
    if (without) zip.remove(without)
    return zip
  }
})
