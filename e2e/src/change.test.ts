import type { Page } from 'puppeteer-core'
import { desk, openStage, phone, says, violations, type Stage } from './browser'

jest.setTimeout(360_000)
let stage: Stage
beforeAll(async () => {
  stage = await openStage()
})
afterAll(() => stage.close())

const press = (page: Page, words: string) => page.locator(`button ::-p-text(${words})`).click()
const isolated = async (page: Page) => {
  await page.waitForSelector('.move-card')
  await page.locator('.isolation .btn').click()
}
const count = (page: Page) => page.$eval('.steps-count', (e) => e.textContent.trim())
/** The move that is shown is done; so many are then. */
const done = async (page: Page, then: number) => {
  await page.waitForSelector('.move-card .step-done')
  // The button itself and not a place on the screen: what the checks say above it may still come, and move it meanwhile.
  await page.$eval('.move-card .step-done', (button) => (button as HTMLElement).click())
  await says(page, '.steps-count', `${then} of`)
}

describe('a change of controls', () => {
  it('is planned at the desk, ticked off on the phone, interrupted, resumed, recorded and checked', async () => {
    const page = await stage.open('/jobs/demo-larch-row/change', desk)
    await press(page, 'Smart receiver for programmer')
    await page.waitForSelector('.move-card')
    await says(page, '.change-facts', 'Conductors touched')
    await page.waitForFunction(() => document.querySelector('.change-facts')!.textContent.includes('No defect found'))
    expect(await violations(page)).toEqual([])
    await page.waitForSelector('.side-by-side tbody tr')

    const hand = await stage.beside(page, '/jobs/demo-larch-row/change', phone)
    await isolated(hand)
    await done(hand, 1)
    await done(hand, 2)
    expect(await violations(hand)).toEqual([])
    await hand.reload({ waitUntil: 'networkidle0' })
    await hand.waitForSelector('.move-card')
    expect(await count(hand)).toMatch(/^2 of/)
    const all = await hand.$$eval('.move-list li', (moves) => moves.length)
    for (let then = 3; then <= all; then++) await done(hand, then)
    await press(hand, 'Record the new wiring')
    await hand.waitForSelector('.change-done')
    await hand.waitForFunction(() => !document.querySelector('.saving'))
    await hand.close()

    await page.goto(new URL('/jobs/demo-larch-row/checks', stage.url).href, { waitUntil: 'networkidle0' })
    await says(page, '.verdict .says', 'No defect found')
    await page.goto(new URL('/jobs/demo-larch-row/change', stage.url).href, { waitUntil: 'networkidle0' })
    await says(page, '.change-done', 'Before: Smart receiver')
    await page.close()
  })

  it('begins from the job list for one who came for that, and says what to find first', async () => {
    const page = await stage.open('/jobs/demo-chapel-row', phone)
    await page.waitForSelector('.wish')
    await page.locator('.wish').click()
    await says(page, '.change-refused', 'find the ends of')
    await page.close()
  })
})
