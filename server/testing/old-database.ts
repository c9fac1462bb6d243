import Database from 'libsql'
import { databaseFile } from '../src/data/folder'
import { migrations } from '../src/data/migrations'

/** A database as an earlier Nobbet left it: made by the migrations before one, and filled by plain SQL. */
export function oldDatabase(folder: string, before: string, fill: (database: Database.Database) => void): void {
  const database = new Database(databaseFile(folder))
  database.exec(
    'create table mikro_orm_migrations (id integer primary key autoincrement, name text, executed_at datetime default current_timestamp)',
  )
  for (const { name, class: migration } of migrations) {
    if (name === before) break
    const made = new migration(undefined as never, undefined as never)
    void made.up()
    for (const sql of made.getQueries()) database.exec(typeof sql === 'string' ? sql : sql.toQuery())
    database.prepare('insert into mikro_orm_migrations (name) values (?)').run(name)
  }
  fill(database)
  database.exec('pragma journal_mode = wal')
  database.exec('pragma wal_checkpoint(truncate)')
  database.close()
}
