import { readFileSync } from 'node:fs'
import { request } from 'node:http'
import { request as secureRequest } from 'node:https'
import { join } from 'node:path'
import { logged, opening, openStage, type Stage } from '../../testing'

// All of 127.0.0.0/8 is this machine, but only 127.0.0.1 is served as such: 127.0.0.2 stands for the network.
let stage: Stage
beforeAll(async () => void (stage = await openStage({ host: '127.0.0.2', names: ['office.test'], demo: true })), 30_000)
afterAll(() => stage.close())

interface Reply {
  status: number
  headers: Record<string, string | string[] | undefined>
  text: string
}
/** A request from the network, with whatever headers. */
const knock = (method: string, path: string, headers: Record<string, string> = {}, body?: string): Promise<Reply> =>
  new Promise((done, failed) => {
    const { hostname, port } = new URL(stage.addresses()[0])
    const sent = request({ host: hostname, port, path, method, headers }, (answer) => {
      let text = ''
      answer.on('data', (chunk) => (text += chunk))
      answer.on('end', () => done({ status: answer.statusCode!, headers: answer.headers, text }))
    })
    sent.once('error', failed)
    sent.end(body)
  })
const code = async () => (await stage.call('PUT', '/api/pairing', {})).body.code as string
const pair = (with_: string, name = 'Van phone') =>
  knock('POST', '/pair', {}, new URLSearchParams({ code: with_, name }).toString())
const cookieOf = (reply: Reply) => (reply.headers['set-cookie'] as string[]).map((c) => c.split(';')[0]).join('; ')
const securityLog = () => readFileSync(join(stage.data, 'security.log'), 'utf8')

describe('from the network', () => {
  it.each(['localhost', '127.0.0.1', '127.0.0.2', 'office.test', 'evil.example'])(
    'nothing is served unpaired, called %s',
    async (host) => {
      const reads = await knock('GET', '/api/jobs', { host })
      const writes = await knock('PUT', '/api/jobs/demo-lodge/log', { host, 'content-type': 'application/json' }, '{}')
      expect(reads.status).toBe(['127.0.0.2', 'office.test'].includes(host) ? 401 : 421)
      expect(writes.status).toBe(reads.status)
      const page = await knock('GET', '/assets/index.js', { host })
      expect(page.status).toBe(reads.status)
      expect(page.text).not.toContain('function')
    },
  )

  it('a device is let in once by the code on the server’s screen, and shut out at once', async () => {
    const shown = await code()
    const paired = await pair(`${shown.slice(0, 4)} ${shown.slice(4).toLowerCase()}`)
    expect(paired.status).toBe(303)
    const [cookie] = paired.headers['set-cookie'] as string[]
    expect(cookie).toMatch(/httponly/i)
    expect(cookie).toMatch(/samesite=strict/i)
    expect((await pair(shown)).status).toBe(403)
    const mine = { cookie: cookieOf(paired) }
    expect((await knock('GET', '/api/jobs', mine)).status).toBe(200)
    expect((await knock('GET', '/api/jobs', { cookie: mine.cookie.replace(/.$/, '!') })).status).toBe(401)

    const write = { after: 0, entries: [logged({ do: 'note', text: 'seen' }, 'entry-by-phone')] }
    const headers = { ...mine, 'content-type': 'application/json' }
    expect((await knock('PUT', '/api/jobs/demo-lodge/log', headers, JSON.stringify(write))).status).toBe(200)
    const { entries } = (await stage.call('GET', '/api/jobs/demo-lodge/log')).body
    expect(entries.find((e: { id: string }) => e.id === 'entry-by-phone').device).toBe('Van phone')

    const foreign = await knock('PUT', '/api/jobs/demo-lodge/log', { ...headers, origin: 'http://evil.example' }, '{}')
    expect(foreign.status).toBe(403)
    expect((await knock('PUT', '/api/pairing', headers, '{}')).status).toBe(403)
    expect((await knock('GET', '/api/backups', mine)).status).toBe(403)

    const [device] = (await stage.call('GET', '/api/devices')).body
    expect(device.name).toBe('Van phone')
    expect((await stage.call('DELETE', `/api/devices/${device.id}`)).status).toBe(204)
    expect((await knock('GET', '/api/jobs', mine)).status).toBe(401)
    expect((await stage.call('GET', '/api/devices')).body).toEqual([])
  })

  it('a device that was shut out stays out when a backup from before is brought back', async () => {
    const paired = await pair(await code(), 'Lost phone')
    const mine = { cookie: cookieOf(paired) }
    await stage.call('PUT', '/api/backups/with-phone', {})
    const [device] = (await stage.call('GET', '/api/devices')).body
    await stage.call('DELETE', `/api/devices/${device.id}`)
    expect((await stage.call('PUT', '/api/backups/with-phone/restored', {})).status).toBe(200)
    expect((await knock('GET', '/api/jobs', mine)).status).toBe(401)
    expect((await stage.call('GET', '/api/devices')).body).toEqual([])
  })

  it('a code is no good after five mistakes, and nobody tries for ever', async () => {
    const shown = await code()
    for (let i = 0; i < 5; i++) expect((await pair('AAAAAAAA')).status).toBe(403)
    expect((await pair(shown)).status).toBe(403)
    let status = 403
    for (let i = 0; i < 10 && status !== 429; i++) ({ status } = await pair('AAAAAAAA'))
    expect(status).toBe(429)
  })

  it('what happened is noted, without a word of the jobs', async () => {
    await stage.record('job-secret-1', [opening('Secret Towers')])
    expect(securityLog()).toMatch(/"event":"stranger-refused"/)
    expect(securityLog()).toMatch(/"event":"paired"/)
    expect(securityLog()).not.toMatch(/Secret|Lodge|Van phone/)
  })
})

it('speaks over a key and certificate of one’s own, and says what is wrong with them', async () => {
  const pem = (name: string) => join(__dirname, '../../testing/tls', `${name}.pem`)
  const tls = { key: pem('key'), cert: pem('cert') }
  const own = await openStage({ host: '127.0.0.2', tls })
  const [address] = own.addresses()
  expect(address).toMatch(/^https:/)
  const page = await new Promise<string>((done, failed) =>
    secureRequest(address, { ca: readFileSync(tls.cert) }, (answer) => {
      let text = ''
      answer.on('data', (chunk) => (text += chunk))
      answer.on('end', () => done(text))
    })
      .once('error', failed)
      .end(),
  )
  expect(page).toContain('Pair this device')
  expect((await own.call('GET', '/api/server')).body.encrypted).toBe(true)
  await own.close()
  const wrong = (files: typeof tls) => openStage({ host: '127.0.0.2', tls: files })
  await expect(wrong({ key: pem('none'), cert: tls.cert })).rejects.toThrow(/cannot read the key .*none\.pem/)
  await expect(wrong({ key: tls.cert, cert: tls.cert })).rejects.toThrow('both must be PEM, and belong together')
})

it('is not open to the network at all unless that was asked for', async () => {
  const alone = await openStage()
  expect(alone.addresses()).toEqual([])
  expect((await alone.call('GET', '/api/server')).body).toMatchObject({ host: true, addresses: [] })
  await alone.close()
})
