import { execFileSync } from 'node:child_process'
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { ElementHandle, Page } from 'puppeteer-core'
import { handedOut, openStage, phone, says, textOf, type Stage } from './browser'

let stage: Stage
const folder = mkdtempSync(join(tmpdir(), 'nobbet-papers-'))
beforeAll(async () => (stage = await openStage()), 60_000)
afterAll(async () => {
  await stage.close()
  rmSync(folder, { recursive: true, force: true })
})

const inputOf = async (page: Page, selector: string) =>
  (await page.waitForSelector(selector)) as unknown as ElementHandle<HTMLInputElement> & {
    uploadFile(...paths: string[]): Promise<void>
  }

/** Presses a button of the papers and waits for the file. */
async function paper(page: Page, button: string): Promise<string> {
  const press = await page.waitForSelector(
    `xpath///section[@aria-label="Papers"]//button[contains(., "${button}")][not(@disabled)]`,
  )
  return handedOut(page, folder, '.pdf', () => press!.click())
}

/** A page as it would be on a photograph: turned, smaller, on a table, with noise. */
async function photographed(page: Page, png: string, degrees: number, scale: number): Promise<string> {
  const photo = await page.evaluate(
    async (source, turn, small) => {
      const image = new Image()
      image.src = source
      await image.decode()
      const canvas = document.createElement('canvas')
      const [w, h] = [image.width * small, image.height * small]
      canvas.width = w * 1.3
      canvas.height = h * 1.2
      const context = canvas.getContext('2d')!
      context.fillStyle = '#8a7a66'
      context.fillRect(0, 0, canvas.width, canvas.height)
      context.translate(canvas.width / 2, canvas.height / 2)
      context.rotate((turn * Math.PI) / 180)
      context.drawImage(image, -w / 2, -h / 2, w, h)
      const pixels = context.getImageData(0, 0, canvas.width, canvas.height)
      let seed = 1
      for (let i = 0; i < pixels.data.length; i++) {
        seed = (seed * 16807) % 2147483647
        // Darker to one side, as by a lamp, and a grain over all.
        const x = ((i >> 2) % canvas.width) / canvas.width
        if (i % 4 !== 3) pixels.data[i] = pixels.data[i] * (1 - 0.35 * x) + (seed % 50) - 25
      }
      context.putImageData(pixels, 0, 0)
      return canvas.toDataURL('image/jpeg', 0.8)
    },
    `data:image/png;base64,${readFileSync(png).toString('base64')}`,
    degrees,
    scale,
  )
  const path = join(folder, `photo-${degrees}.jpg`)
  writeFileSync(path, Buffer.from(photo.slice(photo.indexOf(',') + 1), 'base64'))
  return path
}

const wiringOf = async (page: Page, job: string) => {
  const answer = await page.evaluate(async (id) => (await fetch(`/api/jobs/${id}`)).json(), job)
  return (answer as { document: { wiring: { id: string; cables: unknown[] } } }).document.wiring
}

describe('the papers of a plan', () => {
  it('say on every page whose they are, and hold every conductor', async () => {
    const page = await stage.open('/jobs/demo-larch-row/plan?papers=open')
    const text = textOf(await paper(page, 'Wiring pack'))
    const pages = text.split('\f').filter((one) => one.trim())
    pages.forEach((one, i) => {
      expect(one).toContain('Larch Row')
      expect(one).toContain(`page ${i + 1} of ${pages.length}`)
    })
    for (const words of [
      'Prove the tester',
      'what goes where',
      'Cables and cores',
      'Steps',
      'Count its links',
      'Parts',
    ])
      expect(text).toContain(words)
    const wiring = (await wiringOf(page, 'demo-larch-row')) as unknown as { cables: { label: string }[] }
    for (const { label } of wiring.cables) expect(text).toContain(label)
  }, 120_000)

  it('are labels that begin where the last sheet ended', async () => {
    const page = await stage.open('/jobs/demo-larch-row/plan?papers=open')
    await page.select('select[aria-label="Label sheet"]', '65')
    await page.locator('#label-from').fill('70')
    await says(page, '.paper-grid', '1 to 65')
    await page.locator('#label-from').fill('64')
    const text = textOf(await paper(page, 'Labels'))
    const [first, second] = text.split('\f')
    expect(first.trim().split(/\n+/).length).toBeLessThan(12)
    expect(second).toContain('Line')
  }, 120_000)

  it('are a lid sheet on one page even of a board with forty-eight terminals', async () => {
    const page = await stage.open('/jobs/demo-tarn-house/plan?papers=open')
    const text = textOf(await paper(page, 'Lid sheet'))
    expect(text).toContain('page 1 of 1')
    expect(text).toContain('code 2 of 2')
  }, 120_000)

  it('are a lid sheet on one page, which a photograph brings back as the same wiring', async () => {
    const page = await stage.open('/jobs/demo-larch-row/plan?papers=open')
    const pdf = await paper(page, 'Lid sheet')
    expect(textOf(pdf)).toContain('page 1 of 1')
    execFileSync('pdftoppm', ['-r', '220', '-png', '-singlefile', pdf, join(folder, 'lid')])
    expect(existsSync(join(folder, 'lid.png'))).toBe(true)
    const photo = await photographed(page, join(folder, 'lid.png'), 7, 0.8)
    const there = await wiringOf(page, 'demo-larch-row')

    const small = await stage.open('/jobs/new', phone)
    await (await inputOf(small, '.lid-photo input[type="file"]')).uploadFile(photo)
    await small.waitForSelector('.schedule')
    const [, job] = /\/jobs\/([^/]+)\//.exec(small.url())!
    expect(job).not.toBe('demo-larch-row')
    await small.waitForFunction(() => !document.body.innerText.includes('Saving'))
    expect(await wiringOf(small, job)).toEqual({ ...there, id: job })
  }, 120_000)

  it('says what to do where a picture has no code, or another one', async () => {
    const page = await stage.open('/jobs/new')
    const input = await inputOf(page, '.lid-photo input[type="file"]')
    await input.uploadFile('docs/screenshots/jobs.png')
    await says(page, '.lid-photo', 'No code was found in jobs.png')
    writeFileSync(join(folder, 'no-picture.png'), 'not a picture')
    await input.uploadFile(join(folder, 'no-picture.png'))
    await says(page, '.lid-photo', 'The picture could not be read')
    await page.locator('.lid-photo summary').click()
    await page.locator('.lid-photo textarea').fill('https://example.org')
    await page.locator('.lid-photo details button').click()
    await says(page, '.lid-photo', 'not of a lid sheet')
  }, 60_000)
})
