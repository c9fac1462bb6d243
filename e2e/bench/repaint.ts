import { desk, openStage, phone } from '../src/browser'
import { kernelIn } from './kernel'

/**
 * How long after a control is pressed Trace is painted with what comes of it, on the demo's five zones with hot water; with every
 * zone calling and the time paused, so that nothing else is painted meanwhile. Ratios are to so many multiply-adds in the same page.
 */
const job = 'demo-long-barn'
const presses = 24

const stage = await openStage()
for (const [name, viewport] of [
  ['desk', desk],
  ['phone', phone],
] as const) {
  const page = await stage.open(`/jobs/${job}/trace?do=programmer.heating%3Don&do=wait%3D60s`, viewport)
  await page.waitForSelector('.run .knob button')
  const kernel = await kernelIn(page)
  const times: number[] = []
  for (let i = 0; i < presses; i++) {
    const controls = await page.$$('.run .knob button[aria-label*="thermostat turn"]')
    const control = controls[i % controls.length]
    // From the press to the frame behind the one in which it is on the screen.
    const took = await control.evaluate(
      (button) =>
        new Promise<number>((done) => {
          const from = performance.now()
          button.click()
          requestAnimationFrame(() => setTimeout(() => done(performance.now() - from)))
        }),
    )
    times.push(took)
  }
  const sorted = [...times].sort((x, y) => x - y)
  const middle = sorted[Math.floor(sorted.length / 2)] ?? NaN
  console.log(
    `trace, five zones, ${name}: control pressed to painted: median ${middle.toFixed(0)} ms, ` +
      `worst ${(sorted.at(-1) ?? NaN).toFixed(0)} ms of ${times.length} (${(middle / kernel).toFixed(0)} × kernel)`,
  )
  await page.close()
}
await stage.close()
