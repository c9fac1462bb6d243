import { openStage, phone } from './browser'
const stage = await openStage()
const page = await stage.open(process.argv[2], phone)
await new Promise((r) => setTimeout(r, 600))
console.log(
  JSON.stringify(
    await page.evaluate(() =>
      [...document.querySelectorAll('*')]
        .filter((e) => e.getBoundingClientRect().right > 391)
        .slice(0, 25)
        .map((e) => e.tagName + '.' + e.className + ' ' + Math.round(e.getBoundingClientRect().right)),
    ),
    null,
    0,
  ),
)
await stage.close()
process.exit(0)
