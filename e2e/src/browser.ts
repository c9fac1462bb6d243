import { execFileSync } from 'node:child_process'
import { accessSync, mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { createRequire } from 'node:module'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { start, type Running, type StartOptions } from '@nobbet/server'
import puppeteer, { type Browser, type Page } from 'puppeteer-core'

const candidates = ['/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome']

function chromium(): string {
  for (const path of [process.env.NOBBET_CHROMIUM, ...candidates]) {
    if (!path) continue
    try {
      accessSync(path)
      return path
    } catch {
      // The next one.
    }
  }
  throw new Error('no Chromium found: install Debian’s package "chromium", or name one with NOBBET_CHROMIUM')
}

/** How long a page may take to come or to show something, ms: a busy machine is slow, and nothing is wrong with that. */
const patience = 90_000

export const desk = { width: 1280, height: 800 }
export const phone = { width: 390, height: 844, isMobile: true, hasTouch: true }

/** How the browser is started. */
export const browserOptions = () => ({
  executablePath: chromium(),
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
})

/** The real server on a database of its own with the demo data, and a real browser on it. */
export interface Stage {
  url: string
  /** Where the network finds it, if it was asked to be found. */
  addresses: readonly string[]
  /** A page in a browser of its own, in which nothing is kept yet. */
  open(path: string, viewport?: typeof desk): Promise<Page>
  /** Another tab of the same browser. */
  beside(page: Page, path: string, viewport?: typeof desk): Promise<Page>
  /** Stops the server, and starts it again where it was. */
  stopServer(): Promise<void>
  startServer(): Promise<void>
  close(): Promise<void>
}

export async function openStage(options: Partial<StartOptions> = {}): Promise<Stage> {
  const data = mkdtempSync(join(tmpdir(), 'nobbet-stage-'))
  const web = join(import.meta.dirname ?? __dirname, '../../web/dist')
  const running = (port: number): Promise<Running> =>
    start({ data, port, host: '127.0.0.1', web, demo: true, ...options })
  let server = await running(0)
  const { url, addresses } = server
  const browser: Browser = await puppeteer.launch(browserOptions())
  const shown = async (page: Page, path: string, viewport = desk) => {
    page.setDefaultTimeout(patience)
    await page.setViewport(viewport)
    await page.goto(new URL(path, url).href, { waitUntil: 'networkidle0' })
    return page
  }
  return {
    url,
    addresses,
    async open(path, viewport) {
      return shown(await (await browser.createBrowserContext()).newPage(), path, viewport)
    },
    async beside(page, path, viewport) {
      return shown(await page.browserContext().newPage(), path, viewport)
    },
    stopServer: () => server.stop(),
    async startServer() {
      server = await running(Number(new URL(url).port))
    },
    async close() {
      await browser.close()
      await server.stop()
      rmSync(data, { recursive: true, force: true })
    },
  }
}

/** Waits until an element says some words. */
export const says = (page: Page, selector: string, words: string) =>
  page.waitForFunction((s, w) => document.querySelector<HTMLElement>(s)?.innerText.includes(w), {}, selector, words)

/** Presses one of a few choices that are all in sight; those that are folded away are unfolded. */
export async function pick(page: Page, name: string, value: string): Promise<void> {
  const tile = `label:has(input[name="${name}"][value="${value}"])`
  await page.waitForSelector(tile)
  await page.$eval(tile, (label) => {
    const fold = label.closest('details')
    if (fold) fold.open = true
  })
  // What the answers come to is worked out beside them meanwhile, and may move them: where the tile is when it is pressed is enough.
  await page.locator(tile).setWaitForStableBoundingBox(false).click()
}

/** What on a page breaks the accessibility rules, WCAG 2.2 AA, as axe has it. */
export async function violations(page: Page): Promise<string[]> {
  await page.evaluate(readFileSync(createRequire(__filename).resolve('axe-core/axe.min.js'), 'utf8'))
  return page.evaluate(async () => {
    const { axe } = window as unknown as {
      axe: { run(o: object): Promise<{ violations: { id: string; nodes: { html: string }[] }[] }> }
    }
    const result = await axe.run({ runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] })
    return result.violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.html.slice(0, 120)).join(' | ')}`)
  })
}

/** Presses what may still be on the move, or be drawn anew, with these words: found and pressed in one go. */
export async function pressed(page: Page, selector: string, words: string): Promise<void> {
  await page.waitForFunction(
    (s, w) => {
      const found = [...document.querySelectorAll<HTMLElement>(s)].find((e) => e.innerText.includes(w))
      found?.click()
      return found !== undefined
    },
    {},
    selector,
    words,
  )
}

/** Waits until what is written down elsewhere, like on the server, has come to be so; else fails as the check does. */
export async function eventually(check: () => Promise<void>, ms = 90_000): Promise<void> {
  const end = Date.now() + ms
  for (;;) {
    try {
      return await check()
    } catch (error) {
      if (Date.now() > end) throw error
      await new Promise((resolve) => setTimeout(resolve, 200))
    }
  }
}

/** Does what stands in the menu of a job in the list. */
export async function ofJob(page: Page, job: string, what: string): Promise<void> {
  await page.locator(`[data-job="${job}"] .more`).click()
  await page.locator(`[data-job="${job}"] .dropdown-menu ::-p-text(${what})`).click()
}

/** Does something on a page that hands out a file, and waits for it in a folder; where it is then. */
export async function handedOut(
  page: Page,
  folder: string,
  ending: string,
  press: () => Promise<unknown>,
): Promise<string> {
  const session = await page.createCDPSession()
  await session.send('Page.setDownloadBehavior', { behavior: 'allow', downloadPath: folder })
  const before = new Set(readdirSync(folder))
  await press()
  const fresh = () => readdirSync(folder).find((name) => name.endsWith(ending) && !before.has(name))
  for (let i = 0; i < 300 && !fresh(); i++) await new Promise((done) => setTimeout(done, 100))
  const name = fresh()
  if (!name) throw new Error(`no file that ends in ${ending} came out`)
  return join(folder, name)
}

/** What a PDF says, laid out as on its pages. */
export const textOf = (pdf: string): string => execFileSync('pdftotext', ['-layout', pdf, '-'], { encoding: 'utf8' })
