import { mkdtempSync, rmSync } from 'node:fs'
import { createServer, request } from 'node:http'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { ownValve, planBriefSchema, planSystem, schemeIds, withType } from '@nobbet/core'
import { start, type Running } from '.'

const data = mkdtempSync(join(tmpdir(), 'nobbet-api-'))
const options = { data, port: 0, host: '127.0.0.1', demo: true }
let server: Running

beforeAll(async () => (server = await start(options)), 30_000)
afterAll(async () => {
  await server.stop()
  rmSync(data, { recursive: true, force: true })
})

async function call(method: string, path: string, body?: unknown, headers: Record<string, string> = {}) {
  const response = await fetch(new URL(path, server.url), {
    method,
    headers: { ...(body !== undefined && { 'content-type': 'application/json' }), ...headers },
    body: body === undefined ? undefined : typeof body === 'string' ? body : JSON.stringify(body),
  })
  const text = await response.text()
  return {
    status: response.status,
    etag: response.headers.get('etag'),
    headers: response.headers,
    body: text ? JSON.parse(text) : undefined,
  }
}
const create = { 'if-none-match': '*' }

const fitted = planBriefSchema.parse({ scheme: 'two-port', circuits: [{ kind: 'heating', name: 'Flat' }] })
const job = (site: string) => ({
  status: 'open',
  brief: { site, kind: 'fault', symptom: 'cold', earlier: '', engineer: '', fitted },
})
const plan = (id: string) => planSystem(fitted, id, 'Flat')

describe('jobs', () => {
  it('come with the demo, one on every scheme, each with its wiring', async () => {
    const { body } = await call('GET', '/api/jobs')
    const jobs = body as { brief: { fitted: { scheme: string } }; hasDraft: boolean }[]
    expect(jobs.every((j) => j.hasDraft)).toBe(true)
    expect(new Set(jobs.map((j) => j.brief.fitted.scheme))).toEqual(new Set(schemeIds))
  })

  it('are made once, however often the same write arrives', async () => {
    const first = await call('PUT', '/api/jobs/job-idem-1', job('Mill House'), create)
    const again = await call('PUT', '/api/jobs/job-idem-1', job('Mill House'), create)
    expect([first.status, again.status]).toEqual([200, 200])
    expect(again.body).toEqual(first.body)
    expect(again.etag).toBe('"1"')
  })

  it('are changed only by someone who has read what is there', async () => {
    await call('PUT', '/api/jobs/job-match-1', job('A'), create)
    expect((await call('PUT', '/api/jobs/job-match-1', job('B'))).status).toBe(428)
    expect((await call('PUT', '/api/jobs/job-match-1', job('B'), { 'if-match': '"1"' })).etag).toBe('"2"')
    expect((await call('PUT', '/api/jobs/job-match-1', job('C'), { 'if-match': '"1"' })).status).toBe(412)
    expect((await call('PUT', '/api/jobs/job-match-1', job('B'), { 'if-match': '"1"' })).status).toBe(200)
    expect((await call('GET', '/api/jobs/job-match-1')).body).toMatchObject({ version: 2, brief: { site: 'B' } })
  })

  it('are refused by field and reason, and what is stored stays', async () => {
    await call('PUT', '/api/jobs/job-bad-1', job('Kept'), create)
    const bad = { ...job(' '), brief: { ...job(' ').brief, fitted: { ...fitted, circuits: [] } } }
    const { status, body, headers } = await call('PUT', '/api/jobs/job-bad-1', bad, { 'if-match': '"1"' })
    expect(status).toBe(422)
    expect(headers.get('content-type')).toContain('application/problem+json')
    expect(body.errors).toEqual(
      expect.arrayContaining([
        { field: 'brief.site', reason: 'the site is missing' },
        { field: 'brief.fitted.circuits', reason: 'a system needs at least one circuit' },
      ]),
    )
    expect((await call('GET', '/api/jobs/job-bad-1')).body.brief.site).toBe('Kept')
  })

  it('are refused where they say what nobody would read, instead of dropping it', async () => {
    const said = async (write: unknown) =>
      (await call('PUT', '/api/jobs/job-odd-1', write, create)).body.errors as { field: string; reason: string }[]
    const whole = job('Odd')
    const { brief } = whole
    expect(await said({ ...whole, brief: { ...brief, fitted: { ...fitted, solar: true } } })).toEqual([
      {
        field: 'brief.fitted',
        reason: expect.stringMatching(/^a brief of what is fitted cannot say "solar": it says scheme/),
      },
    ])
    expect(await said({ ...whole, brief: { ...brief, phone: '1' } })).toEqual([
      { field: 'brief', reason: 'nothing is known here of "phone"' },
    ])
    expect(await said({ ...whole, brief: { ...brief, fitted: { ...fitted, cylinder: 'unvented' } } })).toEqual([
      { field: 'brief.fitted.cylinder', reason: 'an unvented cylinder needs a hot water circuit' },
    ])
    expect((await call('GET', '/api/jobs/job-odd-1')).status).toBe(404)
  })
})

describe('a job with its wiring', () => {
  const path = '/api/jobs/job-both-1'
  const both = (site: string, over: number | null) => ({ ...job(site), draft: { installation: plan(site), over } })

  it('is written together, or not at all', async () => {
    expect((await call('PUT', path, both('Both', null), create)).status).toBe(200)
    expect((await call('PUT', path, both('Both', null), create)).status).toBe(200)
    expect((await call('GET', `${path}/draft`)).body).toMatchObject({ version: 1, installation: { id: 'Both' } })
    expect((await call('PUT', path, both('Other', 7), { 'if-match': '"1"' })).status).toBe(412)
    expect((await call('GET', path)).body).toMatchObject({ version: 1, brief: { site: 'Both' } })
    expect((await call('PUT', path, both('Other', 1), { 'if-match': '"1"' })).status).toBe(200)
    expect((await call('GET', `${path}/draft`)).body).toMatchObject({ version: 2, installation: { id: 'Other' } })
  })
})

describe('a draft and its revisions', () => {
  const path = '/api/jobs/job-draft-1'
  beforeAll(async () => void (await call('PUT', path, job('Draft'), create)))

  it('draft: none at first, then written, versioned, read back whole', async () => {
    expect((await call('GET', `${path}/draft`)).status).toBe(404)
    const installation = plan('job-draft-1')
    expect((await call('PUT', `${path}/draft`, { installation }, create)).etag).toBe('"1"')
    const { body, etag } = await call('GET', `${path}/draft`)
    expect([body.installation, etag]).toEqual([installation, '"1"'])
  })

  it('draft: refused where the wiring names what is not there', async () => {
    const installation = plan('job-draft-1')
    installation.cables[0].cores[0].ends[1] = { at: 'terminal', terminal: 'wc.99' }
    const { status, body } = await call('PUT', `${path}/draft`, { installation }, { 'if-match': '"1"' })
    expect(status).toBe(422)
    expect(body.errors[0]).toEqual({
      field: 'installation.cables.0.cores.0.ends.1.terminal',
      reason: 'there is no terminal "wc.99"',
    })
  })

  it('photo: pinned to a revision of the job, read back, taken down', async () => {
    await call('PUT', '/api/jobs/job-photo-1', job('Photo House'), create)
    await call('PUT', '/api/jobs/job-photo-1/revisions/rev-photo-1', {
      kind: 'as-found',
      name: 'Found',
      installation: plan('flat'),
    })
    const photo = { revision: 'rev-photo-1', caption: 'lid off', image: 'data:image/png;base64,iVBORw0KGgo=' }
    const pinned = await call('PUT', '/api/jobs/job-photo-1/photos/photo-1', photo)
    expect([pinned.status, pinned.body.caption]).toEqual([200, 'lid off'])
    const wrong = await call('PUT', '/api/jobs/job-photo-1/photos/photo-2', {
      ...photo,
      image: 'http://elsewhere/x.png',
    })
    expect([wrong.status, wrong.body.errors[0].field]).toEqual([422, 'image'])
    const astray = await call('PUT', '/api/jobs/job-photo-1/photos/photo-3', { ...photo, revision: 'rev-nowhere' })
    expect([astray.status, astray.body.errors[0].field]).toEqual([422, 'revision'])
    expect((await call('GET', '/api/jobs/job-photo-1/photos')).body).toHaveLength(1)
    await call('DELETE', '/api/jobs/job-photo-1/photos/photo-1')
    expect((await call('GET', '/api/jobs/job-photo-1/photos')).body).toEqual([])
  })

  it('revision: kept once, never changed', async () => {
    const revision = { kind: 'planned', name: 'As planned', installation: plan('job-draft-1') }
    expect((await call('PUT', `${path}/revisions/revision-1`, revision)).status).toBe(200)
    expect((await call('PUT', `${path}/revisions/revision-1`, revision)).status).toBe(200)
    expect((await call('PUT', `${path}/revisions/revision-1`, { ...revision, name: 'Other' })).status).toBe(409)
    expect((await call('GET', `${path}/revisions`)).body).toHaveLength(1)
  })
})

describe('findings', () => {
  const path = '/api/jobs/job-find-1/findings'
  const finding = {
    asking: ['programmer.heating', 'stat-1.contact'],
    observable: { kind: 'boiler', device: 'boiler' },
    result: 'not-called',
    note: '',
    at: '2026-11-24T09:00:00.000Z',
  }
  beforeAll(async () => void (await call('PUT', '/api/jobs/job-find-1', job('Find'), create)))

  it('are kept in the order in which they were made, taken back, and put again without doubling', async () => {
    for (const id of ['finding-b', 'finding-a', 'finding-b']) await call('PUT', `${path}/${id}`, finding)
    const ids = async () => (await call('GET', path)).body.map((f: { id: string }) => f.id)
    expect(await ids()).toEqual(['finding-b', 'finding-a'])
    expect((await call('DELETE', `${path}/finding-b`)).status).toBe(204)
    expect((await call('DELETE', `${path}/finding-b`)).status).toBe(204)
    expect(await ids()).toEqual(['finding-a'])
  })

  it('must be an answer to the look that was made', async () => {
    const { status, body } = await call('PUT', `${path}/finding-c`, { ...finding, result: 'open' })
    expect([status, body.errors[0].field]).toEqual([422, 'result'])
  })
})

describe('the border', () => {
  it.each<[string, () => ReturnType<typeof call>, number]>([
    ['not JSON', () => call('PUT', '/api/jobs/job-x-1', '{"brief":', create), 400],
    [
      'another media type',
      () => call('PUT', '/api/jobs/job-x-1', 'a=b', { ...create, 'content-type': 'text/plain' }),
      415,
    ],
    ['too large', () => call('PUT', '/api/jobs/job-x-1', { brief: 'x'.repeat(3_000_000) }, create), 413],
    ['an id that is none', () => call('PUT', '/api/jobs/..%2Fetc', job('X'), create), 422],
    ['an unknown job', () => call('GET', '/api/jobs/nobody-here'), 404],
    ['an unknown address', () => call('GET', '/api/castle'), 404],
  ])('%s is answered with problem details', async (_, send, status) => {
    const answer = await send()
    expect(answer.status).toBe(status)
    expect(answer.body).toMatchObject({ title: expect.any(String), status })
  })

  it('does not answer to another host name', async () => {
    const { port } = new URL(server.url)
    const status = await new Promise((done) =>
      request({ host: '127.0.0.1', port, path: '/api/jobs', headers: { host: 'evil.example' } }, (r) =>
        done(r.statusCode),
      ).end(),
    )
    expect(status).toBe(421)
  })

  it('describes every endpoint in OpenAPI and says that its data is whole', async () => {
    const { body } = await call('GET', '/api/openapi.json')
    expect(Object.keys(body.paths)).toContain('/api/jobs/{job}/findings/{finding}')
    expect(
      body.paths['/api/jobs/{job}'].put.requestBody.content['application/json'].schema.properties.brief,
    ).toBeDefined()
    expect((await call('GET', '/api/health')).body).toMatchObject({ status: 'ok', integrity: 'ok' })
  })
})

describe('starting', () => {
  it('keeps the data from run to run, and does not load the demo twice', async () => {
    const before = (await call('GET', '/api/jobs')).body
    await server.stop()
    server = await start(options)
    expect((await call('GET', '/api/jobs')).body).toEqual(before)
  })

  it('says in one line that the port is in use, or the folder cannot be written', async () => {
    const other = createServer().listen(0, '127.0.0.1')
    await new Promise((done) => other.once('listening', done))
    const { port } = other.address() as AddressInfo
    const elsewhere = join(data, 'elsewhere')
    await expect(start({ ...options, data: elsewhere, port })).rejects.toThrow(`port ${port} is in use`)
    await expect(start({ ...options, data: '/dev/null/data' })).rejects.toThrow('cannot write in the data folder')
    other.close()
  })
})

describe('device types of one’s own', () => {
  const type = (name: string) => ({ ...ownValve(), id: 'own-api-valve', name })
  const put = (definition: unknown, headers: Record<string, string> = create) =>
    call('PUT', '/api/types/own-api-valve', { definition }, headers)

  it('come with the demo, are made, changed over a version that was read, and taken out', async () => {
    const list = async () => ((await call('GET', '/api/types')).body as { id: string }[]).map((t) => t.id)
    expect(await list()).toEqual(['own-slow-valve'])
    const made = await put(type('Valve A'))
    expect([made.status, made.etag, made.body.definition.version]).toEqual([200, '"1"', 1])
    expect((await put(type('Valve B'))).status).toBe(412)
    const changed = await put(type('Valve B'), { 'if-match': '"1"' })
    expect([changed.etag, changed.body.definition.version, changed.body.definition.name]).toEqual(['"2"', 2, 'Valve B'])
    expect((await put({ ...type('Valve B'), version: 2 }, { 'if-match': '"1"' })).body.version).toBe(2)
    expect((await call('DELETE', '/api/types/own-api-valve')).status).toBe(204)
    expect(await list()).toEqual(['own-slow-valve'])
  })

  it('are refused with field and reason where something is missing or an id is taken', async () => {
    const broken = type('Broken')
    broken.primitives = broken.primitives.filter((p) => p.id !== 'travel')
    const { status, body } = await put(broken)
    expect(status).toBe(422)
    expect(body.errors).toContainEqual(
      expect.objectContaining({
        field: expect.stringMatching(/^definition\.primitives\./),
        reason: 'there is no actuator "travel"',
      }),
    )
    const shipped = await call('PUT', '/api/types/pump', { definition: { ...type('Pump'), id: 'pump' } }, create)
    expect(shipped.body.errors[0].reason).toBe('"pump" is the id of a type that ships')
    expect(await call('GET', '/api/types').then((r) => r.body.length)).toBe(1)
  })

  it('travel with the installations that hold them, which keep them', async () => {
    await call('PUT', '/api/jobs/job-own-type', job('Own'), create)
    const installation = withType(plan('job-own-type'), 'zv-1', ownValve())
    const written = await call('PUT', '/api/jobs/job-own-type/draft', { installation }, create)
    expect(written.status).toBe(200)
    await call('DELETE', '/api/types/own-slow-valve')
    const { body } = await call('GET', '/api/jobs/job-own-type/draft')
    expect(body.installation.types.find((t: { id: string }) => t.id === 'own-slow-valve').definition.name).toMatch(
      /Slow valve/,
    )
    const bare = { ...installation, types: installation.types.map(({ id, version }) => ({ id, version })) }
    const refused = await call('PUT', '/api/jobs/job-own-type/draft', { installation: bare }, { 'if-match': '"1"' })
    expect(refused.status).toBe(422)
  })
})
