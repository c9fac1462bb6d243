import { HiddenWiring } from '@nobbet/core/testing'
import type { Installation, SeenCable, SurveyFact, SurveyLook } from '@nobbet/core'
import type { Page } from 'puppeteer-core'
import { desk, openStage, phone, says, violations, type Stage } from './browser'

jest.setTimeout(540_000)
let stage: Stage
beforeAll(async () => {
  stage = await openStage()
})
afterAll(() => stage.close())

const press = (page: Page, words: string) => page.locator(`button ::-p-text(${words})`).click()
const numbers = () => {
  let at = 11
  return () => (at = (at * 16807) % 2147483647) / 2147483647
}

/** The demo's wiring, but that its thermostat is fed through the wall from the programmer beside it. */
function fedThroughTheWall(doc: Installation): Installation {
  const truth = structuredClone(doc)
  const [stat] = truth.devices.filter(({ id }) => id === 'stat-1')
  const cable = truth.cables.find(({ cores }) =>
    cores.some(({ ends }) => ends.some((end) => 'terminal' in end && end.terminal === `${stat.id}.L`)),
  )!
  const core = cable.cores.find(({ ends }) => ends.some((end) => 'terminal' in end && end.terminal === `${stat.id}.L`))!
  core.ends = [{ at: 'cut-back' }, { at: 'cut-back' }]
  truth.cables.push({
    id: 'hidden',
    label: 'Hidden',
    ratedForMains: true,
    cores: [
      {
        id: 'brown',
        colour: 'brown',
        areaMm2: 0.75,
        ends: [
          { at: 'terminal', terminal: `${stat.id}.L` },
          { at: 'terminal', terminal: 'programmer.HTG-ON' },
        ],
      },
    ],
  })
  return truth
}

const shortColours: Record<string, string> = { 'green-yellow': 'gy', brown: 'br', blue: 'bl', black: 'bk', grey: 'gr' }
const line = async (page: Page, text: string) => {
  await page.type('#survey-line', text)
  await page.keyboard.press('Enter')
}
const where = ({ at }: SeenCable['cores'][number]): string => (at.at === 'terminal' ? at.terminal : 'x')

/** Everything that is seen in the box, by keyboard alone but for which lead it is. */
async function writeDown(page: Page, { survey }: HiddenWiring): Promise<void> {
  const asked = (text: string) =>
    page.waitForFunction((t) => document.querySelector('.write-ask')!.textContent.includes(t), {}, text)
  for (const cable of survey.cables) {
    if (cable.leadOf) await press(page, 'Lead: Two-port valve')
    else await line(page, cable.cores.map(({ colour }) => shortColours[colour]).join(' '))
    for (const core of cable.cores) {
      await asked(core.colour)
      await line(page, where(core))
    }
    await asked('A cable, or a link')
  }
  for (const { between } of survey.links) await line(page, between.join('-'))
  await page.locator('#survey-complete').click()
}

/** Does what the card says at the hidden wiring, and presses what it shows. */
async function answer(page: Page, hidden: HiddenWiring, calledHere: ReadonlyMap<string, string>): Promise<string> {
  const text = await page.$eval('.survey-next', (card) => (card as HTMLElement).dataset.look!)
  const look = JSON.parse(text) as SurveyLook
  const [fact] = hidden.look('cable' in look ? { ...look, cable: calledHere.get(look.cable)! } : look)
  const gate = await page.$('.survey-next .isolation .btn-danger')
  if (gate && (await gate.isVisible())) await gate.click()
  await pressed(page, fact)
  await page.waitForFunction(
    (before) => {
      const card = document.querySelector<HTMLElement>('.survey-next')
      return card && card.dataset.look !== before && !document.querySelector('.survey-tally.old')
    },
    {},
    text,
  )
  return look.look
}

async function pressed(page: Page, fact: SurveyFact): Promise<void> {
  const on = (words: string) => page.locator(`.survey-next button ::-p-text(${words})`).click()
  switch (fact.see) {
    case 'follows':
      return on(fact.device === 'zv-hw' ? 'Hot water valve' : 'House valve')
    case 'rung':
    case 'through':
      return on(fact.joined ? 'Joined' : 'Not joined')
    case 'felt':
      return on(fact.moved ? 'It moves' : 'Still')
    case 'reads':
      return on(fact.live ? 'Live' : 'Dead')
    case 'plate':
      for (const [s, { cores }] of fact.sheaths.entries()) {
        const kinds = await page.$$eval('.plate-sheet .write-acts button', (all) => all.map((b) => b.textContent))
        // A single conductor is written down as the nearest cable there is, with the rest cut back.
        const kind = kinds.findIndex((words) => words.startsWith(`${cores.length} cores`))
        const buttons = await page.$$('.plate-sheet .write-acts button')
        await buttons[Math.max(0, kind)].click()
        await page.waitForSelector(`.plate-sheet fieldset:nth-of-type(${s + 1})`)
        const labels = await page.$$(`.plate-sheet fieldset:nth-of-type(${s + 1}) .behind`)
        for (const label of labels) {
          const colour = await label.evaluate((e) => e.querySelector('.conductor')!.textContent.trim())
          const at = cores.find((core) => core.colour === colour)?.at
          const select = await label.$('select')
          await select!.select(at?.at === 'terminal' ? at.terminal : 'cut-back')
        }
      }
      return page.locator('.plate-sheet > .btn-lg').click()
    default:
      throw new Error(`nothing on the card answers "${fact.see}"`)
  }
}

describe('a survey', () => {
  it('of a box nobody knows: written down by keyboard, a feed through the wall found, made the wiring as found', async () => {
    const page = await stage.open('/jobs/demo-larch-row/survey', desk)
    const doc = await page.evaluate(async () => {
      const state = (await (await fetch('/api/jobs/demo-larch-row')).json()) as {
        document: { wiring: Installation }
      }
      return state.document.wiring
    })
    const hidden = new HiddenWiring(fedThroughTheWall(doc), numbers())
    await writeDown(page, hidden)
    const count = hidden.survey.cables.reduce((sum, { cores }) => sum + cores.length, 0)
    await says(page, '.survey-tally', `${count} conductors`)
    expect(await violations(page)).toEqual([])

    // It comes back as it was written down.
    await page.waitForFunction(() => !document.querySelector('.saving'))
    await page.reload({ waitUntil: 'networkidle0' })
    await says(page, '.survey-tally', `${count} conductors`)

    // What is called so in the job is the hidden cable of that number.
    const seen = await page.evaluate(async () => {
      const state = (await (await fetch('/api/jobs/demo-larch-row')).json()) as {
        record: { survey: { seen: { cables: { id: string; label: string }[] } } }
      }
      return state.record.survey.seen.cables
    })
    const names = new Map(seen.map(({ id, label }) => [id, label.toLowerCase().replace(' ', '-')]))
    await page.waitForSelector('.survey-next[data-look]')
    let looks = 0
    for (; looks < 40 && (await page.$('.survey-next[data-look]')); looks++) await answer(page, hidden, names)
    expect(looks).toBeLessThan(25)
    await says(page, '.departures', 'is fed through the wall from Programmer, HTG-ON')
    await says(page, '[data-sure=open]', '0')

    await press(page, 'Make it the wiring as found')
    await press(page, 'Yes, as found')
    await says(page, '.take-over', 'It is the wiring as found')
    await page.waitForFunction(() => !document.querySelector('.saving'))
    await page.goto(new URL('/jobs/demo-larch-row/bench', stage.url).href, { waitUntil: 'networkidle0' })
    await says(page, '.bench', 'Through the wall')
    await page.close()
  })

  it('is written down with the thumb, interrupted, and goes on where it was', async () => {
    const page = await stage.open('/jobs/demo-quay-cottage/survey', phone)
    const tap = async (selector: string) => {
      await page.waitForSelector(selector)
      await page.$eval(selector, (e) => e.scrollIntoView({ block: 'center' }))
      await page.locator(selector).click()
    }
    await press(page, '12')
    await page.waitForSelector('[data-terminal="12"]')
    await press(page, '5 cores')
    for (const n of [1, 2, 3]) await tap(`.terminal-pad button:nth-child(${n})`)
    await page.waitForFunction(() => !document.querySelector('.saving'))
    expect(await violations(page)).toEqual([])
    await page.reload({ waitUntil: 'networkidle0' })
    await says(page, '.survey-tally', '5 conductors')
    await says(page, '.seen-elsewhere', 'not looked at here')
    // What was left is taken up by its conductor.
    await tap('.seen-elsewhere .seen-core')
    await press(page, 'It sits elsewhere')
    await tap('.terminal-pad button:nth-child(4)')
    await says(page, '[data-terminal="4"]', 'black')
    await press(page, 'Cut back')
    await says(page, '.seen-elsewhere', 'cut back here')
    await page.close()
  })
})
