import { createServer, request } from 'node:http'
import type { AddressInfo } from 'node:net'
import { join } from 'node:path'
import { ownValve, schemeIds, withType } from '@nobbet/core'
import type { Finding } from '@nobbet/contract'
import { documentOf, logged, opening, openStage, type Stage } from '../testing'
import { start } from '.'

let stage: Stage
beforeAll(async () => void (stage = await openStage({ demo: true })), 30_000)
afterAll(() => stage.close())

const call: Stage['call'] = (...args) => stage.call(...args)
const create = { 'if-none-match': '*' }

describe('the list of jobs', () => {
  it('comes with the demo, one on every scheme, each with its wiring', async () => {
    const jobs = (await call('GET', '/api/jobs')).body as { id: string; brief: { fitted: { scheme: string } } }[]
    expect(new Set(jobs.map((j) => j.brief.fitted.scheme))).toEqual(new Set(schemeIds))
    const { body } = await call('GET', `/api/jobs/${jobs[0].id}`)
    expect(body.document.wiring.cables.length).toBeGreaterThan(0)
  })

  it('has the job that was worked on last at its head, and counts its findings', async () => {
    await stage.record('job-list-1', [opening('Mill House')])
    await stage.record('job-list-2', [opening('Ford House')])
    const finding = {
      id: 'finding-list-1',
      asking: [],
      observable: { kind: 'boiler', device: 'boiler' },
      result: 'called',
      note: '',
      at: '2026-11-26T09:00:00.000Z',
    } satisfies Finding
    await stage.record('job-list-1', [logged({ do: 'observe', finding })])
    const [first] = (await call('GET', '/api/jobs')).body
    expect(first).toMatchObject({ id: 'job-list-1', brief: { site: 'Mill House' }, findings: 1 })
  })
})

describe('photos', () => {
  it('are pinned to a revision of the job, read back, taken down', async () => {
    await stage.record('job-photo-1', [
      opening('Photo House'),
      logged({ do: 'keep', revision: 'rev-photo-1', kind: 'as-found', name: 'Found' }),
    ])
    const photo = { revision: 'rev-photo-1', caption: 'lid off', image: 'data:image/png;base64,iVBORw0KGgo=' }
    const pinned = await call('PUT', '/api/jobs/job-photo-1/photos/photo-1', photo)
    expect([pinned.status, pinned.body.caption]).toEqual([200, 'lid off'])
    const wrong = await call('PUT', '/api/jobs/job-photo-1/photos/photo-2', { ...photo, image: 'http://else.where/x' })
    expect([wrong.status, wrong.body.errors[0].field]).toEqual([422, 'image'])
    const astray = await call('PUT', '/api/jobs/job-photo-1/photos/photo-3', { ...photo, revision: 'rev-nowhere' })
    expect([astray.status, astray.body.errors[0].field]).toEqual([422, 'revision'])
    expect((await call('GET', '/api/jobs/job-photo-1/photos')).body).toHaveLength(1)
    await call('DELETE', '/api/jobs/job-photo-1/photos/photo-1')
    expect((await call('GET', '/api/jobs/job-photo-1/photos')).body).toEqual([])
  })
})

describe('the border', () => {
  const log = '/api/jobs/job-x-1/log'
  it.each<[string, () => ReturnType<typeof call>, number]>([
    ['not JSON', () => call('PUT', log, '{"entries":'), 400],
    ['another media type', () => call('PUT', log, 'a=b', { 'content-type': 'text/plain' }), 415],
    ['too large', () => call('PUT', log, { entries: 'x'.repeat(3_000_000) }), 413],
    ['an id that is none', () => call('PUT', '/api/jobs/..%2Fetc/log', { after: 0, entries: [opening('X')] }), 422],
    ['an unknown job', () => call('GET', '/api/jobs/nobody-here'), 404],
    ['the log of an unknown job', () => call('GET', '/api/jobs/nobody-here/log'), 404],
    ['a number that is none', () => call('GET', '/api/jobs/demo-lodge/log?after=x'), 422],
    ['an unknown address', () => call('GET', '/api/castle'), 404],
  ])('%s is answered with problem details', async (_, send, status) => {
    const answer = await send()
    expect(answer.status).toBe(status)
    expect(answer.body).toMatchObject({ title: expect.any(String), status })
  })

  it('does not answer to another host name', async () => {
    const { port } = new URL(stage.url())
    const status = await new Promise((done) =>
      request({ host: '127.0.0.1', port, path: '/api/jobs', headers: { host: 'evil.example' } }, (r) =>
        done(r.statusCode),
      ).end(),
    )
    expect(status).toBe(421)
  })

  it('describes every endpoint in OpenAPI and says that its data is whole', async () => {
    const { body } = await call('GET', '/api/openapi.json')
    const { get, put } = body.paths['/api/jobs/{job}/log']
    expect(get.parameters.map((p: { name: string }) => p.name)).toEqual(['job', 'after'])
    expect(put.requestBody.content['application/json'].schema.properties.entries).toBeDefined()
    expect((await call('GET', '/api/health')).body).toMatchObject({ status: 'ok', integrity: 'ok' })
  })
})

describe('starting', () => {
  it('keeps the data from run to run, and does not load the demo twice', async () => {
    const before = (await call('GET', '/api/jobs')).body
    await stage.restart()
    expect((await call('GET', '/api/jobs')).body).toEqual(before)
  })

  it('says in one line that the port is in use, or the folder cannot be written', async () => {
    const other = createServer().listen(0, '127.0.0.1')
    await new Promise((done) => other.once('listening', done))
    const { port } = other.address() as AddressInfo
    const options = { data: join(stage.data, 'elsewhere'), port, host: '127.0.0.1' }
    await expect(start(options)).rejects.toThrow(`port ${port} is in use`)
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
    expect((await put(type('Valve B'), {})).status).toBe(428)
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
    const document = documentOf('Own')
    const wiring = withType(document.wiring, 'zv-1', ownValve())
    expect((await stage.record('job-own-type', [logged({ do: 'open', ...document, wiring })])).status).toBe(200)
    await call('DELETE', '/api/types/own-slow-valve')
    const { body } = await call('GET', '/api/jobs/job-own-type')
    const own = body.document.wiring.types.find((t: { id: string }) => t.id === 'own-slow-valve')
    expect(own.definition.name).toMatch(/Slow valve/)
    const bare = { ...wiring, types: wiring.types.map(({ id, version }) => ({ id, version })) }
    const refused = await stage.record('job-own-bare', [logged({ do: 'open', ...document, wiring: bare })])
    expect(refused.status).toBe(422)
    expect((await call('GET', '/api/jobs/job-own-bare')).status).toBe(404)
  })
})
