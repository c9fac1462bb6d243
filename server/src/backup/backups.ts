import {
  chmodSync,
  closeSync,
  copyFileSync,
  existsSync,
  fsyncSync,
  openSync,
  renameSync,
  rmSync,
  statfsSync,
  statSync,
} from 'node:fs'
import { join } from 'node:path'
import Database from 'libsql'
import { troubleOf } from '../data/failures'
import { backupFolder, backupsIn, databaseFile, fileStamp, makeFolder, setAside } from '../data/folder'
import { migrations } from '../data/migrations'
import { checkDatabase, copyDatabase, type Content } from './file-work'

/** A backup that cannot be used, or not made, with the reason in a sentence. */
export class BackupError extends Error {
  override name = 'BackupError'
}

const daysKept = 7
const daily = /^day-\d{4}-\d{2}-\d{2}$/

export const backupFile = (folder: string, name: string) => join(backupFolder(folder), `${name}.sqlite`)

function syncFile(file: string): void {
  const opened = openSync(file, 'r')
  try {
    fsyncSync(opened)
  } finally {
    closeSync(opened)
  }
}

/**
 * Everything of a folder's data into one file, checked before it takes its name. May be done while a server uses the folder.
 * Throws {@link BackupError}.
 */
export async function backUp(folder: string, to: string): Promise<Content> {
  const file = databaseFile(folder)
  if (!existsSync(file)) throw new BackupError(`there are no data in ${folder}`)
  if (existsSync(to)) throw new BackupError(`${to} is there already: choose another name`)
  const half = `${to}.half`
  rmSync(half, { force: true })
  try {
    await copyDatabase(file, half)
    const content = await soundContent(half)
    chmodSync(half, 0o600)
    syncFile(half)
    renameSync(half, to)
    return content
  } catch (error) {
    if (error instanceof BackupError) throw error
    const reasons: Partial<Record<string, string>> = {
      full: 'the disk has no room for it',
      damaged: 'the data are damaged: bring the newest sound backup back',
      'read-only': `${to} cannot be written`,
    }
    const reason = reasons[troubleOf(error) ?? ''] ?? (error as Error).message
    throw new BackupError(`No backup was made: ${reason}`)
  } finally {
    rmSync(half, { force: true })
  }
}

/** Reads a backup from end to end. Throws {@link BackupError} where it cannot be brought back. */
export async function soundContent(file: string): Promise<Content> {
  if (!existsSync(file)) throw new BackupError(`there is no file ${file}`)
  const looked = await checkDatabase(file).catch((error: Error) => ({ wrong: error.message }))
  if ('wrong' in looked) throw new BackupError(`This file is damaged or no database: ${looked.wrong}`)
  if ('foreign' in looked) throw new BackupError('This is a database, but not one of Nobbet’s')
  const known = new Set(migrations.map((m) => m.name))
  const newer = looked.migrations.find((name) => !known.has(name))
  if (newer) throw new BackupError(`This was made by a newer Nobbet (it has "${newer}")`)
  return looked
}

/**
 * Puts a sound backup in the place of a folder's data, which nobody may have open. What was there is kept among the backups; its
 * name is returned, and what takes all that back. No number that was in use is given out again.
 */
export function putBack(folder: string, from: string, now: Date): { kept: string | undefined; takeBack(): void } {
  const file = databaseFile(folder)
  const coming = `${file}.coming`
  copyFileSync(from, coming)
  chmodSync(coming, 0o600)
  raiseNumbers(coming, file)
  keepDevices(coming, file)
  syncFile(coming)
  const kept = setAside(folder, 'before-restore', now)
  renameSync(coming, file)
  return {
    kept,
    takeBack() {
      setAside(folder, 'not-restored', now)
      if (kept) renameSync(backupFile(folder, kept), file)
    },
  }
}

/** Lets the copy count on from where the present data stand, and marks it as another line of data. */
function raiseNumbers(coming: string, present: string): void {
  const database = new Database(coming)
  try {
    const has = (table: string) =>
      database.prepare("select 1 from sqlite_schema where type = 'table' and name = ?").all(table).length > 0
    if (has('setting')) database.exec("delete from setting where name = 'lineage'")
    for (const { table, most } of highest(present)) {
      if (!has(table)) continue
      if (table === 'own_type') {
        for (const [id, version] of Object.entries(most)) raiseType(database, id, version)
        continue
      }
      const stands = database.prepare('select seq from sqlite_sequence where name = ?').all(table) as { seq: number }[]
      if (stands.length === 0)
        database.prepare('insert into sqlite_sequence (name, seq) values (?, ?)').run(table, most.all)
      else if (stands[0].seq < most.all)
        database.prepare('update sqlite_sequence set seq = ? where name = ?').run(most.all, table)
    }
    database.exec('pragma wal_checkpoint(truncate)')
    database.exec('pragma journal_mode = delete')
  } finally {
    database.close()
  }
}
/**
 * Who may come in is the host's affair and not the data's: a device that was shut out since the backup stays out. Where the present
 * devices cannot be read, none is let in; each is paired anew.
 */
function keepDevices(coming: string, present: string): void {
  const database = new Database(coming)
  try {
    const tables = "select name from sqlite_schema where type = 'table' and name = 'device'"
    if (database.prepare(tables).all().length === 0) return
    database.exec('delete from device')
    for (const row of devicesIn(present))
      database
        .prepare('insert into device (id, name, paired_at, seen_at, revoked_at) values (?, ?, ?, ?, ?)')
        .run(...row)
  } finally {
    database.close()
  }
}
function devicesIn(file: string): unknown[][] {
  if (!existsSync(file) || statSync(file).size === 0) return []
  let database: Database.Database | undefined
  try {
    database = new Database(file)
    const rows = database.prepare('select id, name, paired_at, seen_at, revoked_at from device').all() as Record<
      string,
      unknown
    >[]
    return rows.map((r) => [r.id, r.name, r.paired_at, r.seen_at, r.revoked_at])
  } catch {
    return []
  } finally {
    database?.close()
  }
}

function raiseType(database: Database.Database, id: string, version: number): void {
  const [stands] = database.prepare('select version from own_type where id = ?').all(id) as { version: number }[]
  if (stands && stands.version <= version)
    database
      .prepare("update own_type set version = ?, definition = json_set(definition, '$.version', ?) where id = ?")
      .run(version + 1, version + 1, id)
}
function highest(present: string): { table: string; most: Record<string, number> }[] {
  if (!existsSync(present) || statSync(present).size === 0) return []
  let database: Database.Database | undefined
  try {
    database = new Database(present)
    const numbers = database.prepare('select name, seq from sqlite_sequence').all() as { name: string; seq: number }[]
    const types = database.prepare('select id, version from own_type').all() as { id: string; version: number }[]
    return [
      ...numbers.map(({ name, seq }) => ({ table: name, most: { all: seq } })),
      { table: 'own_type', most: Object.fromEntries(types.map((t) => [t.id, t.version])) },
    ]
  } catch {
    // What is there now is damaged, which is why it is replaced: nobody has been given a number of it that could be read.
    return []
  } finally {
    database?.close()
  }
}

/** What tells two states of the data apart: the last number of everything that is counted, and when it was last touched. */
function markOf(file: string): string {
  const database = new Database(file)
  try {
    const [mark] = database
      .prepare(
        `select (select group_concat(name || seq) from sqlite_sequence) as numbers,
          (select count(*) || ' ' || max(updated_at) || ' ' || count(deleted_at) from job) as jobs,
          (select count(*) || ' ' || max(updated_at) || ' ' || count(deleted_at) from own_type) as types,
          (select count(*) || ' ' || max(created_at) from photo) as photos`,
      )
      .all() as object[]
    return JSON.stringify(mark, (key, value: unknown) => (key === '_metadata' ? undefined : value))
  } catch {
    // One that an earlier Nobbet made has not all of this: it is another state.
    return file
  } finally {
    database.close()
  }
}

/** Makes today's backup where the data have been used and there is none yet; of the daily ones the last seven stay. */
export async function backUpDaily(folder: string, now: Date): Promise<string | undefined> {
  const name = `day-${now.toISOString().slice(0, 10)}`
  makeFolder(backupFolder(folder))
  const days = backupsIn(folder).filter((b) => daily.test(b.name))
  if (days.some((b) => b.name === name)) return undefined
  const file = databaseFile(folder)
  if (days.length > 0 && markOf(file) === markOf(backupFile(folder, days[0].name))) return undefined
  const bytes = statSync(file).size
  const { bavail, bsize } = statfsSync(folder)
  // A copy must not be what fills the disk.
  if (bavail * bsize < 2 * bytes + 50e6)
    throw new BackupError('Today’s backup was not made: the disk has too little room for it')
  await backUp(folder, backupFile(folder, name))
  const outdated = [name, ...days.map((b) => b.name)].sort().reverse().slice(daysKept)
  for (const old of outdated) rmSync(backupFile(folder, old), { force: true })
  return name
}

/** A name for a backup that is made by hand. */
export const nameByHand = (now: Date) => `made-${fileStamp(now)}`
