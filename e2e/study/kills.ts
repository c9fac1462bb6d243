/**
 * Two browsers write in one job while the server is killed again and again; then a tab is killed again and again while it writes.
 * What a screen has shown as done must be there at the end, and once. `npm run study:kills -- [server kills] [tab kills]`.
 */
import { spawn, type ChildProcess } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import puppeteer, { type Page } from 'puppeteer-core'
import type { NumberedEntry } from '@nobbet/contract'
import { browserOptions } from '../src/browser'

const [serverKills = 60, tabKills = 500] = process.argv.slice(2).map(Number)
const root = resolve(import.meta.dirname, '../..')
const data = mkdtempSync(join(tmpdir(), 'nobbet-kills-'))
const port = 4711
const url = `http://127.0.0.1:${port}`
const job = 'demo-larch-row'
const pause = (ms: number) => new Promise((done) => setTimeout(done, ms))

function serve(): Promise<ChildProcess> {
  const child = spawn(process.execPath, ['--import', 'tsx', 'server/src/main.ts', '--demo'], {
    cwd: root,
    env: { ...process.env, NOBBET_DATA: data, NOBBET_PORT: String(port) },
  })
  return new Promise((done, failed) => {
    child.stdout.on('data', (said) => String(said).includes('Nobbet is at') && done(child))
    child.once('exit', (code) => failed(new Error(`the server ended with ${code}`)))
  })
}
const killed = (child: ChildProcess) =>
  new Promise<void>((done) => {
    child.removeAllListeners('exit')
    child.once('exit', () => done())
    child.kill('SIGKILL')
  })
const logAtServer = async (): Promise<string[]> => {
  const { entries } = (await (await fetch(`${url}/api/jobs/${job}/log`)).json()) as { entries: NumberedEntry[] }
  return entries.flatMap(({ entry }) => (entry.do === 'act' ? [entry.text] : []))
}
async function write(page: Page, word: string): Promise<void> {
  await page.focus('.job-log [aria-label="Entry"]')
  await page.keyboard.type(word)
  await page.keyboard.press('Enter')
}
/** Words on the screen, and which of them the screen says are sent. */
const shown = (page: Page) =>
  page.$$eval('.job-log li', (all) =>
    all.map((li) => ({
      word: li.querySelector('.what')!.textContent.replace(/^Done: /, ''),
      sent: !li.classList.contains('waiting'),
    })),
  )

let server = await serve()
const browser = await puppeteer.launch(browserOptions())
const open = async (context = browser.createBrowserContext()) => {
  const page = await (await context).newPage()
  await page.goto(`${url}/jobs/${job}/brief`, { waitUntil: 'domcontentloaded' })
  await page.waitForSelector('.job-log')
  return page
}

const writers = [await open(), await open()]
const done = new Set<string>()
const acknowledged = new Set<string>()
const note = async () => {
  for (const page of writers)
    for (const { word, sent } of await shown(page)) {
      if (!word.startsWith('w')) continue
      done.add(word)
      if (sent) acknowledged.add(word)
    }
}
for (let kill = 0; kill < serverKills; kill++) {
  const end = pause(200 + Math.random() * 1500).then(() => killed(server))
  for (let i = 0; i < 3; i++) {
    await Promise.all(writers.map((page, w) => write(page, `w${w}-${kill}-${i}`)))
    await pause(Math.random() * 400)
    await note()
  }
  await end
  server = await serve()
}
const allSent = async () => {
  for (let i = 0; i < 240; i++) {
    const open = await Promise.all(writers.map((page) => page.$$eval('.saving', (s) => s[0]?.textContent ?? '')))
    if (open.every((text) => text.includes('Saved with the job'))) return
    await pause(500)
  }
}
await pause(2000)
await allSent()
const log = await logAtServer()
const lost = [...done].filter((word) => !log.includes(word))
const doubled = log.filter((word, i) => log.indexOf(word) !== i)
process.stdout.write(
  `${serverKills} kills of the server: ${done.size} words shown as done, ${acknowledged.size} of them as sent while it ran; ` +
    `${lost.length} lost, ${doubled.length} doubled\n`,
)

const context = await browser.createBrowserContext()
const keeps = new Set<string>()
let page = await open(Promise.resolve(context))
for (let kill = 0; kill < tabKills; kill++) {
  await write(page, `t-${kill}`)
  await pause(Math.random() * 120)
  for (const { word } of await shown(page)) if (word.startsWith('t')) keeps.add(word)
  const next = await context.newPage()
  await page.close({ runBeforeUnload: false })
  page = next
  await page.goto(`${url}/jobs/${job}/brief`, { waitUntil: 'domcontentloaded' })
  await page.waitForSelector('.job-log')
}
await pause(3000)
await page.waitForFunction(() => document.querySelector('.saving')?.textContent?.includes('Saved with the job'))
const after = await logAtServer()
const missing = [...keeps].filter((word) => !after.includes(word))
process.stdout.write(
  `${tabKills} kills of a tab: ${keeps.size} words shown as done; ${missing.length} lost, ` +
    `${after.filter((word, i) => after.indexOf(word) !== i).length} doubled\n`,
)
await browser.close()
await killed(server)
rmSync(data, { recursive: true, force: true })
process.exitCode = lost.length + doubled.length + missing.length > 0 ? 1 : 0
