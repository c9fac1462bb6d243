import type { Page } from 'puppeteer-core'
import { desk, openStage, phone, type Stage } from './browser'

jest.setTimeout(360_000)

/** How much of the window's height the runs have at least, by its size. */
const sizes = {
  desk: { viewport: desk, share: 0.75 },
  phone: { viewport: phone, share: 2 / 3 },
  'the desk at 200 %': { viewport: { width: 640, height: 400 }, share: 0.5 },
} as const

describe('Trace has its room', () => {
  let stage: Stage
  beforeAll(async () => void (stage = await openStage()))
  afterAll(() => stage.close())

  const box = (page: Page, selector: string) =>
    page.$eval(selector, (e) => {
      const { top, bottom, left, right, height } = e.getBoundingClientRect()
      return { top, bottom, left, right, height }
    })

  describe.each(Object.entries(sizes))('%s', (_, { viewport, share }) => {
    it.each(['demo-larch-row', 'demo-fell-view', 'demo-long-barn', 'demo-kiln-yard'])(
      '%s: nothing goes off the screen, and no two controls lie over each other',
      async (job) => {
        const page = await stage.open(`/jobs/${job}/trace`, viewport)
        await page.waitForSelector('.run')
        const runs = await box(page, '.runs')
        expect(runs.height / viewport.height).toBeGreaterThanOrEqual(share)
        const [wide, high] = await page.evaluate(() => {
          const { scrollWidth, scrollHeight } = document.documentElement
          return [scrollWidth, scrollHeight]
        })
        expect({ wide, high }).toEqual({ wide: viewport.width, high: viewport.height })
        const places = (await page.$eval('.trace-places', (e) => getComputedStyle(e).display)) !== 'none'
        const parts = await Promise.all(
          ['.demands', '.runs', ...(places ? ['.trace-places'] : []), '.time-bar'].map((one) => box(page, one)),
        )
        for (const one of parts)
          for (const other of parts)
            if (one !== other) {
              const apart =
                one.bottom <= other.top + 1 ||
                other.bottom <= one.top + 1 ||
                one.right <= other.left + 1 ||
                other.right <= one.left + 1
              expect(apart).toBe(true)
            }
        await page.close()
      },
    )

    it('of a demand that is held up, its name, its word and Why? stand in its box, not over each other', async () => {
      const acts = ['fault=zv-1.motor.open', 'programmer.heating=on', 'stat-1.set=25', 'wait=60s']
      const search = new URLSearchParams(acts.map((act) => ['do', act])).toString()
      const page = await stage.open(`/jobs/demo-long-barn/trace?${search}`, viewport)
      await page.waitForSelector('.demand.held-up .btn')
      const held = await box(page, '.demand.held-up')
      const [name, word, why] = await Promise.all(
        ['.demand-name', '.demand-word', '.btn'].map((part) => box(page, `.demand.held-up ${part}`)),
      )
      for (const part of [name, word, why]) {
        expect(part.top).toBeGreaterThanOrEqual(held.top - 1)
        expect(part.bottom).toBeLessThanOrEqual(held.bottom + 1)
      }
      expect(name.bottom).toBeLessThanOrEqual(word.top + 1)
      expect(word.right).toBeLessThanOrEqual(why.left + 1)
      expect(await page.$eval('.demand.held-up .demand-word', (e) => e.scrollWidth <= e.clientWidth)).toBe(true)
      await page.close()
    })
  })
})
