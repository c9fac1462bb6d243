import { openStage, desk, phone } from './browser'
const stage = await openStage()
const args = process.argv.slice(2) // triples: path name vp
for (let i = 0; i < args.length; i += 3) {
  const page = await stage.open(args[i], args[i + 2] === 'phone' ? phone : desk)
  page.on('console', (m) => console.log('console', m.text()))
  await new Promise((r) => setTimeout(r, 700))
  await page.screenshot({ path: `/tmp/${args[i + 1]}.png` })
  console.log(
    await page.evaluate(() => document.documentElement.scrollWidth + 'x' + document.documentElement.scrollHeight),
  )
}
await stage.close()
process.exit(0)
