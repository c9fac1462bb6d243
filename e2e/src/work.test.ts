import type { Page } from 'puppeteer-core'
import { openStage, phone, says as shows, type Stage, ofJob } from './browser'

jest.setTimeout(360_000)

let stage: Stage
let page: Page

beforeAll(async () => void (stage = await openStage()), 60_000)
afterAll(() => stage.close())
afterEach(() => page.close())

const says = (selector: string, words: string) => shows(page, selector, words)
const count = (selector: string) => page.$$eval(selector, (list) => list.length)

describe('at the box, on a phone', () => {
  it('the controls are worked by thumb where they stand, and a terminal says why it is dead', async () => {
    page = await stage.open('/jobs/demo-larch-row/trace', phone)
    await page.locator('.rest-open').click()
    await page.locator('::-p-aria([name="10×"])').click()
    await page.tap('[aria-label="Programmer hot water on"]')
    await page.tap('[aria-label="Cylinder thermostat turn up"]')
    await says('[data-load="boiler.call"]', 'firing')
    const small = await page.$$eval(
      '.run button',
      (buttons) =>
        buttons
          .filter((b) => b.className.includes('knob') || b.closest('.knob'))
          .filter((b) => b.getBoundingClientRect().height < 44).length,
    )
    expect(small).toBe(0)
    await page.locator('.trace-places ::-p-text(Box)').click()
    await page.locator('[data-terminal="wc.8"] button').click()
    await says('.terminal-panel', 'Programmer: heating is off')
  })
})

describe('at the desk, by keyboard', () => {
  it('space pauses, n goes to the next event, u undoes, shift-r begins again', async () => {
    page = await stage.open('/jobs/demo-larch-row/trace?do=programmer.heating%3Don&do=stat-1.set%3D21')
    const clock = () => page.$eval('.clock', (e) => parseFloat((e as HTMLElement).innerText))
    await page.keyboard.press('n')
    await page.keyboard.press('n')
    await says('[data-load="boiler.call"]', 'self-check')
    expect(await clock()).toBeCloseTo(12.8, 1)
    await page.keyboard.press('u')
    await says('[data-demand="heating-1"]', 'Satisfied')
    await page.keyboard.down('Shift')
    await page.keyboard.press('R')
    await page.keyboard.up('Shift')
    await says('[data-demand="heating-1"]', 'Not asked')
    expect(await clock()).toBe(0)
    await page.keyboard.press('Space')
    await says('.time-controls', 'Pause')
  })
})

describe('without a connection', () => {
  it('a finding that is logged waits, is told to be waiting, and arrives when the connection is back', async () => {
    page = await stage.open('/jobs/demo-larch-row/hunt')
    await page.waitForSelector('.first-words .thing')
    await page.setOfflineMode(true)
    await says('.offline', 'No connection')
    await page.locator('.first-words .thing').click()
    await page.waitForSelector('.finding-log ol > li')
    await says('.condition', 'As the server had it')
    await page.setOfflineMode(false)
    await page.waitForFunction(() => !document.querySelector('.condition'))
    await page.reload({ waitUntil: 'networkidle0' })
    await page.waitForSelector('.finding-log ol > li')
    expect(await count('.finding-log ol > li')).toBe(1)
  })
})

describe('a job over time', () => {
  it('keeps the plan as it was when what is fitted changes, and sets aside findings about what is gone', async () => {
    page = await stage.open('/jobs/demo-quay-cottage/hunt?see=noticed&thing=zv-hw')
    await page.locator('[data-look*="lever"] [data-answer="stiff"]').click()
    await says('.finding-log', 'Hot water valve: the lever: Stiff')

    await page.goto(new URL('/jobs/demo-quay-cottage/plan', stage.url).href, { waitUntil: 'networkidle0' })
    const before = await count('.schedule tbody tr')
    await page.locator('.btn ::-p-text(Keep as planned)').click()
    await says('.plan', 'Kept as planned')

    await page.goto(new URL('/jobs/demo-quay-cottage/brief', stage.url).href, { waitUntil: 'networkidle0' })
    await page.locator('[aria-label="Remove circuit 2"]').click()
    await page.locator('.btn ::-p-text(Save the brief)').click()
    await says('.new-plan', 'nothing has changed yet')
    await says('.new-plan', 'Hot water valve')
    await page.locator('.new-plan .btn ::-p-text(Lay it out anew)').click()
    await says('main', 'The wiring was laid out anew')
    await page.locator('a ::-p-text(See the plan)').click()
    const revisions = '.plan select[aria-label="Which state of the wiring"]'
    await page.waitForSelector(revisions)
    await page.waitForFunction((n) => document.querySelectorAll('.schedule tbody tr').length < n, {}, before)
    const kept = await page.$eval(revisions, (e) => [...e.options].at(-1)!.value)
    await page.select(revisions, kept)
    await page.waitForFunction((n) => document.querySelectorAll('.schedule tbody tr').length === n, {}, before)

    await page.goto(new URL('/jobs/demo-quay-cottage/hunt', stage.url).href, { waitUntil: 'networkidle0' })
    await says('.finding-log', 'Set aside: there is no device "zv-hw"')
  })

  it('is closed, drops out of the list, and is opened again where it was left', async () => {
    page = await stage.open('/jobs/demo-larch-row/trace')
    await page.waitForSelector('.runs')
    await page.goto(stage.url, { waitUntil: 'networkidle0' })
    const rows = await count('.job-list li')
    await ofJob(page, 'demo-larch-row', 'Close')
    await page.locator('.modal .btn ::-p-text(Close it)').click()
    await page.waitForFunction((n) => document.querySelectorAll('.job-list li').length === n - 1, {}, rows)
    await page.locator('.btn ::-p-text(Show 2 closed)').click()
    await ofJob(page, 'demo-larch-row', 'Open again')
    await page.waitForSelector('[data-job=demo-larch-row]:not(.closed) .btn-primary')
    await page.locator('[data-job=demo-larch-row] .btn-primary ::-p-text(Trace)').click()
    await page.waitForSelector('.runs')
  })

  it('prints its schedules with the isolation step and without the screen’s furniture', async () => {
    page = await stage.open('/jobs/demo-larch-row/plan')
    await page.waitForSelector('.says')
    const seen = (selector: string) => page.$eval(selector, (e) => e.getClientRects().length > 0)
    // On the screen it is with the steps.
    expect(await seen('section.isolation')).toBe(false)
    await page.emulateMediaType('print')
    expect(await seen('section.isolation')).toBe(true)
    expect(await seen('main h1')).toBe(true)
    for (const furniture of ['.topbar', '.journey', 'main .no-print']) expect(await seen(furniture)).toBe(false)
    expect((await page.pdf({ format: 'A4' })).byteLength).toBeGreaterThan(10_000)
  })
})
