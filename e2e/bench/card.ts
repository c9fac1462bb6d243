import type { Installation } from '@nobbet/core'
import { openStage, phone } from '../src/browser'
import { SiteEngineer } from '../src/engineer'
import { kernelIn } from './kernel'

/**
 * How long after an answer the next card of a hunt is painted, on the demo's five zones: where the engineer has been away for some
 * seconds, as for any look, and where the answer comes at once. Ratios are to so many multiply-adds in the same page.
 */
const job = 'demo-long-barn'
const away = [5000, 0] as const
const answersEach = 6

const stage = await openStage()
const page = await stage.open(`/jobs/${job}/hunt`, phone)
const read = await fetch(new URL(`/api/jobs/${job}`, stage.url))
const { wiring } = ((await read.json()) as { document: { wiring: Installation } }).document
const engineer = new SiteEngineer(page, wiring, ['zv-3.motor.open'])
await engineer.press('[data-says="heating-3 does-not-come-on"]')
await page.waitForSelector('.next-card[data-look]', { timeout: 60_000 })

const kernel = await kernelIn(page)

/** From the press of an answer to the frame in which another card stands, ms, as the page has it. */
await page.evaluate(() => {
  const times: number[] = []
  Object.assign(window, { cardTimes: times })
  let from: number | undefined
  let was: string | undefined
  document.addEventListener(
    'click',
    (event) => {
      const card = (event.target as Element).closest<HTMLElement>('.next-card[data-look]')
      if (!card || !(event.target as Element).closest('.answer')) return
      from = performance.now()
      was = document.querySelector('.finding-log ol')?.childElementCount.toString()
    },
    true,
  )
  new MutationObserver(() => {
    const here = document.querySelector('.next-card[data-look], .next-card.conclusion')
    if (from === undefined || !here) return
    if (document.querySelector('.finding-log ol')?.childElementCount.toString() === was) return
    const begun = from
    from = undefined
    requestAnimationFrame(() => setTimeout(() => times.push(performance.now() - begun)))
  }).observe(document.body, { subtree: true, childList: true, attributes: true })
})

console.log(`reference kernel: 65,536 multiply-adds: ${(kernel * 1000).toFixed(0)} µs`)
for (const ms of away) {
  await page.evaluate(() => void ((window as unknown as { cardTimes: number[] }).cardTimes.length = 0))
  for (let i = 0; i < answersEach; i++) {
    const { look } = await engineer.card()
    if (!look) break
    await new Promise((done) => setTimeout(done, ms))
    await engineer.answer(look)
  }
  await new Promise((done) => setTimeout(done, 500))
  const times = await page.evaluate(() => (window as unknown as { cardTimes: number[] }).cardTimes)
  const sorted = [...times].sort((x, y) => x - y)
  const middle = sorted[Math.floor(sorted.length / 2)] ?? NaN
  console.log(
    `hunt, five zones: answer to painted card, ${ms === 0 ? 'answered at once' : `${ms / 1000} s after the last`}: ` +
      `median ${middle.toFixed(0)} ms, worst ${(sorted.at(-1) ?? NaN).toFixed(0)} ms of ${times.length} (${(middle / kernel).toFixed(0)} × kernel)`,
  )
}
await stage.close()
