import { openStage, phone, violations, type Stage } from './browser'

jest.setTimeout(360_000)

let stage: Stage
beforeAll(async () => void (stage = await openStage()), 60_000)
afterAll(() => stage.close())

const dark = [{ name: 'prefers-color-scheme', value: 'dark' }]
const held = new URLSearchParams([
  ['do', 'fault=zv-1.motor.open'],
  ['do', 'programmer.heating=on'],
  ['do', 'stat-1.set=25'],
  ['do', 'wait=60s'],
  ['at', '?heating-1'],
  ['meter', 'tester,wc.1,wc.3'],
])
const screens = [
  '/',
  '/jobs/new',
  '/jobs/start',
  '/jobs/demo-larch-row/brief',
  '/jobs/demo-larch-row/plan',
  '/jobs/demo-larch-row/plan/steps',
  '/jobs/demo-larch-row/bench',
  '/jobs/demo-mill-loft/checks',
  `/jobs/demo-larch-row/trace?${held}`,
  '/jobs/demo-fell-view/trace?side=water&do=programmer.heating%3Don&do=wait%3D90s',
  '/jobs/demo-larch-row/trace/compare',
  '/jobs/demo-larch-row/week',
  '/jobs/demo-quay-cottage/hunt',
  '/kit',
  '/kit/two-port-valve',
  '/server',
]

describe('night', () => {
  it.each(screens)('is read as well as day: %s', async (path) => {
    const page = await stage.open('/server')
    await page.evaluate(() => localStorage.setItem('nobbet.look', 'night'))
    await page.goto(new URL(path, stage.url).href, { waitUntil: 'networkidle0' })
    await page.waitForSelector('main')
    await new Promise((done) => setTimeout(done, 600))
    expect(await violations(page)).toEqual([])
    await page.close()
  })

  it('comes by the system’s wish, is changed by hand for all of Nobbet in this browser, and is not printed', async () => {
    const page = await stage.open('/', phone)
    const look = () => page.evaluate(() => document.documentElement.dataset.look)
    const paper = () => page.evaluate(() => getComputedStyle(document.body).backgroundColor)
    const day = await paper()
    await page.emulateMediaFeatures(dark)
    await page.waitForFunction(() => document.documentElement.dataset.look === 'night')
    expect(await paper()).not.toBe(day)
    await page.locator('[aria-label="Day: light screen"]').click()
    expect([await look(), await paper()]).toEqual([undefined, day])
    await page.reload()
    // It listens to others only once it is up.
    await page.waitForSelector('main')
    expect(await look()).toBeUndefined()
    const other = await stage.beside(page, '/kit')
    await other.locator('[aria-label="Night: dark screen"]').click()
    await page.waitForFunction(() => document.documentElement.dataset.look === 'night')
    await other.close()
    const night = await paper()
    await page.emulateMediaType('print')
    expect(await paper()).not.toBe(night)
    await page.close()
  })
})
