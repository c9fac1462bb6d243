import { chmodSync, closeSync, copyFileSync, openSync, statSync } from 'node:fs'
import { randomUUID } from 'node:crypto'
import { LibSqlDriver, MikroORM, type EntityManager } from '@mikro-orm/libsql'
import { Migrator } from '@mikro-orm/migrations'
import { StartError } from '../start-error'
import { JobIndex } from '../jobs/job-index'
import { beginLogs } from './begin-logs'
import { SteadyDialect } from './dialect'
import { entities } from './entities'
import { backupFolder, databaseFile, lookAtFiles, makeFolder, startErrorOf } from './folder'
import { migrations } from './migrations'

/**
 * Opens the database in a folder, making both where they are missing: written ahead, foreign keys on, every write on disk before
 * it is acknowledged. Pending migrations run after a copy of the file has been laid among the backups.
 * Throws {@link StartError} for what the user can put right; then nothing that was there has been touched.
 */
export async function openDatabase(folder: string): Promise<MikroORM> {
  makeFolder(folder)
  const file = databaseFile(folder)
  let orm: MikroORM | undefined
  try {
    lookAtFiles(folder)
    // For its owner's eyes only; what SQLite lays beside it takes this over.
    closeSync(openSync(file, 'a', 0o600))
    chmodSync(file, 0o600)
    const existed = statSync(file).size > 0
    orm = await MikroORM.init({
      driver: LibSqlDriver,
      dbName: file,
      entities,
      extensions: [Migrator],
      driverOptions: { client: SteadyDialect },
      migrations: { migrationsList: migrations, snapshot: false, silent: true },
      allowGlobalContext: false,
      forceUtcTimezone: true,
    })
    if (existed) await lookAtOnce(orm, folder)
    await bringUp(orm, folder, existed)
    return orm
  } catch (error) {
    await orm?.close(true).catch(() => undefined)
    throw startErrorOf(error, folder)
  }
}

/** Looks only at what is quickly looked at: is it of our time, and sound where the jobs are listed? */
async function lookAtOnce(orm: MikroORM, folder: string): Promise<void> {
  const connection = orm.em.getConnection()
  const file = databaseFile(folder)
  const newer = await laterThanKnown(orm)
  if (newer)
    throw new StartError(
      `${file} was written by a newer Nobbet (it has "${newer}"): start that one, or use another folder with NOBBET_DATA. Nothing was touched`,
    )
  const [row] = await connection.execute<{ quick_check?: string }[]>("pragma quick_check('job')")
  if (row?.quick_check !== 'ok') throw Object.assign(new Error(String(row?.quick_check)), { code: 'SQLITE_CORRUPT' })
}

/** A migration that this program does not know: the data are a later one's. */
async function laterThanKnown(orm: MikroORM): Promise<string | undefined> {
  const rows = await orm.em.getConnection().execute<{ name: string }[]>('select name from mikro_orm_migrations')
  const known = new Set(migrations.map((m) => m.name))
  return rows.find((row) => !known.has(row.name))?.name
}

async function bringUp(orm: MikroORM, folder: string, existed: boolean): Promise<void> {
  const pending = await orm.migrator.getPendingMigrations()
  if (pending.length > 0) {
    if (existed) {
      await orm.em.getConnection().execute('pragma wal_checkpoint(truncate)')
      makeFolder(backupFolder(folder))
      copyFileSync(databaseFile(folder), `${backupFolder(folder)}/before-${pending[0].name}.sqlite`)
    }
    await orm.migrator.up()
  }
  await beginLogs(orm)
  // A few at a time: what is broken off goes on at the next start, and memory stays small.
  while ((await orm.em.fork().transactional((em) => new JobIndex(em).bringUpMissing(100))) > 0);
  await lineageOf(orm.em.fork())
}

/** The name of this line of data: another one after a restore, so that nobody takes its numbers for those they know. */
export async function lineageOf(em: EntityManager): Promise<string> {
  const rows = await em.execute<{ value: string }[]>("select value from setting where name = 'lineage'")
  if (rows.length > 0) return rows[0].value
  const made = randomUUID()
  await em.execute("insert into setting (name, value) values ('lineage', ?)", [made])
  return made
}

/** Closes a database so that its one file holds everything. */
export async function closeDatabase(orm: MikroORM): Promise<void> {
  try {
    await orm.em.getConnection().execute('pragma wal_checkpoint(truncate)')
  } finally {
    await orm.close(true)
  }
}
