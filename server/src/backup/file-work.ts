import { join } from 'node:path'
import { Worker } from 'node:worker_threads'

export interface Content {
  migrations: string[]
  jobs: number
  findings: number
  photos: number
  entries: number
}
/** What a database file is: `wrong` in SQLite's words, `foreign` where it is none of Nobbet's. */
export type Looked = Content | { wrong: string } | { foreign: true }

const worker = join(import.meta.dirname ?? __dirname, 'file-thread.cjs')

function inThread<T>(workerData: Record<string, string>): Promise<T> {
  return new Promise((done, failed) => {
    const thread = new Worker(worker, { workerData, execArgv: [] })
    thread.once('message', (said: { done: T } | { failed: { message: string; code?: string } }) => {
      if ('failed' in said) failed(Object.assign(new Error(said.failed.message), { code: said.failed.code }))
      else done(said.done)
    })
    thread.once('error', failed)
    thread.once('exit', (code) => code !== 0 && failed(new Error(`the work on the file ended with ${code}`)))
  })
}

/** Writes everything in a database to one new file, by SQLite's own means, while it is in use. */
export const copyDatabase = (file: string, to: string): Promise<void> => inThread({ work: 'copy', file, to })

/** Reads the whole of a database file. Throws what SQLite throws where it cannot even be opened. */
export const checkDatabase = (file: string): Promise<Looked> => inThread({ work: 'check', file })
