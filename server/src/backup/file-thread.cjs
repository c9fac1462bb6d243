/**
 * Long work on a database file, in a thread of its own, so that the one that answers is never held up.
 * CommonJS, since a worker starts without the loader that reads TypeScript.
 */
const { parentPort, workerData } = require('node:worker_threads')
const Database = require('libsql')

const works = {
  /** Everything into one file, as it stands at one moment, while others go on writing. */
  copy({ file, to }) {
    const database = new Database(file, { timeout: 10_000 })
    try {
      database.prepare('vacuum into ?').run(to)
    } finally {
      database.close()
    }
  },
  /** Reads every page: what is wrong, in SQLite's words, or what is in it. */
  check({ file }) {
    const database = new Database(file, { timeout: 10_000, fileMustExist: true })
    try {
      const say = (sql) => database.prepare(sql).all()
      const wrong = say('pragma integrity_check(5)').map((row) => String(row.integrity_check))
      if (wrong[0] !== 'ok') return { wrong: wrong.join('; ') }
      const tables = say("select name from sqlite_schema where type = 'table'").map((row) => row.name)
      if (!tables.includes('mikro_orm_migrations') || !tables.includes('job')) return { foreign: true }
      if (say('pragma foreign_key_check').length > 0) return { wrong: 'rows refer to others that are not there' }
      const count = (table) => (tables.includes(table) ? Number(say(`select count(*) as n from ${table}`)[0].n) : 0)
      const looks = tables.includes('hunt')
        ? `select count(*) as n from hunt, json_each(hunt.record, '$.lines') where json_extract(value, '$.entry.see') is not null`
        : 'select 0 as n'
      return {
        migrations: say('select name from mikro_orm_migrations').map((row) => row.name),
        jobs: count('job'),
        findings: count('finding') + Number(say(looks)[0].n),
        photos: count('photo'),
        entries: count('entry'),
      }
    } finally {
      database.close()
    }
  },
}

try {
  parentPort.postMessage({ done: works[workerData.work](workerData) })
} catch (error) {
  parentPort.postMessage({ failed: { message: String(error.message), code: error.code } })
}
