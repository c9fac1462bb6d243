import type { Command, Installation } from '@nobbet/core'
import { openDB, type DBSchema, type IDBPDatabase } from 'idb'

/** One step of work: done, and how it is taken back. */
export interface Step {
  command: Command
  inverse: Command
}

/** The wiring of a job as one tab has it, kept in the browser until the server has it too. */
export interface KeptWiring {
  job: string
  tab: string
  /** Version on the server that it was made from. */
  version: number
  doc: Installation
  done: Step[]
  undone: Step[]
  /** What the server has not acknowledged yet, in order. */
  pending: Command[]
  /** When the tab that keeps it was last known to live, ms. */
  alive: number
}

interface Schema extends DBSchema {
  wiring: { key: string; value: KeptWiring; indexes: { job: string } }
}

let opened: Promise<IDBPDatabase<Schema> | undefined> | undefined

/** The browser's store; undefined where it has none or forbids it: then a draft lives as long as its page. */
function database(): Promise<IDBPDatabase<Schema> | undefined> {
  opened ??= openDB<Schema>('nobbet', 1, {
    upgrade(db) {
      db.createObjectStore('wiring').createIndex('job', 'job')
    },
  }).catch(() => undefined)
  return opened
}

/** A tab keeps its name over a reload, and no two have the same. */
export function tabName(): string {
  const key = 'nobbet.tab'
  try {
    const known = sessionStorage.getItem(key)
    if (known) return known
    const name = `${Date.now().toString(36)}-${Math.floor(Math.random() * 1e9).toString(36)}`
    sessionStorage.setItem(key, name)
    return name
  } catch {
    return 'only'
  }
}

const keyOf = (job: string, tab: string) => `${job} ${tab}`
/** A tab that has not said anything for so long is closed, ms. */
const silent = 15_000

/**
 * What this tab kept of a job; else what a closed tab left that the server has not got. A tab that was duplicated shares its
 * name with the first one: the later writer wins, and the server's versions still tell the two apart.
 */
export async function readKept(job: string, tab: string): Promise<KeptWiring | undefined> {
  const db = await database()
  if (!db) return undefined
  const own = await db.get('wiring', keyOf(job, tab))
  if (own) return own
  const all = await db.getAllFromIndex('wiring', 'job', job)
  const orphan = all
    .filter((k) => k.pending.length > 0 && Date.now() - k.alive > silent)
    .sort((x, y) => y.alive - x.alive)[0]
  if (!orphan) return undefined
  await db.delete('wiring', keyOf(job, orphan.tab))
  return { ...orphan, tab }
}

export async function keep(kept: KeptWiring): Promise<void> {
  await (await database())?.put('wiring', kept, keyOf(kept.job, kept.tab))
}
