import type { Page } from 'puppeteer-core'
import { openStage, phone, says as shows, violations, type Stage } from './browser'

jest.setTimeout(360_000)

let stage: Stage
let page: Page
beforeAll(async () => void (stage = await openStage()), 60_000)
afterAll(() => stage.close())
afterEach(() => page.close())

const says = (selector: string, words: string) => shows(page, selector, words)
const press = (name: string) => page.locator(`::-p-aria([name="${name}"][role="button"])`).click()
const trace = (job: string, ...acts: string[]) =>
  `/jobs/${job}/trace?${new URLSearchParams(acts.map((act) => ['do', act]))}`
const demand = (id: string) => `[data-demand="${id}"]`
const wordOf = (id: string) => page.$eval(`${demand(id)} .demand-word`, (e) => (e as HTMLElement).innerText)

/** Goes on with the Tab key until what has the focus says this, and presses Enter. */
async function byKeyboard(words: string): Promise<void> {
  for (let n = 0; n < 150; n++) {
    await page.keyboard.press('Tab')
    const at = await page.evaluate(() => {
      const { ariaLabel, textContent } = document.activeElement as HTMLElement
      return `${ariaLabel ?? ''} ${textContent}`
    })
    if (at.includes(words)) return page.keyboard.press('Enter')
  }
  throw new Error(`the Tab key never came to “${words}”`)
}

describe('why', () => {
  it('follows a dead hot water call to its cause, by the keyboard alone', async () => {
    page = await stage.open(
      trace('demo-larch-row', 'fault=zv-hw-lead.orange.open', 'programmer.hot-water=on', 'cyl-stat.set=75', 'wait=60s'),
    )
    await says(demand('hot-water'), 'Held up')
    await byKeyboard('Why?')
    await says('.why-panel .wrong', 'orange of Hot water valve lead is open')
    await says('.what-would', 'what is marked ✕ has to be put right')
    await byKeyboard('orange of Hot water valve lead is open')
    await says('.terminal-panel', 'open')
    await page.keyboard.press('Escape')
    expect(await page.$('.terminal-panel')).toBeNull()
    expect(await violations(page)).toEqual([])
  })

  it('says what would have to change for the boiler to fire; done by the thumb, it fires', async () => {
    page = await stage.open(trace('demo-larch-row', 'wait=1s'), phone)
    await page.locator('.plant button ::-p-text(Boiler)').click()
    await says('.what-would', 'House thermostat: up to 23 °C')
    expect(await violations(page)).toEqual([])
    await page.locator('.what-would li:first-of-type button').click()
    await press('Run')
    await page.waitForFunction(() => document.querySelector<HTMLElement>('.plant')?.innerText.includes('firing'))
    await says('.why-panel h2', 'firing')
  })

  it('finds a core in the wrong terminal, put in from the list of what can be wrong', async () => {
    page = await stage.open(trace('demo-larch-row', 'programmer.heating=on', 'stat-1.set=25', 'wait=60s'))
    await press('Faults')
    await page.locator('[aria-label="Find a fault"]').fill('black of boiler cable in wiring centre 12')
    await says('.put-ins', 'House and Hot water do not come on')
    await page.locator('.fault-list button').click()
    await says(demand('heating-1'), 'Held up')
    await page.locator(`${demand('heating-1')} button ::-p-text(Why?)`).click()
    await says('.why-panel .wrong', 'black of Boiler cable is in Wiring centre 12')
    await says('.why-panel .wrong', 'planned in Wiring centre 11')
    // A link to it shows the same.
    await page.waitForFunction(() => location.search.includes('fault') && location.search.includes('at='))
    const address = await page.evaluate(() => location.href)
    await page.goto(address)
    await says('.why-panel .wrong', 'black of Boiler cable is in Wiring centre 12')
  })
})

describe('a day', () => {
  it('is played, looked back at, kept, shared, compared and opened again', async () => {
    const acts = [
      'programmer.heating=timed',
      'programmer.hot-water=timed',
      'stat-1.set=21',
      'clock=mon-05:00',
      'heat=semi/winter',
      'wait=24h',
    ]
    page = await stage.open(trace('demo-larch-row', ...acts))
    await page.locator('.last-event').click()
    await page.locator('::-p-aria([name="Signals"][role="tab"])').click()
    await page.waitForSelector('.signals .recharts-line')
    await says('.signals-tools', 'Boiler starts')
    // The moment at which the cylinder is satisfied: its thermostat lets go, and heating goes on.
    await page.locator('::-p-aria([name="List"][role="tab"])').click()
    await page.locator('.events button ::-p-text(Cylinder thermostat contact (on) lets go)').click()
    await says('.looking-back', 'Looking back at Mon')
    expect(await wordOf('hot-water')).toMatch(/Satisfied|Not asked/)
    await page.locator('.looking-back button').click()

    await press('Share')
    await page.locator('::-p-aria([name="Name of the scenario"])').fill('A winter Monday')
    await press('Keep')
    await says('.kept-scenarios', 'A winter Monday')
    await page.locator('.modal .btn-close').click()

    await press('Faults')
    await page.locator('[aria-label="Find a fault"]').fill('hot water valve motor open')
    await page.locator('.fault-list button').click()
    await press('Share')
    await page.locator('[data-scenario="A winter Monday"] a ::-p-text(Compare)').click()
    await page.waitForSelector('.compare .recharts-line')
    await says('.partings', 'Nowhere')
    expect(await violations(page)).toEqual([])
    await page.locator('.compare a ::-p-text(Back to Trace)').click()
    await page.waitForSelector('.runs')
    await press('Share')
    await page.locator('[data-scenario="A winter Monday"] ::-p-text(Open)').click()
    await says('.time-controls', 'Tue 05:00')
    await page.waitForFunction(() => !document.querySelector<HTMLElement>('.time-bar')?.innerText.includes('1 in'))

    // Kept with the job, it is there for the next one as well.
    const other = await stage.open('/jobs/demo-larch-row/trace')
    await other.locator('::-p-aria([name="Share"][role="button"])').click()
    await shows(other, '.kept-scenarios', 'A winter Monday')
    await other.close()
  })
})
