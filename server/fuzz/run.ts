/** `npm run fuzz -- --requests 50000 --seed 7`: what is made up is sent to a server of its own on the loopback, and to the readers. */
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { parseArgs } from 'node:util'
import { fuzzed, subjects } from '../../core/fuzz/documents'
import { start } from '../src'
import { markOf } from './mark'
import { fuzzedRequests } from './requests'

const { values } = parseArgs({
  options: {
    requests: { type: 'string', default: '5000' },
    documents: { type: 'string', default: '500' },
    seed: { type: 'string', default: String(Date.now() % 1e9) },
  },
})
const seed = Number(values.seed)
process.stdout.write(`seed ${seed}\n`)

const data = mkdtempSync(join(tmpdir(), 'nobbet-fuzz-'))
const server = await start({ data, port: 0, host: '127.0.0.1', demo: true })
try {
  const { statuses, slowestMs } = await fuzzedRequests(server.url, markOf(server), Number(values.requests), seed)
  const told = Object.entries(statuses).map(([status, n]) => `${status}: ${n}`)
  process.stdout.write(`requests ${values.requests}, slowest ${slowestMs.toFixed(0)} ms; ${told.join(', ')}\n`)
  for (const subject of subjects) {
    const { taken, refused, slowestMs: slowest } = fuzzed(subject, Number(values.documents), seed)
    process.stdout.write(`${subject.name}: ${taken} taken, ${refused} refused, slowest ${slowest.toFixed(0)} ms\n`)
  }
} finally {
  await server.stop()
  rmSync(data, { recursive: true, force: true })
}
