/** @jest-environment jsdom */
import { recordOf } from '@nobbet/contract'
import { act, fireEvent, screen, waitFor, within } from '@testing-library/react'
import '../../testing/patience'
import { showAt } from '../../testing/page'
import { storeOf } from '../../testing/stores'
import { ChangePage } from './change-page'

jest.mock('../store/stores', () => jest.requireActual('../../testing/stores'))
jest.mock('../workers/compute', () => jest.requireActual('../../testing/compute'))

let jobs = 0
async function changing(query = '') {
  const job = `job-change-${++jobs}`
  await storeOf(job).load()
  showAt('/jobs/:job/change', `/jobs/${job}/change${query}`, <ChangePage />)
  await screen.findByText('What is it to be?')
  const state = () => storeOf(job).current().state!
  return { job, state, change: () => recordOf(state()).change }
}
const wish = (name: RegExp) => fireEvent.click(screen.getByRole('button', { name }))
const card = async () => within(await screen.findByRole('region', { name: 'This move' }))
const count = () => screen.getByText(/\d+ of \d+ done/).textContent

describe('a change of controls', () => {
  it('is picked from what could be, kept with the job, and dropped again', async () => {
    const { change } = await changing()
    wish(/^Programmable thermostat/)
    await card()
    expect(change()).toMatchObject({ name: expect.stringMatching(/^Programmable thermostat/) })
    fireEvent.click(screen.getByRole('button', { name: 'Drop this change' }))
    await screen.findByText('What is it to be?')
    expect(change()).toBeUndefined()
  })

  it('is done move by move, each tick recorded; something else can be added', async () => {
    const { state, change } = await changing()
    wish(/^Programmable thermostat/)
    fireEvent.click((await card()).getByRole('button', { name: 'Done' }))
    await waitFor(() => expect(count()).toMatch(/^1 of/))
    expect(state().ticks).toEqual([expect.stringMatching(/^change /)])
    fireEvent.click((await card()).getByRole('button', { name: 'Back' }))
    fireEvent.click((await card()).getByRole('button', { name: 'Done. Take the tick back' }))
    await waitFor(() => expect(count()).toMatch(/^0 of/))
    fireEvent.click(screen.getByRole('button', { name: 'And something else' }))
    wish(/^Valve head/)
    await waitFor(() => expect(change()!.name).toMatch(/^Programmable thermostat.*; Valve head/))
    expect(change()!.to.types).toEqual({ 'zv-1': 'two-port-valve-other-lead' })
  })

  it('is read backwards as it would be taken back, without ticks', async () => {
    await changing()
    wish(/^Programmable thermostat/)
    await card()
    fireEvent.click(screen.getByRole('button', { name: /^Read backwards/ }))
    expect(await screen.findByText('The old wiring again')).toBeTruthy()
    expect(screen.getAllByText(/in the place of/).length).toBeGreaterThan(0)
    expect(screen.queryAllByRole('checkbox')).toHaveLength(0)
  })

  it('once every move is done becomes the wiring, as one step; the old one is kept', async () => {
    const { job, state, change } = await changing()
    const before = state().document.wiring
    wish(/^Programmable thermostat/)
    await card()
    const ids = screen.getAllByRole('checkbox').map((box) => box.closest('li')!.dataset.step!)
    await act(async () => {
      for (const id of ids) await storeOf(job).record({ do: 'tick', step: id, done: true })
    })
    fireEvent.click(await screen.findByRole('button', { name: 'Record the new wiring' }))
    await screen.findByText(/^Recorded: Programmable/)
    expect(state().document.wiring.devices.find(({ id }) => id === 'stat-1')!.type).toBe('room-thermostat-programmable')
    expect(state().document.brief.fitted.circuits[0]).toMatchObject({ thermostat: 'programmable', timed: 'by-itself' })
    const kept = state().revisions.find(({ id }) => id === change()!.done!.revision)!
    expect(kept).toMatchObject({ kind: 'as-found', installation: before })
    // Checks and Trace look for what departs from the plan: that is the new one now.
    expect(state().revisions.findLast((one) => one.kind === 'planned')!.installation).toEqual(state().document.wiring)
    expect(state().ticks).toEqual([])
  })

  it('says what to do first where an end is not known', async () => {
    const { job } = await changing()
    await act(async () => {
      await storeOf(job).edit('An end nobody has found', (document) => {
        const wiring = structuredClone(document.wiring)
        wiring.cables[1].cores[0].ends[0] = { at: 'unknown' }
        return { ...document, wiring }
      })
    })
    wish(/^Programmable thermostat/)
    expect((await screen.findByRole('alert')).textContent).toMatch(/cannot be worked out yet.*find the ends of/)
  })
})
