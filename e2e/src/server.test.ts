import { openStage, phone, says, type Stage, ofJob } from './browser'
import type { Page } from 'puppeteer-core'

// All of 127.0.0.0/8 is this machine, but only 127.0.0.1 is served as such: 127.0.0.2 stands for the network.
let stage: Stage
beforeAll(async () => void (stage = await openStage({ host: '127.0.0.2' })), 60_000)
afterAll(() => stage.close())

const press = (page: Page, words: string, within = 'body') =>
  page.evaluate(
    (w, s) =>
      [...document.querySelectorAll<HTMLElement>(`${s} button, ${s} a`)]
        .find((b) => b.textContent.includes(w))!
        .click(),
    words,
    within,
  )

describe('the server’s own page', () => {
  it('pairs a phone by the code, which then works on jobs under its name, and shuts it out', async () => {
    const office = await stage.open('/server')
    await says(office, '.server-page', 'No device is paired')
    await press(office, 'Pair a device')
    await office.waitForSelector('.pairing img')
    const code = await office.$eval('.pairing-code', (e) => e.textContent)

    const van = await stage.open(`${stage.addresses[0]}jobs/demo-lodge/brief`, phone)
    await says(van, 'main', 'Pair this device')
    await van.type('[name=code]', 'WRONGCDE')
    await van.type('[name=name]', 'Van phone')
    await Promise.all([van.waitForNavigation(), van.click('button')])
    await says(van, '[role=alert]', 'This code is not good')
    await van.type('[name=code]', code)
    await Promise.all([van.waitForNavigation(), van.click('button')])
    await van.waitForSelector('.job-list li')

    await says(office, '.server-page', '“Van phone” is paired')
    await van.goto(`${stage.addresses[0]}jobs/demo-lodge/brief`)
    await van.waitForSelector('.job-log')
    await van.type('.job-log [aria-label="Entry"]', 'Lid off')
    await van.keyboard.press('Enter')
    await says(van, '.job-log', 'on Van phone')

    await press(office, 'Shut out')
    await says(office, '.server-page', 'No device is paired')
    await van.goto(stage.addresses[0])
    await says(van, 'main', 'Pair this device')
  }, 60_000)

  it('makes a backup, brings it back, and keeps what was there', async () => {
    const office = await stage.open('/server')
    await press(office, 'Make a backup now')
    await says(office, '.server-list', 'made by hand')
    const jobs = await stage.open('/')
    await ofJob(jobs, 'demo-lodge', 'Close')
    await jobs.locator('.modal .btn ::-p-text(Close it)').click()
    await says(jobs, '.page', '18 jobs')
    await new Promise((done) => setTimeout(done, 500))
    await press(office, 'Bring back', '.server-list li')
    await office.waitForSelector('.modal')
    await press(office, 'Bring it back', '.modal')
    await says(office, '[aria-label=Backups]', 'Brought back: 20 jobs')
    await says(office, '[aria-label=Backups]', 'what was there before one was brought back')
    await jobs.reload()
    await says(jobs, '.page', '19 jobs')
    await press(office, 'Check all data')
    await says(office, '[aria-label=Data]', 'Sound.')
  }, 60_000)

  it('deletes a closed job into the bin, from which it comes back', async () => {
    const page = await stage.open('/')
    await ofJob(page, 'demo-lodge', 'Close')
    await page.locator('.modal .btn ::-p-text(Close it)').click()
    await says(page, '.page', 'Show 2 closed')
    await press(page, 'Show 2 closed')
    await page.waitForFunction(() => !document.querySelector('[data-job=demo-lodge] .unsent'))
    await ofJob(page, 'demo-lodge', 'Delete')
    await says(page, '.condition', 'is in the bin')
    await page.reload()
    await says(page, '.page', 'Bin: 1')
    await press(page, 'Bin: 1')
    await page.waitForSelector('[aria-label=Bin] li')
    await press(page, 'Bring back', '[aria-label=Bin]')
    await page.waitForFunction(() => !document.querySelector('[aria-label=Bin] li'))
  }, 60_000)
})
