import { request } from 'node:http'
import { brotliDecompressSync, gunzipSync } from 'node:zlib'
import fc from 'fast-check'
import { endpoints, firstWiring, problemSchema, type Entry, type LogEntry, type Operation } from '@nobbet/contract'
import { deviceTypes, examples, ownValve, planBriefSchema } from '@nobbet/core'
import { mutated } from '../../core/fuzz/mutations'
import { shaped } from '../../core/fuzz/zod-arbitrary'

/** No answer may take longer, ms. */
const longestMs = 1000

interface Sent {
  operation: Operation
  path: string
  headers: Record<string, string>
  body: Buffer | undefined
}

const jobs = ['demo-lodge', 'demo-larch-row', 'fuzz-job-1', 'fuzz-job-2']
const brief = {
  site: 'Fuzz House',
  kind: 'fault' as const,
  symptom: 'cold',
  earlier: '',
  engineer: 'A. Engineer',
  fitted: planBriefSchema.parse({ scheme: 'two-port', circuits: [{ kind: 'heating', name: 'Flat' }] }),
}
const entries: fc.Arbitrary<Entry> = fc.constantFrom<Entry>(
  { do: 'open', brief, status: 'open', wiring: firstWiring(brief, 'flat') },
  { do: 'open', brief, status: 'open', wiring: examples[0].installation },
  { do: 'edit', label: 'Site', changes: [{ do: 'set', path: ['brief', 'site'], was: 'Fuzz House', now: 'Fuzz Hall' }] },
  {
    do: 'edit',
    label: 'Cable',
    changes: [{ do: 'set', path: ['wiring', 'cables', 'supply', 'label'], was: 'Supply', now: 'Feed' }],
  },
  { do: 'keep', revision: 'fuzz-rev-1', kind: 'as-found', name: 'Found' },
  { do: 'note', text: 'cold' },
  { do: 'act', text: 'lid off' },
  { do: 'retract', finding: 'fuzz-find-1' },
  {
    do: 'observe',
    finding: {
      id: 'fuzz-find-1',
      asking: [],
      observable: { kind: 'boiler', device: 'boiler' },
      result: 'called',
      note: '',
      at: '2026-11-26T09:00:00.000Z',
    },
  },
)
const logged = fc.tuple(entries, fc.nat(1_000_000)).map(([entry, n]): LogEntry => ({
  id: `fuzz-entry-${n}`,
  author: 'A. Engineer',
  visit: 'fuzz-visit',
  at: '2026-11-26T09:00:00.000Z',
  entry,
}))

/** Bodies that are right, by what they are sent to; the others are made from the schema alone. */
const right: Partial<Record<Operation, fc.Arbitrary<unknown>>> = {
  writeLog: fc.array(logged, { minLength: 1, maxLength: 3 }).map((list) => ({ after: 0, entries: list })),
  writePhoto: fc.constant({
    revision: 'fuzz-rev-1',
    caption: 'lid off',
    image: 'data:image/png;base64,iVBORw0KGgo=',
  }),
  writeType: fc
    .constantFrom(ownValve(), ...deviceTypes.slice(0, 6).map((type) => ({ ...type, id: 'own-slow-valve' })))
    .map((definition) => ({ definition })),
}

/** Left out: they exchange or copy all data, which the backup's own tests do. */
const left: Operation[] = ['restoreBackup', 'makeBackup', 'takeBackup', 'readBackup', 'checkData']
const operations = (Object.keys(endpoints) as Operation[]).filter((o) => !left.includes(o))

const param: Record<string, fc.Arbitrary<string>> = {
  job: fc.constantFrom(...jobs),
  photo: fc.constantFrom('fuzz-photo-1', 'fuzz-photo-2'),
  type: fc.constantFrom('own-slow-valve', 'own-fuzz', 'pump'),
  device: fc.constantFrom('fuzz-device-1'),
}
const odd = fc.oneof(
  fc.constantFrom('..', '%00', '%', '%E0%A4%A', "'", 'a'.repeat(3000), '__proto__', 'ÄÖ', '%2e%2e%2f', '%20'),
  fc.string({ maxLength: 12 }).map(encodeURIComponent),
)
const seldom = <T>(usual: fc.Arbitrary<T>, unusual: fc.Arbitrary<T>) =>
  fc.oneof({ weight: 12, arbitrary: usual }, { weight: 1, arbitrary: unusual })

const headersOf = fc.record(
  {
    'if-match': fc.constantFrom('"1"', '"2"', 'W/"3"', '*', '""', '"999999999999999999999"', 'x'),
    'if-none-match': fc.constantFrom('*', '"1"'),
    range: fc.constantFrom('bytes=0-3', 'bytes=9-', 'bytes=-5', 'bytes=5-1', 'lines=1', 'bytes=0-1,3-4'),
    'content-type': fc.constantFrom('application/json', 'text/plain', 'application/json; charset=utf-16', ';;'),
    'content-encoding': fc.constantFrom('gzip', 'br', 'identity', 'nonsense'),
    cookie: fc.constantFrom('nobbet-device=x; nobbet-device.sig=y', ';;;==='),
    'accept-encoding': fc.constantFrom('gzip', 'br', '*;q=0', 'nonsense'),
    origin: fc.constantFrom('null', 'http://evil.example', '::'),
  },
  { requiredKeys: [] },
)

const bodyOf = (operation: Operation): fc.Arbitrary<Buffer | undefined> => {
  const endpoint = endpoints[operation]
  if (!('request' in endpoint)) return seldom(fc.constant(undefined), fc.constant(Buffer.from('{}')))
  const made = shaped(endpoint.request)
  const whole = right[operation] ?? made
  const values = fc.oneof(
    { weight: 3, arbitrary: whole },
    { weight: 6, arbitrary: mutated(whole) },
    { weight: 3, arbitrary: mutated(made) },
  )
  const json = values.map((value) => Buffer.from(JSON.stringify(value) ?? ''))
  const broken = fc.oneof(
    json.map((text) => text.subarray(0, text.length / 2)),
    fc.uint8Array({ maxLength: 60 }).map((bytes) => Buffer.from(bytes)),
    fc.constant(Buffer.from('['.repeat(100_000))),
    fc.constant(Buffer.alloc(2_200_000, '1')),
  )
  return seldom<Buffer>(json, broken)
}

const bodies = new Map(operations.map((operation) => [operation, bodyOf(operation)]))

export const requests: fc.Arbitrary<Sent> = fc.constantFrom(...operations).chain((operation) => {
  const { path } = endpoints[operation]
  const names = [...path.matchAll(/\{(\w+)\}/g)].map((m) => m[1])
  return fc
    .record({
      values: fc.tuple(...names.map((name) => seldom(param[name], odd))),
      query: seldom(
        fc.constant(''),
        fc
          .tuple(fc.constantFrom('after', 'most', 'find', 'status', 'x'), odd)
          .map(([key, value]) => `?${key}=${value}`),
      ),
      headers: seldom(fc.constant({}), headersOf),
      usual: fc.constantFrom<Record<string, string>>({}, { 'if-match': '"1"' }, { 'if-none-match': '*' }),
      body: bodies.get(operation)!,
    })
    .map(({ values, query, headers, usual, body }) => ({
      operation,
      path:
        names.reduce((at, name, i) => at.replace(`{${name}}`, values[i].replace(/[\s\u0080-\uffff]/g, '_')), path) +
        query,
      headers: { 'content-type': 'application/json', ...usual, ...headers },
      body,
    }))
})

interface Got {
  status: number
  type: string
  text: string
  ms: number
}

const unpacked = (bytes: Buffer, how: string | undefined): Buffer =>
  how === 'br' ? brotliDecompressSync(bytes) : how === 'gzip' ? gunzipSync(bytes) : bytes

function send(base: string, { operation, path, headers, body }: Sent): Promise<Got> {
  const { hostname, port } = new URL(base)
  const before = performance.now()
  return new Promise((done, failed) => {
    const method = endpoints[operation].method.toUpperCase()
    const sent = request(
      { hostname, port, path, method, agent: false, headers: { ...headers, 'content-length': body?.length ?? 0 } },
      (answer) => {
        const parts: Buffer[] = []
        answer.on('data', (part: Buffer) => parts.push(part))
        answer.on('end', () =>
          done({
            status: answer.statusCode!,
            type: answer.headers['content-type'] ?? '',
            text: unpacked(Buffer.concat(parts), answer.headers['content-encoding']).toString(),
            ms: performance.now() - before,
          }),
        )
      },
    )
    // Told 413 and hung up on while it was still sending: that is an answer too.
    sent.once('error', (error: NodeJS.ErrnoException) =>
      ['EPIPE', 'ECONNRESET'].includes(error.code ?? '') && (body?.length ?? 0) > 1e6
        ? done({ status: 413, type: '', text: '', ms: performance.now() - before })
        : failed(error),
    )
    sent.end(body)
  })
}

export interface Fuzzed {
  statuses: Record<number, number>
  slowestMs: number
}

/**
 * Sends so many requests to a server and throws, with the seed and the smallest request that does it, where one is answered by 500, or
 * late, or refused without field and reason, or has changed something though it was refused. `mark` tells two states of the data apart.
 */
export async function fuzzedRequests(
  base: string,
  mark: () => Promise<string>,
  runs: number,
  seed: number,
): Promise<Fuzzed> {
  const told: Fuzzed = { statuses: {}, slowestMs: 0 }
  let before = await mark()
  await fc.assert(
    fc.asyncProperty(requests, async (sent) => {
      const got = await send(base, sent)
      told.statuses[got.status] = (told.statuses[got.status] ?? 0) + 1
      told.slowestMs = Math.max(told.slowestMs, got.ms)
      if (got.status >= 500) throw new Error(`answered by ${got.status}: ${got.text}`)
      if (got.ms > longestMs) throw new Error(`took ${Math.round(got.ms)} ms`)
      const after = await mark()
      if (got.status < 400) before = after
      else if (after !== before) throw new Error(`refused by ${got.status}, and something has changed`)
      if (got.status < 400 || got.text === '' || !got.type.includes('json')) return
      const problem = problemSchema.parse(JSON.parse(got.text))
      if (got.status === 422 && !problem.errors?.length) throw new Error('refused without a field')
      for (const { field, reason } of problem.errors ?? [])
        if (reason === '' || (field === '' && !/^and \d+ more$/.test(reason)))
          throw new Error(`no field or reason: ${got.text}`)
    }),
    { numRuns: runs, seed, endOnFailure: true },
  )
  return told
}
