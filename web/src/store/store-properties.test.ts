import 'fake-indexeddb/auto'
import { documentProblems, jobGround, type JobDocument, type LogEntry } from '@nobbet/contract'
import { edited, EditError, rebased, same, thingOf, type FieldChange } from '@nobbet/core'
import { someAct } from '@nobbet/core/testing'
import fc from 'fast-check'
import { documentOf, FakeServer, FakeTabs, type Weather } from '../../testing'
import { pass, quiet, stopTheClock } from '../../testing/clock'
import { BrowserKeeper } from './browser'
import { JobStore } from './job-store'
import type { Keeper } from './kept'
import { MemoryKeeper } from './memory'
import type { Tabs } from './tabs'

beforeAll(stopTheClock)
afterAll(() => jest.useRealTimers())

const job = 'job-mill-house'
/** Numbers to pick by; every property that fails can be run again by its seed. */
const chance = fc.infiniteStream(fc.nat(1_000_000))
const picker = (stream: Iterator<number>) => (n: number) => (stream.next().value as number) % n

/** One thing done by hand: at the bench mostly, now and then to the brief. False where it could not be done. */
async function act(store: JobStore, pick: (n: number) => number): Promise<boolean> {
  const brief = pick(8) === 0
  try {
    await store.edit(brief ? 'Brief' : 'Bench', (document): JobDocument => {
      if (brief) {
        const field = (['symptom', 'earlier', 'engineer'] as const)[pick(3)]
        return { ...document, brief: { ...document.brief, [field]: `word ${pick(100_000)}` } }
      }
      const command = someAct(document.wiring, pick)
      return command ? { ...document, wiring: edited(document.wiring, command).doc } : document
    })
    return true
  } catch (error) {
    if (error instanceof EditError) return false
    throw error
  }
}

/** How often a job was told as saved while something of it had not arrived. */
let saidTooSoon = 0
const watch = (store: JobStore) =>
  store.subscribe(() => {
    const { unsent, sending } = store.current()
    if (unsent > 0 && sending.is === 'saved') saidTooSoon++
  })
afterEach(() => expect(saidTooSoon).toBe(0))

const editsOf = (log: readonly LogEntry[]) =>
  log.flatMap((e) => (e.entry.do === 'edit' ? [{ id: e.id, changes: e.entry.changes }] : []))
const meets = (a: readonly string[], b: readonly string[]) =>
  a.slice(0, b.length).every((key, i) => key === b[i]) || b.slice(0, a.length).every((key, i) => key === a[i])

describe('two browsers, both offline, fifty edits each, then back', () => {
  it('lose nothing of either but where both touched one thing, and that is shown', async () => {
    let met = 0
    await fc.assert(
      fc.asyncProperty(chance, async (stream) => {
        const pick = picker(stream[Symbol.iterator]())
        const server = new FakeServer(job, documentOf())
        const open = async () => {
          const store = new JobStore(job, { keeper: new MemoryKeeper(), server, tabs: new FakeTabs().tab() })
          watch(store)
          await store.load()
          await quiet()
          return store
        }
        const [me, them] = [await open(), await open()]
        let weather: Weather = 'away'
        server.weather = () => weather
        for (const store of [me, them]) for (let done = 0; done < 50;) if (await act(store, pick)) done++
        const made = { me: await unsent(me), them: await unsent(them) }
        weather = 'fair'
        them.wake()
        await pass(4000)
        me.wake()
        await pass(4000)
        await them.catchUp()
        const end = server.state!.document
        expect(documentProblems(end)).toEqual([])
        for (const store of [me, them]) {
          expect(store.current()).toMatchObject({ unsent: 0, sending: { is: 'saved' } })
          expect(same(store.current().state!.document, end)).toBe(true)
        }
        // Every change of each stands in the log, under another id where that was taken; or is shown as a clash; or the other
        // had done the very same; or it stands at the end anyway.
        const arrived = editsOf(server.log)
        for (const [who, store] of [
          ['me', me],
          ['them', them],
        ] as const) {
          const { clashes } = store.current()
          const own = new Set(made[who].map((e) => e.id))
          const others = arrived.filter((e) => !own.has(e.id)).flatMap((e) => e.changes)
          for (const { id, changes } of made[who])
            for (const change of changes) {
              const there = arrived.find((e) => e.id === id)?.changes.some((c) => sameWish(c, change))
              const shown = clashes.some((c) => c.of === id && c.clash.mine.some((m) => aboutTheSame(m, change)))
              const theirsToo = others.some(
                (c) =>
                  sameWish(c, change) ||
                  (c.do === 'drop' && change.do === 'drop' && meets(thingOf(c), thingOf(change))),
              )
              // What I wanted stands, by the way of something else.
              const again = rebased(jobGround, end, [change])
              const stands = again.changes.length === 0 && again.clashes.length === 0
              // Put in and taken out again, and the putting in is shown: the taking out finds nothing left to do.
              const undone = clashes.some((c) => c.clash.mine.some((m) => undoes(change, m)))
              if (!there && !shown && !theirsToo && !stands && !undone)
                throw new Error(`lost: ${JSON.stringify(change)}`)
            }
          // What is shown is something the other has touched, or hangs on such a thing, or on something of mine that is shown.
          for (const { id, clash } of clashes) {
            if (clash.why !== 'both') continue
            const rest = clashes.filter((c) => c.id !== id).flatMap((c) => c.clash.mine)
            expect([...others, ...rest].some((c) => clash.mine.some((m) => meets(thingOf(m), thingOf(c))))).toBe(true)
          }
        }
        met += me.current().clashes.length + them.current().clashes.length
      }),
      { numRuns: 8 },
    )
    // That nothing ever met would show nothing.
    expect(met).toBeGreaterThan(0)
  })

  /** Without numbers: an entry whose id was taken has another one, and what speaks of it says so. */
  const bare = (value: unknown) => JSON.stringify(value ?? null).replace(/-?\d+/g, '')
  const sameWish = (a: FieldChange, b: FieldChange): boolean =>
    a.do === b.do &&
    bare(a.path) === bare(b.path) &&
    (a.do === 'set' && b.do === 'set'
      ? same(a.now, b.now) || bare(a.now) === bare(b.now)
      : a.do === 'add' && b.do === 'add'
        ? bare(a.value) === bare(b.value)
        : true)
  const undoes = (later: FieldChange, earlier: FieldChange): boolean =>
    later.do === 'set' &&
    earlier.do === 'set' &&
    bare(later.path) === bare(earlier.path) &&
    bare(later.now) === bare(earlier.was)
  const aboutTheSame = (a: FieldChange, b: FieldChange) => sameWish(a, b) || meets(thingOf(a), thingOf(b))

  async function unsent(store: JobStore) {
    const { keeper } = (store as unknown as { deps: { keeper: Keeper } }).deps
    const { pending } = await keeper.read(job)
    return editsOf(pending.flatMap((p) => (p.kind === 'entry' ? [p.logged] : [])))
  }
})

describe('a tab that is killed at any moment', () => {
  it('loses nothing that it had shown as done, five hundred times', async () => {
    let kills = 0
    await fc.assert(
      fc.asyncProperty(chance, async (stream) => {
        const pick = picker(stream[Symbol.iterator]())
        const server = new FakeServer(job, documentOf())
        const keeper = await BrowserKeeper.open(`kill-${++kills}-${pick(1e6)}`)
        const tabs = new FakeTabs()
        const weathers: Weather[] = ['fair', 'fair', 'away', 'answer-lost', 'broken', 'stalls']
        // The job was read once; from then on the weather is what it is.
        await born(server, keeper, tabs).then(({ kill }) => kill())
        server.weather = () => weathers[pick(weathers.length)]
        let shown = ''
        for (let life = 0; life < 25; life++) {
          const { store, kill } = await born(server, keeper, tabs)
          expect(store.current().state!.document.brief.symptom).toBe(shown || 'cold')
          // Some steps, each waited for or not; and the end comes at any of them.
          for (let i = pick(4); i >= 0; i--) {
            const word = `life ${life} step ${i}`
            const done = store.edit('Symptom', (d) => ({ ...d, brief: { ...d.brief, symptom: word } }))
            if (pick(2)) await done
            if (pick(3) === 0) await pass(pick(2000))
          }
          await quiet(pick(6))
          shown = store.current().state!.document.brief.symptom
          kill()
          // What was on its way to the disk arrives there or does not; it was not shown as done.
          await quiet()
          const { pending, known } = await keeper.read(job)
          const last = pending.findLast((p) => p.kind === 'entry')
          const kept =
            last?.kind === 'entry' && last.logged.entry.do === 'edit' ? last.logged.entry.changes[0] : undefined
          const at = kept?.do === 'set' ? (kept.now as string) : known!.state.document.brief.symptom
          expect(stepOf(at)).toBeGreaterThanOrEqual(stepOf(shown))
          shown = at === 'cold' ? '' : at
        }
        server.weather = () => 'fair'
        const { store } = await born(server, keeper, tabs)
        await pass(20_000)
        expect(store.current()).toMatchObject({ unsent: 0, clashes: [], sending: { is: 'saved' } })
        expect(server.state!.document.brief.symptom).toBe(shown || 'cold')
        expect(new Set(server.log.map((e) => e.id)).size).toBe(server.log.length)
        keeper.close()
      }),
      { numRuns: 12 },
    )
  })

  /** Lives by their order, and their steps, counted down. */
  const stepOf = (word: string): number => {
    const match = /life (\d+) step (\d+)/.exec(word)
    return match ? Number(match[1]) * 10 + (9 - Number(match[2])) : -1
  }

  /** A tab that is opened on what is kept; killed, nothing it does reaches anything any more. */
  async function born(server: FakeServer, keeper: Keeper, tabs: FakeTabs) {
    let alive = true
    const own = <T extends object>(thing: T): T =>
      new Proxy(thing, {
        get(target, name) {
          const value = Reflect.get(target, name) as unknown
          if (typeof value !== 'function') return value
          return (...args: unknown[]) =>
            alive ? (value as (...a: unknown[]) => unknown).apply(target, args) : new Promise(() => {})
        },
      })
    const tab: Tabs = tabs.tab()
    const store = new JobStore(job, { keeper: own(keeper), server: own(server), tabs: own(tab) })
    watch(store)
    const loaded = store.load()
    // A server that stalls keeps no one from what is here.
    await Promise.race([loaded, quiet()])
    return {
      store,
      kill() {
        alive = false
        tabs.close(tab, job)
      },
    }
  }
})
