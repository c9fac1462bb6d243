import { join } from 'node:path'
import type { Page } from 'puppeteer-core'
import { desk, eventually, openStage, phone } from './browser'

/** Takes the pictures the README shows, from the demo data. Run after `npm run build`. */
const folder = join(import.meta.dirname, '../../docs/screenshots')
const only = process.argv[2]

const on = (job: string, ...actions: string[]) =>
  `/jobs/${job}/trace?${new URLSearchParams(actions.map((a) => ['do', a]))}`
const trace = (...actions: string[]) => on('demo-larch-row', ...actions)
const lived = [
  'programmer.heating=timed',
  'programmer.hot-water=timed',
  'stat-1.set=20',
  'stat-2.set=20',
  'clock=mon-05:30',
  'heat=semi/winter',
]
const travelling = trace('programmer.heating=on', 'stat-1.set=21', 'wait=8s')

/** Enters what leads to the demo's fault; what is asked second, and is answered so, hangs on the job. */
const hunted = (answer: string) => async (page: Page) => {
  const press = async (selector: string) => {
    const asked = () => page.evaluate(() => document.querySelector<HTMLElement>('.next-card')?.dataset.look)
    const found = await page.waitForSelector(selector)
    const before = await asked()
    await found!.evaluate((e) => (e as HTMLElement).click())
    await eventually(async () => {
      const now = await asked()
      if (now === undefined || now === before) throw new Error('the next look is not asked for yet')
    })
    await page.waitForSelector('.suspects[aria-busy="false"]')
  }
  await press('[data-says="heating-1 does-not-come-on"]')
  await press('.next-card [data-answer="idle"]')
  await press(`.next-card ${answer}`)
}

/** On the second visit, with a core lifted. */
async function visiting(page: Page): Promise<void> {
  await page.locator('.visit-chip').click()
  await page.locator('.isolation .btn').click()
  await page.locator('[aria-label="Why"]').fill('New thermostat')
  await page.locator('[aria-label="What was disturbed"]').fill('Cover off: wiring centre')
  await page.locator('.add-disturbed [type=submit]').click()
  await page.waitForSelector('.left-open li')
}

/** Other controls are chosen, and what moves for them is worked out. */
async function changing(page: Page): Promise<void> {
  await page.waitForSelector('.wish, .change-head')
  if (await page.$('.wish')) await page.locator('.wish').click()
  await page.waitForSelector('.move-card')
  await page.waitForFunction(() => document.querySelector('.change-facts')!.textContent.includes('No defect'))
}

/** A box is written down but for its last cable, and both valves' leads are followed. */
async function surveyed(page: Page): Promise<void> {
  await page.locator('.survey-begin .btn').click()
  const asked = (text: string) =>
    page.waitForFunction((t) => document.querySelector('.write-ask')!.textContent.includes(t), {}, text)
  const line = async (text: string) => {
    await page.type('#survey-line', text)
    await page.keyboard.press('Enter')
  }
  const box: [string, string[]][] = [
    ['3', ['1', '2', '3']],
    ['5', ['1', '2', '3', '4', '5']],
    ['5', ['4', '2', '3', '6', 'x']],
    ['lead', ['6', '2', '3', '1', '7']],
    ['lead', ['8', '2', '3', '1', '7']],
    ['5', ['1', '2', '3', '7', 'x']],
    ['5', ['5', 'x', '3', '8', 'x']],
  ]
  for (const [cable, terminals] of box) {
    if (cable === 'lead') await page.locator('button ::-p-text(Lead: Two-port valve)').click()
    else await line(cable)
    await asked('sits in')
    for (const terminal of terminals) await line(terminal)
    await asked('A cable, or a link')
  }
  await page.locator('#survey-complete').click()
  for (const valve of ['House valve', 'Hot water valve']) {
    // What has just been written down may still choose another look.
    await page.waitForFunction(() => !document.querySelector('main')!.innerText.includes('working it out'))
    const card = await page.waitForSelector('.survey-next[data-look]')
    const look = await card!.evaluate((e) => (e as HTMLElement).dataset.look!)
    await page.locator(`.survey-next button ::-p-text(${valve})`).click()
    await page.waitForFunction(
      (before) => document.querySelector<HTMLElement>('.survey-next[data-look]')?.dataset.look !== before,
      {},
      look,
    )
  }
  await page.evaluate(() => scrollTo(0, 0))
}

/** A run is under way, and a step of it is not as expected. */
async function commissioned(page: Page): Promise<void> {
  await page.locator('.run-begin .btn-primary').click()
  for (let pressed = 0; pressed < 4; pressed++) {
    const was = await (await page.waitForSelector('.run-step[data-row]'))!.evaluate(
      (e) => (e as HTMLElement).dataset.row,
    )
    await page.locator('.as-expected').click()
    await page.waitForFunction((row) => document.querySelector<HTMLElement>('.run-step')?.dataset.row !== row, {}, was)
  }
  await page.locator('.row-looks tbody tr:first-child .found').click()
  await page.locator('.row-answers .answer').click()
}

const shots: { name: string; path: string; viewport: typeof desk; before?: (page: Page) => Promise<void> }[] = [
  { name: 'jobs', path: '/', viewport: desk },
  { name: 'change', path: '/jobs/demo-larch-row/change', viewport: desk, before: changing },
  { name: 'survey', path: '/jobs/demo-larch-row/survey', viewport: desk, before: surveyed },
  {
    name: 'brief',
    path: '/jobs/demo-quay-cottage/brief',
    viewport: desk,
    before: (page) => page.$eval('#fitted-heading', (e) => e.scrollIntoView()),
  },
  {
    name: 'water',
    path: `${on('demo-tarn-house', ...lived, 'wait=75min')}&side=water`,
    viewport: desk,
    before: (page) => page.evaluate(() => window.scrollTo(0, 200)),
  },
  {
    name: 'week',
    path: '/jobs/demo-larch-row/week',
    viewport: desk,
    before: async (page) => void (await page.waitForSelector('.strips')),
  },
  {
    name: 'device-type',
    path: '/kit/own-slow-valve/edit',
    viewport: desk,
    before: (page) => page.locator('.edit-tabs button ::-p-text(Parts)').click(),
  },
  { name: 'plan', path: '/jobs/demo-larch-row/plan', viewport: desk },
  { name: 'bench', path: '/jobs/demo-chapel-row/bench?at=boiler-cable.black', viewport: desk },
  { name: 'checks', path: '/jobs/demo-chapel-row/checks', viewport: desk },
  { name: 'trace', path: travelling, viewport: desk },
  { name: 'trace-phone', path: travelling, viewport: phone },
  { name: 'commission', path: '/jobs/demo-chapel-row/commission?run=arrival', viewport: desk, before: commissioned },
  { name: 'kit', path: '/kit/mid-position-valve', viewport: desk },
  { name: 'visit', path: '/jobs/demo-birch-cabin/visit', viewport: desk, before: visiting },
  { name: 'handover', path: '/jobs/demo-birch-cabin/visit/handover?for=engineer', viewport: desk },
  { name: 'hunt', path: '/jobs/demo-quay-cottage/hunt', viewport: desk, before: hunted('[data-answer="stiff"]') },
  {
    name: 'server',
    path: '/server',
    viewport: desk,
    before: async (page) => {
      await page.locator('button ::-p-text(Pair a device)').click()
      await page.waitForSelector('.pairing img')
    },
  },
  { name: 'hunt-phone', path: '/jobs/demo-fell-view/hunt', viewport: phone, before: hunted('.answers .answer') },
]

const stage = await openStage({ host: '127.0.0.2' })
for (const { name, path, viewport, before } of shots) {
  if (only && !name.startsWith(only)) continue
  const page = await stage.open(path, viewport)
  await page.waitForSelector('h1, h2')
  if (path.includes('hunt')) await page.waitForSelector('.first-words')
  if (/plan$|checks/.test(path)) await page.waitForSelector('.says')
  if (path.includes('handover')) await page.waitForSelector('xpath///button[contains(., "As PDF")][not(@disabled)]')
  if (path.includes('checks')) await page.waitForSelector('.demand-table')
  await before?.(page)
  await new Promise((done) => setTimeout(done, 400))
  await page.screenshot({ path: join(folder, `${name}.png`) })
  await page.close()
}
await stage.close()
