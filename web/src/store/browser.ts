import { jobSummarySchema, type JobSummary } from '@nobbet/contract'
import { openDB, type DBSchema, type IDBPDatabase, type IDBPTransaction } from 'idb'
import { fromFirst, type FirstKept } from './first-kept'
import {
  noSteps,
  smallOf,
  type Keeper,
  type Keeping,
  type Known,
  type KeptClash,
  type KeptJob,
  type Pending,
  type Sitting,
  type Steps,
} from './kept'
import { MemoryKeeper } from './memory'

interface Tables extends DBSchema {
  known: { key: string; value: Known }
  pending: { key: number; value: Pending; indexes: { job: string } }
  clashes: { key: string; value: KeptClash; indexes: { job: string } }
  steps: { key: string; value: Steps }
  pictures: { key: string; value: string }
  sittings: { key: string; value: Sitting }
  lists: { key: string; value: { jobs: JobSummary[]; readAt: number } }
}
const tables = ['known', 'pending', 'pictures', 'clashes', 'steps'] as const
type Work = IDBPTransaction<Tables, (typeof tables)[number][], 'readwrite'>

/** What a transaction has written is on the disk, not merely on its way there, before it counts as kept. */
const durable = { durability: 'strict' } as const

export class BrowserKeeper implements Keeper {
  private constructor(private readonly db: IDBPDatabase<Tables>) {}

  static async open(name = 'nobbet'): Promise<BrowserKeeper> {
    const db = await openDB<Tables>(name, 2, {
      upgrade(db, before, _after, transaction) {
        for (const table of ['known', 'steps', 'pictures', 'sittings', 'lists'] as const) db.createObjectStore(table)
        db.createObjectStore('pending', { keyPath: 'key', autoIncrement: true }).createIndex('job', 'job')
        db.createObjectStore('clashes', { keyPath: 'id' }).createIndex('job', 'job')
        if (before !== 1) return
        // What the first version had kept and not sent goes on as entries of the log.
        const old = transaction as unknown as IDBPTransaction<
          { wiring: { key: string; value: FirstKept } },
          ['wiring'],
          'versionchange'
        >
        const bringOver = async () => {
          for (const kept of await old.objectStore('wiring').getAll())
            for (const one of fromFirst(kept)) await transaction.objectStore('pending').add(one as Pending)
          old.db.deleteObjectStore('wiring')
        }
        // What cannot be brought over stays as it was, and is tried again when the store is opened next.
        bringOver().catch(() => transaction.abort())
      },
      // Another tab has a newer Nobbet: it must not wait for this one.
      blocking: (_current, _blocked, event) => (event.target as IDBDatabase).close(),
    })
    return new BrowserKeeper(db)
  }

  async read(job: string): Promise<KeptJob> {
    const work = this.db.transaction(tables, 'readonly')
    const kept = await readIn(work as unknown as Work, job)
    await work.done
    return kept
  }

  async keep(job: string, { add = [], pictures = {}, steps, settled = [] }: Keeping): Promise<void> {
    const work = this.db.transaction(tables, 'readwrite', durable)
    const writes: Promise<unknown>[] = add.map((one) => work.objectStore('pending').add({ ...one, job } as Pending))
    for (const [photo, picture] of Object.entries(pictures))
      writes.push(work.objectStore('pictures').put(picture, photo))
    if (steps) writes.push(work.objectStore('steps').put(steps, job))
    for (const id of settled) writes.push(work.objectStore('clashes').delete(id))
    await Promise.all([...writes, work.done])
  }

  async rework(job: string, change: (kept: KeptJob) => KeptJob): Promise<KeptJob> {
    const work = this.db.transaction(tables, 'readwrite', durable)
    const before = await readIn(work, job)
    let after: KeptJob
    try {
      after = change(before)
    } catch (error) {
      work.abort()
      await work.done.catch(() => undefined)
      throw error
    }
    await Promise.all([...written(work, job, before, after), work.done])
    return after
  }

  picture = (photo: string) => this.db.get('pictures', photo)
  async jobs(): Promise<string[]> {
    return [...new Set([...(await this.db.getAllKeys('known')), ...(await this.unsent())])]
  }
  async unsent(): Promise<string[]> {
    const jobs: string[] = []
    const index = this.db.transaction('pending').store.index('job')
    for (let at = await index.openKeyCursor(null, 'nextunique'); at; at = await at.continue()) jobs.push(at.key)
    return jobs
  }
  async list() {
    const kept = await this.db.get('lists', 'jobs')
    // One that an earlier page has kept says other things of a job.
    const jobs = jobSummarySchema.array().safeParse(kept?.jobs)
    return kept && jobs.success ? { jobs: jobs.data, readAt: kept.readAt } : undefined
  }
  async keepList(jobs: JobSummary[], readAt: number) {
    await this.db.put('lists', { jobs, readAt }, 'jobs')
  }
  sitting = (job: string) => this.db.get('sittings', job)
  async keepSitting(job: string, sitting: Sitting) {
    await this.db.put('sittings', sitting, job)
  }
  /** Forgets jobs that were not looked at since then and of which nothing is unsent or to be chosen. */
  async tidy(before: number): Promise<void> {
    const work = this.db.transaction([...tables, 'sittings'], 'readwrite')
    const busy = new Set(
      [...(await work.objectStore('pending').getAll()), ...(await work.objectStore('clashes').getAll())].map(
        (x) => x.job,
      ),
    )
    for (const job of await work.objectStore('known').getAllKeys()) {
      const known = await work.objectStore('known').get(job)
      if (busy.has(job) || !known || known.readAt >= before) continue
      for (const table of ['known', 'steps', 'sittings'] as const) void work.objectStore(table).delete(job)
    }
    await work.done
  }
  close = () => this.db.close()
}

async function readIn(work: Work, job: string): Promise<KeptJob> {
  const [known, pending, clashes, steps] = await Promise.all([
    work.objectStore('known').get(job),
    work.objectStore('pending').index('job').getAll(job),
    work.objectStore('clashes').index('job').getAll(job),
    work.objectStore('steps').get(job),
  ])
  return { known, pending, clashes, steps: steps ?? noSteps }
}

/** Writes what differs, and takes out what is delivered. */
function* written(work: Work, job: string, before: KeptJob, after: KeptJob): Generator<Promise<unknown>> {
  const pending = work.objectStore('pending')
  const stays = new Set(after.pending.map((p) => p.key))
  for (const one of before.pending) {
    if (stays.has(one.key)) continue
    yield pending.delete(one.key)
    if (one.kind === 'photo')
      for (const key of [one.id, smallOf(one.id)]) yield work.objectStore('pictures').delete(key)
  }
  for (const one of after.pending) if (!before.pending.includes(one)) yield pending.put(one)
  const clashes = work.objectStore('clashes')
  for (const clash of after.clashes) if (!before.clashes.includes(clash)) yield clashes.put(clash)
  if (after.known && after.known !== before.known) yield work.objectStore('known').put(after.known, job)
  if (after.steps !== before.steps) yield work.objectStore('steps').put(after.steps, job)
}

/** An older page of Nobbet in another tab may keep the store from being opened: the page then goes on without it, ms. */
const openWithinMs = 5000
/** What was not looked at for a season need not be at hand without a server, ms. */
const forgottenAfterMs = 90 * 24 * 3_600_000

/** Where this browser keeps things; a page's memory where it has no store. `lasting` says which. */
export async function keeper(): Promise<{ keeper: Keeper; lasting: boolean }> {
  const inMemory = { keeper: new MemoryKeeper(), lasting: false }
  const late = new Promise<typeof inMemory>((done) => setTimeout(() => done(inMemory), openWithinMs))
  const opened = BrowserKeeper.open().then((keeper) => {
    void keeper.tidy(Date.now() - forgottenAfterMs).catch(() => undefined)
    return { keeper, lasting: true }
  })
  return Promise.race([opened, late]).catch(() => inMemory)
}
