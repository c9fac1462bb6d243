/** @jest-environment jsdom */
import { exampleById } from '@nobbet/core'
import { fireEvent, screen, waitFor, within } from '@testing-library/react'
import { showAt } from '../../testing/page'
import '../../testing/patience'
import { Trace } from './trace-page'

jest.mock('../store/stores', () => jest.requireActual('../../testing/stores'))
jest.mock('react-router', () => ({ ...jest.requireActual('react-router'), useNavigation: () => ({ state: 'idle' }) }))

const { installation } = exampleById('two-port-heating-hot-water')!
// The simulated page has no scrolling.
Element.prototype.scrollIntoView = jest.fn()
let jobs = 0
const show = (search = '', job: string | undefined = `job-trace-${++jobs}`) =>
  showAt('/trace', `/trace${search}`, <Trace installation={installation} job={job} />)
const did = (...acts: string[]) => `?${new URLSearchParams(acts.map((act) => ['do', act]))}`
const demand = (id: string) => document.querySelector<HTMLElement>(`[data-demand="${id}"]`)!

describe('the line of demands', () => {
  it('says how far a valve on its way has come, in no word of a fault', () => {
    show(did('programmer.heating=on', 'stat-1.set=25', 'wait=8s'))
    const heating = demand('heating-1')
    expect(heating.textContent).toMatch(/Opening \d+\u00a0%/)
    expect(heating.className).toContain('travelling')
    expect(within(heating).queryByRole('button', { name: 'Why?' })).toBeNull()
    expect(demand('hot-water').textContent).toContain('Not asked')
  })

  it('says where a demand is held up once nothing is on its way, and why', () => {
    show(did('fault=zv-1.motor.open', 'programmer.heating=on', 'stat-1.set=25', 'wait=60s'))
    const heating = demand('heating-1')
    expect(heating.className).toContain('held-up')
    expect(heating.textContent).toMatch(/Held up.*at .*valve/i)
    fireEvent.click(within(heating).getByRole('button', { name: 'Why?' }))
    const why = screen.getByRole('region', { name: 'Why' })
    expect(why.querySelector('.wrong')!.textContent).toMatch(/valve motor is open inside/)
  })
})

describe('the runs', () => {
  it('draw what all have in common once, and leave it each for itself', async () => {
    show()
    expect(document.querySelectorAll('[data-gate="spur"]')).toHaveLength(1)
    const trunk = screen.getByRole('article', { name: 'What all have in common' })
    expect(trunk.className).toContain('live')
    const runs = [...document.querySelectorAll('[data-run]')]
    expect(runs.every((run) => run.className.includes('leaves fed'))).toBe(true)
    fireEvent.click(within(trunk).getByRole('button', { name: / off$/ }))
    await waitFor(() => expect(trunk.className).not.toContain('live'))
    expect(runs.some((run) => run.className.includes('fed'))).toBe(false)
  })
})

describe('a terminal', () => {
  it('that something else was found at on site leads to its device or box in the hunt', () => {
    show('?at=wc.21', 'larch')
    const link = screen.getByRole('link', { name: /note it in Hunt/ })
    expect(link.getAttribute('href')).toBe('/jobs/larch/hunt?see=noticed&thing=wc')
  })

  it('behind a thermostat is looked at by the name of its station', () => {
    show(did('programmer.heating=on'), 'larch')
    fireEvent.click(document.querySelector('[data-gate="stat-1"] button.station-name')!)
    const panel = screen.getByRole('region', { name: 'Picked terminal' })
    expect(panel.textContent).toMatch(/thermostat/i)
    expect(
      within(panel)
        .getByRole('link', { name: /note it in Hunt/ })
        .getAttribute('href'),
    ).toContain('thing=stat-1')
  })

  it('of an example leads to none: there is no hunt to note it in', () => {
    showAt('/trace', '/trace?at=wc.21', <Trace installation={installation} />)
    expect(screen.getByRole('region', { name: 'Picked terminal' })).toBeTruthy()
    expect(screen.queryByRole('link', { name: /note it in Hunt/ })).toBeNull()
  })
})

describe('where there is room for one only', () => {
  it('the runs, the box or the water is looked at; the meter stays in the hand beside any of them', () => {
    const { at } = show()
    const places = within(screen.getByRole('group', { name: 'What is looked at' }))
    const pressed = () => places.getAllByRole('button', { pressed: true }).map((button) => button.textContent?.trim())
    expect(pressed()).toEqual(['Runs'])
    fireEvent.click(places.getByRole('button', { name: 'Water' }))
    expect(pressed()).toEqual(['Water'])
    expect(screen.getByRole('region', { name: 'Water' })).toBeTruthy()
    fireEvent.click(places.getByRole('button', { name: 'Meter' }))
    fireEvent.click(places.getByRole('button', { name: 'Runs' }))
    expect(pressed()).toEqual(['Runs', 'Meter'])
    expect(screen.getByRole('region', { name: 'Meter' })).toBeTruthy()
    expect(at().pathname).toBe('/trace')
  })
})

describe('the line of time', () => {
  it('tells what happened last, and all of it when it is pressed', () => {
    show(did('programmer.heating=on', 'stat-1.set=25', 'wait=60s'))
    const last = screen.getByRole('button', { name: /^What happened/ })
    expect(last.textContent).toMatch(/Boiler/)
    expect(screen.queryByRole('list', { name: /What happened/ })).toBeNull()
    fireEvent.click(last)
    const events = within(screen.getByRole('list', { name: /What happened/ })).getAllByRole('listitem')
    expect(events.length).toBeGreaterThan(3)
  })
})

describe('the keys', () => {
  it('are listed by a question mark', async () => {
    show()
    fireEvent.keyDown(document.body, { key: '?', code: 'Slash', shiftKey: true })
    const dialog = await screen.findByRole('dialog', { name: 'Keys of Trace' })
    expect(within(dialog).getByText('To the next event')).toBeTruthy()
  })
})

describe('what is looked for', () => {
  it('is found by a few letters, terminal, conductor or something to do, and gone to by Enter', async () => {
    show(did('programmer.heating=on', 'wait=1s'))
    const find = async (text: string) => {
      fireEvent.keyDown(document.body, { key: '/', code: 'Slash' })
      const dialog = within(await screen.findByRole('dialog', { name: 'Find, or do' }))
      const field = dialog.getByLabelText(/Find a terminal/)
      fireEvent.change(field, { target: { value: text } })
      return { dialog, enter: () => fireEvent.submit(field.closest('form')!) }
    }
    const { enter } = await find('terminal boiler sl')
    enter()
    expect(screen.getByRole('region', { name: 'Picked terminal' }).textContent).toContain('Boiler SL')
    ;(await find('conductor black of boiler')).enter()
    expect(screen.getByRole('region', { name: 'Picked conductor' }).textContent).toContain('black of Boiler cable')
    ;(await find('why house')).enter()
    expect(screen.getByRole('region', { name: 'Why' }).textContent).toContain('House')
    const { dialog } = await find('put a fault')
    fireEvent.click(dialog.getByRole('button', { name: /Put a fault in/ }))
    expect(await screen.findByRole('dialog', { name: 'Put a fault in and watch' })).toBeTruthy()
  })

  it('that is not there is told, not left blank', async () => {
    show()
    fireEvent.keyDown(document.body, { key: '/', code: 'Slash' })
    const dialog = within(await screen.findByRole('dialog', { name: 'Find, or do' }))
    fireEvent.change(dialog.getByLabelText(/Find a terminal/), { target: { value: 'gremlin' } })
    expect(dialog.getByText(/Nothing of that name/)).toBeTruthy()
  })
})
