/** @jest-environment jsdom */
import { huntOf, recordOf, runsOf } from '@nobbet/contract'
import { act, fireEvent, screen, waitFor, within } from '@testing-library/react'
import '../../testing/patience'
import { showAt } from '../../testing/page'
import { storeOf } from '../../testing/stores'
import { CommissionPage } from './commission-page'

jest.mock('../store/stores', () => jest.requireActual('../../testing/stores'))
jest.mock('../workers/compute', () => jest.requireActual('../../testing/compute'))

beforeAll(() => {
  window.scrollTo = () => undefined
})

let jobs = 0
async function commissioning(run = 'leaving') {
  const job = `job-commission-${++jobs}`
  await storeOf(job).load()
  const page = showAt('/jobs/:job/commission', `/jobs/${job}/commission?run=${run}`, <CommissionPage />)
  const state = () => storeOf(job).current().state!
  return { job, state, runs: () => runsOf(recordOf(state())), ...page }
}
const press = (name: RegExp | string) => fireEvent.click(screen.getByRole('button', { name }))
const card = () => screen.getByRole('region', { name: 'This step' })
const title = () => card().querySelector('.row-title')!.textContent
const steps = () => within(screen.getByRole('region', { name: 'Steps' }))
const onCard = async (name: string) => waitFor(() => expect(title()).toBe(name))

/** Begun, and gone on to a step by pressing what was expected. */
async function begunAt(name: string, run = 'arrival') {
  const page = await commissioning(run)
  fireEvent.click(await screen.findByRole('button', { name: 'Begin the run' }))
  await screen.findByRole('region', { name: 'This step' })
  for (let i = 0; title() !== name; i++) {
    if (i > 30) throw new Error(`there is no step "${name}"`)
    const was = title()
    await act(async () => press(/✓|Written down/))
    await waitFor(() => expect(title()).not.toBe(was))
  }
  return page
}

describe('a run', () => {
  it('says before it is begun how many steps and minutes it has, as it is wanted', async () => {
    await commissioning()
    const size = () => screen.getByText(/steps, about/).textContent
    await screen.findByText(/steps, about/)
    const whole = size()
    fireEvent.click(screen.getByRole('checkbox', { name: /Short run/ }))
    await waitFor(() => expect(parseInt(size())).toBeLessThan(parseInt(whole)))
    press('Hot water first')
    await waitFor(() => expect(steps().getAllByText(/: alone$/)[0]).toBeTruthy())
  })

  it('goes on by one press a step, and records what was expected and found', async () => {
    const { runs } = await begunAt('House: alone', 'leaving')
    const done = runs()[0].done
    expect(done.map(({ row }) => row)).toEqual([
      ...['as-it-stood', 'box', 'earths', 'polarity', 'covers', 'rest'],
      'before-travel-ends heating-1',
    ])
    const [earth] = done.find(({ row }) => row === 'earths')!.looks
    expect(earth).toMatchObject({ see: { with: 'earth' }, expect: { unit: 'Ω' }, found: 'as-expected' })
    expect(done.find(({ row }) => row === 'rest')!.acts).toContain('programmer.heating=off')
  })

  it('on arrival needs no cover off', async () => {
    await begunAt('Everything off')
    expect(screen.queryByText(/earth continuity/)).toBeNull()
  })

  it('writes down how the controls stand, and puts them back so at the end', async () => {
    const { runs } = await commissioning('arrival')
    fireEvent.click(await screen.findByRole('button', { name: 'Begin the run' }))
    const [dial] = await screen.findAllByRole('spinbutton', { name: /Set in °C/ })
    fireEvent.change(dial, { target: { value: '19' } })
    await act(async () => void fireEvent.submit(dial.closest('form')!))
    await screen.findByText('✓ 19 °C')
    expect(runs()[0].options.stood).toEqual({ 'stat-1.set': '19' })
    fireEvent.click(steps().getByRole('button', { name: /Everything put back/ }))
    expect(await within(card()).findByText('House thermostat: up to 19 °C')).toBeTruthy()
  })
})

describe('a step that is not as expected', () => {
  async function failed() {
    const page = await begunAt('House: alone')
    fireEvent.click(within(card()).getByRole('button', { name: 'House valve: open or shut: otherwise' }))
    fireEvent.click(within(card()).getByRole('button', { name: /^Shut/ }))
    await act(async () => press('Rest not looked at'))
    await within(card()).findByText(/Not as expected: House valve: shut, expected open/)
    return page
  }

  it('says of the other looks nothing where nobody looked', async () => {
    const { runs } = await failed()
    const { looks, how } = runs()[0].done.at(-1)!
    expect(how).toBe('otherwise')
    expect(looks.map(({ found }) => found).filter(Boolean)).toEqual([{ word: 'shut' }])
  })

  it('opens the hunt with what was done and seen so far, once', async () => {
    const { state, at, go, job } = await failed()
    await act(async () => press(/Hunt it/))
    await waitFor(() => expect(at().pathname).toBe(`/jobs/${job}/hunt`))
    const lines = huntOf(state()).lines
    expect(lines.at(-1)!.entry).toMatchObject({ see: { at: 'valve', device: 'zv-1' }, found: { word: 'shut' } })
    expect(lines.filter(({ entry }) => 'do' in entry && entry.do === 'programmer.heating=on')).toHaveLength(1)
    await go(`/jobs/${job}/commission?run=arrival&step=alone heating-1`)
    await act(async () => fireEvent.click(await screen.findByRole('button', { name: /Hunt it/ })))
    expect(huntOf(state()).lines).toHaveLength(lines.length)
  })

  it('goes on with a hunt that had come to its end; what it came to stays in the record', async () => {
    const { state, job } = await failed()
    const finding = {
      id: 'finding-1',
      at: new Date().toISOString(),
      causes: [{ id: 'stat-1.contact.open', label: 'House thermostat: contact open' }],
      share: 0.97,
      remedy: 'Replace it',
      evidence: ['Line 4'],
      proved: true,
    }
    await act(async () => void (await storeOf(job).record({ do: 'conclude', finding })))
    await act(async () => press(/Hunt it/))
    await waitFor(() => expect(huntOf(state()).finding).toBeUndefined())
    expect(recordOf(state()).items).toMatchObject([
      { kind: 'found', text: 'House thermostat: contact open. Replace it', evidence: ['Line 4'] },
    ])
  })

  it('is done again after the hunt from controls that nobody knows any more, and both times stay on record', async () => {
    const { runs, job, state } = await failed()
    await act(async () => {
      const when = new Date(Date.now() + 1000).toISOString()
      await storeOf(job).record({
        do: 'hunt',
        lines: [{ entry: { id: 'own', do: 'stat-1.set=5' }, at: when, note: '' }],
      })
    })
    expect(huntOf(state()).lines).toHaveLength(1)
    press(/Do it again/)
    // The channel was on before: now it is set once more.
    expect(within(card()).getByText('Programmer: heating on')).toBeTruthy()
    await act(async () => press('✓ As expected'))
    await waitFor(() =>
      expect(
        runs()[0]
          .done.map(({ how }) => how)
          .slice(-2),
      ).toEqual(['otherwise', 'as-expected']),
    )
    await onCard('House: dropped by its thermostat')
    fireEvent.click(steps().getByRole('button', { name: /House: alone/ }))
    expect(await screen.findByText(/Before: /)).toBeTruthy()
  })

  it('is taken back as if it had not been pressed', async () => {
    const { runs } = await failed()
    const before = runs()[0].done.length
    await act(async () => press('Take it back'))
    expect(runs()[0].done).toHaveLength(before - 1)
    expect(await within(card()).findByRole('button', { name: '✓ As expected' })).toBeTruthy()
  })
})

describe('a run that is gone on with', () => {
  it('takes Enter as the press of a step, but not from what has the focus', async () => {
    const { runs } = await begunAt('Everything off')
    const later = within(card()).getByRole('button', { name: 'Deferred' })
    later.focus()
    await act(async () => void fireEvent.keyDown(later, { key: 'Enter', code: 'Enter' }))
    expect(runs()[0].done).toHaveLength(1)
    await act(async () => void fireEvent.keyDown(document.body, { key: 'Enter', code: 'Enter' }))
    await waitFor(() => expect(runs()[0].done.at(-1)!.row).toBe('rest'))
  })

  it('knows nothing of controls that are there no more, and sets all that there are', async () => {
    const { runs, job } = await begunAt('House: dropped by its thermostat')
    const { id, ...row } = runs()[0].done.at(-1)!
    await act(async () => {
      const acts = ['gone.control=on']
      await storeOf(job).record({ do: 'run-row', run: runs()[0].id, id, row: { ...row, acts } })
    })
    await waitFor(() => expect(within(card()).getByText('Programmer: heating on')).toBeTruthy())
    await act(async () => {
      const acts = ['not an act']
      await storeOf(job).record({ do: 'run-row', run: runs()[0].id, id, row: { ...row, acts } })
    })
    await waitFor(() => expect(within(card()).getByText('Programmer: heating on')).toBeTruthy())
  })
})

describe('a step that is not done as it stands', () => {
  it('is deferred with its reason to a day, and due then', async () => {
    const { runs } = await begunAt('House: dropped by its thermostat')
    press('Deferred')
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Write it down' }).disabled).toBe(true)
    fireEvent.change(screen.getByRole('textbox', { name: 'Why' }), { target: { value: 'Thermostat not fitted yet' } })
    fireEvent.change(screen.getByLabelText('It will be done on'), { target: { value: '2026-12-05' } })
    await act(async () => press('Write it down'))
    await onCard('House: raised again')
    expect(runs()[0].done.at(-1)).toMatchObject({ how: 'deferred', until: '2026-12-05', acts: [], looks: [] })
    expect(steps().getByText(/Deferred to .* Thermostat not fitted yet/)).toBeTruthy()
    // What the step would have set was not set: it is now, before it is raised again.
    const acts = within(within(card()).getByRole('list', { name: 'Do' }))
    expect(acts.getAllByRole('listitem').map(({ textContent }) => textContent)).toEqual([
      'House thermostat: down to 5 °C',
      'Wait 30 s',
      'House thermostat: up to 30 °C',
      'Wait 30 s',
    ])
  })

  it('is shown another way by its thermostat’s terminals, read with the demand satisfied', async () => {
    const { runs } = await begunAt('House: alone')
    press('Shown another way')
    expect(await screen.findByText(/not that what it calls for would run/)).toBeTruthy()
    fireEvent.click(screen.getByRole('checkbox', { name: /Read so/ }))
    fireEvent.change(screen.getByRole('textbox', { name: 'Why' }), { target: { value: 'House too warm to call' } })
    await act(async () => press('Write it down'))
    await waitFor(() => expect(runs()[0].done.at(-1)!.how).toBe('another-way'))
    const row = runs()[0].done.at(-1)!
    expect(row.looks.every(({ see }) => see.at === 'points' && see.with === 'tester')).toBe(true)
    expect(row.looks.map(({ found }) => found)).toContain('as-expected')
    expect(row.acts.at(-1)).toBe('stat-1.set=5')
  })
})

describe('a step that is shown another way', () => {
  async function read(answer: RegExp | undefined) {
    const page = await begunAt('House: alone')
    press('Shown another way')
    const panel = within(await screen.findByRole('form', { name: 'Shown another way' }))
    if (answer) {
      fireEvent.click(panel.getAllByRole('button', { name: /otherwise$/ })[0])
      fireEvent.click(panel.getByRole('button', { name: answer }))
    }
    fireEvent.change(panel.getByRole('textbox', { name: 'Why' }), { target: { value: 'House too warm to call' } })
    await act(async () => press('Write it down'))
    await waitFor(() => expect(page.runs()[0].done.at(-1)!.row).toBe('alone heating-1'))
    return page.runs()[0].done.at(-1)!
  }

  it('is not as expected where a reading is not what it has to be', async () => {
    const row = await read(/^Not live/)
    expect([row.how, row.reason]).toEqual(['otherwise', 'House too warm to call'])
    expect(row.looks[0].found).toEqual({ word: 'dead' })
    expect(await screen.findByRole('button', { name: /Hunt it/ })).toBeTruthy()
    expect(screen.queryByText(/has been altered since/)).toBeNull()
  })

  it('in words alone says nothing of how the controls were set', async () => {
    expect(await read(undefined)).toMatchObject({ how: 'another-way', acts: [], waitMs: 0, looks: [] })
  })
})

describe('a run that is ended', () => {
  it('keeps what nothing came of, and goes on when it is wanted', async () => {
    const { runs } = await begunAt('Everything off')
    await act(async () => press('End the run'))
    expect(runs()[0].ended!.open.map(({ row }) => row)).toContain('told')
    await act(async () => press('It goes on'))
    expect(runs()[0].ended).toBeUndefined()
  })

  it('is followed by a new one that knows nothing of how the controls stand now', async () => {
    const { runs } = await commissioning('arrival')
    fireEvent.click(await screen.findByRole('button', { name: 'Begin the run' }))
    const [dial] = await screen.findAllByRole('spinbutton', { name: /Set in °C/ })
    fireEvent.change(dial, { target: { value: '19' } })
    await act(async () => void fireEvent.submit(dial.closest('form')!))
    await act(async () => press('End the run'))
    await act(async () => press('A new run'))
    expect(runs().map(({ options }) => options.stood)).toEqual([{ 'stat-1.set': '19' }, {}])
  })

  it('beside the one on arrival tells what was wrong then and is right now', async () => {
    const { go, job, runs } = await begunAt('House: alone')
    fireEvent.click(within(card()).getByRole('button', { name: 'House valve: open or shut: otherwise' }))
    fireEvent.click(within(card()).getByRole('button', { name: /^Shut/ }))
    await act(async () => press(/Not as expected; the rest is/))
    await go(`/jobs/${job}/commission?run=leaving`)
    fireEvent.click(await screen.findByRole('button', { name: 'Begin the run' }))
    await screen.findByRole('region', { name: 'This step' })
    fireEvent.click(steps().getByRole('button', { name: /House: alone/ }))
    await act(async () => press('✓ As expected'))
    await waitFor(() => expect(runs()[1].done).toHaveLength(1))
    await go(`/jobs/${job}/commission?run=beside`)
    const row = (await screen.findByRole('rowheader', { name: 'House: alone' })).closest('tr')!
    expect(row.textContent).toMatch(/House valve: shut, expected open.*As expected/)
    expect(screen.getByText(/wrong on arrival, right on leaving/).textContent).toMatch(/^1 /)
  })
})

describe('practice', () => {
  it('shows what the simulation shows, records nothing, and tells in the end what was wrong', async () => {
    const { runs } = await commissioning('practice')
    fireEvent.click((await screen.findAllByRole('button', { name: 'Look' }))[0])
    press('✓ As expected')
    press('I know what it is')
    expect(await screen.findByText(/\d of 1 steps judged right/)).toBeTruthy()
    expect(screen.getByRole('button', { name: 'Another one' })).toBeTruthy()
    expect(runs()).toEqual([])
  })
})
