import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { deviceType } from '@nobbet/core'
import type { ElementHandle, Page } from 'puppeteer-core'
import { openStage, says as saysOn, type Stage } from './browser'

jest.setTimeout(270_000)

let stage: Stage
let page: Page
const says = (selector: string, words: string) => saysOn(page, selector, words)
const press = (text: string) => page.locator(`.btn ::-p-text(${text})`).click()
const tab = (name: string) => page.locator(`.edit-tabs button ::-p-text(${name})`).click()
const folder = mkdtempSync(join(tmpdir(), 'nobbet-types-'))

async function give(json: unknown): Promise<void> {
  const path = join(folder, 'given.json')
  writeFileSync(path, typeof json === 'string' ? json : JSON.stringify(json))
  const input = (await page.waitForSelector('.own-shelf input[type=file]')) as ElementHandle<HTMLInputElement>
  await input.uploadFile(path)
}
/** Types over what stands in a field. */
async function fill(selector: string, text: string): Promise<void> {
  await page.locator(selector).click({ count: 3 })
  await page.keyboard.type(text)
  await page.keyboard.press('Tab')
}
const option = (label: string, value: string) =>
  page.evaluate(
    (wanted, v) => {
      const field = [...document.querySelectorAll('label')].find((l) => l.textContent?.trim() === wanted)!
      const select = document.getElementById(field.htmlFor) as HTMLSelectElement
      const set = Object.getOwnPropertyDescriptor(HTMLSelectElement.prototype, 'value')!.set!
      set.call(select, v)
      select.dispatchEvent(new Event('change', { bubbles: true }))
    },
    label,
    value,
  )

beforeAll(async () => {
  stage = await openStage()
}, 60_000)
afterAll(() => stage.close())
afterEach(() => page.close())

describe('a device type of one’s own', () => {
  it('is made from nothing, told what is missing, tried out on the table, kept over a reload, and saved', async () => {
    page = await stage.open('/kit/new')
    await says('.preview-side', 'Whole.')
    await tab('Parts')
    await page.select('[aria-label="Add a part"]', 'load')
    await says('.part-list [data-part="load"]', 'Load')
    await option('To', 'A')
    await says('.preview-side', 'both of its ends are on one terminal')
    await option('To', 'B')
    await says('.preview-side', 'Whole.')
    await tab('About')
    await page.locator('.field-grid input').fill('Test box')
    await says('h1', 'Test box')
    await page.reload({ waitUntil: 'networkidle0' })
    await says('h1', 'Test box')
    // On the table: its switch on, the contact is made.
    await says('[data-contact="contact"]', 'open')
    await page.select('#try-switch', 'on')
    await says('[data-contact="contact"]', 'made')
    await press('Put it on the shelf')
    await says('.own-shelf', 'Test box')
    await says('.kit-sheet h1', 'Test box')
    await press('Take out of Kit')
    await page.waitForFunction(() => !document.querySelector('.own-shelf')?.textContent?.includes('Test box'))
  })

  it('comes in from a file, or is refused with field and reason and nothing changes', async () => {
    page = await stage.open('/kit')
    await give('{ not json')
    await says('.own-shelf [role=alert]', 'is not JSON')
    const broken = JSON.parse(JSON.stringify({ ...deviceType('pump'), id: 'own-pump' }))
    broken.primitives[1].to = 'X'
    await give(broken)
    await says('.own-shelf [role=alert]', 'primitives.1.to: there is no terminal "X"')
    await give({ ...deviceType('pump'), name: 'Pump from a file' })
    await says('.kit-sheet h1', 'Pump from a file')
    expect(page.url()).toContain('/kit/own-pump')
  })

  it('is fitted in a job, traced with its own fault, and offered newer once it has been changed', async () => {
    page = await stage.open('/jobs/demo-larch-row/plan')
    await page.waitForSelector('[data-device="zv-1"] option[value="own-slow-valve"]')
    await page.select('[aria-label="Type of House valve"]', 'own-slow-valve')
    await page.waitForFunction(
      () => document.querySelector<HTMLSelectElement>('[aria-label="Type of House valve"]')?.value === 'own-slow-valve',
    )
    await says('.verdict', 'No defect found')
    await page.goto(new URL('/jobs/demo-larch-row/trace', stage.url).href, { waitUntil: 'networkidle0' })
    await page.locator('.time-controls .btn ::-p-text(Faults)').click()
    await page.locator('[aria-label="Find a fault"]').fill('end relay welded')
    await page.locator('.fault-list button ::-p-text(House valve: end relay welded)').click()
    await says('.alarms', 'Boiler is called with no demand')
    await says('.alarms', 'House valve end relay is stuck made')

    await page.goto(new URL('/kit/own-slow-valve/edit', stage.url).href, { waitUntil: 'networkidle0' })
    await tab('Settings')
    await fill('.row-card:first-of-type input[inputmode="decimal"]', '7')
    await press('Save as version 2')
    await says('.kit-sheet', 'version 2')
    await page.goto(new URL('/jobs/demo-larch-row/plan', stage.url).href, { waitUntil: 'networkidle0' })
    await says('.newer', 'Kit has version 2 of Slow valve with an end relay')
    await says('.newer', 'keeps version 1 in House valve')
    await press('Use the newer one')
    await page.waitForFunction(() => !document.querySelector('.newer'))
    await page.locator('[aria-label="Undo"]').click()
    await says('.newer', 'Kit has version 2')
  })
})
