import 'fake-indexeddb/auto'
import { grown, type JobState } from '@nobbet/contract'
import { edited, commandOf, land, type Command, type Installation } from '@nobbet/core'
import { openDB } from 'idb'
import { documentOf } from '../../testing'
import { assembled, readAnew } from './assemble'
import { BrowserKeeper } from './browser'
import type { FirstKept } from './first-kept'
import type { NewPending } from './kept'
import { entryOf } from './who'

const job = 'job-mill-house'
const note = (text: string): NewPending => ({ kind: 'entry', logged: entryOf({ do: 'note', text }, ''), on: 0 })
const stateOf = (): JobState => grown(undefined, { ...entryOf({ do: 'open', ...documentOf() }, ''), number: 1 }, job)

describe('what this browser keeps', () => {
  it('is in the order in which it was done, each job by itself', async () => {
    const keeper = await BrowserKeeper.open('order')
    for (let i = 0; i < 20; i++) await keeper.keep(i % 2 ? job : 'job-other', { add: [note(`note ${i}`)] })
    const { pending } = await keeper.read(job)
    expect(pending.map((p) => p.kind === 'entry' && p.logged.entry.do === 'note' && p.logged.entry.text)).toEqual(
      Array.from({ length: 10 }, (_, i) => `note ${2 * i + 1}`),
    )
    expect(pending.map((p) => p.key)).toEqual([...pending.map((p) => p.key)].sort((a, b) => a - b))
    expect(new Set(await keeper.unsent())).toEqual(new Set([job, 'job-other']))
  })

  it('is reworked whole or not at all, and what is delivered is no longer there', async () => {
    const keeper = await BrowserKeeper.open('rework')
    await keeper.keep(job, { add: [note('a'), note('b')] })
    await expect(
      keeper.rework(job, () => {
        throw new Error('in the middle')
      }),
    ).rejects.toThrow('in the middle')
    expect((await keeper.read(job)).pending).toHaveLength(2)
    await keeper.rework(job, (kept) => ({ ...kept, pending: kept.pending.slice(1) }))
    expect((await keeper.read(job)).pending).toHaveLength(1)
    await keeper.rework(job, (kept) => ({ ...kept, known: { state: stateOf(), readAt: 5 } }))
    expect((await keeper.read(job)).known?.readAt).toBe(5)
  })

  it('keeps a picture beside the queue, and no longer than its photo waits', async () => {
    const keeper = await BrowserKeeper.open('pictures')
    const pin = { revision: 'revision-1', caption: '' }
    await keeper.keep(job, { add: [{ kind: 'photo', id: 'photo-1', pin, at: '' }], pictures: { 'photo-1': 'data:,x' } })
    expect(await keeper.picture('photo-1')).toBe('data:,x')
    await keeper.rework(job, (kept) => ({ ...kept, pending: [] }))
    expect(await keeper.picture('photo-1')).toBeUndefined()
  })

  it('keeps the list of jobs and how Trace was left', async () => {
    const keeper = await BrowserKeeper.open('rest')
    expect([await keeper.list(), await keeper.sitting(job)]).toEqual([undefined, undefined])
    await keeper.keepList([], 7)
    await keeper.keepSitting(job, { do: ['programmer.heating=on'], follow: ['heating-1'] })
    expect((await keeper.list())?.readAt).toBe(7)
    expect(await keeper.sitting(job)).toEqual({ do: ['programmer.heating=on'], follow: ['heating-1'] })
  })
})

describe('what was not looked at for long', () => {
  it('is forgotten, unless something of it is not sent', async () => {
    const keeper = await BrowserKeeper.open('tidy')
    const read = (of: string, readAt: number) =>
      keeper.rework(of, (kept) => ({ ...kept, known: { state: stateOf(), readAt } }))
    await read('job-old', 5)
    await read('job-new', 50)
    await read('job-unsent', 5)
    await keeper.keep('job-unsent', { add: [note('a')] })
    await keeper.tidy(20)
    expect((await keeper.jobs()).sort()).toEqual(['job-new', 'job-unsent'])
  })
})

describe('what the first version of the store kept', () => {
  const before = documentOf().wiring
  const step = (doc: Installation, command: Command) => ({ command, ...edited(doc, command) })
  const end = { cable: 'pump-cable', core: 'brown', end: 1 } as const
  const first = step(before, commandOf(before, land(end, 'wc.1')))
  const second = step(first.doc, commandOf(first.doc, land(end, 'wc.2')))
  const record = (rest: Partial<FirstKept>): FirstKept => ({
    job,
    version: 3,
    doc: second.doc,
    done: [first, second],
    undone: [],
    pending: [],
    ...rest,
  })

  async function opened(name: string, kept: FirstKept): Promise<BrowserKeeper> {
    const old = await openDB(name, 1, {
      upgrade: (db) => void db.createObjectStore('wiring').createIndex('job', 'job'),
    })
    await old.put('wiring', kept, `${job} tab`)
    old.close()
    return BrowserKeeper.open(name)
  }
  const wiringOn = async (keeper: BrowserKeeper) =>
    assembled(job, readAnew(job, await keeper.read(job), stateOf(), 1).kept).state!

  it('goes on, step by step, as entries of the log', async () => {
    const keeper = await opened('first-steps', record({ pending: [first.command, second.command] }))
    expect((await keeper.read(job)).pending).toHaveLength(2)
    expect((await wiringOn(keeper)).document.wiring).toEqual(second.doc)
  })

  it('goes on with a step that was taken back, too', async () => {
    const kept = record({ doc: first.doc, done: [first], undone: [second] })
    const keeper = await opened('first-undo', { ...kept, pending: [first.command, second.command, second.inverse] })
    expect((await wiringOn(keeper)).document.wiring).toEqual(first.doc)
  })

  it('is kept as a state of the wiring where its steps cannot be followed back', async () => {
    const keeper = await opened('first-lost', record({ done: [], pending: [second.command] }))
    const { revisions, document } = await wiringOn(keeper)
    expect(revisions).toMatchObject([{ name: 'As it was left in this browser', installation: second.doc }])
    expect(document.wiring).toEqual(before)
  })

  it('is nothing where everything had been sent', async () => {
    expect(await (await opened('first-sent', record({}))).unsent()).toEqual([])
  })
})
