import { openStage, phone, says, type Stage } from './browser'

let stage: Stage
beforeAll(async () => (stage = await openStage()), 60_000)
afterAll(() => stage.close())

describe('a new system', () => {
  it('goes into the wiring centre that was chosen, and is terminated step by step on the phone', async () => {
    const page = await stage.open('/jobs/new')
    await page.locator('#site').fill('3 Weir Court, Halden')
    await page.locator('label[for="kind-new-system"]').click()
    await says(page, 'label[for="centre-strip-10"]', 'Too small: it takes 11')
    await page.locator('label[for="centre-strip-12"]').click()
    await page.locator('button[type="submit"]').click()
    await page.waitForSelector('.schedule')
    const [, job] = /\/jobs\/([^/]+)\//.exec(page.url())!
    const numbers = await page.$$eval('.schedule .terminal-number', (all) => all.map((e) => e.textContent))
    expect(numbers).toHaveLength(12)
    await says(page, '.schedule', 'Heating ON')
    await page.close()

    const small = await stage.open(`/jobs/${job}/plan/steps`, phone)
    await small.locator('.isolation .btn').click()
    // The card moves up once the isolation step is acknowledged: what is pressed before that is another place.
    await small.waitForSelector('.isolation.acknowledged')
    await says(small, '.step-card', 'Link')
    for (let done = 1; done <= 4; done++) {
      await small.locator('.step-done').click()
      await says(small, '.steps-count', `${done} of`)
    }
    await says(small, '.step-card', 'Supply cable')
    // Nothing is wider than the phone, and the one button is within the thumb's reach.
    expect(await small.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
    const { height } = (await (await small.$('.step-done'))!.boundingBox())!
    expect(height).toBeGreaterThanOrEqual(60)
    await small.waitForFunction(() => !document.body.innerText.includes('Saving'))
    await small.reload({ waitUntil: 'networkidle0' })
    await says(small, '.steps-count', '4 of')
    await says(small, '.step-card', 'Supply cable')
  }, 90_000)

  it('goes into boxes in cascade, its cables as long as they are; a circuit more is one press', async () => {
    const page = await stage.open('/jobs/new')
    await page.locator('#site').fill('Fold House, Aldcombe')
    await page.locator('label[for="kind-new-system"]').click()
    for (const [n, zone] of [
      [3, 'Upstairs'],
      [4, 'Annexe'],
    ] as const) {
      await page.locator('.add-circuit button ::-p-text(Heating)').click()
      await page.locator(`[aria-label="Circuit ${n} name"]`).fill(zone)
    }
    await page.locator('label[for="centre-strips-12"]').click()
    await says(page, 'label[for="centre-strips-12"]', 'in 2 boxes')
    await page.locator('.in-wall summary').click()
    await page.locator('[data-cable="stat-3-cable"] summary').click()
    await page.locator('[aria-label="Annexe thermostat cable: length, m"]').fill('34')
    await says(page, '[data-cable="stat-3-cable"] summary', 'to be laid, 34 m')
    await says(page, '.outcome-sums', 'of 24 terminals in 2 boxes')
    await page.locator('button[type="submit"]').click()
    await says(page, '.verdict', 'No defect found in the wiring as planned')
    const captions = await page.$$eval('.schedule caption', (all) => all.map((e) => e.textContent))
    expect(captions.slice(0, 2)).toEqual(['Wiring centre: terminals', 'Second wiring centre: terminals'])
    // Every number is of one terminal, wherever it stands alone.
    const numbers = await page.$$eval('.schedule .terminal-number', (all) => all.map((e) => e.textContent))
    expect(numbers).toEqual(Array.from({ length: 24 }, (_, i) => String(i + 1)))
    const [, job] = /\/jobs\/([^/]+)\//.exec(page.url())!
    await page.goto(new URL(`/jobs/${job}/trace`, page.url()).href, { waitUntil: 'networkidle0' })
    await says(page, 'main', 'Second wiring centre')
    await page.close()
  }, 90_000)
})
