import type { Page } from 'puppeteer-core'

/** How long 65,536 multiply-adds take in a page, ms: what times on a screen are given as ratios of. */
export const kernelIn = (page: Page): Promise<number> =>
  page.evaluate(() => {
    const times = Array.from({ length: 25 }, () => {
      const from = performance.now()
      let sum = 0
      for (let i = 0; i < 65_536 * 16; i++) sum = sum * 1.000001 + i
      return [(performance.now() - from) / 16, sum][0]
    })
    return times.sort((x, y) => x - y)[12]
  })
