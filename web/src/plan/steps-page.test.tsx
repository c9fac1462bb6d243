/** @jest-environment jsdom */
import { act, fireEvent, screen, waitFor, within } from '@testing-library/react'
import { terminationOrder } from '@nobbet/core'
import { storeOf } from '../../testing/stores'
import { showAt } from '../../testing/page'
import { StepsPage } from './steps-page'

jest.mock('../store/stores', () => jest.requireActual('../../testing/stores'))

let jobs = 0
async function steps(query = '') {
  const job = `job-steps-${++jobs}`
  showAt('/jobs/:job/plan/steps', `/jobs/${job}/plan/steps${query}`, <StepsPage />)
  await screen.findByText(/of \d+ done/)
  return { job, ticks: () => storeOf(job).current().state!.ticks }
}
const card = () => within(screen.getByRole('region', { name: 'This step' }))
const press = (name: string) => fireEvent.click(card().getByRole('button', { name }))
const count = () => screen.getByText(/of \d+ done/).textContent

describe('the steps of a wiring', () => {
  it('are shown one at a time; what is done is ticked and recorded, and the next one comes', async () => {
    const { ticks } = await steps()
    expect(card().getByText('Links of the Wiring centre', { exact: false })).toBeTruthy()
    expect(count()).toMatch(/^0 of/)
    const first = card().getByText(/to/, { selector: '.big-terminal' }).textContent
    press('Done')
    await waitFor(() => expect(count()).toMatch(/^1 of/))
    expect(ticks()).toHaveLength(1)
    expect(card().getByText(/to/, { selector: '.big-terminal' }).textContent).not.toBe(first)
    press('Back')
    press('Done. Take the tick back')
    await waitFor(() => expect(count()).toMatch(/^0 of/))
    expect(ticks()).toEqual([])
  })

  it('take two taps at one place as one: the next step is not ticked by the second', async () => {
    const { ticks } = await steps()
    press('Done')
    await waitFor(() => expect(count()).toMatch(/^1 of/))
    fireEvent.click(card().getByRole('button', { name: 'Done' }), { detail: 2 })
    await new Promise((resolve) => setTimeout(resolve, 50))
    expect(ticks()).toHaveLength(1)
    fireEvent.click(card().getByRole('button', { name: 'Done' }), { detail: 1 })
    await waitFor(() => expect(ticks()).toHaveLength(2))
  })

  it('can be left for later, picked and ticked in the list, and begun with the supply', async () => {
    const { ticks } = await steps()
    const number = () => card().getByText(/^Step \d+ of/).textContent
    press('Later')
    expect(number()).toMatch(/^Step 2 of/)
    expect(ticks()).toEqual([])
    const cable = within(screen.getByRole('region', { name: 'Programmer cable, at the Wiring centre' }))
    fireEvent.click(cable.getByRole('checkbox', { name: /^Land black of Programmer cable/ }))
    await waitFor(() => expect(ticks()).toHaveLength(1))
    expect(ticks()[0]).toMatch(/^programmer-cable\.black\.1@wc\./)
    fireEvent.click(screen.getByRole('button', { name: 'Supply first' }))
    const [first] = screen.getAllByRole('region', { name: /Wiring centre/ })
    expect(first.getAttribute('aria-label')).toBe('Supply cable, at the Wiring centre')
  })

  it('begin in the order of a link that was sent, which says why it is taught so; what is ticked stays so in any order', async () => {
    const { ticks } = await steps('?first=mains')
    expect(screen.getByText(/^L, N and earth together: of all cables at once, after the links/)).toBeTruthy()
    const mains = within(screen.getByRole('region', { name: 'Line, neutral and earth, at the Wiring centre' }))
    fireEvent.click(mains.getByRole('checkbox', { name: /^Land green-yellow of Programmer cable/ }))
    await waitFor(() => expect(ticks()).toHaveLength(1))
    fireEvent.click(screen.getByRole('button', { name: 'Links first' }))
    expect(screen.queryByRole('region', { name: /^Line, neutral and earth/ })).toBeNull()
    const own = within(screen.getByRole('region', { name: 'Programmer cable, at the Wiring centre' }))
    const earth = own.getByRole<HTMLInputElement>('checkbox', { name: /^Land green-yellow of Programmer cable/ })
    expect(earth.checked).toBe(true)
  })

  it('are done when all are ticked, and say what comes before the power', async () => {
    const { ticks, job } = await steps()
    const all = terminationOrder(storeOf(job).current().state!.document.wiring).flatMap((stage) => stage.steps)
    await act(async () => {
      for (const { id } of all.slice(0, -1)) await storeOf(job).record({ do: 'tick', step: id, done: true })
    })
    await waitFor(() => expect(count()).toContain(`${all.length - 1} of ${all.length}`))
    press('Done')
    expect((await screen.findByRole('status')).textContent).toContain('Dead tests before the power goes on')
    expect(ticks().length).toBeGreaterThan(40)
  })
})
