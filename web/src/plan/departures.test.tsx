/** @jest-environment jsdom */
import { withBrief } from '@nobbet/contract'
import { terminalOf } from '@nobbet/core'
import { act, fireEvent, screen, waitFor, within } from '@testing-library/react'
import { storeOf } from '../../testing/stores'
import { showAt } from '../../testing/page'
import { PlanPage } from './plan-page'

jest.mock('../store/stores', () => jest.requireActual('../../testing/stores'))
jest.mock('../workers/compute', () => jest.requireActual('../../testing/compute'))
jest.mock('./papers', () => ({ Papers: () => null }))

let jobs = 0
/** A plan in which the earth of the supply cable was moved to another terminal of its function. */
async function planWithOneMoved(to = 'wc.2') {
  const job = `job-departs-${++jobs}`
  showAt('/jobs/:job/plan', `/jobs/${job}/plan`, <PlanPage />)
  await screen.findByText('Cables and cores')
  const store = storeOf(job)
  const start = store.current().state!.document
  const wiring = structuredClone(start.wiring)
  const [core] = wiring.cables.find(({ id }) => id === 'supply')!.cores.filter(({ colour }) => colour === 'brown')
  core.ends[1] = { at: 'terminal', terminal: to }
  await act(async () => void (await store.editFrom('Moved', start, { ...start, wiring })))
  return { store, section: within(await screen.findByRole('region', { name: 'Departs from the proposal' })) }
}

describe('what departs from the proposal', () => {
  it('is named with where it is and where it was proposed', async () => {
    const { section } = await planWithOneMoved()
    expect(section.getByText('One end departs from the proposal')).toBeTruthy()
    const [, row] = section.getAllByRole('row')
    expect(row.textContent).toContain('brown of Supply cable')
    expect(row.textContent).toContain('Wiring centre 2')
    expect(row.textContent).toContain('Wiring centre 1')
  })

  it('is kept there by one press: the wiring stays, and the plan that is made again has it there', async () => {
    const { store, section } = await planWithOneMoved()
    const { wiring } = store.current().state!.document
    fireEvent.click(section.getByText('Keep it here'))
    await waitFor(() => expect(store.current().state!.document.brief.fitted.kept).toEqual({ 'supply.brown.1': 'wc.2' }))
    const { document } = store.current().state!
    expect(document.wiring).toEqual(wiring)
    const other = withBrief(document, {
      ...document.brief,
      fitted: { ...document.brief.fitted, cable: 'only-needed' },
    })
    expect(other.is === 'new-plan' && terminalOf(other.plan, 'supply.brown.1')).toBe('wc.2')
    fireEvent.click(section.getByText('Let go'))
    await waitFor(() => expect(store.current().state!.document.brief.fitted.kept).toBeUndefined())
  })

  it('is not offered to be kept where it is joined otherwise: that would be to keep a miswiring', async () => {
    const { section } = await planWithOneMoved('wc.12')
    expect(section.getByText('One end departs from the proposal')).toBeTruthy()
    expect(section.getByText('joined otherwise')).toBeTruthy()
    expect(section.queryByText('Keep it here')).toBeNull()
  })
})
