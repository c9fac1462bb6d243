import { createServer, request } from 'node:http'
import type { AddressInfo } from 'node:net'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import { ownValve, schemeIds, withType } from '@nobbet/core'
import { isSoon, type Finding, type JobList } from '@nobbet/contract'
import { documentOf, logged, opening, openStage, type Stage } from '../../testing'
import { start } from '..'

let stage: Stage
beforeAll(async () => void (stage = await openStage({ demo: true })), 30_000)
afterAll(() => stage.close())

const call: Stage['call'] = (...args) => stage.call(...args)
const create = { 'if-none-match': '*' }

describe('the list of jobs', () => {
  it('comes with the demo, one on every scheme, each with its wiring', async () => {
    const { jobs } = (await call('GET', '/api/jobs')).body as JobList
    expect(new Set(jobs.map((j) => j.scheme))).toEqual(new Set(schemeIds))
    const { body } = await call('GET', `/api/jobs/${jobs[0].id}`)
    expect(body.document.wiring.cables.length).toBeGreaterThan(0)
  })

  it('has what is due at its head, then the job that was worked on last, and counts its findings', async () => {
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
    const { jobs } = (await call('GET', '/api/jobs')).body as JobList
    // Behind what is due soon.
    expect(jobs.find(({ due }) => !isSoon(due, new Date()))).toMatchObject({
      id: 'job-list-1',
      site: 'Mill House',
      findings: 1,
    })
  })

  it('comes by pages that leave nothing out and repeat nothing, and finds by site or symptom', async () => {
    const all = (await call('GET', '/api/jobs?most=200')).body as JobList
    const seen: string[] = []
    for (let after: string | undefined = ''; after !== undefined;) {
      const page: JobList = (await call('GET', `/api/jobs?most=4&after=${after}`)).body
      seen.push(...page.jobs.map((j) => j.id))
      after = page.next
    }
    expect(seen).toEqual(all.jobs.map((j) => j.id))
    expect(all.counts.open + all.counts.closed).toBe(all.jobs.length)
    const found = (await call('GET', '/api/jobs?find=RADIATORS%20stay')).body as JobList
    expect(found.jobs.map((j) => j.site)).toEqual(['Quay Cottage, Ennerdock'])
    const nonsense = await call('GET', '/api/jobs?after=1;drop')
    expect([nonsense.status, nonsense.body.errors[0].field]).toEqual([422, 'after'])
  })

  it('is not sent again to one who has it', async () => {
    const { etag } = await call('GET', '/api/jobs')
    expect(
      (await call('GET', '/api/jobs', undefined, { 'if-none-match': etag!, 'cache-control': 'max-age=0' })).status,
    ).toBe(304)
  })
})

describe('a deleted job', () => {
  const inBin = async () => ((await call('GET', '/api/jobs?status=deleted')).body as JobList).jobs.map((j) => j.id)

  it('is put into the bin only as it was seen, takes nothing in there, and comes back whole', async () => {
    const { number } = (await stage.record('job-gone-1', [opening('Gone House')])).body
    expect((await call('DELETE', '/api/jobs/job-gone-1')).status).toBe(428)
    expect((await call('DELETE', '/api/jobs/job-gone-1', undefined, { 'if-match': `"${number - 1}"` })).status).toBe(
      412,
    )
    expect((await call('DELETE', '/api/jobs/job-gone-1', undefined, { 'if-match': `"${number}"` })).status).toBe(204)
    expect(await inBin()).toEqual(['job-gone-1'])
    expect((await call('GET', '/api/jobs/job-gone-1')).status).toBe(410)
    const late = await stage.record('job-gone-1', [logged({ do: 'note', text: 'too late' })])
    expect([late.status, late.body.detail]).toEqual([410, expect.stringContaining('brought back')])
    expect((await call('PUT', '/api/jobs/job-gone-1/restored', {})).status).toBe(204)
    expect((await call('GET', '/api/jobs/job-gone-1')).body).toMatchObject({
      number,
      document: { brief: { site: 'Gone House' } },
    })
    expect(await inBin()).toEqual([])
  })

  it('is gone for good after thirty days, and none of its numbers comes again', async () => {
    let today = new Date('2026-11-01T08:00:00Z')
    const own = await openStage({ now: () => today })
    const { number } = (await own.record('job-old-1', [opening('Old House')])).body
    await own.call('DELETE', '/api/jobs/job-old-1', undefined, { 'if-match': `"${number}"` })
    today = new Date('2026-11-30T08:00:00Z')
    await own.restart()
    expect((await own.call('GET', '/api/jobs/job-old-1')).status).toBe(410)
    today = new Date('2026-12-02T08:00:00Z')
    await own.restart()
    await until(async () => (await own.call('GET', '/api/jobs/job-old-1')).status === 404)
    expect((await own.record('job-old-1', [opening('Old House')])).body.number).toBeGreaterThan(number)
    await own.close()
  })
})

const until = async (holds: () => Promise<boolean>) => {
  while (!(await holds())) await new Promise((done) => setTimeout(done, 20))
}
const deep = (levels: number) => {
  let condition: unknown = { sensor: 's' }
  for (let i = 0; i < levels; i++) condition = { not: condition }
  return { ...ownValve(), id: 'own-deep', primitives: [{ id: 'c', kind: 'contact', closedWhen: condition }] }
}
const called = (name: string) => {
  const document = documentOf('Mill')
  return logged({ do: 'open', ...document, wiring: { ...document.wiring, name } })
}
const faint = () => {
  const document = documentOf('Faint')
  return logged({ do: 'open', ...document, wiring: { ...document.wiring, supply: { volts: 1e-300, frequency: 50 } } })
}

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
    ['an address in capitals', () => call('GET', '/API/castle'), 404],
    ['a NUL in an address', () => call('GET', '/api/jobs/demo%00lodge'), 400],
    ['half a character', () => call('GET', '/api/jobs/%E0%A4%A'), 422],
    ['conditions 2,000 deep', () => call('PUT', '/api/types/own-deep', { definition: deep(2000) }, create), 422],
    [
      'very many fields',
      () => call('PUT', log, Object.fromEntries(Array.from({ length: 50_000 }, (_, i) => [i, 0]))),
      422,
    ],
    ['a line break in a name', () => stage.record('job-x-1', [called('Mill\n.control\nshell id')]), 422],
    ['a supply of next to nothing', () => call('PUT', log, { after: 0, entries: [faint()] }), 422],
    [
      'what is broken off',
      () => call('PUT', log, gzipSync('{"after":0}').subarray(0, 12), { 'content-encoding': 'gzip' }),
      400,
    ],
    ['a write of another page', () => call('PUT', log, { after: 0 }, { origin: 'http://evil.example' }), 403],
  ])('%s is answered with problem details', async (_, send, status) => {
    const answer = await send()
    expect(answer.status).toBe(status)
    expect(answer.body).toMatchObject({ title: expect.any(String), status })
    expect(answer.headers.get('x-content-type-options')).toBe('nosniff')
    for (const { field, reason } of answer.body.errors ?? [])
      expect([field.length > 0, reason.length > 0]).toEqual([true, true])
  })

  it('hangs up on one who sends too much', async () => {
    const answer = await call('PUT', log, { entries: 'x'.repeat(6_000_000) }).catch(() => undefined)
    // Told and hung up on; whether the telling is still read is the sender's affair.
    if (answer) expect([answer.status, answer.headers.get('connection')]).toEqual([413, 'close'])
    expect((await call('GET', '/api/health')).status).toBe(200)
  })

  it('tells a hundred of very many problems', async () => {
    const entries = Array.from({ length: 100 }, () => ({ id: 1, author: 2, visit: 3, at: 4, entry: 5 }))
    const { body } = await call('PUT', log, { after: 0, entries })
    expect(body.errors).toHaveLength(100)
    expect(body.errors[99].reason).toMatch(/^and \d+ more$/)
  })

  it('takes an address in capitals for the same', async () => {
    expect((await call('GET', '/API/Health')).body).toMatchObject({ status: 'ok' })
  })

  it('compresses what is large', async () => {
    const { headers } = await call('GET', '/api/jobs/demo-lodge', undefined, { 'accept-encoding': 'gzip' })
    expect(headers.get('content-encoding')).toBe('gzip')
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
    expect((await call('GET', '/api/health')).body).toMatchObject({ status: 'ok' })
    expect((await call('GET', '/api/data/check')).body).toMatchObject({ sound: true })
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
    await expect(start({ ...options, port: 0, host: 'nowhere.invalid' })).rejects.toThrow(
      'there is no "nowhere.invalid"',
    )
    await expect(start({ ...options, port: 0, host: '192.0.2.7' })).rejects.toThrow('no address of this machine')
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
    expect((await call('DELETE', '/api/types/own-api-valve')).status).toBe(428)
    const remove = (version: number) =>
      call('DELETE', '/api/types/own-api-valve', undefined, { 'if-match': `"${version}"` })
    expect([(await remove(1)).status, (await remove(2)).status, (await remove(2)).status]).toEqual([412, 204, 204])
    expect(await list()).toEqual(['own-slow-valve'])
    // Made anew it counts on: no version means two things.
    expect((await put(type('Valve C'))).etag).toBe('"3"')
    await remove(3)
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
    await call('DELETE', '/api/types/own-slow-valve', undefined, { 'if-match': '"1"' })
    const { body } = await call('GET', '/api/jobs/job-own-type')
    const own = body.document.wiring.types.find((t: { id: string }) => t.id === 'own-slow-valve')
    expect(own.definition.name).toMatch(/Slow valve/)
    const bare = { ...wiring, types: wiring.types.map(({ id, version }) => ({ id, version })) }
    const refused = await stage.record('job-own-bare', [logged({ do: 'open', ...document, wiring: bare })])
    expect(refused.status).toBe(422)
    expect((await call('GET', '/api/jobs/job-own-bare')).status).toBe(404)
  })
})
