/**
 * Fifty clients on 5,000 jobs, one request in five a write: `npm run bench:server`. What is wanted: 300 answers a second, the slowest
 * hundredth within 500 ms, the server below 300 MB. The server is a process of its own, as the user runs it.
 */
import { spawn } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import autocannon from 'autocannon'
import { firstWiring, noRecord, type SiteRecord } from '@nobbet/contract'
import { planBriefSchema, schemeIds } from '@nobbet/core'
import Database from 'libsql'
import { start } from '../src'
import { databaseFile } from '../src/data/folder'

const jobs = Number(process.argv[2] ?? 5000)
const findingsEach = 4
const seconds = 20
const clients = 50
const root = resolve(import.meta.dirname, '../..')
const data = mkdtempSync(join(tmpdir(), 'nobbet-bench-'))

/** Jobs as their logs would have made them, put in at once: what is measured is the answering and not the filling. */
async function fill(): Promise<void> {
  await (await start({ data, port: 0, host: '127.0.0.1' })).stop()
  const database = new Database(databaseFile(data))
  database.exec('begin')
  const job = database.prepare(
    'insert into job (id, brief, status, version, created_at, updated_at, due) values (?, ?, ?, ?, ?, ?, ?)',
  )
  const record = database.prepare('insert into site_record values (?, ?)')
  const draft = database.prepare('insert into draft values (?, ?, ?, ?)')
  const entry = database.prepare(
    'insert into entry (number, id, job, author, visit, at, entry, received_at) values (?, ?, ?, ?, ?, ?, ?, ?)',
  )
  const finding = database.prepare(
    "insert into finding (id, job, asking, observable, result, note, at) values (?, ?, '[]', ?, 'called', '', 0)",
  )
  const briefs = schemeIds.flatMap((scheme) => {
    const fitted = planBriefSchema.safeParse({
      scheme,
      circuits: [
        { kind: 'heating', name: 'House' },
        { kind: 'hot-water', name: 'Hot water' },
      ],
    })
    if (!fitted.success) return []
    const brief = {
      site: 'House',
      kind: 'fault' as const,
      symptom: 'cold',
      earlier: '',
      engineer: 'A',
      fitted: fitted.data,
    }
    try {
      return [{ brief, wiring: firstWiring(brief, 'house') }]
    } catch {
      return []
    }
  })
  for (let i = 0; i < jobs; i++) {
    const { brief, wiring } = briefs[i % briefs.length]
    const named = JSON.stringify({ ...brief, site: `House ${i}, Bench Town` })
    const at = 1_760_000_000_000 + i
    const status = i % 10 === 0 ? 'open' : 'closed'
    const until = new Date(at + (i % 60) * 86_400_000).toISOString().slice(0, 10)
    const isDue = i % 20 === 0
    job.run(`bench-job-${i}`, named, status, i + 1, at, at, isDue ? until : null)
    record.run(`bench-job-${i}`, JSON.stringify(visited(i, isDue ? until : undefined)))
    draft.run(`bench-job-${i}`, JSON.stringify(wiring), i + 1, at)
    const opened = JSON.stringify({ do: 'open', brief, status, wiring })
    entry.run(i + 1, `bench-open-${i}`, `bench-job-${i}`, 'A', 'bench-visit', at, opened, at)
    for (let f = 0; f < findingsEach; f++)
      finding.run(`bench-finding-${i}-${f}`, `bench-job-${i}`, JSON.stringify({ kind: 'boiler', device: 'boiler' }))
  }
  database.exec('commit')
  database.close()
}

/** What an engineer writes down on a visit: words that are one job's alone, and words that many have. */
function visited(i: number, until: string | undefined): SiteRecord {
  const at = '2026-10-05T09:00:00.000Z'
  const id = `bench-visit-${i}`
  const stamp = { at, visit: id }
  const parts = ['valve head', 'cylinder thermostat', 'programmer', 'end switch', 'pump']
  const part = parts[i % parts.length]
  return {
    ...noRecord,
    visits: [{ id, who: 'A. Engineer', why: 'no heating', at, ended: at }],
    items: [
      {
        id: `bench-item-${i}`,
        kind: 'found',
        severity: 'fault',
        text: `The ${part} read ${i % 230} V at terminal ${i % 40} and was renewed`,
        evidence: [`${i % 230} V behind it, serial sn${i}`],
        ...stamp,
      },
    ],
    measures:
      until === undefined ? [] : [{ id: `bench-measure-${i}`, what: `Linked past the ${part}`, limits: '', until, at }],
  }
}

const memoryMb = (pid: number) => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))![1]) / 1024

await fill()
const before = performance.now()
const server = spawn(process.execPath, ['--import', 'tsx', 'server/src/main.ts'], {
  cwd: root,
  env: { ...process.env, NOBBET_DATA: data, NOBBET_PORT: '0' },
})
const url = await new Promise<string>((done) =>
  server.stdout.on('data', (said) => {
    const at = /Nobbet is at (\S+)/.exec(String(said))?.[1]
    if (at) done(at)
  }),
)
const startMs = performance.now() - before

/** One client, one question after the other: what each takes, ms. */
async function alone(path: () => string): Promise<{ median: number; most: number }> {
  const took: number[] = []
  for (let i = 0; i < 120; i++) {
    const from = performance.now()
    await (await fetch(new URL(path(), url))).arrayBuffer()
    // The first are the warming up.
    if (i >= 20) took.push(performance.now() - from)
  }
  took.sort((a, b) => a - b)
  return { median: took[took.length >> 1], most: took[took.length - 1] }
}
const some = () => Math.floor(Math.random() * jobs)
const asked = {
  'health, for comparison': () => '/api/health',
  'first page of open jobs': () => '/api/jobs?status=open',
  'first page of all jobs': () => '/api/jobs',
  'search for one job’s word': () => `/api/jobs?find=sn${some()}`,
  'search for words that a fifth has': () => '/api/jobs?find=cylinder%20thermostat',
  'what is due of all': () => '/api/dues',
  'opening a job': () => `/api/jobs/bench-job-${some()}`,
}
const singly: [string, { median: number; most: number }][] = []
for (const [what, path] of Object.entries(asked)) singly.push([what, await alone(path)])

let most = 0
const watching = setInterval(() => (most = Math.max(most, memoryMb(server.pid!))), 200)
let count = 0
const one = () => `bench-job-${Math.floor(Math.random() * jobs)}`
const get = (path: () => string) => ({
  setupRequest: (r: autocannon.Request) => ({ ...r, method: 'GET' as const, path: path() }),
})
const result = await autocannon({
  url,
  connections: clients,
  duration: seconds,
  headers: { 'accept-encoding': 'gzip' },
  requests: [
    get(() => '/api/jobs?status=open'),
    get(() => `/api/jobs/${one()}`),
    get(() => `/api/jobs?find=house%20${Math.floor(Math.random() * jobs)}`),
    get(() => `/api/jobs/${one()}/log?after=0`),
    {
      setupRequest: (r: autocannon.Request) => ({
        ...r,
        method: 'PUT' as const,
        path: `/api/jobs/${one()}/log`,
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({
          after: jobs * 1000,
          entries: [
            {
              id: `bench-note-${++count}`,
              author: 'A',
              visit: 'bench-visit',
              at: '2026-11-26T09:00:00.000Z',
              entry: { do: 'note', text: 'cold' },
            },
          ],
        }),
      }),
    },
  ],
})
clearInterval(watching)
server.kill('SIGTERM')
await new Promise((done) => server.once('exit', done))
rmSync(data, { recursive: true, force: true })

const { latency } = result
process.stdout.write(
  [
    `${jobs} jobs, ${jobs * findingsEach} findings: started in ${(startMs / 1000).toFixed(1)} s, every word of them put into the index`,
    ...singly.map(
      ([what, { median, most: slowest }]) =>
        `${what.padEnd(36)} median ${median.toFixed(1).padStart(6)} ms, slowest ${slowest.toFixed(1).padStart(6)} ms, ratio ${(median / singly[0][1].median).toFixed(1)}`,
    ),
    `${result.requests.average.toFixed(0)} answers a second from ${clients} clients over ${seconds} s (${count} writes)`,
    `median ${latency.p50} ms, slowest hundredth ${latency.p99} ms, slowest ${latency.max} ms`,
    `memory at most ${most.toFixed(0)} MB`,
    `other than 2xx: ${result.non2xx}, errors ${result.errors}, timeouts ${result.timeouts}`,
    '',
  ].join('\n'),
)
