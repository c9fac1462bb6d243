import type { Page } from 'puppeteer-core'
import { desk, openStage, phone, says as saysOn, type Stage } from './browser'

jest.setTimeout(270_000)

let stage: Stage
let page: Page
const says = (selector: string, words: string) => saysOn(page, selector, words)
const open = async (path: string, viewport = desk) => {
  page = await stage.open(path, viewport)
  return page
}
beforeAll(async () => {
  stage = await openStage()
}, 60_000)
afterAll(() => stage.close())
afterEach(() => page.close())

const dos = (...actions: string[]) => new URLSearchParams(actions.map((a) => ['do', a])).toString()
const heatingOn = ['programmer.heating=on', 'stat-1.set=25', 'wait=40s']

describe('water beside the runs', () => {
  it('shows what is hot, what moves, and goes cold again as pipes do', async () => {
    await open(`/examples/two-port-heating-hot-water?${dos(...heatingOn)}`)
    await page.keyboard.press('w')
    await says('[data-way="radiators-heating-1.water"]', '1200 l/h')
    await says('[data-way="zv-1.outlet"]', 'Hot')
    await says('[data-way="zv-hw.outlet"]', 'shut')
    await says('[data-way="bypass.water"]', 'Cold')
    await page.close()
    await open(
      `/examples/two-port-heating-hot-water?${dos(...heatingOn, 'programmer.heating=off', 'wait=20min')}&side=water`,
    )
    await says('[data-way="radiators-heating-1.water"]', 'Warm')
    await says('[data-way="radiators-heating-1.water"]', 'no flow')
  })

  it('names a boiler without flow, which a hand resets', async () => {
    await open(
      `/examples/two-port-heating?${dos('fault=pump.motor.jammed', ...heatingOn, 'wait=60s', 'mend=pump.motor.jammed')}`,
    )
    await says('.alarms', 'Boiler has locked itself out')
    await page.locator('.alarms .btn ::-p-text(Reset it)').click()
    await page.waitForFunction(() => !document.querySelector('.alarms')?.textContent?.includes('locked itself out'))
    await page.locator('.time-controls .btn ::-p-text(Run)').click()
    await says('.plant', 'self-check')
  })

  it('lets temperatures go their own way, on a phone too', async () => {
    await open(`/examples/two-port-heating?${dos('programmer.heating=on', 'stat-1.set=25')}&side=water`, phone)
    await page.locator('.rest-open').click()
    await page.locator('.time-controls .btn[aria-label="Heat"], .time-controls .btn:has(.lucide-thermometer)').click()
    await page.select('#heat-house', 'flat')
    await page.select('#heat-weather', 'cold-snap')
    await page.locator('.modal .btn ::-p-text(Start)').click()
    await says('.clock', 'Mon 06:0')
    await page.waitForFunction(() => location.search.includes('flat%2Fcold-snap'))
    await says('[data-way="radiators-heating-1.water"]', '°C')
  })
})

describe('a week', () => {
  it('is edited, lived through anew, undone, and kept with the job', async () => {
    await open('/jobs/demo-larch-row/week')
    await says('.week-result', 'Nothing out of the ordinary')
    const fires = () => page.$eval('[data-strip="fires boiler"] .total', (e) => e.textContent)
    const before = await fires()
    await page.locator('.steps .btn ::-p-text(Add a step)').click()
    // A fifth step of Monday: from half past eleven at night on, and so on into Tuesday.
    await page.waitForFunction(() => document.querySelectorAll('.steps li').length === 5)
    await page.locator('.step-acts .btn ::-p-text(To every day)').click()
    await says('.week-clocks header', 'Saved with the job')
    await page.waitForFunction(
      (was) => document.querySelector('[data-strip="fires boiler"] .total')?.textContent !== was,
      {},
      before,
    )
    const changed = await fires()
    expect(Number.parseFloat(changed)).toBeGreaterThan(Number.parseFloat(before))
    await page.reload({ waitUntil: 'networkidle0' })
    await page.waitForFunction(() => document.querySelectorAll('.steps li').length === 5)
    await page.locator('.week-clocks .btn ::-p-text(Back to the week it came with)').click()
    await page.waitForFunction(() => document.querySelectorAll('.steps li').length === 4)
    await page.keyboard.down('Control')
    await page.keyboard.press('z')
    await page.keyboard.up('Control')
    await page.waitForFunction(() => document.querySelectorAll('.steps li').length === 5)
    await page.locator('.week-clocks .btn ::-p-text(Back to the week it came with)').click()
    await says('.week-clocks header', 'Saved with the job')
  })

  it('changed in two places at once is put together', async () => {
    const other = await stage.open('/jobs/demo-larch-row/week')
    await open('/jobs/demo-larch-row/week')
    const set = async (at: Page, value: string) => {
      await at.select('#knob-programmer-hot-water', value)
    }
    await set(other, 'off')
    await other.waitForFunction(() =>
      document.querySelector('.week-clocks')?.textContent?.includes('Saved with the job'),
    )
    await page.select('#knob-programmer-heating', 'once')
    await says('.week-clocks header', 'Saved with the job')
    await page.reload({ waitUntil: 'networkidle0' })
    const stands = await page.$$eval('.week-knobs select', (all) => all.map((s) => s.value))
    expect(stands).toEqual(['once', 'off'])
    await other.close()
  })

  it('says how far it is, and is stopped and taken up again', async () => {
    await open('/examples/fan-convector/week')
    await page.waitForSelector('.week-progress .btn')
    await page.locator('.week-progress .btn ::-p-text(Stop)').click()
    await says('.week-result', 'Stopped.')
    await page.locator('.week-result .btn ::-p-text(Work it out)').click()
    await says('.week-result', 'Nothing out of the ordinary')
  })

  it('leads from what went wrong to the moment in Trace', async () => {
    await open('/examples/gravity/week')
    await says('.week-notes', 'warms unasked')
    await page.locator('.week-notes a ::-p-text(See it in Trace)').click()
    await page.waitForSelector('.water')
    expect(await page.$eval('.clock', (e) => e.textContent)).toMatch(/^Mon|^Tue/)
  })
})
