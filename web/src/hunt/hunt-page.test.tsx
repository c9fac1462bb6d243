/** @jest-environment jsdom */
import { recordOf, type HuntLine } from '@nobbet/contract'
import {
  actDisturbs,
  compile,
  lookAt,
  parseAction,
  passes,
  Rig,
  settle,
  wordOf,
  type Look,
  type WrittenLook,
} from '@nobbet/core'
import { act, fireEvent, screen, waitFor, within } from '@testing-library/react'
import '../../testing/patience'
import { showAt } from '../../testing/page'
import { here, storeOf } from '../../testing/stores'
import { HuntPage } from './hunt-page'

jest.mock('../store/stores', () => jest.requireActual('../../testing/stores'))
jest.mock('../workers/compute', () => jest.requireActual('../../testing/compute'))

let jobs = 0
const at = '2026-11-27T07:00:00.000Z'
const line = (entry: HuntLine['entry']): HuntLine => ({ entry, at, note: '' })
const boiler = { at: 'boiler' as const, device: 'boiler' }

/** The page of a job whose hunt has these lines. */
async function shown(lines: HuntLine[] = [], query = '') {
  const job = `job-hunt-${++jobs}`
  const store = storeOf(job)
  await store.load()
  if (lines.length > 0) await store.record({ do: 'hunt', lines })
  const page = showAt('/jobs/:job/hunt', `/jobs/${job}/hunt${query}`, <HuntPage />)
  await screen.findByLabelText('Suspects')
  const hunt = () => store.current().state!.hunt
  return { ...page, job, store, hunt, entries: () => hunt().lines.map(({ entry }) => entry) }
}
const card = () => screen.findByLabelText('Next look')
const region = (name: string) => within(screen.getByLabelText(name))
const press = (name: string | RegExp, index = 0) => fireEvent.click(screen.getAllByRole('button', { name })[index])
const heating = [
  line({ id: 'on', do: 'programmer.heating=on' }),
  line({ id: 'up', do: 'stat-1.set=30' }),
  line({ id: 'rest', do: settle }),
]

describe('the card', () => {
  it('asks first what the customer says; one press, and it is written down and the first look is there', async () => {
    const { entries } = await shown()
    const says = screen.getByLabelText('First of all')
    fireEvent.click(says.querySelector('[data-says="heating-1 does-not-come-on"]')!)
    await card()
    expect(entries()).toMatchObject([{ says: { what: 'does-not-come-on', demand: 'heating-1' } }])
  })

  it('writes down what was set and what was seen with one press, by key as well; what was put off may be chosen', async () => {
    const { entries } = await shown([line({ id: 'said', says: { what: 'does-not-come-on', demand: 'heating-1' } })])
    const asked = JSON.parse((await card()).dataset.look!) as { acts: string[]; see: object }
    const answer = (await card()).querySelector<HTMLElement>('.answers .answer')!
    fireEvent.keyDown(document.body, { key: '1', code: 'Digit1' })
    await waitFor(() => expect(entries().length).toBe(1 + asked.acts.length + 1))
    expect(entries().slice(1, -1)).toMatchObject(asked.acts.map((text) => ({ do: text })))
    expect(entries().at(-1)).toMatchObject({ see: asked.see, found: { word: answer.dataset.answer } })
    const next = JSON.parse((await card()).dataset.look!) as object
    fireEvent.click((await card()).querySelector('.others li .btn-link')!)
    expect(JSON.parse((await card()).dataset.look!)).not.toEqual(next)
    press('Back to the one proposed')
    expect(JSON.parse((await card()).dataset.look!)).toEqual(next)
  })

  it('takes "can’t do that" with why, and does not ask for what is not at hand again', async () => {
    const { entries, hunt } = await shown([
      ...heating,
      line({ id: 'seen', see: boiler, found: { word: 'not-called' } }),
    ])
    await card()
    press('Can’t do that')
    press(/^Cannot get to: Plant cupboard/)
    await waitFor(() => expect(hunt().options.outOfReach).toEqual(['plant']))
    // Nothing is said to have been set for a look that could not be made.
    expect(entries().slice(heating.length + 1)).toMatchObject([{ found: 'cannot-do' }])
    await waitFor(async () =>
      expect((await card()).querySelector('.look-where .place')!.textContent).not.toBe('Plant cupboard'),
    )
  })
})

describe('a look that is refused', () => {
  const toSet = async () => {
    const { acts } = JSON.parse((await card()).dataset.look!) as { acts: string[] }
    return acts
  }
  /** From the source on, which has the controls set first. */
  const fromTheSource = async () => {
    const page = await shown([line({ id: 'said', says: { what: 'does-not-come-on', demand: 'heating-1' } })])
    const { options } = page.hunt()
    await page.store.record({ do: 'hunt-with', options: { ...options, strategy: 'source-to-load' } })
    await waitFor(async () => expect((await toSet()).filter((text) => !passes(text)).length).toBeGreaterThan(1))
    return page
  }

  it('has what was to be set first as not done, but for what was ticked; it can be taken back, and not be answered', async () => {
    const { entries } = await fromTheSource()
    const acts = await toSet()
    const deeds = acts.filter((text) => !passes(text))
    fireEvent.click(screen.getAllByRole('checkbox')[0])
    press('Can’t do that')
    screen.getByText(`Written down as done: the 1 of ${deeds.length} ticked above.`)
    press('Not this one')
    await waitFor(() => expect(entries().length).toBe(3))
    expect(entries().slice(1)).toMatchObject([{ do: deeds[0] }, { found: 'cannot-do', after: acts.slice(1) }])
    await waitFor(async () => expect(await toSet()).not.toEqual(acts))
    const log = region('Log')
    fireEvent.click(log.getByText(/not done: /))
    log.getByRole('button', { name: 'Take back line 3' })
    expect(log.queryByRole('button', { name: 'Called' })).toBeNull()
  })

  it('because nothing is to be lifted or linked, rules that out for all', async () => {
    const { hunt, entries } = await fromTheSource()
    fireEvent.click((await card()).querySelector('.others li:last-child .btn-link')!)
    expect((await toSet()).some(actDisturbs)).toBe(true)
    press('Can’t do that')
    screen.getByText(/^Nothing that was to be set first is written down as done/)
    press('Nothing lifted, linked or taken off')
    await waitFor(() => expect(hunt().options.asWired).toBe(true))
    expect(entries().slice(1)).toMatchObject([{ found: 'cannot-do' }])
    expect(entries()[1]).toHaveProperty('after', expect.arrayContaining([expect.stringMatching(/^link=/)]))
    await waitFor(async () => expect((await card()).querySelectorAll('.others li').length).toBeGreaterThan(1))
    const others = (await card()).querySelectorAll('.others li').length
    expect((await toSet()).some(actDisturbs)).toBe(false)
    for (let i = 0; i < others; i++) {
      fireEvent.click((await card()).querySelectorAll('.others li .btn-link')[i])
      expect((await toSet()).some(actDisturbs)).toBe(false)
    }
  })
})

describe('anything noticed', () => {
  it('is a thing, then what it does: three presses; the card is there again', async () => {
    const { entries, at: where } = await shown(heating, '?see=noticed')
    fireEvent.click(document.querySelector('[data-thing="zv-1"]')!)
    expect(where().search).toContain('thing=zv-1')
    fireEvent.click(within(screen.getByRole('region', { name: 'House valve' })).getByRole('button', { name: 'Stiff' }))
    await waitFor(() =>
      expect(entries().at(-1)).toMatchObject({ see: { at: 'lever', device: 'zv-1' }, found: { word: 'stiff' } }),
    )
    expect(where().search).toBe('')
  })

  it('may be what was set, changed for a new one, or blamed', async () => {
    const { entries } = await shown(heating, '?see=noticed&thing=programmer')
    fireEvent.click(region('Heating').getByRole('button', { name: 'Off' }))
    await waitFor(() => expect(entries().at(-1)).toMatchObject({ do: 'programmer.heating=off' }))
    press(/^New: Programmer/)
    await waitFor(() => expect(entries().at(-1)).toMatchObject({ renew: 'programmer' }))
  })

  it('in the wiring centre stands beside what should be read; what departs stands out; typed down the terminals', async () => {
    const { entries, hunt } = await shown(heating, '?see=noticed&thing=wc')
    const row = (terminal: string) => document.querySelector<HTMLElement>(`[data-terminal="wc.${terminal}"]`)!
    expect(row('1').textContent).toContain('Live, 230 V')
    const type = (terminal: string, text: string) => {
      const field = within(row(terminal)).getByPlaceholderText('V')
      fireEvent.change(field, { target: { value: text } })
      fireEvent.submit(field.closest('form')!)
    }
    type('1', '231')
    await waitFor(() => expect(row('1').textContent).toContain('231 V'))
    expect(row('1').className).toBe('')
    type('2', 'd')
    await waitFor(() => expect(row('2').className).toBe('departs'))
    expect(entries().slice(-2)).toMatchObject([
      { see: { at: 'points', with: 'tester', red: 'wc.1' }, found: { value: 231, unit: 'V' } },
      { see: { at: 'points', with: 'tester', red: 'wc.2' }, found: { word: 'dead' } },
    ])
    type('3', 'brown')
    expect(row('3').textContent).toContain('l for live or d for dead')
    expect(hunt().lines).toHaveLength(heating.length + 2)
  })
})

describe('the log', () => {
  const found = [
    ...heating,
    line({ id: 'first', see: { at: 'lever', device: 'zv-1' }, found: { word: 'slack' } }),
    line({ id: 'second', see: boiler, found: { word: 'not-called' } }),
  ]
  const open = (number: number) =>
    fireEvent.click(screen.getByLabelText('Log').querySelectorAll('.line-head')[number - 1])

  it('is changed line by line: an answer, a remark, its place; taken back, and put back where it stood', async () => {
    const { entries, hunt } = await shown(found)
    const ids = () => entries().map(({ id }) => id)
    open(4)
    fireEvent.click(region('Log').getByRole('button', { name: 'Stiff' }))
    await waitFor(() => expect(entries()[3]).toMatchObject({ id: 'first', found: { word: 'stiff' } }))
    open(4)
    fireEvent.change(screen.getByLabelText('Remark on line 4'), { target: { value: 'hard to reach' } })
    press('Keep')
    await waitFor(() => expect(hunt().lines[3].note).toBe('hard to reach'))
    open(4)
    press('Line 4 later')
    await waitFor(() => expect(ids()).toEqual(['on', 'up', 'rest', 'second', 'first']))
    press('Line 5 earlier')
    await waitFor(() => expect(ids()).toEqual(['on', 'up', 'rest', 'first', 'second']))
    open(1)
    fireEvent.click(region('Log').getByRole('button', { name: 'Off' }))
    await waitFor(() => expect(entries()[0]).toMatchObject({ id: 'on', do: 'programmer.heating=off' }))
    open(3)
    fireEvent.click(region('Log').getByRole('button', { name: '20 s' }))
    await waitFor(() => expect(entries()[2]).toMatchObject({ do: 'wait=20s' }))
    open(4)
    press('Take back line 4')
    await waitFor(() => expect(ids()).toEqual(['on', 'up', 'rest', 'second']))
    press('Put it back')
    await waitFor(() => expect(ids()).toEqual(['on', 'up', 'rest', 'first', 'second']))
    expect(hunt().lines[3]).toMatchObject({ note: 'hard to reach', entry: { found: { word: 'stiff' } } })
  })

  it('marks what is most likely mistaken, and sets aside what the wiring no longer has', async () => {
    await shown([
      ...heating,
      line({ id: 'gone', see: { at: 'lever', device: 'zv-9' }, found: { word: 'slack' } }),
      line({ id: 'open', see: { at: 'valve', device: 'zv-1' }, found: { word: 'open' } }),
      line({ id: 'live', see: { at: 'points', with: 'tester', red: 'wc.20' }, found: { word: 'dead' } }),
      line({ id: 'motor', see: { at: 'motor', device: 'zv-1' }, found: { word: 'hums' } }),
      line({ id: 'lever', see: { at: 'lever', device: 'zv-1' }, found: { word: 'stiff' } }),
    ])
    await screen.findByText(/Set aside: there is no device "zv-9"/)
    await screen.findByText(/does not go with the rest/)
    expect(document.querySelector('.doubtful-line')).not.toBeNull()
  })

  it('has findings from before hunts had lines, as what was set and seen; each is taken back as a whole', async () => {
    const { store, job } = await shown()
    await act(() =>
      store.record({
        do: 'observe',
        finding: {
          id: 'finding-1',
          asking: ['programmer.heating', 'stat-1.contact'],
          observable: { kind: 'boiler', device: 'boiler' },
          result: 'not-called',
          note: '',
          at,
        },
      }),
    )
    await region('Log').findByText('Boiler: does it show a call: Not called')
    expect(screen.getByLabelText('Log').querySelectorAll('ol > li').length).toBeGreaterThan(2)
    fireEvent.click(screen.getByText('Boiler: does it show a call: Not called').closest('button')!)
    press(/^Take back line/)
    await waitFor(() => expect(storeOf(job).current().state!.findings).toEqual([]))
  })
})

it('numbers lines as the log does, and shows what an older finding was made of though it is gone', async () => {
  const { store } = await shown()
  const older = (id: string, device: string) => ({
    id,
    asking: ['programmer.heating', 'stat-1.contact'],
    observable: { kind: 'valve' as const, device },
    result: 'open' as const,
    note: '',
    at,
  })
  await act(() => store.record({ do: 'observe', finding: older('finding-1', 'zv-9') }))
  await act(() => store.record({ do: 'observe', finding: older('finding-2', 'zv-1') }))
  const log = screen.getByLabelText('Log')
  await within(log).findByText('Set aside: the present wiring does not have it')
  const numbers = [...log.querySelectorAll('ol > li')].map((e) => e.querySelector('.no')!.textContent)
  expect(numbers).toEqual(numbers.map((_, i) => String(i + 1)))
  const seen = within(log).getByText('House valve: open or shut: Open').closest('li')!
  const number = seen.querySelector('.no')!.textContent
  await waitFor(() => expect(screen.getByLabelText('Suspects').getAttribute('aria-busy')).toBe('false'))
  const told = [...document.querySelectorAll('.suspects .why')].map((e) => e.textContent).join()
  expect(told).toContain(`line ${number}`)
  expect(told).not.toContain(`line ${Number(number) - 1}`)
})

describe('the end', () => {
  /** Somebody who does what the card says, at a system with this wrong, until it asks for no look any more. */
  async function led(rig: Rig, isAtEnd: () => boolean) {
    for (let turn = 0; turn < 30 && !isAtEnd(); turn++) {
      const look = await card()
      const { acts, see } = JSON.parse(look.dataset.look!) as { acts: string[]; see: WrittenLook }
      for (const act of acts)
        if (act === settle) rig.simulation.settle()
        else rig.perform(parseAction(act))
      const found = lookAt(rig.simulation, see as Look)
      const word = wordOf(found) ?? ('value' in found && found.value === null ? `null ${found.unit}` : '')
      const answer = look.querySelector(`.answers [data-answer="${word}"]`) ?? within(look).getByText('Can’t tell')
      fireEvent.click(answer)
      await waitFor(() => expect(screen.getByLabelText('Suspects').getAttribute('aria-busy')).toBe('false'))
      await waitFor(() =>
        expect(screen.queryByLabelText('Next look') ?? screen.queryByLabelText('Conclusion')).not.toBeNull(),
      )
    }
  }

  it('says what it comes down to and what speaks for it; is put right, proved, and closed when nothing is to be put back', async () => {
    const { hunt, entries, store } = await shown([
      line({ id: 'says', says: { what: 'does-not-come-on', demand: 'heating-1' } }),
    ])
    const rig = new Rig(compile(store.current().state!.document.wiring))
    rig.perform({ do: 'fault', fault: 'zv-1.motor.open' })
    await led(rig, () => screen.queryByLabelText('Conclusion') !== null)
    const conclusion = await screen.findByLabelText('Conclusion')
    expect(conclusion.textContent).toContain('motor open')
    expect(conclusion.querySelectorAll('.evidence li').length).toBeGreaterThan(1)
    press('It is put right')
    rig.perform({ do: 'mend', fault: 'zv-1.motor.open' })
    rig.simulation.settle()
    await card()
    expect(entries().some((entry) => 'mended' in entry && entry.mended === 'zv-1.motor.open')).toBe(true)
    // One press, one line, whatever else the same remedy cures.
    expect([...document.querySelectorAll('.finding-log .mended')].map((e) => e.textContent)).toEqual([
      expect.stringMatching(/Put right: house valve: motor open.*and \d+ more that the same remedy cures/i),
    ])
    await led(rig, () => screen.queryByText(/^Before you leave, once: Hot water/) !== null)
    // It was not said to be cured before the same demand was asked for again.
    expect(entries().at(-1)).toMatchObject({ see: { at: 'warmth' }, found: { word: 'warms' } })
    press('Can’t do that')
    press('Not this one')
    await waitFor(() => expect(document.querySelector('.cured')?.textContent).toContain('Not tried: Hot water.'))
    press('Write the finding')
    await screen.findByText(/^Not closed yet/)
    const list = region('To put back')
    fireEvent.click(list.getAllByRole('button', { name: 'Leave it for now' })[0])
    fireEvent.change(list.getByLabelText('Its limits'), { target: { value: 'heating alone' } })
    fireEvent.change(list.getByLabelText('Who was told'), { target: { value: 'I. Penrose' } })
    fireEvent.click(list.getByRole('button', { name: 'Leave it until then' }))
    await waitFor(() => expect(recordOf(store.current().state!).measures).toHaveLength(1), { timeout: 20_000 })
    for (let turn = 0; turn < 8 && screen.queryByText(/^Not closed yet/); turn++) {
      const [back] = screen.queryAllByRole('button', { name: 'Put back' })
      const before = entries().length
      fireEvent.click(back)
      await waitFor(() => expect(entries().length).toBe(before + 1))
    }
    await screen.findByText(/^Closed/)
    expect(hunt().finding).toMatchObject({ proved: true })
    expect(hunt().finding!.causes[0].label).toContain('motor open')
    press('Go on after all')
    await waitFor(() => expect(hunt().finding).toBeUndefined())
  })
})

describe('a reading', () => {
  it('is typed on the pad, or taken from the simulated meter: the system as it stands in Trace', async () => {
    const { entries, job } = await shown(heating, '?see=noticed&thing=spur')
    press('Type W')
    const pad = within(screen.getByLabelText('Reading'))
    fireEvent.click(pad.getByRole('button', { name: '4' }))
    fireEvent.click(pad.getByRole('button', { name: '2' }))
    fireEvent.click(pad.getByRole('button', { name: 'Delete a digit' }))
    fireEvent.click(pad.getByRole('button', { name: /Simulated meter/ }))
    await pad.findByText(/nothing has been done there yet/)
    await here.keepSitting(job, { do: ['programmer.heating=on', 'wait=5s'] })
    fireEvent.click(pad.getByRole('button', { name: /Simulated meter/ }))
    await waitFor(() => expect(entries().at(-1)).toMatchObject({ see: { with: 'power' }, found: { unit: 'W' } }))
  })
})

describe('what the eyes find', () => {
  it('is written down of a device or a box, its wiring beside the drawing', async () => {
    const { entries } = await shown(heating, '?see=noticed&thing=stat-1')
    const look = (at: string) => within(document.querySelector<HTMLElement>(`.one-look[data-look*='"${at}"']`)!)
    const drawn = look('wiring').getByLabelText('As it is drawn')
    const place = (name: string) => within(drawn).getByRole('button', { name: new RegExp(`^${name} `) })
    expect(place('L').textContent).toContain('brown')
    fireEvent.click(place('SL'))
    fireEvent.click(place('N'))
    fireEvent.click(place('L'))
    fireEvent.click(place('N'))
    expect(place('SL').getAttribute('aria-pressed')).toBe('true')
    expect(look('wiring').getByRole<HTMLButtonElement>('button', { name: 'All as drawn' }).disabled).toBe(true)
    fireEvent.click(look('wiring').getByRole('button', { name: 'Otherwise at L and SL' }))
    await waitFor(() =>
      expect(entries().at(-1)).toMatchObject({
        see: { at: 'wiring', thing: 'stat-1' },
        found: { word: 'otherwise', at: ['stat-1.L', 'stat-1.SL'] },
      }),
    )
    expect(region('Log').getByText(/the wiring beside the drawing: Otherwise at L and SL/)).toBeTruthy()
  })

  it('is otherwise somewhere, where nobody can say where', async () => {
    const { entries } = await shown(heating, '?see=noticed&thing=stat-1')
    const look = within(document.querySelector<HTMLElement>(`.one-look[data-look*='"wiring"']`)!)
    fireEvent.click(look.getByRole('button', { name: /^Something is otherwise/ }))
    await waitFor(() => expect(entries().at(-1)).toMatchObject({ found: { word: 'otherwise' } }))
    expect(entries().at(-1)).not.toHaveProperty('found.at')
  })

  it('stands above the readings of a wiring centre', async () => {
    const { entries } = await shown(heating, '?see=noticed&thing=wc')
    const box = within(document.querySelector<HTMLElement>('.by-eye')!)
    fireEvent.click(box.getByRole('button', { name: 'Something burnt' }))
    await waitFor(() =>
      expect(entries().at(-1)).toMatchObject({ see: { at: 'eyes', thing: 'wc' }, found: { word: 'burnt' } }),
    )
  })
})

describe('more than one cause at once', () => {
  it('stands open among the suspects where the address says so, in sight on a phone as well', async () => {
    await shown(heating, '?see=suspects&several=open')
    const several = document.querySelector<HTMLDetailsElement>('.suspects .at-once')!
    await waitFor(() => expect(several.open).toBe(true))
    expect(document.activeElement).toBe(several.querySelector('summary'))
    expect(screen.getByRole('main').className).toContain('shows-suspects')
  })

  it('is gone through on request, pairs and then threes; what is left out is told, and whether the log has gone on', async () => {
    const { store } = await shown(heating)
    await card()
    press('And threes')
    const several = () => within(document.querySelector<HTMLElement>('.at-once')!)
    await waitFor(() =>
      expect(several().getByText(/All that were looked at/).textContent).toMatch(
        /not looked at: (at most|under) \d+ %/,
      ),
    )
    const items = () => several().getAllByRole('listitem')
    expect(items().length).toBe(5)
    expect(items()[0].querySelectorAll('.one-of').length).toBeGreaterThan(1)
    expect(several().queryByText(/before its last change/)).toBeNull()
    const next = line({ id: 'b', see: boiler, found: { word: 'not-called' } })
    await act(async () => void (await store.record({ do: 'hunt', lines: [next] })))
    await several().findByText(/before its last change/)
    expect(several().getByRole('button', { name: 'Look at pairs again' })).toBeTruthy()
  })
})
