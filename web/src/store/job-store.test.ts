import 'fake-indexeddb/auto'
import { EditError, type FieldChange } from '@nobbet/core'
import { ApiError } from '../api/client'
import { documentOf, FakeServer, FakeTabs, type Weather } from '../../testing'
import { pass, quiet, stopTheClock } from '../../testing/clock'
import { BrowserKeeper } from './browser'
import { JobStore } from './job-store'
import type { Keeper } from './kept'
import { MemoryKeeper } from './memory'

beforeAll(stopTheClock)
afterAll(() => jest.useRealTimers())

const job = 'job-mill-house'

/** A browser on a server: what it keeps, and its tabs. */
function browser(server: FakeServer, keeper: Keeper = new MemoryKeeper()) {
  const tabs = new FakeTabs()
  const open = async (): Promise<JobStore> => {
    const store = new JobStore(job, { keeper, server, tabs: tabs.tab() })
    await store.load()
    await quiet()
    return store
  }
  return { keeper, open }
}
const symptom = (store: JobStore, text: string) =>
  store.edit('Symptom', (d) => ({ ...d, brief: { ...d.brief, symptom: text } }))
const earlier = (store: JobStore, text: string) =>
  store.edit('Earlier visit', (d) => ({ ...d, brief: { ...d.brief, earlier: text } }))
const briefOf = (store: JobStore) => store.current().state!.document.brief
const wordsAtServer = (server: FakeServer) => server.state!.document.brief.symptom

describe('what is done', () => {
  it('is shown as done only once it is kept', async () => {
    const server = new FakeServer(job, documentOf())
    const keeper = new MemoryKeeper()
    const { open } = browser(server, keeper)
    const store = await open()
    let release = () => {}
    const real = keeper.keep.bind(keeper)
    keeper.keep = async (...args) => {
      await new Promise<void>((go) => (release = go))
      return real(...args)
    }
    const done = symptom(store, 'tepid')
    await quiet()
    expect(briefOf(store).symptom).toBe('cold')
    release()
    await done
    expect(briefOf(store).symptom).toBe('tepid')
  })

  it('is not shown where it cannot be kept, and says so', async () => {
    const server = new FakeServer(job, documentOf())
    const keeper = new MemoryKeeper()
    const store = await browser(server, keeper).open()
    keeper.keep = () => Promise.reject(new Error('no room left'))
    await symptom(store, 'tepid')
    expect(briefOf(store).symptom).toBe('cold')
    expect(store.current().problem).toBe('Not kept, and not done: no room left')
  })

  it('is not shown either where it was done on top of something that could not be kept', async () => {
    const keeper = new MemoryKeeper()
    const store = await browser(new FakeServer(job, documentOf()), keeper).open()
    const real = keeper.keep.bind(keeper)
    let fails = true
    keeper.keep = (...args) => {
      if (!fails) return real(...args)
      fails = false
      return Promise.reject(new Error('no room left'))
    }
    await Promise.all([symptom(store, 'lost'), earlier(store, 'kept')])
    expect(briefOf(store)).toMatchObject({ symptom: 'cold', earlier: 'kept' })
  })

  it('is refused at once where the job would make no sense', async () => {
    const store = await browser(new FakeServer(job, documentOf())).open()
    expect(() => store.edit('Site', (d) => ({ ...d, brief: { ...d.brief, site: '' } }))).toThrow(EditError)
    expect(store.current().unsent).toBe(0)
  })

  it('reaches the server in order a moment later, and is then kept here no longer', async () => {
    const server = new FakeServer(job, documentOf())
    const { open, keeper } = browser(server)
    const store = await open()
    for (const word of ['a', 'b', 'c']) await symptom(store, word)
    expect(store.current().sending.is).toBe('saving')
    await pass(1000)
    expect(wordsAtServer(server)).toBe('c')
    expect(server.log.map((e) => e.entry.do)).toEqual(['open', 'edit', 'edit', 'edit'])
    expect(store.current()).toMatchObject({ unsent: 0, sending: { is: 'saved' } })
    expect((await keeper.read(job)).pending).toEqual([])
  })

  it('is taken back and done again without limit, each time as an entry of the log', async () => {
    const server = new FakeServer(job, documentOf())
    const store = await browser(server).open()
    for (let i = 0; i < 30; i++) await symptom(store, `word ${i}`)
    for (let i = 0; i < 30; i++) store.undo()
    await pass(1000)
    expect(briefOf(store).symptom).toBe('cold')
    for (let i = 0; i < 30; i++) store.redo()
    await pass(3000)
    expect([briefOf(store).symptom, wordsAtServer(server)]).toEqual(['word 29', 'word 29'])
    expect(server.log).toHaveLength(91)
    const undo = server.log[31].entry
    expect(undo).toMatchObject({ do: 'edit', label: 'Undo: Symptom', undoes: server.log[30].id })
  })

  it('begins a job without any server', async () => {
    const server = new FakeServer(job)
    let weather: Weather = 'away'
    server.weather = () => weather
    const { open } = browser(server)
    const store = await open()
    await store.record({ do: 'open', ...documentOf('New House') })
    await symptom(store, 'tepid')
    expect(briefOf(store)).toMatchObject({ site: 'New House', symptom: 'tepid' })
    weather = 'fair'
    await pass(5000)
    expect(server.state!.document.brief).toMatchObject({ site: 'New House', symptom: 'tepid' })
  })

  it('pins a photo behind the state of the wiring that it belongs to', async () => {
    const server = new FakeServer(job, documentOf())
    const store = await browser(server).open()
    await store.record({ do: 'keep', revision: 'revision-1', kind: 'as-found', name: 'Found' })
    await store.photo('photo-1', { revision: 'revision-1', caption: '', image: 'data:image/png;base64,AA==' })
    expect(store.current().photos).toHaveLength(1)
    await pass(1000)
    expect([...server.photos]).toEqual(['photo-1'])
    expect(server.state!.revisions).toHaveLength(1)
    expect(store.current().photos).toEqual([])
  })
})

describe('a network that fails', () => {
  const broken = async (weather: Weather, ms: number) => {
    const server = new FakeServer(job, documentOf())
    const store = await browser(server).open()
    server.weather = () => weather
    await symptom(store, 'tepid')
    await pass(ms)
    return { server, store }
  }

  it.each<[Weather, number]>([
    ['away', 2000],
    ['broken', 2000],
    ['stalls', 25_000],
  ])('%s: what was done is kept here and goes when it is fair again, once', async (weather, ms) => {
    const { server, store } = await broken(weather, ms)
    expect(briefOf(store).symptom).toBe('tepid')
    expect(store.current().sending.is).toBe('kept-here')
    server.weather = () => 'fair'
    await pass(90_000)
    expect(wordsAtServer(server)).toBe('tepid')
    expect(store.current().sending.is).toBe('saved')
    expect(server.log).toHaveLength(2)
  })

  it('loses an answer: the same entry goes again and is recorded once', async () => {
    const { server, store } = await broken('answer-lost', 2000)
    expect(wordsAtServer(server)).toBe('tepid')
    expect(store.current().unsent).toBe(1)
    server.weather = () => 'fair'
    await pass(90_000)
    expect(server.log).toHaveLength(2)
    expect(store.current().unsent).toBe(0)
  })

  it('is asked at growing pauses, and at once when the connection is said to be back', async () => {
    const { server, store } = await broken('broken', 0)
    const before = server.asked
    await pass(60_000)
    const first = server.asked - before
    await pass(300_000)
    const later = server.asked - before - first
    expect(first).toBeLessThan(9)
    expect(later).toBeLessThan(9)
    server.weather = () => 'fair'
    store.wake()
    await pass(100)
    expect(store.current().sending.is).toBe('saved')
  })

  it('that answers nonsense three times is given up with a clear message, until somebody tries again', async () => {
    const { server, store } = await broken('nonsense', 60_000)
    const asked = server.asked
    await pass(300_000)
    expect(server.asked).toBe(asked)
    expect(store.current().sending).toMatchObject({
      is: 'stopped',
      reason: expect.stringContaining('something this page cannot read'),
    })
    server.weather = () => 'fair'
    store.again()
    await pass(1000)
    expect(store.current().sending.is).toBe('saved')
    expect(wordsAtServer(server)).toBe('tepid')
  })

  it.each([
    ['renewed', (server: FakeServer) => (server.log = [])],
    ['put back from a copy', (server: FakeServer) => (server.log = server.log.slice(0, 2))],
  ])('whose data were %s: what it has is shown, and what is not sent is made on that', async (_, renew) => {
    const server = new FakeServer(job, documentOf())
    const store = await browser(server).open()
    await symptom(store, 'tepid')
    await earlier(store, 'valve')
    await pass(2000)
    renew(server)
    server.renumber(documentOf('Ford House'))
    await store.edit('Engineer', (d) => ({ ...d, brief: { ...d.brief, engineer: 'R. Tamsin' } }))
    await earlier(store, 'pump')
    await pass(3000)
    store.wake()
    await pass(3000)
    expect(briefOf(store)).toMatchObject({ engineer: 'R. Tamsin', earlier: '' })
    expect(store.current().clashes).toMatchObject([{ label: 'Earlier visit' }])
    expect(store.current()).toMatchObject({ unsent: 0, sending: { is: 'saved' } })
    expect(briefOf(store)).toEqual(server.state!.document.brief)
  })

  it('whose data were brought back, and whose numbers have gone on since: what it has is shown', async () => {
    const server = new FakeServer(job, documentOf())
    const store = await browser(server).open()
    const other = await browser(server).open()
    await symptom(store, 'tepid')
    await pass(2000)
    // A backup from before that; the numbers count on from where they were.
    const { length } = server.log
    server.log = server.log.slice(0, length - 1)
    server.lineage = 'second'
    store.wake()
    await pass(2000)
    expect(briefOf(store).symptom).toBe('cold')
    await earlier(other, 'valve')
    await pass(3000)
    store.wake()
    await pass(3000)
    expect(briefOf(store)).toMatchObject({ symptom: 'cold', earlier: 'valve' })
    expect(briefOf(store)).toEqual(server.state!.document.brief)
  })

  it('never takes away what is shown: it stays, with the time at which it was told', async () => {
    const { store, server } = await broken('away', 2000)
    await store.catchUp()
    expect(store.current()).toMatchObject({ age: { readAt: expect.any(Number) }, error: undefined })
    expect(briefOf(store).site).toBe('Mill House')
    server.weather = () => 'fair'
    await store.catchUp()
    expect(store.current().age).toBeUndefined()
  })

  it('shows what was kept where the server is away from the start, and says why where nothing is known', async () => {
    const server = new FakeServer(job, documentOf())
    const { open } = browser(server)
    await open()
    server.weather = () => 'away'
    expect(briefOf(await open()).site).toBe('Mill House')
    const elsewhere = await browser(server).open()
    expect(elsewhere.current().error).toBeInstanceOf(TypeError)
  })

  it('whose server refuses stops with what and why; put aside, the rest goes', async () => {
    const server = new FakeServer(job, documentOf())
    const store = await browser(server).open()
    server.weather = () => 'away'
    await symptom(store, 'tepid')
    await earlier(store, 'valve')
    // A server with other rules: here, one that has lost the beginning of the entry’s thing.
    server.weather = () => 'fair'
    const take = server.writeLog
    let refuses = true
    server.writeLog = (...args) =>
      refuses
        ? take('', { after: 0, entries: [{ ...args[1].entries[0], entry: { do: 'open', ...documentOf() } }] })
        : take(...args)
    await pass(90_000)
    expect(store.current().sending).toMatchObject({ is: 'stopped', first: 'Symptom' })
    refuses = false
    await store.putAside()
    await pass(2000)
    expect(server.state!.document.brief).toMatchObject({ symptom: 'cold', earlier: 'valve' })
    expect(store.current().clashes).toMatchObject([{ label: 'Symptom' }])
    await store.choose(store.current().clashes[0].id, 'mine')
    await pass(2000)
    expect(wordsAtServer(server)).toBe('tepid')
  })
})

describe('a server that refuses one of many', () => {
  it('is given them one by one: what stands before it arrives, and that very one is named and put aside', async () => {
    const server = new FakeServer(job, documentOf())
    const store = await browser(server).open()
    server.weather = () => 'away'
    await earlier(store, 'valve')
    await symptom(store, 'refused')
    await store.edit('Engineer', (d) => ({ ...d, brief: { ...d.brief, engineer: 'R. Tamsin' } }))
    await pass(1000)
    server.weather = () => 'fair'
    const take = server.writeLog
    server.writeLog = (name, write) => {
      const refused = write.entries.some(({ entry }) => entry.do === 'edit' && entry.label === 'Symptom')
      return refused ? Promise.reject(new ApiError({ type: '', title: 'Not this', status: 422 })) : take(name, write)
    }
    store.again()
    await pass(5000)
    expect(store.current().sending).toEqual({ is: 'stopped', reason: 'Not this', first: 'Symptom' })
    expect(server.state!.document.brief.earlier).toBe('valve')
    await store.putAside()
    await pass(3000)
    expect(server.state!.document.brief).toMatchObject({ engineer: 'R. Tamsin', symptom: 'cold' })
    expect(store.current().clashes).toMatchObject([{ label: 'Symptom' }])
  })
})

describe('two people', () => {
  const meeting = async (mine: (s: JobStore) => Promise<void>, theirs: (s: JobStore) => Promise<void>) => {
    const server = new FakeServer(job, documentOf())
    const [me, them] = [await browser(server).open(), await browser(server).open()]
    let weather: Weather = 'away'
    server.weather = () => weather
    await mine(me)
    await theirs(them)
    weather = 'fair'
    them.wake()
    await pass(2000)
    me.wake()
    await pass(2000)
    return { server, me, them }
  }

  it('at different things are not in each other’s way', async () => {
    const { server, me, them } = await meeting(
      (s) => symptom(s, 'mine'),
      (s) => earlier(s, 'theirs'),
    )
    await them.catchUp()
    for (const store of [me, them]) expect(briefOf(store)).toMatchObject({ symptom: 'mine', earlier: 'theirs' })
    expect([...me.current().clashes, ...them.current().clashes]).toEqual([])
    expect(server.log).toHaveLength(3)
  })

  it('at a new terminal of the same number: mine gets the next one, and that is told', async () => {
    const more = (legend: string) => (s: JobStore) =>
      s.edit('Terminal', (d) => {
        const [centre, ...rest] = d.wiring.wiringCentres
        const terminals = [...centre.terminals, { id: '99', legend, ways: 1 }]
        return { ...d, wiring: { ...d.wiring, wiringCentres: [{ ...centre, terminals }, ...rest] } }
      })
    const { server, me } = await meeting(more('Mine'), more('Theirs'))
    const last = server.state!.document.wiring.wiringCentres[0].terminals.slice(-2)
    expect(last.map((t) => [t.id, t.legend])).toEqual(
      expect.arrayContaining([
        ['99', 'Theirs'],
        ['100', 'Mine'],
      ]),
    )
    expect(me.current()).toMatchObject({ clashes: [], renamed: [{ from: '99', to: '100' }] })
    me.seen()
    expect(me.current().renamed).toEqual([])
  })

  it('at the same thing: theirs stands, mine is shown beside it, and is put there when it is chosen', async () => {
    const { server, me } = await meeting(
      (s) => symptom(s, 'mine'),
      (s) => symptom(s, 'theirs'),
    )
    expect(briefOf(me).symptom).toBe('theirs')
    const [clash] = me.current().clashes
    expect(clash).toMatchObject({
      label: 'Symptom',
      clash: { why: 'both', theirs: 'theirs' },
      by: { author: 'A. Engineer' },
    })
    await me.choose(clash.id, 'mine')
    await pass(2000)
    expect([briefOf(me).symptom, wordsAtServer(server)]).toEqual(['mine', 'mine'])
    expect(me.current().clashes).toEqual([])
  })

  it('at the same thing: what was not chosen stands in the log', async () => {
    const { server, me } = await meeting(
      (s) => symptom(s, 'mine'),
      (s) => symptom(s, 'theirs'),
    )
    await me.choose(me.current().clashes[0].id, 'theirs')
    await pass(2000)
    expect(wordsAtServer(server)).toBe('theirs')
    const { entry } = server.log.at(-1)!
    expect(entry).toMatchObject({ do: 'aside', changes: [{ now: 'mine' }] as Partial<FieldChange>[] })
  })

  it('one takes back what the other has changed since: theirs stands, and is asked about', async () => {
    const server = new FakeServer(job, documentOf())
    const [me, them] = [await browser(server).open(), await browser(server).open()]
    await symptom(me, 'mine')
    await pass(1000)
    await them.catchUp()
    await symptom(them, 'theirs')
    await pass(1000)
    await me.catchUp()
    me.undo()
    await pass(1000)
    expect(briefOf(me).symptom).toBe('theirs')
    expect(me.current().clashes).toMatchObject([{ label: 'Undo: Symptom', clash: { mine: [{ now: 'cold' }] } }])
  })
})

describe('two tabs of one browser', () => {
  it('show the same, send each thing once, and the one goes on with what the other has left', async () => {
    const server = new FakeServer(job, documentOf())
    const keeper = await BrowserKeeper.open('two-tabs')
    const { open } = browser(server, keeper)
    const [one, two] = [await open(), await open()]
    server.weather = () => 'away'
    await symptom(one, 'from one')
    await quiet()
    expect(briefOf(two).symptom).toBe('from one')
    await earlier(two, 'from two')
    await quiet()
    expect(briefOf(one)).toMatchObject({ symptom: 'from one', earlier: 'from two' })
    server.weather = () => 'fair'
    two.wake()
    await pass(10_000)
    expect(server.log.map((e) => e.entry.do)).toEqual(['open', 'edit', 'edit'])
    for (const store of [one, two]) expect(store.current()).toMatchObject({ unsent: 0, sending: { is: 'saved' } })
    expect((await keeper.read(job)).pending).toEqual([])
    two.undo()
    await pass(2000)
    expect(briefOf(one).earlier).toBe('')
  })

  it('tell something as saved only once it is, whichever of them it was done in', async () => {
    const server = new FakeServer(job, documentOf())
    const { open } = browser(server)
    const [one, two] = [await open(), await open()]
    const told: string[] = []
    for (const store of [one, two])
      store.subscribe(() => {
        const { sending } = store.current()
        if (briefOf(store).symptom === 'from one') told.push(`${sending.is}, ${wordsAtServer(server)} at the server`)
      })
    await symptom(one, 'from one')
    await pass(3000)
    expect(told).toContain('saved, from one at the server')
    expect(told).not.toContain('saved, cold at the server')
  })
})
