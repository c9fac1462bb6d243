import { compile, hypothesesOf, type Installation } from '@nobbet/core'
import type { Page } from 'puppeteer-core'
import { desk, openStage, phone, says, violations, type Stage } from './browser'
import { SiteEngineer } from './engineer'

jest.setTimeout(720_000)

let stage: Stage
let page: Page
beforeAll(async () => {
  stage = await openStage()
})
afterAll(() => stage.close())
afterEach(async () => {
  if (!page?.isClosed()) await page.browserContext().close()
})

/** The wiring of a job, as the server has it. */
async function wiringOf(job: string): Promise<Installation> {
  const read = await fetch(new URL(`/api/jobs/${job}`, stage.url))
  return ((await read.json()) as { document: { wiring: Installation } }).document.wiring
}
const jobOf = (of: Page) => new URL(of.url()).pathname.split('/')[2]

/** From the list of jobs, the wiring assumed; gives how many presses it took to the first look. */
async function started(tiles: readonly string[], viewport: typeof desk = phone): Promise<SiteEngineer> {
  page = await stage.open('/', viewport)
  const presses = ['a[href="/jobs/start"]', ...tiles.map((name) => `[data-name="${name}"]`), '.start-foot button']
  for (const selector of presses) {
    const found = await page.waitForSelector(selector)
    await found!.evaluate((e) => (e as HTMLElement).click())
  }
  await page.waitForSelector('.next-card[data-look]')
  expect(presses.length).toBeLessThanOrEqual(10)
  return new SiteEngineer(page, await wiringOf(jobOf(page)))
}

/** On a job that is there, with what the customer says. */
async function called(job: string, demand: string, what: string, faults: readonly string[], viewport = desk) {
  page = await stage.open(`/jobs/${job}/hunt`, viewport)
  const engineer = new SiteEngineer(page, await wiringOf(job), faults)
  await engineer.press(`[data-says="${demand} ${what}"]`)
  await page.waitForSelector('.next-card[data-look]')
  return engineer
}

describe('a call', () => {
  it('on a phone, without the wiring: a mid-position valve whose full-travel switch never makes, mended, proved, put back', async () => {
    const engineer = await started(['of-heating', 'what-only-with-another', 'kind-mid-position'])
    engineer.rig.perform({ do: 'fault', fault: 'valve.s2.never-operates' })
    expect(await engineer.follow()).toBe('cured')
    expect(engineer.mended.at(-1)).toContain('valve.s2.never-operates')
    // One press an answer, one for what was put right.
    expect(engineer.presses).toBeLessThanOrEqual(engineer.looks + 2 * engineer.mended.length + 4)
    await says(page, '.put-back', 'To put back:')
    await engineer.close()
    await says(page, '.finding-sheet', 'the same demand was asked for again, and met')
    await page.reload()
    await says(page, '.finding-sheet', 'Remedy')
    await page.goto(new URL(`/jobs/${jobOf(page)}/brief`, stage.url).href, { waitUntil: 'networkidle0' })
    await says(page, 'main', 'Finding: Mid-position valve')
  })

  it('an end switch stuck made, at the desk: it never goes off', async () => {
    const engineer = await called('demo-larch-row', 'hot-water', 'never-goes-off', ['zv-hw.end-switch.stuck-made'])
    expect(await engineer.follow()).toBe('cured')
    expect(engineer.mended.at(-1)).toContain('zv-hw.end-switch.stuck-made')
    await engineer.close()
  })

  it('two relays that cannot both pull in', async () => {
    const wiring = await wiringOf('demo-quay-cottage')
    const worn = hypothesesOf(compile(wiring)).find(({ label }) => label.includes('cannot both pull in'))!
    const engineer = await called('demo-quay-cottage', 'heating-1', 'does-not-come-on', [worn.id], phone)
    expect(await engineer.follow()).toBe('cured')
    expect(engineer.mended.flat()).toContain(worn.id)
  })

  it('nothing wrong: it is told as that, and how it works', async () => {
    const engineer = await started(['of-heating', 'what-does-not-come-on', 'kind-two-port'])
    expect(await engineer.follow()).toBe('explained')
    await says(page, '.conclusion', 'Nothing to mend')
    // What it did by itself at some line of the log is told with it.
    await says(page, '.conclusion .reasons', 'Line')
    await engineer.close()
    await says(page, '.finding-sheet', 'it was explained')
  })

  it('two things wrong: the second is found when the remedy of the first has not cured', async () => {
    const faults = ['zv-1.motor.open', 'stat-1.contact.never-makes']
    const engineer = await called('demo-tarn-house', 'heating-1', 'does-not-come-on', faults)
    expect(await engineer.follow(60)).toBe('cured')
    expect(engineer.mended.flat()).toEqual(expect.arrayContaining(faults))
  })

  it('a fuse that blows again has its cause sought: it is never just put back', async () => {
    const engineer = await started(['of-heating', 'what-blows-the-fuse', 'kind-two-port'])
    engineer.rig.perform({ do: 'fault', fault: 'boiler.casing.leak' })
    engineer.rig.simulation.settle()
    expect(await engineer.follow()).toBe('cured')
    expect(engineer.mended.flat()).toContain('boiler.casing.leak')
    // The proof of it is the fuse, with the demand on, and that it warms.
    const log = await page.$eval('.finding-log', (e) => (e as HTMLElement).textContent)
    expect(log).toMatch(/the fuse: Whole[^]*does it warm: Warms/)
  })

  it('two conductors exchanged at a thermostat that somebody has just fitted', async () => {
    await started(['of-heating', 'what-comes-on-by-itself', 'kind-two-port', 'since-work', 'device-stat-1'])
    const wiring = await wiringOf(jobOf(page))
    const exchanged = hypothesesOf(compile(wiring)).find(({ id }) =>
      /^exchanged stat-1-cable\.\w+\.0 stat-1-cable\.\w+\.0/.test(id),
    )!
    const engineer = new SiteEngineer(page, wiring, [], exchanged)
    expect(await engineer.follow()).toBe('cured')
    expect(engineer.mended.flat()).toContain(exchanged.id)
  })

  it('a finding that was wrong is noticed against the rest, corrected later, and the truth is found', async () => {
    const engineer = await called('demo-abbot-rise', 'heating-1', 'does-not-come-on', [], phone)
    const truth = 'stat-1.contact.never-makes'
    engineer.rig.perform({ do: 'fault', fault: truth })
    // Noticed in three presses, and not so.
    const before = engineer.presses
    await engineer.press('.hunt-parts button:nth-child(2)')
    await engineer.press('[data-thing="programmer"]')
    await engineer.press('[data-look*="lamps"] [data-answer="dark"]')
    expect(engineer.presses - before).toBe(3)
    await page.waitForSelector('.next-card[data-look], .next-card.conclusion')
    for (let i = 0; i < 25 && !(await page.$('.doubtful')); i++) {
      const { look } = await engineer.card()
      if (!look) break
      await engineer.answer(look)
    }
    await says(page, '.doubtful', 'Line 2 does not go with the rest')
    await engineer.press('.hunt-parts button:nth-child(4)')
    await engineer.press('.doubtful-line .line-head')
    await engineer.press('.doubtful-line [data-answer="lit"]')
    await page.waitForFunction(() => !document.querySelector('.doubtful'))
    await engineer.press('.hunt-parts button:nth-child(1)')
    expect(await engineer.follow()).toBe('cured')
    expect(engineer.mended.flat()).toContain(truth)
  })
})

it('every state of the screen passes the accessibility rules by day, by night and in large text, and fits twice as large', async () => {
  const engineer = await started(['of-heating', 'what-does-not-come-on', 'kind-two-port'], desk)
  engineer.rig.perform({ do: 'fault', fault: 'zv-1.motor.open' })
  const looks = [{}, { 'nobbet.look': 'night' }, { 'nobbet.look': 'day', 'nobbet.large-text': 'on' }]
  const checked = async () => {
    for (const kept of looks) {
      await page.evaluate((of) => Object.entries(of).forEach(([k, v]) => localStorage.setItem(k, v)), kept)
      await page.reload()
      await page.waitForSelector('.suspects[aria-busy="false"]')
      await page.$$eval('.hunt details', (all) => all.forEach((fold) => (fold.open = true)))
      expect(await violations(page)).toEqual([])
    }
    // As a desk of 1280 x 800 is at 200 %.
    await page.setViewport({ width: 640, height: 400 })
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(640)
    await page.setViewport(desk)
    await page.evaluate(() => localStorage.removeItem('nobbet.large-text'))
  }
  await checked()
  const { origin, pathname } = new URL(page.url())
  const card = `${origin}${pathname}`
  await page.goto(`${card}?see=noticed&thing=wc`)
  await page.waitForSelector('.one-look')
  await page.$$eval('.hunt details', (all) => all.forEach((fold) => (fold.open = true)))
  await page.locator('.drawn-place').click()
  await page.locator('.one-look .answer[data-answer="otherwise"]').click()
  await says(page, '.finding-log', 'Otherwise at')
  await checked()
  await page.$$eval('.finding-log .line-head', (all) =>
    (all.find((e) => e.textContent.includes('Otherwise at')) as HTMLElement).click(),
  )
  await page.locator('.finding-log [aria-label^="Take back line"]').click()
  await page.waitForFunction(() => !document.querySelector('.finding-log')!.textContent.includes('Otherwise at'))
  await page.goto(card)
  await page.waitForSelector('.next-card')
  while (!(await page.$('.conclusion'))) {
    const { look } = await engineer.card()
    if (look) await engineer.answer(look)
  }
  await checked()
  expect(await engineer.follow()).toBe('cured')
  await engineer.close()
  await checked()
})
