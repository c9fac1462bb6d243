import type { Page } from 'puppeteer-core'
import { openStage, phone, pick, says as shows, type Stage } from './browser'

jest.setTimeout(360_000)

let stage: Stage
let page: Page

beforeAll(async () => void (stage = await openStage()), 60_000)
afterAll(() => stage.close())
afterEach(() => page.close())

const press = (name: string) => page.locator(`::-p-aria([name="${name}"])`).click()
const says = (selector: string, words: string) => shows(page, selector, words)
const textOf = (selector: string) => page.$eval(selector, (e) => (e as HTMLElement).innerText)
const row = (terminal: string) => `[data-terminal="${terminal}"]`
const trace = (job: string, ...actions: string[]) =>
  `/jobs/${job}/trace?${new URLSearchParams(actions.map((a) => ['do', a]))}`
const heatingOn = ['programmer.heating=on', 'stat-1.set=21', 'wait=30s']

describe('the wiring centre in trace', () => {
  it('shows volts in two columns, and marks what is not as it should be', async () => {
    page = await stage.open(trace('demo-larch-row', ...heatingOn))
    await says(row('wc.8'), '230 V')
    expect(await page.$$eval('.wc tr.wrong', (rows) => rows.length)).toBe(0)
    await page.close()
    page = await stage.open(trace('demo-larch-row', 'fault=stat-1-cable.black.open', ...heatingOn))
    await page.waitForSelector(`${row('wc.8')}.wrong`)
    const [now, should] = await page.$$eval(`${row('wc.8')} .wc-reads`, (cells) =>
      cells.map((c) => (c as HTMLElement).innerText),
    )
    expect(now).toContain('Dead')
    expect(should).toContain('230 V')
    expect(should).toContain('≠')
    // What is not concerned reads as it should.
    expect(await page.$eval(row('wc.1'), (e) => e.className)).not.toContain('wrong')
  })

  it('reads induced volts with a meter that a tester draws down', async () => {
    page = await stage.open(trace('demo-larch-row', 'programmer.heating=on', 'wait=1s'))
    await page.locator('.wc input[type=checkbox]').click()
    const volts = async () => parseFloat(/([\d.]+) V/.exec(await textOf(row('wc.9')))?.[1] ?? '0')
    await says(row('wc.9'), 'Floating')
    const tester = await volts()
    await press('Meter')
    await says('.wc thead', '10 MΩ')
    expect(await volts()).toBeGreaterThan(3 * tester)
  })
})

describe('the meter', () => {
  it('takes its leads by touch, keeps them over a reload, and reads what stands between them', async () => {
    page = await stage.open(trace('demo-larch-row', ...heatingOn))
    await page.locator('.meter-open').click()
    await says('.lead.red', 'touch a terminal')
    await page.locator(`${row('wc.8')} .terminal-number`).click()
    await says('.lead.black', 'touch a terminal')
    await page.select('[aria-label="Terminal for the black lead"]', 'zv-1.N')
    await says('.reading', '230 V')
    await page.reload()
    await says('.lead.red', 'Wiring centre 8')
    await says('.reading', '230 V')
    // A link opens paused, so that it shows what was seen.
    await press('House thermostat turn down')
    await press('Run')
    await page.waitForFunction(() => !document.querySelector('.reading')!.textContent.includes('230'))
  })

  it('refuses a dead test while the circuit is live, says why, and reads the winding once it is isolated', async () => {
    page = await stage.open(`${trace('demo-larch-row')}&meter=resistance,zv-1.M,zv-1.N`)
    await says('.reading', 'Refused')
    await says('.reading', 'This circuit is live from Fused spur')
    await press('Fused spur spur switch off')
    await page.waitForFunction(() => /[23]\.\d+ kΩ/.test(document.querySelector('.reading')!.textContent))
  })

  it('shows the holding supply of a mid-position valve as half-waves, and power at the spur', async () => {
    const both = ['programmer.heating=on', 'stat-1.set=25', 'programmer.hot-water=on', 'cyl-stat.set=75', 'wait=40s']
    page = await stage.open(`${trace('demo-fell-view', ...both)}&meter=meter,valve.G,valve.N`)
    await says('.reading', 'half-waves')
    await says('[data-run="valve.motor"]', 'held half way')
    await page.select('[aria-label="Instrument"]', 'power')
    await page.locator('.lead.red').click()
    await page.select('[aria-label="Terminal for the red lead"]', 'spur.L')
    await page.waitForFunction(() => /\d+\.\d W/.test(document.querySelector('.reading')!.textContent))
  })

  it('stays in reach on a phone while terminals are touched', async () => {
    page = await stage.open(trace('demo-mill-loft', 'stat-1.set=25', 'wait=30s'), phone)
    await page.locator('.trace-places [data-place="meter"]').click()
    await page.locator('[data-run="zv-1.motor"] .terminal-number').click()
    await page.select('[aria-label="Terminal for the black lead"]', 'transformer.C')
    await says('.reading', '28 V')
    const box = (await (await page.$('.reading'))!.boundingBox())!
    expect(box.y + box.height).toBeLessThanOrEqual(phone.height)
  })
})

describe('a blown fuse', () => {
  it('is told with its cause to be found; a new one holds only once the leak is gone', async () => {
    page = await stage.open(trace('demo-larch-row', 'fault=pump.terminals.leak', ...heatingOn))
    await says('.alarms', 'Fused spur fuse has blown')
    await page.locator('[data-gate="spur"] ::-p-text(Cause found: new fuse)').click()
    await press('10×')
    await press('Run')
    await says('.alarms', 'Fused spur fuse has blown')
  })
})

describe('many zones', () => {
  it('are read one at a time: a demand that is followed shows its own runs alone, and a link keeps that', async () => {
    page = await stage.open(trace('demo-long-barn', 'programmer.heating=on', 'stat-3.set=25', 'wait=40s'))
    const runs = () => page.$$eval('[data-run]', (list) => list.map((e) => e.getAttribute('data-run')))
    expect((await runs()).length).toBeGreaterThan(6)
    await page.locator('.demand-name ::-p-text(Lounge)').click()
    await page.waitForFunction(() => document.querySelectorAll('[data-run]').length === 3)
    expect(await runs()).toEqual(['zv-3.motor', 'boiler.call', 'pump.motor'])
    // Of the end switches in parallel only its own is left; the spur stands in the trunk.
    expect(await page.$$eval('[data-run="boiler.call"] [data-gate]', (g) => g.length)).toBe(1)
    expect(await page.$$eval('.trunk [data-gate]', (g) => g.map((e) => e.getAttribute('data-gate')))).toEqual(['spur'])
    await page.reload()
    await page.waitForFunction(() => document.querySelectorAll('[data-run]').length === 3)
  })

  it('wait for hot water under priority, and say so without alarm', async () => {
    const both = ['programmer.heating=on', 'stat-1.set=25', 'programmer.hot-water=on', 'cyl-stat.set=75', 'wait=40s']
    page = await stage.open(trace('demo-tarn-house', ...both))
    await says('[data-demand="heating-1"]', 'Hot water, which goes first')
    expect(await page.$eval('[data-demand="heating-1"]', (e) => e.className)).not.toContain('at-rest')
    await says('[data-demand="hot-water"]', 'Calling')
  })
})

describe('another scheme', () => {
  it('is chosen in the brief, planned, checked and traced', async () => {
    page = await stage.open('/jobs/new')
    await page.locator('#site').fill('5 Weir Bank, Tolmere')
    await page.locator('label[for="kind-new-system"]').click()
    await pick(page, 'scheme', 'mid-position')
    await page.locator('button[type=submit]').click()
    await page.waitForFunction(() => /\/jobs\/[^/]+\/(plan|trace|brief)/.test(location.pathname))
    const job = await page.evaluate(() => location.pathname.split('/')[2])
    await page.goto(new URL(`/jobs/${job}/plan`, stage.url).href, { waitUntil: 'networkidle0' })
    await says('.verdict', 'No defect found')
    await page.goto(new URL(`/jobs/${job}/trace`, stage.url).href, { waitUntil: 'networkidle0' })
    await says('[data-run="valve.motor"]', 'at B')
  })
})
