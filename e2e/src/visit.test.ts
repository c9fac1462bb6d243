import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { JobState } from '@nobbet/contract'
import type { ElementHandle, Page } from 'puppeteer-core'
import { desk, eventually, handedOut, ofJob, openStage, phone, says, type Stage, textOf, violations } from './browser'

jest.setTimeout(540_000)

let stage: Stage
const folder = mkdtempSync(join(tmpdir(), 'nobbet-visit-'))
beforeAll(async () => (stage = await openStage()), 60_000)
afterAll(async () => {
  await stage.close()
  rmSync(folder, { recursive: true, force: true })
})

const stateOf = async (job: string): Promise<JobState> =>
  (await fetch(new URL(`/api/jobs/${job}`, stage.url))).json() as Promise<JobState>
const press = (page: Page, name: string, within = 'body') =>
  page.locator(`${within} ::-p-xpath(.//*[self::button or self::a][contains(normalize-space(.), "${name}")])`).click()
const fill = (page: Page, label: string, text: string) => page.locator(`[aria-label="${label}"]`).fill(text)
const labelled = (page: Page, label: string, text: string) =>
  page.locator(`.leave-for-now ::-p-xpath(.//label[contains(., "${label}")]//input)`).fill(text)
const count = (page: Page) => page.$eval('.put-back-sheet .count', (e) => e.textContent)
const arrived = (job: string, holds: (state: JobState) => boolean) =>
  eventually(async () => expect(holds(await stateOf(job))).toBe(true))

/** The control that takes a file. */
const inputOf = async (page: Page, selector: string) =>
  (await page.waitForSelector(selector)) as unknown as ElementHandle<HTMLInputElement> & {
    uploadFile(...paths: string[]): Promise<void>
  }

/** A small picture, drawn by the browser itself. */
async function picture(page: Page): Promise<string> {
  const address = await page.evaluate(() => {
    const canvas = document.createElement('canvas')
    canvas.width = 320
    canvas.height = 200
    const pen = canvas.getContext('2d')!
    pen.fillStyle = '#335'
    pen.fillRect(0, 0, 320, 200)
    return canvas.toDataURL('image/jpeg')
  })
  const path = join(folder, 'terminal.jpg')
  writeFileSync(path, Buffer.from(address.slice(address.indexOf(',') + 1), 'base64'))
  return path
}

describe('two visits with a temporary measure between them', () => {
  const job = 'demo-sail-loft'

  it('the first does not end before what was disturbed is put back or left until a day; the second ends it', async () => {
    const page = await stage.open(`/jobs/${job}/visit`)
    await fill(page, 'Why you are here', 'No heating')
    await press(page, 'Begin a visit', '.open-visit')
    await says(page, '.topbar', 'Visit since')
    await press(page, 'Acknowledge for this visit')
    await says(page, '.open-visit', 'Isolation step acknowledged')
    await fill(page, 'What was disturbed', 'Cover off: wiring centre')
    await press(page, 'Add', '.add-disturbed')
    await fill(page, 'What was disturbed', 'Dial turned: thermostat at 25 °C')
    await press(page, 'Add', '.add-disturbed')
    await page.waitForFunction(() => document.querySelector('.put-back-sheet .count')?.textContent === '2')
    await says(page, '.topbar', '2 to put back')

    await press(page, 'End the visit')
    await says(page, '.open-visit', 'The visit is not ended: 2 things are to be put back')
    await press(page, 'Put back', '.left-open li:first-child')
    await page.waitForFunction(() => document.querySelector('.put-back-sheet .count')?.textContent === '1')
    await press(page, 'Leave it for now', '.left-open li:first-child')
    await labelled(page, 'Its limits', 'only while somebody is in')
    await labelled(page, 'Who was told', 'Ms Okoro')
    await press(page, 'Leave it until then')
    await says(page, '.measures', 'Dial turned: thermostat at 25 °C')
    await fill(page, 'What is written', 'Thermostat contact does not make below 18 °C')
    await press(page, 'Write it down')
    await says(page, '.items', 'does not make below 18')

    await page.$$eval('.items input[type=file]', (all) => all.forEach((e) => (e.hidden = false)))
    await (await inputOf(page, '.items [aria-label="Photo from the gallery"]')).uploadFile(await picture(page))
    await page.waitForSelector('.mark-spot img')
    await page.locator('.mark-spot .spotted').click()
    await fill(page, 'What it shows', 'The charred contact')
    await press(page, 'Keep the photo')
    await page.waitForSelector('.items .item-photos .spot')
    expect(await violations(page)).toEqual([])

    // A photo from anywhere in the job belongs to the visit.
    await page.locator('.journey a ::-p-text(Checks)').click()
    await page.$eval('.topbar input[type=file]', (e) => (e.hidden = false))
    await (await inputOf(page, '.topbar input[type=file]')).uploadFile(await picture(page))
    await fill(page, 'What it shows', 'The lid')
    await press(page, 'Keep the photo')
    await page.locator('.journey a ::-p-text(Visit)').click()
    await page.waitForSelector('[aria-label="Photos of the job"] [alt="The lid"]')
    await press(page, 'End the visit')
    await says(page, '.open-visit', 'No visit is open')
    await arrived(job, ({ record }) => record.visits[0]?.ended !== undefined)

    await fill(page, 'Why you are here', 'New thermostat')
    await press(page, 'Begin the next visit')
    await says(page, '.open-visit', 'Visit 2')
    await press(page, 'Put back, ended')
    await page.waitForFunction(() => !document.querySelector('.measures'))
    expect(await count(page)).toBe('0')
    await fill(page, 'Which part', 'Room thermostat, 230 V')
    await press(page, 'Add', '[aria-label=Parts]')
    await press(page, 'End the visit')
    await arrived(job, ({ record }) => record.visits[1]?.ended !== undefined)
    const { record } = await stateOf(job)
    expect(record.measures).toMatchObject([{ limits: 'only while somebody is in', ended: expect.any(String) }])
    await page.close()
  })

  it('is handed over twice, each read back from its PDF, signed with a finger', async () => {
    const page = await stage.open(`/jobs/${job}/visit/handover`)
    await page.locator('select[aria-label="Of which visit"]').fill('all')
    await says(page, '.report', 'Thermostat contact does not make')
    await press(page, 'Sign on the screen')
    await fill(page, 'Name of who signs', 'Ms Okoro')
    const { x, y } = (await (await page.waitForSelector('.sign canvas'))!.boundingBox())!
    await page.mouse.move(x + 30, y + 40)
    await page.mouse.down()
    await page.mouse.move(x + 160, y + 90, { steps: 6 })
    await page.mouse.up()
    await press(page, 'Sign', '.sign')
    await page.waitForSelector('.report .signature path')

    const customer = textOf(await handedOut(page, folder, 'customer.pdf', () => press(page, 'As PDF')))
    for (const words of [
      'What was done',
      'does not make below 18 °C',
      'Room thermostat, 230 V',
      'The charred contact',
      'Ms Okoro',
      'come before this report',
    ])
      expect(customer).toContain(words)
    expect(customer).not.toMatch(/HTG|Terminal|wc\./)

    await press(page, 'For the next engineer')
    await page.waitForSelector('xpath///button[contains(., "As PDF")][not(@disabled)]')
    const engineer = textOf(await handedOut(page, folder, 'engineer.pdf', () => press(page, 'As PDF')))
    for (const words of [
      'For the next engineer',
      'prove dead',
      'states looked at',
      'Visits',
      'No heating',
      'New thermostat',
      'Legend',
    ])
      expect(engineer).toContain(words)
    expect(await violations(page)).toEqual([])
    await page.close()
  })

  it('is found by what was written; goes out as a file and, gone for good, comes in as it was', async () => {
    const before = await stateOf(job)
    const page = await stage.open('/')
    await fill(page, 'Find a job', 'charred')
    await page.waitForFunction(() => document.querySelectorAll('.job-list li').length === 1)
    await says(page, '.job-list', '2 Sail Loft')
    await page.waitForFunction(() => document.querySelector('.job-list mark'))
    const file = await handedOut(page, folder, '.nobbet.zip', () => ofJob(page, job, 'As a file'))
    expect(readFileSync(file).subarray(0, 2).toString()).toBe('PK')

    const other = await openStage()
    try {
      // Another machine, on which the job was never known; there the demo's own has to go first.
      const gone = await fetch(new URL(`/api/jobs/${job}`, other.url))
      const number = ((await gone.json()) as JobState).number
      expect(number).toBeGreaterThan(0)
      const removed = await fetch(new URL(`/api/jobs/${job}`, other.url), {
        method: 'DELETE',
        headers: { 'if-match': `"${number}"` },
      })
      expect(removed.status).toBe(204)
      const there = await other.open('/')
      await there.$$eval('main input[type=file]', (all) => all.forEach((e) => (e.hidden = false)))
      const input = await inputOf(there, 'input[aria-label="A job’s file"]')
      await input.uploadFile(file)
      await says(there, '.modal', 'This job is in the bin')
      await press(there, 'Bring it in as a copy', '.modal')
      await says(there, '.page', '“2 Sail Loft, Brannock” is here')
      const [, copy] = /jobs\/([^/]+)\/visit/.exec(await there.$eval('.condition a', (a) => a.href))!
      const after = (await (await fetch(new URL(`/api/jobs/${copy}`, other.url))).json()) as JobState
      const { photos } = (await (await fetch(new URL(`/api/jobs/${copy}/photos`, other.url))).json()) as {
        photos: { caption: string; spot: unknown }[]
      }
      // The same but for its name.
      expect({ ...after, id: job, number: 0, lineage: '' }).toEqual({ ...before, number: 0, lineage: '' })
      expect(photos.map(({ caption }) => caption)).toEqual(['The charred contact', 'The lid'])
      expect(photos[0].spot).toMatchObject({ x: expect.any(Number) })

      // A file of something else is refused with the reason, and nothing is sent.
      const bad = join(folder, 'bad.zip')
      writeFileSync(bad, 'no archive')
      await input.uploadFile(bad)
      await says(there, '[role=alert]', '“bad.zip” was not brought in: it is no archive of a job.')
    } finally {
      await other.close()
    }
    await page.close()
  })
})

it('a core lifted on the Bench stands on the list by itself, and is put back from there, on the phone', async () => {
  const job = 'demo-heron-end'
  const page = await stage.open(`/jobs/${job}/visit`, phone)
  await page.locator('.visit-chip').click()
  await says(page, '.open-visit', 'Visit 1')
  const before = await stateOf(job)
  const { wiring } = before.document
  // Permanent live, taken off at the programmer.
  const cable = wiring.cables.find(({ id }) => id === 'programmer-cable')!
  const core = cable.cores.find(({ colour }) => colour === 'brown')!
  await arrived(job, ({ record }) => record.visits.length === 1)
  const lift = {
    do: 'set',
    path: ['wiring', 'cables', cable.id, 'cores', core.id, 'ends', '0'],
    was: core.ends[0],
    now: { at: 'loose', provenance: 'seen' },
  }
  const logged = {
    id: 'lifted-elsewhere',
    author: 'O. Brand',
    visit: (await stateOf(job)).record.visits[0].id,
    at: new Date().toISOString(),
    entry: { do: 'edit', label: 'Lifted', changes: [lift] },
  }
  const answer = await fetch(new URL(`/api/jobs/${job}/log`, stage.url), {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ after: before.number, entries: [logged] }),
  })
  expect(answer.status).toBe(200)
  await page.reload({ waitUntil: 'networkidle0' })
  await says(page, '.left-open', `${core.colour} of ${cable.label} is off`)
  // Left loose it may be live: that is not left, and the reason is told.
  await press(page, 'Leave it for now')
  await labelled(page, 'Its limits', 'nobody in')
  await labelled(page, 'Who was told', 'Mr Tarrant')
  await press(page, 'Leave it until then')
  await says(page, '.refused', 'It must not be left so')
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
  // The eight stations fit beside each other.
  expect(await page.$eval('.journey li:last-child a', (e) => e.getBoundingClientRect().right)).toBeLessThanOrEqual(390)
  await press(page, 'Put back', '.left-open')
  await says(page, '.put-back-sheet', 'Nothing that Nobbet knows of is disturbed')
  // Back where it was, and seen to be there.
  const [was] = core.ends
  await arrived(job, (state) => {
    const [is] = state.document.wiring.cables
      .find(({ id }) => id === cable.id)!
      .cores.find(({ id }) => id === core.id)!.ends
    return is.at === 'terminal' && was.at === 'terminal' && is.terminal === was.terminal
  })
  await page.close()
})

it('the first screen tells what is due before all else, a dozen jobs at the desk and six on the phone', async () => {
  const page = await stage.open('/', desk)
  const rows = async (height: number) =>
    page.$$eval(
      '.job-list li',
      (all, most) => all.filter((li) => li.getBoundingClientRect().bottom <= most).length,
      height,
    )
  await says(page, '.job-list li:first-child', 'Birch Cabin')
  await says(page, '.job-list li:first-child', 'a day over')
  expect(await rows(800)).toBeGreaterThanOrEqual(12)
  const calendar = readFileSync(
    await handedOut(page, folder, '.ics', () => press(page, 'Calendar of what is due')),
    'utf8',
  )
  expect(calendar).toMatch(/SUMMARY:Temporary measure ends: Birch Cabin/)
  expect(calendar).toMatch(/SUMMARY:Follow-up: 6 Orchard Way/)
  await page.setViewport(phone)
  await page.reload({ waitUntil: 'networkidle0' })
  expect(await rows(844)).toBeGreaterThanOrEqual(6)
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
  expect(await violations(page)).toEqual([])
  await page.close()
})
