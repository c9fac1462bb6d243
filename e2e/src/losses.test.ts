import type { JobState } from '@nobbet/contract'
import type { Page } from 'puppeteer-core'
import { openStage, pick, says as saysOn, type Stage } from './browser'

jest.setTimeout(360_000)

/** What was lost once, each by one person in one tab: none of it is any more. */
let stage: Stage
let page: Page
beforeAll(async () => void (stage = await openStage()), 60_000)
afterAll(() => stage.close())
afterEach(() => page.close())

const says = (selector: string, words: string) => saysOn(page, selector, words)
const stateOf = async (job: string): Promise<JobState> =>
  (await fetch(new URL(`/api/jobs/${job}`, stage.url))).json() as Promise<JobState>
const count = (selector: string) => page.$$eval(selector, (list) => list.length)
const isolate = async () => {
  await page.locator('.modal .btn ::-p-text(Acknowledge for this visit)').click()
  await page.waitForFunction(() => !document.querySelector('.modal'))
}
const go = async (station: string) => {
  await page.locator(`.journey a ::-p-text(${station})`).click()
}
/** What this browser keeps that is not sent. */
const unsent = () =>
  page.evaluate(
    () =>
      new Promise<number>((done, failed) => {
        const open = indexedDB.open('nobbet')
        open.onerror = () => failed(open.error ?? new Error('the store could not be opened'))
        open.onsuccess = () => {
          const all = open.result.transaction('pending').objectStore('pending').count()
          all.onsuccess = () => {
            open.result.close()
            done(all.result)
          }
        }
      }),
  )

describe('a zone that is renamed in the brief', () => {
  it('has its new name everywhere, and every recorded end and mark is still there', async () => {
    page = await stage.open('/jobs/demo-chapel-row/brief')
    const before = (await stateOf('demo-chapel-row')).document.wiring
    const marks = (wiring: typeof before) =>
      wiring.cables.flatMap((c) => c.cores.flatMap((k) => k.ends)).filter((e) => e.provenance === 'seen')
    expect(marks(before).length).toBeGreaterThan(2)
    await page.locator('[aria-label="Circuit 1 name"]').fill('Ground floor')
    await page.locator('.btn ::-p-text(Save the brief)').click()
    await says('main', 'The wiring has the new names')
    await says('.saving', 'Saved with the job')
    const { wiring, brief } = (await stateOf('demo-chapel-row')).document
    expect(brief.fitted.circuits[0].name).toBe('Ground floor')
    expect(wiring.devices.map((d) => d.name)).toContain('Ground floor thermostat')
    expect(marks(wiring)).toEqual(marks(before))
    expect(wiring.cables.map((c) => c.cores.map((k) => k.ends))).toEqual(
      before.cables.map((c) => c.cores.map((k) => k.ends)),
    )
    await page.locator('[aria-label="Undo"]').click()
    await page.waitForFunction(
      () => document.querySelector<HTMLInputElement>('[aria-label="Circuit 1 name"]')?.value === 'House',
    )
    await says('.job-log', 'Undo: Brief')
  })

  it('of another scheme is laid out beside what is recorded, shows what would go, and can be left alone', async () => {
    page = await stage.open('/jobs/demo-chapel-row/brief')
    await pick(page, 'scheme', 'mid-position')
    await page.locator('.btn ::-p-text(Save the brief)').click()
    await says('.new-plan', '3 ends that somebody has seen or tested would go')
    const { wiring } = (await stateOf('demo-chapel-row')).document
    await page.locator('.new-plan .btn ::-p-text(Save the brief only)').click()
    await says('main', 'Saved.')
    await says('.saving', 'Saved with the job')
    const after = await stateOf('demo-chapel-row')
    expect(after.document.wiring).toEqual(wiring)
    expect(after.document.brief.fitted.scheme).toBe('mid-position')
  })
})

describe('the server is away', () => {
  it('for ten seconds: what is said on Hunt’s card is kept, the page stays, and sends it by itself', async () => {
    page = await stage.open('/jobs/demo-quay-cottage/hunt')
    await page.waitForSelector('.first-words .thing')
    // The other views come once the first one stands.
    await new Promise((done) => setTimeout(done, 4000))
    await stage.stopServer()
    await page.locator('.first-words .thing').click()
    await page.waitForSelector('.finding-log ol > li')
    await new Promise((done) => setTimeout(done, 10_000))
    expect(await count('.finding-log ol > li')).toBe(1)
    expect(await page.$('.next-card')).not.toBeNull()
    await says('.condition', 'As the server had it')
    // Every other station can be gone to as well, though this page has not been there.
    await go('Bench')
    await page.waitForSelector('.bench-strips')
    await go('Week')
    await page.waitForSelector('.week-clocks')
    await go('Hunt')
    await page.waitForSelector('.finding-log ol > li')
    await stage.startServer()
    await page.waitForFunction(() => !document.querySelector('.condition'))
    expect((await stateOf('demo-quay-cottage')).hunt.lines).toHaveLength(1)
    expect(await unsent()).toBe(0)
  })

  it('and the tab is closed: a finding and a new job are still there in the next one, and arrive', async () => {
    page = await stage.open('/jobs/demo-fell-view/hunt')
    await page.waitForSelector('.first-words .thing')
    const next = await stage.beside(page, '/jobs/new')
    await page.bringToFront()
    await stage.stopServer()
    await page.locator('.first-words .thing').click()
    await page.waitForSelector('.finding-log ol > li')
    await page.close()
    page = next
    await page.bringToFront()
    await page.locator('#site').fill('Lost Valley Farm')
    await page.locator('::-p-aria([name="Make the job and lay out its wiring"][role="button"])').click()
    await page.waitForSelector('.next-card')
    const job = new URL(page.url()).pathname.split('/')[2]
    await page.locator('.topbar .wordmark').click()
    await says('.job-list', 'Lost Valley Farm')
    await says('.job-list', 'Kept in this browser, not sent yet')
    await stage.startServer()
    await page.waitForFunction(() => !document.querySelector('.unsent'))
    expect((await stateOf('demo-fell-view')).hunt.lines).toHaveLength(1)
    expect((await stateOf(job)).document.brief.site).toBe('Lost Valley Farm')
    expect(await unsent()).toBe(0)
  })
})

describe('answers that are none', () => {
  const interceptLog = async (answer: () => { status: number; body: string } | undefined) => {
    await page.setRequestInterception(true)
    page.on('request', (request) => {
      const said = request.url().includes('/log') && request.method() === 'PUT' ? answer() : undefined
      if (said) void request.respond({ ...said, contentType: 'application/json' })
      else void request.continue()
    })
  }

  it('of a server that is not well are tried again by themselves', async () => {
    page = await stage.open('/jobs/demo-lodge/hunt')
    await page.waitForSelector('.first-words .thing')
    let failures = 3
    await interceptLog(() =>
      failures-- > 0 ? { status: 503, body: '{"type":"about:blank","title":"Busy","status":503}' } : undefined,
    )
    await page.locator('.first-words .thing').click()
    await page.waitForSelector('.finding-log ol > li')
    await page.waitForFunction(() => !document.querySelector('.condition'))
    for (let i = 0; i < 60 && (await unsent()) > 0; i++) await new Promise((done) => setTimeout(done, 500))
    expect((await stateOf('demo-lodge')).hunt.lines).toHaveLength(1)
  })

  it('that nobody can read are given up with a clear message, and sent when somebody tries again', async () => {
    page = await stage.open('/jobs/demo-rectory/hunt')
    await page.waitForSelector('.first-words .thing')
    let nonsense = true
    await interceptLog(() =>
      nonsense ? { status: 200, body: '<html>Sign in to the guest network</html>' } : undefined,
    )
    await page.locator('.first-words .thing').click()
    await says('.condition.stopped', 'something this page cannot read')
    await says('.condition.stopped', 'kept in this browser')
    nonsense = false
    await page.locator('.condition .btn ::-p-text(Try again)').click()
    await page.waitForFunction(() => !document.querySelector('.condition'))
    for (let i = 0; i < 40 && (await unsent()) > 0; i++) await new Promise((done) => setTimeout(done, 250))
    expect((await stateOf('demo-rectory')).hunt.lines).toHaveLength(1)
  })
})

describe('leaving a workspace', () => {
  it('Trace is found again as it was left, from another station and from another day', async () => {
    page = await stage.open('/jobs/demo-larch-row/trace')
    await page.locator('::-p-aria([name="Programmer heating on"])').click()
    await page.locator('::-p-aria([name="House thermostat turn up"])').click()
    await page.locator('::-p-aria([name="Neutral and earth ways"])').click()
    // At once, while the address is still to follow and the other view is still to come.
    await go('Checks')
    await says('.verdict', 'No defect found')
    await go('Trace')
    await page.waitForFunction(() => location.search.includes('programmer.heating%3Don'))
    expect(await page.$eval('.runs-head input', (e) => e.checked)).toBe(true)
    // The station that one is on already takes nothing away.
    await go('Trace')
    await page.waitForFunction(() => location.search.includes('programmer.heating%3Don'))
    const next = await stage.beside(page, '/jobs/demo-larch-row/trace')
    await saysOn(next, '.runs', 'live arrives')
    await next.close()
  })

  it('Bench and Week side by side both keep what was done in them', async () => {
    page = await stage.open('/jobs/demo-abbot-rise/bench?at=boiler-cable.brown.1')
    const week = await stage.beside(page, '/jobs/demo-abbot-rise/week')
    await page.bringToFront()
    await page.locator('.picked-panel .btn ::-p-text(Loose)').click()
    await isolate()
    await week.bringToFront()
    await week.select('#knob-programmer-heating', 'once')
    // It says "saved" before the choice as well: what counts is that the server has it.
    for (let i = 0; i < 40; i++) {
      const { devices } = (await stateOf('demo-abbot-rise')).document.wiring
      if (devices.some(({ positions }) => positions)) break
      await new Promise((done) => setTimeout(done, 250))
    }
    await saysOn(week, '.week-clocks header', 'Saved with the job')
    const { wiring } = (await stateOf('demo-abbot-rise')).document
    const end = wiring.cables.find((c) => c.id === 'boiler-cable')!.cores.find((k) => k.id === 'brown')!.ends[1]
    expect(end.at).toBe('loose')
    expect(wiring.devices.find((d) => d.id === 'programmer')!.positions).toEqual({ heating: 'once' })
    await week.close()
  })
})

describe('a tab that is killed', () => {
  it('at any moment loses nothing that was on its screen', async () => {
    page = await stage.open('/jobs/demo-sail-loft/hunt')
    const job = 'demo-sail-loft'
    for (let life = 0; life < 12; life++) {
      const next = await stage.beside(page, `/jobs/${job}/brief`)
      await page.close()
      page = next
      await page.waitForSelector('.log-add')
      const before = await count('.job-log li')
      await page.type('[aria-label="Entry"]', `word ${life}`)
      await page.keyboard.press('Enter')
      if (life % 2 === 0) await says('.job-log', `word ${life}`)
      await new Promise((done) => setTimeout(done, life * 23))
      const shown = await page.$$eval('.job-log .what', (all) => all.map((e) => e.textContent))
      expect(shown.length).toBeGreaterThanOrEqual(Math.min(12, before))
      // The renderer goes without a word.
      const after = await stage.beside(page, `/jobs/${job}/brief`)
      await page.close({ runBeforeUnload: false })
      page = after
      await page.waitForFunction(
        (words) => words.every((word) => document.querySelector('.job-log')?.textContent?.includes(word)),
        {},
        shown.filter((w) => w !== null).slice(0, 8),
      )
    }
    await page.waitForFunction(() => !document.querySelector('.job-log .waiting'))
    const log = (await (await fetch(new URL(`/api/jobs/${job}/log`, stage.url))).json()) as {
      entries: { id: string }[]
    }
    expect(new Set(log.entries.map((e) => e.id)).size).toBe(log.entries.length)
  }, 720_000)
})
