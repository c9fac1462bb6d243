import { mkdirSync } from 'node:fs'
import { desk, openStage, phone } from './browser'
mkdirSync('/tmp/shots', { recursive: true })
const stage = await openStage()
const args = process.argv.slice(2)
for (let i = 0; i < args.length; i += 4) {
  const [name, vp, path, js] = args.slice(i, i + 4)
  const page = await stage.open(path, vp === 'phone' ? phone : desk)
  page.on('pageerror', (e) => console.log('PAGEERROR', String(e)))
  await page.waitForSelector('h1, h2')
  await new Promise((d) => setTimeout(d, 500))
  if (js && js !== '-') {
    await page.evaluate(js)
    await new Promise((d) => setTimeout(d, 1200))
  }
  await page.screenshot({ path: `/tmp/shots/${name}.png` })
  await page.close()
}
await stage.close()
