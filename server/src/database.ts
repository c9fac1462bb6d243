import { accessSync, constants, copyFileSync, existsSync, mkdirSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { LibSqlDriver, MikroORM } from '@mikro-orm/libsql'
import { Migrator } from '@mikro-orm/migrations'
import { DraftEntity, EntryEntity, FindingEntity, JobEntity, PhotoEntity, RevisionEntity, TypeEntity } from './entities'
import { beginLogs } from './begin-logs'
import { migrations } from './migrations'
import { StartError } from './start-error'

export const databaseFile = (folder: string) => join(folder, 'nobbet.sqlite')

/**
 * Opens the database in a folder, making both where they are missing: WAL, foreign keys on, every write on disk before
 * it is acknowledged. Pending migrations run after a copy of the file has been laid beside it.
 * Throws {@link StartError} where the folder cannot be written.
 */
export async function openDatabase(folder: string): Promise<MikroORM> {
  try {
    makeFolder(folder)
    accessSync(folder, constants.W_OK)
  } catch {
    throw new StartError(`cannot write in the data folder ${folder}: choose another with NOBBET_DATA`)
  }
  const file = databaseFile(folder)
  const existed = existsSync(file)
  const orm = await MikroORM.init({
    driver: LibSqlDriver,
    dbName: file,
    entities: [EntryEntity, JobEntity, DraftEntity, RevisionEntity, PhotoEntity, FindingEntity, TypeEntity],
    extensions: [Migrator],
    migrations: { migrationsList: migrations, snapshot: false, silent: true },
    allowGlobalContext: false,
    forceUtcTimezone: true,
  })
  const connection = orm.em.getConnection()
  await connection.execute('pragma journal_mode = wal')
  await connection.execute('pragma synchronous = full')
  await connection.execute('pragma foreign_keys = on')
  const pending = await orm.migrator.getPendingMigrations()
  if (pending.length > 0) {
    if (existed) {
      await connection.execute('pragma wal_checkpoint(truncate)')
      copyFileSync(file, `${file}.before-${pending[0].name}`)
    }
    await orm.migrator.up()
  }
  await beginLogs(orm)
  return orm
}

/** Step by step: Node's own recursive way never returns where a parent exists and takes no folders, as in /proc. */
function makeFolder(folder: string): void {
  if (existsSync(folder)) return
  makeFolder(dirname(folder))
  mkdirSync(folder)
}

/** What SQLite says of its own file: "ok", or the first thing that is wrong. */
export async function integrityOf(orm: MikroORM): Promise<string> {
  const [row] = await orm.em.getConnection().execute('pragma quick_check(1)')
  return String((row as { quick_check?: string }).quick_check ?? 'no answer')
}
