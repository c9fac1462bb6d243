import {
  accessSync,
  chmodSync,
  closeSync,
  constants,
  existsSync,
  mkdirSync,
  openSync,
  readdirSync,
  readFileSync,
  readSync,
  renameSync,
  statSync,
  writeFileSync,
} from 'node:fs'
import { dirname, join } from 'node:path'
import Database from 'libsql'
import { StartError } from '../start-error'
import { troubleOf } from './failures'

export const databaseFile = (folder: string) => join(folder, 'nobbet.sqlite')
export const backupFolder = (folder: string) => join(folder, 'backups')

/** A moment as it can stand in a file's name, to the millisecond. */
export const fileStamp = (at: Date) => at.toISOString().replace(/[:.]/g, '-').replace('Z', '')

/** A database and what SQLite keeps beside it while it is written. */
const suffixes = ['', '-wal', '-shm']

/** Backups that are there, newest first. */
export function backupsIn(folder: string): { name: string; at: Date; bytes: number }[] {
  const place = backupFolder(folder)
  if (!existsSync(place)) return []
  return readdirSync(place)
    .filter((name) => name.endsWith('.sqlite'))
    .map((name) => ({ name: name.slice(0, -'.sqlite'.length), stat: statSync(join(place, name)) }))
    .map(({ name, stat }) => ({ name, at: stat.mtime, bytes: stat.size }))
    .sort((a, b) => b.at.getTime() - a.at.getTime() || b.name.localeCompare(a.name))
}

/** What a user can do about data that cannot be used. */
export function wayBack(folder: string): string {
  const [newest, ...rest] = backupsIn(folder)
  if (!newest) return 'There is no backup in the folder’s "backups"'
  const others = rest.length === 0 ? '' : ` (and ${rest.length} older)`
  return `The newest backup is ${join(backupFolder(folder), `${newest.name}.sqlite`)}${others}: bring it back with "nobbet restore"`
}

/** Makes the folder, for its owner's eyes only. Throws {@link StartError} where it cannot be written. */
export function makeFolder(folder: string): void {
  try {
    make(folder)
    accessSync(folder, constants.W_OK)
  } catch {
    throw new StartError(`cannot write in the data folder ${folder}: choose another with NOBBET_DATA`)
  }
}
/** Step by step: Node's own recursive way never returns where a parent exists and takes no folders, as in /proc. */
function make(folder: string): void {
  if (existsSync(folder)) return
  make(dirname(folder))
  mkdirSync(folder, { mode: 0o700 })
}

export interface FolderLock {
  release(): void
}

/**
 * Takes the folder for this process alone. The lock is the system's own on a small SQLite file: it ends with the process, however
 * that ends. Throws {@link StartError} where another has it.
 */
export function lockFolder(folder: string): FolderLock {
  const file = join(folder, 'lock.sqlite')
  const note = join(folder, 'lock.txt')
  let lock: Database.Database | undefined
  try {
    lock = new Database(file)
    lock.exec('pragma journal_mode = delete')
    lock.exec('begin exclusive')
    writeFileSync(note, String(process.pid), { mode: 0o600 })
    chmodSync(file, 0o600)
  } catch (error) {
    lock?.close()
    if (troubleOf(error) !== 'busy') throw startErrorOf(error, folder)
    throw new StartError(
      `the data folder ${folder} is in use by another Nobbet${holder(note)}: stop that one first, or choose another folder with NOBBET_DATA`,
    )
  }
  const held = lock
  return {
    release() {
      if (held.inTransaction) held.exec('rollback')
      held.close()
    },
  }
}
function holder(note: string): string {
  try {
    return ` (process ${Number(readFileSync(note, 'utf8'))})`
  } catch {
    return ''
  }
}

/** The data that are there, moved among the backups under a name that tells why; undefined where there are none. */
export function setAside(folder: string, why: string, now: Date): string | undefined {
  const file = databaseFile(folder)
  if (!suffixes.some((suffix) => existsSync(file + suffix))) return undefined
  makeFolder(backupFolder(folder))
  const name = `${why}-${fileStamp(now)}`
  const to = join(backupFolder(folder), `${name}.sqlite`)
  foldIn(file)
  // The write-ahead file first: a main file without it would be taken for the whole.
  for (const suffix of [...suffixes].reverse()) if (existsSync(file + suffix)) renameSync(file + suffix, to + suffix)
  return name
}
/** Brings what stands in the write-ahead file into the main file, where that can be done. */
function foldIn(file: string): void {
  if (!existsSync(file) || statSync(file).size === 0) return
  let database: Database.Database | undefined
  try {
    database = new Database(file)
    database.exec('pragma wal_checkpoint(truncate)')
  } catch {
    // Damaged: it goes aside as it is, with all that is beside it.
  } finally {
    database?.close()
  }
}

/** Looks at the files before SQLite does, which would begin afresh over a main file that is gone. Throws {@link StartError}. */
export function lookAtFiles(folder: string): void {
  const file = databaseFile(folder)
  const size = (name: string) => (existsSync(name) ? statSync(name).size : 0)
  if (size(file) === 0 && size(`${file}-wal`) > 0)
    throw new StartError(
      `${file} is empty, but ${file}-wal beside it holds data: the two belong together. Nothing was touched. Put the main file back that belongs to it. ${wayBack(folder)}`,
    )
  if (size(file) > 0 && readHead(file) !== 'SQLite format 3\0')
    throw new StartError(`${file} is not a database. Nothing was touched. ${wayBack(folder)}`)
  if (size(file) > 0 && foreign(file))
    throw new StartError(`${file} is a database, but not one of Nobbet’s. Nothing was touched. ${wayBack(folder)}`)
}
/** Has it tables, and not ours? Looked at without a pragma set, which would write into it. */
function foreign(file: string): boolean {
  const database = new Database(file)
  try {
    const tables = database.prepare("select name from sqlite_schema where type = 'table'").all() as { name: string }[]
    const names = tables.map((t) => t.name)
    return names.length > 0 && !(names.includes('mikro_orm_migrations') && names.includes('job'))
  } finally {
    database.close()
  }
}
function readHead(file: string): string {
  const head = Buffer.alloc(16)
  const opened = openSync(file, 'r')
  try {
    readSync(opened, head, 0, 16, 0)
  } finally {
    closeSync(opened)
  }
  return head.toString('latin1')
}

/** What the user is told where the data cannot be opened; any other error is returned as it is. */
export function startErrorOf(error: unknown, folder: string): Error {
  if (error instanceof StartError) return error
  const file = databaseFile(folder)
  switch (troubleOf(error)) {
    case 'damaged':
      return new StartError(`${file} is damaged. Nothing was touched. ${wayBack(folder)}`)
    case 'full':
      return new StartError(
        `the disk with the data folder ${folder} is full: make room, then start again. ${wayBack(folder)}`,
      )
    case 'read-only':
      return new StartError(
        `cannot write ${file}: make it writable, or choose another folder with NOBBET_DATA. ${wayBack(folder)}`,
      )
    case 'busy':
      return new StartError(`${file} is locked by another program: end that first`)
    default:
      return error as Error
  }
}
