import { exampleById, planBriefSchema, typedOptions, type Installation } from '@nobbet/core'
import type { FieldChange } from '@nobbet/core'
import type { JobState } from '@nobbet/contract'
import type { Page } from 'puppeteer-core'
import { desk, eventually, openStage, phone, pressed, says as saysOn, type Stage } from './browser'

jest.setTimeout(360_000)

let stage: Stage
let page: Page
const says = (selector: string, words: string) => saysOn(page, selector, words)
const open = async (path: string, viewport = desk) => {
  page = await stage.open(path, viewport)
  return page
}
beforeAll(async () => {
  stage = await openStage()
}, 60_000)
afterAll(() => stage.close())
afterEach(() => page.close())

const api = (path: string) => new URL(`/api${path}`, stage.url).href
const stateOf = async (job: string): Promise<JobState> => (await fetch(api(`/jobs/${job}`))).json() as Promise<JobState>
const draftOf = async (job: string) => ({ installation: (await stateOf(job)).document.wiring })

let count = 0
/** Somebody else records something, straight at the server. */
async function record(job: string, entry: unknown): Promise<void> {
  const logged = {
    id: `elsewhere-${++count}`,
    author: 'O. Brand',
    visit: 'elsewhere',
    at: new Date().toISOString(),
    entry,
  }
  const answer = await fetch(api(`/jobs/${job}/log`), {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ after: 0, entries: [logged] }),
  })
  expect([answer.status, await answer.text()]).toEqual([200, expect.any(String)])
}
const change = (job: string, ...changes: FieldChange[]) => record(job, { do: 'edit', label: 'Elsewhere', changes })

/** A job of its own for a journey, with this wiring. */
async function jobWith(job: string, installation: Installation): Promise<string> {
  const fitted = planBriefSchema.parse({ scheme: 'two-port', circuits: [{ kind: 'heating', name: 'House' }] })
  const brief = { site: `Site of ${job}`, kind: 'fault', symptom: '', earlier: '', engineer: '', fitted }
  await record(job, { do: 'open', brief, status: 'open', wiring: installation })
  return job
}
interface Upload {
  uploadFile(path: string): Promise<void>
}
const example = (id = 'two-port-heating-hot-water'): Installation => structuredClone(exampleById(id)!.installation)

const saved = (at: Page = page) => saysOn(at, '.saving', 'Saved with the job')
const key = async (name: 'z' | 'y', at: Page = page) => {
  await at.keyboard.down('Control')
  await at.keyboard.press(name)
  await at.keyboard.up('Control')
}
/** The first step of a visit asks for the isolation step. */
const isolate = async (at: Page = page) => {
  await at.locator('.modal .btn ::-p-text(Acknowledge for this visit)').click()
  await at.waitForFunction(() => !document.querySelector('.modal'))
}
const act = async (name: string, at: Page = page) => at.locator(`.picked-panel .btn ::-p-text(${name})`).click()
const at = (job: string, what: string) => `/jobs/${job}/bench?at=${what}`

describe('the bench', () => {
  it('takes a whole wiring centre from the keyboard, in at most eight key strokes a conductor', async () => {
    const whole = example()
    const blank = structuredClone(whole)
    for (const cable of blank.cables)
      for (const core of cable.cores)
        core.ends = core.ends.map((end) =>
          'terminal' in end && end.terminal.startsWith('wc.') ? { at: 'loose' } : end,
        ) as typeof core.ends
    // One cable is new altogether: neither side is known.
    for (const core of blank.cables.find((c) => c.id === 'stat-1-cable')!.cores)
      core.ends = [{ at: 'loose' }, { at: 'loose' }]
    const job = await jobWith('keyboard-job', blank)
    await open(`/jobs/${job}/bench`)
    await page.waitForSelector('[data-cable="stat-1-cable"]')
    await page.select('[aria-label="End 1 of House thermostat cable goes to"]', 'stat-1')
    await page.select('[aria-label="End 2 of House thermostat cable goes to"]', 'wc')
    await page.locator('[data-core="boiler-cable.grey"]').click()
    await page.locator('.picked-panel .knob button ::-p-text(Tested)').click()
    await isolate()
    await key('z')
    await page.locator('[aria-label="Put down"]').click()
    await page.focus('.bundle .place-field input')
    let strokes = 0
    let most = 0
    const stroke = async (name: string) => {
      strokes++
      await page.keyboard.press(name as 'Tab')
    }
    for (const cable of whole.cables) {
      for (const core of cable.cores) {
        strokes = 0
        for (const e of [0, 1] as const) {
          const wanted = core.ends[e]
          const now = blank.cables.find((c) => c.id === cable.id)!.cores.find((k) => k.id === core.id)!.ends[e]
          if (JSON.stringify(wanted) !== JSON.stringify(now)) {
            const text = wanted.at === 'cut-back' ? 'x' : 'terminal' in wanted ? shortest(whole, wanted.terminal) : '-'
            for (const letter of text) await stroke(letter)
          }
          await stroke('Enter')
        }
        most = Math.max(most, strokes)
      }
    }
    expect(most).toBeLessThanOrEqual(8)
    await saved()
    const { installation } = await draftOf(job)
    const places = (doc: Installation) =>
      doc.cables.map((c) => c.cores.map((k) => k.ends.map((e) => ('terminal' in e ? e.terminal : e.at))))
    expect(places(installation)).toEqual(places(whole))
    await says('[data-live-verdict]', 'No defect found')
  })

  it('shows a broken conductor as a finding, and heals it with one press', async () => {
    const job = await jobWith('break-job', example())
    await open(at(job, 'pump-cable.green-yellow.1'))
    await act('Loose')
    await isolate()
    await says('[data-live-verdict]', '1 defect found')
    await page.locator('[data-live-verdict]').click()
    await says('.finding.danger', 'No earth at Pump E')
    await says('.verdict', '1 defect found in the wiring as planned')
    await says('.finding.danger .culprit', 'green-yellow of Pump cable is on nothing')
    expect(await page.$eval('.finding.danger', (e) => (e as HTMLElement).innerText)).not.toContain('no-earth')
    await page.locator('.finding.danger .btn ::-p-text(Bring Earth to Pump E)').click()
    await says('.verdict', 'No defect found in the wiring as planned')
    await key('z')
    await says('.finding.danger', 'No earth at Pump E')
  })

  it('lets a finding stand with a written reason, which is kept', async () => {
    const doc = example('gravity')
    const job = await jobWith('waive-job', doc)
    await open(`/jobs/${job}/checks`)
    await says('.finding.poor-practice', 'has no cylinder thermostat')
    await page.locator('.finding .btn ::-p-text(Let it stand)').click()
    await page.locator('.waive input').fill('The owner wants none; told in writing.')
    await page.locator('.waive .btn ::-p-text(Keep)').click()
    await says('.waived', 'The owner wants none; told in writing.')
    await saved()
    await page.reload({ waitUntil: 'networkidle0' })
    await says('.waived', 'The owner wants none; told in writing.')
    expect(await page.$('.finding')).toBeNull()
  })

  it('looks at all states, and plays a counterexample back in Trace', async () => {
    const doc = example()
    const call = doc.cables.find((c) => c.id === 'boiler-cable')!.cores.find((k) => k.id === 'black')!
    call.ends[1] = { at: 'terminal', terminal: 'wc.5' }
    const job = await jobWith('states-job', doc)
    await open(`/jobs/${job}/checks`)
    await says('[data-rule="all-off-ends-calls"]', 'Boiler is called with no demand')
    await says('.verdict', 'states looked at')
    await says('[data-property="all-off-ends-calls"]', 'broken')
    // What is behind it, and the one press that puts it right, both tried before they are said.
    await says('[data-rule="all-off-ends-calls"] .culprit', 'black of Boiler cable is in Wiring centre 5 (Line)')
    await says('[data-rule="all-off-ends-calls"]', 'Put black of Boiler cable in Wiring centre 29')
    await says('[data-property="extra-low-stays-low"]', 'not looked at')
    await says('[data-property="no-short"]', 'Line never meets neutral or earth')
    expect(await page.$$eval('.demand-table tbody tr', (rows) => rows.length)).toBe(4)
    await says('.demand-table tr[data-wanted=""]', 'expected no')
    expect(await page.$eval('main', (e) => /\bsafe\b/i.test(e.innerText))).toBe(false)
    await page.locator('[data-rule="all-off-ends-calls"] a ::-p-text(Play it back)').click()
    await says('.alarms', 'Boiler is called with no demand')
  })

  it('tells which single faults end in danger', async () => {
    const job = await jobWith('faults-job', example('two-port-heating'))
    await open(`/jobs/${job}/checks`)
    await page.locator('.fault-ends .btn ::-p-text(Run it)').click()
    await says('.fault-ends', 'single faults end in danger')
    await says('[data-fault="zv-1.end-switch.stuck-made"]', 'All off ends every call')
  })

  it('lays what was found beside what was planned, conductor by conductor', async () => {
    const job = await jobWith('compare-job', example())
    await open(`/jobs/${job}/bench?tab=revisions`)
    await page.select('[aria-label="Kind of revision"]', 'planned')
    await page.locator('.bench-add .btn ::-p-text(Keep the wiring as it is now)').click()
    await says('.compare', 'No conductor, link or device differs.')
    await page.goto(new URL(`${at(job, 'stat-1-cable.black.1')}&tab=revisions`, stage.url).href, {
      waitUntil: 'networkidle0',
    })
    await page.locator('[data-terminal="wc.1"] .t-number').click()
    await isolate()
    await says('.compare', '1 conductors differ')
    await says('.compare tr[data-change="moved"]', 'black of House thermostat cable')
    await says('.compare tr[data-change="moved"]', 'Wiring centre 1')
    const photo = (await page.waitForSelector('[aria-label="Pin a photo"]')) as unknown as Upload
    await page.locator('[aria-label="Caption of the photo"]').fill('The box with its lid off')
    await photo.uploadFile('docs/screenshots/jobs.png')
    await says('.photos figcaption', 'The box with its lid off')
    await page.reload({ waitUntil: 'networkidle0' })
    await says('.photos figcaption', 'The box with its lid off')
  })

  it('drags a conductor to another terminal, fits and cuts links, parks and tests', async () => {
    const job = await jobWith('hand-job', example())
    await open(`/jobs/${job}/bench`)
    const from = await page.waitForSelector('[data-chip="programmer-cable.brown.1"]')
    const to = await page.waitForSelector('[data-terminal="wc.6"]')
    const [a, b] = [(await from!.boundingBox())!, (await to!.boundingBox())!]
    await page.mouse.move(a.x + 20, a.y + 10)
    await page.mouse.down()
    await page.mouse.move(b.x + 100, b.y + 12, { steps: 8 })
    await page.waitForSelector('[data-terminal="wc.6"].over')
    await page.mouse.up()
    await isolate()
    await page.waitForSelector('[data-terminal="wc.6"] [data-chip="programmer-cable.brown.1"]')
    await says('[data-live-verdict]', 'defect')
    await key('z')
    await page.waitForSelector('[data-terminal="wc.2"] [data-chip="programmer-cable.brown.1"]')
    // What was carried is still in the hand.
    await says('.picked-panel', 'brown of Programmer cable')
    await page.locator('.picked-panel .knob button ::-p-text(Tested)').click()
    await page.waitForSelector('[data-terminal="wc.2"] .known.tested')
    await page.locator('[aria-label="Put down"]').click()
    await page.locator('[data-terminal="wc.1"] .t-number').click()
    await says('.net-list', 'Joined by wiring alone')
    await page.locator('.link-list .btn ::-p-text(Take out)').click()
    await says('[data-live-verdict]', 'defect')
    await act('Link to')
    await page.locator('[data-terminal="wc.2"] .t-number').click()
    await says('[data-live-verdict]', 'No defect found')
  })

  it('undoes twenty steps, and does them again', async () => {
    const start = example()
    const job = await jobWith('undo-job', start)
    await open(at(job, 'boiler-cable.grey.1'))
    for (let i = 0; i < 20; i++) {
      await act(i % 2 ? 'Cut back' : 'Loose')
      if (i === 0) await isolate()
    }
    await saved()
    for (let i = 0; i < 20; i++) await key('z')
    await page.waitForFunction(() => document.querySelector<HTMLButtonElement>('[aria-label="Undo"]')!.disabled)
    await saved()
    expect((await draftOf(job)).installation).toEqual(start)
    for (let i = 0; i < 20; i++) await key('y')
    await saved()
    expect((await draftOf(job)).installation).not.toEqual(start)
  })

  it('loses nothing by a reload in mid edit, and can still undo', async () => {
    const job = await jobWith('reload-job', example())
    await open(at(job, 'boiler-cable.grey.1'))
    await act('Loose')
    await isolate()
    await act('Not found')
    // Shown as done, and not sent yet.
    await says('.picked-panel', 'not found yet')
    await page.reload({ waitUntil: 'networkidle0' })
    await says('.picked-panel', 'not found yet')
    await saved()
    expect(
      (await draftOf(job)).installation.cables
        .flatMap((c) => c.cores.flatMap((k) => k.ends))
        .filter((e) => e.at === 'unknown'),
    ).toHaveLength(1)
    await key('z')
    await says('.picked-panel .picked-where', 'loose')
  })

  const greyOf = (wiring: Installation, cable: string) =>
    wiring.cables.find((c) => c.id === cable)!.cores.find((k) => k.id === 'grey')!.ends[1]

  it('changed by two at different things, each keeps theirs, without a question', async () => {
    const job = await jobWith('two-job-1', example())
    await open(at(job, 'boiler-cable.grey.1'))
    const { wiring } = (await stateOf(job)).document
    const [centre] = wiring.wiringCentres
    const [device] = wiring.devices
    // A colleague fits a terminal more and gives a device another name, which this page does not know of.
    await change(
      job,
      {
        do: 'add',
        path: ['wiring', 'wiringCentres', centre.id, 'terminals'],
        value: { id: '99', legend: 'Theirs', ways: 1 },
        after: centre.terminals.at(-1)!.id,
      },
      { do: 'set', path: ['wiring', 'devices', device.id, 'name'], was: device.name, now: 'Their name' },
    )
    await act('Loose')
    await isolate()
    await saved()
    await says('.bench', 'Theirs')
    const after = (await stateOf(job)).document.wiring
    expect(after.wiringCentres[0].terminals.map((t) => t.id)).toContain('99')
    expect(after.devices[0].name).toBe('Their name')
    expect(greyOf(after, 'boiler-cable').at).toBe('loose')
    expect(await page.$('.clashes')).toBeNull()
  })

  it.each([
    ['mine', 'Put mine there', 'loose'],
    ['theirs', 'Leave theirs', 'cut-back'],
  ])('changed by two at the same end, it is shown and chosen: %s', async (name, button, stands) => {
    const job = await jobWith(`same-job-${name}`, example())
    await open(at(job, 'boiler-cable.grey.1'))
    const path = ['wiring', 'cables', 'boiler-cable', 'cores', 'grey', 'ends', '1']
    const was = greyOf((await stateOf(job)).document.wiring, 'boiler-cable')
    await page.setOfflineMode(true)
    await act('Loose')
    await isolate()
    await says('.saving', 'Kept in this browser')
    await change(job, { do: 'set', path, was, now: { at: 'cut-back' } })
    await page.setOfflineMode(false)
    await says('.clashes', 'One thing was changed by two')
    await says('.clashes', 'loose')
    await says('.clashes', 'O. Brand')
    await says('.clashes', 'cut back')
    expect(greyOf((await stateOf(job)).document.wiring, 'boiler-cable').at).toBe('cut-back')
    await pressed(page, '.clashes .btn', button)
    await page.waitForFunction(() => !document.querySelector('.clashes'))
    await eventually(async () => expect(greyOf((await stateOf(job)).document.wiring, 'boiler-cable').at).toBe(stands))
  })

  it('in two tabs of one browser is one wiring: what is done in one is seen and taken back in the other', async () => {
    const job = await jobWith('tabs-job', example())
    await open(at(job, 'boiler-cable.grey.1'))
    const other = await stage.beside(page, at(job, 'boiler-cable.grey.1'))
    await act('Cut back', other)
    await isolate(other)
    await page.bringToFront()
    await says('.picked-panel .picked-where', 'cut back')
    await key('z')
    await other.bringToFront()
    await saysOn(other, '.picked-panel .picked-where', 'parked')
    await saved(other)
    expect(greyOf((await stateOf(job)).document.wiring, 'boiler-cable').at).toBe('parked')
    await other.close()
  })

  it('goes on while the server is away, and sends everything when it is back', async () => {
    const job = await jobWith('away-job', example())
    await open(at(job, 'boiler-cable.grey.1'))
    await act('Loose')
    await isolate()
    await saved()
    await stage.stopServer()
    await act('Cut back')
    await says('.saving', 'Kept in this browser')
    await act('Not found')
    await stage.startServer()
    await saved()
    const { installation } = await draftOf(job)
    expect(
      installation.cables.find((c) => c.id === 'boiler-cable')!.cores.find((k) => k.id === 'grey')!.ends[1].at,
    ).toBe('unknown')
  })

  it('takes schedules in and out, and refuses a wrong one by line and column', async () => {
    const job = await jobWith('files-job', example())
    await open(`/jobs/${job}/bench?tab=files`)
    const input = (await page.waitForSelector('#bench-file')) as unknown as Upload
    const { mkdtempSync, writeFileSync } = await import('node:fs')
    const { join } = await import('node:path')
    const { tmpdir } = await import('node:os')
    const { conductorsCsv } = await import('@nobbet/core')
    const folder = mkdtempSync(join(tmpdir(), 'nobbet-files-'))
    const good = conductorsCsv(example())
    writeFileSync(join(folder, 'wrong.csv'), good.replace('wc.1,', 'wc.999,'))
    await input.uploadFile(join(folder, 'wrong.csv'))
    await says('.file-problems', 'there is no terminal "wc.999"')
    await says('.file-problems', 'Line 2, end_2')
    expect((await draftOf(job)).installation).toEqual(example())
    writeFileSync(join(folder, 'moved.csv'), good.replace(',boiler.SL,', ',loose,'))
    await input.uploadFile(join(folder, 'moved.csv'))
    await isolate()
    await says('.bench-tab', 'moved.csv is taken in')
    await says('[data-live-verdict]', 'defect')
  })

  it('duplicates a zone that works, and is read on a phone', async () => {
    const job = await jobWith('zone-job', example())
    await open(`/jobs/${job}/bench?tab=devices`)
    await page.locator('.btn ::-p-text(Duplicate a zone)').click()
    await page.locator('[aria-label="Name of the new zone"]').fill('Loft')
    await page.locator('.bench-add .btn ::-p-text(Duplicate)').click()
    await isolate()
    const names = async () => (await draftOf(job)).installation.intent.demands.map((d) => d.name)
    await eventually(async () => expect(await names()).toEqual(['House', 'Hot water', 'Loft']))
    await says('[data-live-verdict]', 'No defect found')
    await page.close()
    await open(at(job, 'boiler-cable.black'), phone)
    await says('.picked-panel', 'black of Boiler cable')
    const wide = await page.evaluate(() => document.documentElement.scrollWidth)
    expect(wide).toBeLessThanOrEqual(390)
  })
})

/** What an engineer types for a terminal: its number, or as few letters as tell it apart. */
function shortest(doc: Installation, terminal: string): string {
  const [owner, id] = terminal.split('.')
  const options = typedOptions(doc, owner)
  for (let n = 1; n <= id.length; n++) {
    const text = id.slice(0, n)
    if (options.filter((o) => o.id.startsWith(text)).length === 1 || text === id) {
      const place = String(options.find((o) => o.id === id)!.number)
      return place.length < text.length && !options.some((o) => o.id.startsWith(place)) ? place : text
    }
  }
  return id
}
