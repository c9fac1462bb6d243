import { logged, opening, openStage, type Stage } from '../../testing'

let stage: Stage
beforeAll(async () => {
  stage = await openStage({ photoMb: 0.001 })
  await stage.record('job-photo-1', [
    opening('Photo House'),
    logged({ do: 'keep', revision: 'rev-photo-1', kind: 'as-found', name: 'Found' }),
  ])
})
afterAll(() => stage.close())

const png = Buffer.concat([Buffer.from('89504e470d0a1a0a', 'hex'), Buffer.from('0123456789')])
const address = (bytes: Buffer, type = 'image/png') => `data:${type};base64,${bytes.toString('base64')}`
const photo = { revision: 'rev-photo-1', caption: 'lid off', image: address(png) }
const at = (rest: string) => `/api/jobs/job-photo-1/photos${rest}`
const get = (path: string, headers: Record<string, string> = {}) => fetch(new URL(path, stage.url()), { headers })

describe('photos', () => {
  it('are pinned to a revision of the job, listed without their bytes, taken down', async () => {
    const pinned = await stage.call('PUT', at('/photo-1'), photo)
    expect(pinned.body).toMatchObject({ caption: 'lid off', type: 'image/png', bytes: 18 })
    expect((await stage.call('PUT', at('/photo-1'), photo)).status).toBe(200)
    expect((await stage.call('PUT', at('/photo-1'), { ...photo, caption: 'lid on' })).status).toBe(409)
    expect((await stage.call('GET', at(''))).body).toEqual({ photos: [pinned.body], room: { used: 18, most: 1000 } })
    expect((await stage.call('DELETE', at('/photo-1'))).status).toBe(204)
    expect((await stage.call('GET', at(''))).body.photos).toEqual([])
    expect((await get(at('/photo-1/image'))).status).toBe(404)
  })

  it('are files of their own: whole, by ranges, and not again for one who has them', async () => {
    await stage.call('PUT', at('/photo-2'), {
      ...photo,
      thumbnail: address(Buffer.from([0xff, 0xd8, 1]), 'image/jpeg'),
    })
    const whole = await get(at('/photo-2/image'))
    expect([whole.headers.get('content-type'), Buffer.from(await whole.arrayBuffer()).equals(png)]).toEqual([
      'image/png',
      true,
    ])
    const part = await get(at('/photo-2/image'), { range: 'bytes=8-11' })
    expect([part.status, part.headers.get('content-range'), await part.text()]).toEqual([206, 'bytes 8-11/18', '0123'])
    expect((await get(at('/photo-2/image'), { range: 'bytes=90-' })).status).toBe(416)
    const known = { 'if-none-match': whole.headers.get('etag')!, 'cache-control': 'max-age=0' }
    expect((await get(at('/photo-2/image'), known)).status).toBe(304)
    const small = await get(at('/photo-2/thumbnail'))
    expect([small.headers.get('content-type'), (await small.arrayBuffer()).byteLength]).toEqual(['image/jpeg', 3])
  })

  it.each([
    ['an address elsewhere', { image: 'http://else.where/x' }, 422, 'image'],
    ['a revision that is not there', { revision: 'rev-nowhere' }, 422, 'revision'],
    ['something that is no picture', { image: address(Buffer.from('<svg onload=x>')) }, 422, 'image'],
    ['more than there is room for', { image: address(Buffer.concat([png, Buffer.alloc(990)])) }, 507, 'image'],
  ])('are refused: %s', async (_, change, status, field) => {
    const refused = await stage.call('PUT', at('/photo-3'), { ...photo, ...change })
    expect([refused.status, refused.body.errors[0].field]).toEqual([status, field])
  })
})
