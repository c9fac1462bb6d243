import { fork } from 'node:child_process'
import { readFileSync, writeFileSync } from 'node:fs'
import { availableParallelism } from 'node:os'

/** Studies of many examples, one process an example at a time for each processor; and tables of what they found. */

/** Installations are forked by the thousand, and most do not last: with more room they are dead before anybody looks after them. */
const roomForTheYoung = '--max-semi-space-size=64'

/** In a process that was started for one example: studies it, sends what it found, and is true. */
export function answering<R>(study: (id: string) => R): boolean {
  const id = process.env.STUDY_OF
  if (id === undefined) return false
  process.send!(study(id))
  return true
}

async function inProcess<R>(script: string, id: string): Promise<R> {
  return new Promise((done, failed) => {
    const child = fork(script, [], {
      env: { ...process.env, STUDY_OF: id },
      execArgv: [...process.execArgv, roomForTheYoung],
    })
    child.once('message', (result) => done(result as R))
    child.once('exit', (code) => code && failed(new Error(`the study of ${id} ended with ${code}`)))
  })
}

/** Runs a script for every example, as many at once as there are processors; the results in the order of the examples. */
export async function spread<R>(script: string, ids: readonly string[], told: (result: R) => void): Promise<R[]> {
  const waiting = [...ids]
  const results = new Map<string, R>()
  await Promise.all(
    Array.from({ length: availableParallelism() }, async () => {
      for (let id = waiting.shift(); id; id = waiting.shift()) {
        const result = await inProcess<R>(script, id)
        results.set(id, result)
        told(result)
      }
    }),
  )
  return ids.map((id) => results.get(id)!)
}

export const percent = (part: number, of: number): string => (of === 0 ? '–' : `${((100 * part) / of).toFixed(1)} %`)
export const line = (cells: readonly (string | number)[]): string => `| ${cells.join(' | ')} |`
/** The first two lines of a table. */
export const table = (head: readonly string[]): string[] => [line(head), line(head.map(() => '---'))]

/** Writes a text into a file of the documentation, in place of what stood between this marker and the next heading of its rank. */
export function writeBehind(path: string, marker: string, text: string): void {
  const file = new URL(path, import.meta.url)
  const all = readFileSync(file, 'utf8')
  const at = all.indexOf(marker)
  const rest = all.slice(at)
  const next = rest.search(/\n## /)
  writeFileSync(file, `${all.slice(0, at)}${marker}\n\n${text}\n${next < 0 ? '' : rest.slice(next)}`)
}
