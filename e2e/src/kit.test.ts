import type { Page } from 'puppeteer-core'
import { openStage, phone, pick, says as shows, type Stage } from './browser'

jest.setTimeout(360_000)

let stage: Stage
let page: Page

beforeAll(async () => void (stage = await openStage()), 60_000)
afterAll(() => stage.close())
afterEach(() => page.close())

const says = (selector: string, words: string) => shows(page, selector, words)
const press = (name: string) => page.locator(`::-p-aria([name="${name}"])`).click()
const trace = (job: string, ...actions: string[]) =>
  `/jobs/${job}/trace?${new URLSearchParams(actions.map((a) => ['do', a]))}`

describe('Kit', () => {
  it('is found by words, tells how a type works, fails and is measured, and lets a fault be watched', async () => {
    page = await stage.open('/')
    await page.locator('.topbar ::-p-text(Kit)').click()
    await says('.kit-sheet', 'Complete systems')
    await page.locator('[aria-label="Find a device type"]').fill('mid-position')
    await page.waitForFunction(() => document.querySelectorAll('.shelves li').length === 1)
    await page.locator('.shelves li a').click()
    await says('h1', 'mid-position')
    expect(await page.$$eval('.contacts svg', (s) => s.length)).toBe(4)
    await says('.kit-sheet', 'about 2.27 kΩ')
    // Symptoms are worked out in the worker.
    await says('[data-fault="valve.s2.never-operates"]', 'Boiler not called')
    await page.locator('[data-fault="valve.s2.never-operates"] a').click()
    await page.waitForSelector('.trace')
    expect(new URL(page.url()).pathname).toBe('/examples/mid-position')
    await says('.time-bar', '1 in')
  })

  it('says so where there is no such type or example, and on a phone shows the type before the shelves', async () => {
    page = await stage.open('/kit/warp-drive')
    await says('.kit-sheet', 'No such device type')
    await page.goto(new URL('/examples/none', stage.url).href)
    await says('main', 'No example of that name')
    await page.setViewport(phone)
    await page.goto(new URL('/kit/two-port-valve', stage.url).href)
    await says('h1', 'Two-port valve')
    const [sheet, shelves] = await page.$$eval('.kit-sheet, .shelves', (all) =>
      ['kit-sheet', 'shelves'].map((c) => all.find((e) => e.classList.contains(c))!.getBoundingClientRect().top),
    )
    expect(sheet).toBeLessThan(shelves)
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
  })
})

describe('the bus monitor', () => {
  it('shows what is asked and answered, and where a link that is not answered stops', async () => {
    page = await stage.open(trace('demo-ferry-flat', 'wait=10s'))
    await says('.bus', 'no heat')
    await press('Flat receiver turn up')
    await press('Run')
    await says('.bus-sides', 'heating, flow 55')
    await says('.bus-sides', 'flame on')
    await page.close()
    page = await stage.open(
      trace('demo-ferry-flat', 'receiver.set=25', 'wait=60s', 'fault=bus-cable.red.open', 'wait=60s'),
    )
    await says('.bus-state', 'not joined')
    await says('.bus-sides', 'Nobody answers')
    await says('.demand', 'Held up')
    await page.locator('.bus .btn-link ::-p-text(Flat receiver)').click()
    await page.waitForSelector('[aria-label="Picked terminal"]')
  })
})

describe('the runs', () => {
  it('show neutral and earth ways on request, and which of them is lost', async () => {
    page = await stage.open(trace('demo-larch-row', 'fault=zv-1-lead.blue.open', 'wait=1s'))
    expect(await page.$('.return-line')).toBeNull()
    await page.locator('.runs-head input').click()
    await page.waitForSelector('[data-return="neutral zv-1.N"].wrong')
    await says('[data-return="neutral zv-1.N"]', 'is not joined to neutral')
    await page.waitForSelector('[data-return="earth zv-1.E"]:not(.wrong)')
    await page.waitForSelector('[data-return="neutral zv-hw.N"]:not(.wrong)')
  })

  it('lead from a conductor to its ends in the wiring centre, and back', async () => {
    page = await stage.open(trace('demo-larch-row', 'wait=1s'))
    await page.locator('[data-load="zv-1.motor"]').click()
    await page.locator('.conductors-here ::-p-text(brown)').click()
    await says('[aria-label="Picked conductor"]', 'House valve')
    await page.waitForSelector('.wc-conductor.picked')
    await page.locator('[aria-label="Picked conductor"] .btn-close').click()
    await page.locator('.wc-conductor ::-p-text(House thermostat SL)').click()
    await page.waitForSelector('[data-conductor="~stat-1-cable.black"].picked')
  })
})

describe('symptoms in Trace', () => {
  it('show a lever, a circuit that warms unasked, and what a fault put in and taken out changes', async () => {
    page = await stage.open(trace('demo-larch-row', 'programmer.hot-water=on', 'cyl-stat.set=75', 'wait=60s'))
    await says('.plant .warms', 'Hot water')
    await press('Faults')
    await page.locator('[aria-label="Find a fault"]').fill('house valve passes')
    await page.locator('.fault-list button').click()
    await says('.alarms', 'House warms unasked')
    await press('Undo')
    await page.waitForFunction(() => !document.querySelector('.alarms')?.textContent?.includes('warms unasked'))
    await press('House valve lever free')
    await press('House valve lever latched')
    await says('[data-run="zv-1.motor"] .feel', 'lever latched part open')
    await says('.alarms', 'House warms unasked')
  })
})

describe('a brief', () => {
  it('says at once which answers cannot be together, and takes the way out that is pressed', async () => {
    page = await stage.open('/jobs/new')
    // Of hot water there is one already.
    const kinds = await page.$$eval('.add-circuit button', (all) => all.map((x) => x.textContent))
    expect(kinds).toEqual(['Add: Heating', 'Add: Towel rails', 'Add: Underfloor room', 'Add: Zone for later'])
    await says('.outcome', 'No defect found')
    await pick(page, 'scheme', 'single-zone-bus')
    await says('.outcome', 'hot water: one circuit')
    await page.locator('.ways-out .btn ::-p-text(Leave out “Hot water”)').click()
    await page.waitForFunction(() => document.querySelectorAll('.circuit-row').length === 1)
    await says('.outcome', 'No defect found')
  })
})
