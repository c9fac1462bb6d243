/** @jest-environment jsdom */
import { exampleById } from '@nobbet/core'
import { fireEvent, screen, waitFor, within } from '@testing-library/react'
import { showAt } from '../../testing/page'
import '../../testing/patience'
import { storeOf } from '../store/stores'
import { Trace } from './trace-page'

jest.mock('../store/stores', () => jest.requireActual('../../testing/stores'))
jest.mock('../workers/compute', () => jest.requireActual('../../testing/compute'))
jest.mock('react-router', () => ({ ...jest.requireActual('react-router'), useNavigation: () => ({ state: 'idle' }) }))

const { installation } = exampleById('two-port-heating-hot-water')!
Element.prototype.scrollIntoView = jest.fn()
let jobs = 0
const show = (...acts: string[]) => {
  const job = `job-histories-${++jobs}`
  const search = `?${new URLSearchParams(acts.map((act) => ['do', act]))}`
  return { job, ...showAt('/trace', `/trace${search}`, <Trace installation={installation} job={job} />) }
}
const heating = ['programmer.heating=on', 'stat-1.set=25', 'wait=60s']
const word = () => document.querySelector('[data-demand="heating-1"] .demand-word')!.textContent
const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }))

describe('what happened', () => {
  it('leads back to each of its moments, and forward to the end', () => {
    show(...heating)
    expect(word()).toBe('Calling')
    press(/^What happened/)
    const events = within(screen.getByRole('list', { name: /What happened/ }))
    fireEvent.click(events.getByRole('button', { name: /House valve opening/ }))
    expect(word()).toMatch(/Opening/)
    expect(screen.getByText(/Looking back at/)).toBeTruthy()
    press('To the end')
    expect(word()).toBe('Calling')
  })

  it('goes on another way from an earlier moment, and undone is there again', async () => {
    const { at } = show(...heating)
    press(/^What happened/)
    const events = within(screen.getByRole('list', { name: /What happened/ }))
    fireEvent.click(events.getByRole('button', { name: /House valve opening/ }))
    press('House thermostat turn down')
    expect(word()).toBe('Satisfied')
    await waitFor(() => expect(new URLSearchParams(at().search).getAll('do')).toContain('stat-1.set=15'))
    press('Undo')
    expect(word()).toBe('Calling')
    await waitFor(() => expect(new URLSearchParams(at().search).getAll('do')).toEqual(heating))
  })

  it('goes from event to event while looking back', () => {
    show(...heating)
    press(/^What happened/)
    const events = within(screen.getByRole('list', { name: /What happened/ }))
    fireEvent.click(events.getByRole('button', { name: /House valve opening/ }))
    const looked = () => screen.getByText(/Looking back at/).textContent
    const first = looked()
    press(/Next event/)
    expect(looked()).not.toBe(first)
  })
})

describe('faults to put in', () => {
  it('stand by device with what each shows, conductors and links as well; what is in stands first', async () => {
    show()
    press('Faults')
    const dialog = await screen.findByRole('dialog', { name: 'Put a fault in and watch' })
    fireEvent.change(within(dialog).getByLabelText('Find a fault'), { target: { value: 'hot water valve motor open' } })
    await within(dialog).findByText('Hot water does not come on')
    fireEvent.change(within(dialog).getByLabelText('Find a fault'), {
      target: { value: 'black of boiler cable in wiring centre instead' },
    })
    const [moved] = await within(dialog).findAllByRole('button', {
      name: /black of Boiler cable in Wiring centre 30 instead/,
    })
    fireEvent.click(moved)
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull())
    press(/Faults/)
    const isIn = within(await screen.findByRole('region', { name: 'What is in' }))
    expect(isIn.getByRole('button', { pressed: true }).textContent).toMatch(/black of Boiler cable.*Take out/)
  })
})

describe('a scenario', () => {
  it('is kept with the job under a name of its own', async () => {
    const { job } = show(...heating)
    await storeOf(job).load()
    press('Share')
    const dialog = within(await screen.findByRole('dialog', { name: 'Share it, or keep it' }))
    expect(dialog.getByLabelText('Link').getAttribute('value')).toContain('programmer.heating')
    fireEvent.change(dialog.getByLabelText('Name of the scenario'), { target: { value: ' House alone ' } })
    fireEvent.click(dialog.getByRole('button', { name: 'Keep' }))
    await waitFor(() =>
      expect(
        storeOf(job)
          .current()
          .state?.scenarios.map(({ name, acts }) => ({ name, acts })),
      ).toEqual([{ name: 'House alone', acts: heating }]),
    )
  })

  it('is opened from a file; one that is none is told by field and reason, and what was done stays', async () => {
    show(...heating)
    press('Share')
    const dialog = within(await screen.findByRole('dialog', { name: 'Share it, or keep it' }))
    const give = (content: string) =>
      fireEvent.change(dialog.getByLabelText('Open a file of a scenario'), {
        target: { files: [{ text: () => Promise.resolve(content) }] },
      })
    give('{"format":"nobbet-scenario","version":1,"name":"Odd","acts":["wait=soon"]}')
    expect((await dialog.findByRole('alert')).textContent).toMatch(/acts\.0: "soon" is not a time/)
    give('[')
    await waitFor(() => expect(dialog.getByRole('alert').textContent).toMatch(/no JSON/))
    expect(word()).toBe('Calling')
    give('{"format":"nobbet-scenario","version":1,"name":"Water","acts":["programmer.hot-water=on","wait=1s"]}')
    await waitFor(() => expect(word()).toBe('Not asked'))
  })
})

describe('a reading from site', () => {
  it('goes into the job’s log beside what should read, with the controls as they stand here', async () => {
    const job = `job-site-${++jobs}`
    await storeOf(job).load()
    const search = new URLSearchParams([
      ['do', 'programmer.heating=on'],
      ['do', 'stat-1.set=25'],
      ['do', 'wait=60s'],
      ['meter', 'meter,boiler.SL,boiler.N'],
    ])
    showAt('/trace', `/trace?${search}`, <Trace installation={installation} job={job} />)
    const meter = within(screen.getByRole('region', { name: 'Meter' }))
    expect(meter.getByRole('status', { hidden: true }).textContent).toContain('230 V')
    fireEvent.change(await meter.findByLabelText('On site'), { target: { value: '0,4' } })
    fireEvent.click(meter.getByRole('button', { name: 'Note it' }))
    await meter.findByText(/Noted: 0.4/)
    const entries = storeOf(job)
      .current()
      .state!.hunt.lines.map(({ entry: { id, ...entry } }) => (void id, entry))
    expect(entries).toEqual([
      { do: 'programmer.heating=on' },
      { do: 'stat-1.set=25' },
      { do: 'settle' },
      { see: { at: 'points', with: 'meter', red: 'boiler.SL', black: 'boiler.N' }, found: { value: 0.4, unit: 'V' } },
    ])
    // A second reading in the same state sets nothing again.
    fireEvent.click(meter.getByRole('button', { name: /Live/ }))
    await waitFor(() => expect(storeOf(job).current().state!.hunt.lines).toHaveLength(5))
  })
})
