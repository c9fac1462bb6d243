/** @jest-environment jsdom */
import { openVisit, recordOf } from '@nobbet/contract'
import { moveCore } from '@nobbet/core/testing'
import { act, fireEvent, screen, waitFor, within } from '@testing-library/react'
import '../../testing/patience'
import { showAt } from '../../testing/page'
import { storeOf } from '../../testing/stores'
import { ChecksPage } from './checks-page'

jest.mock('../store/stores', () => jest.requireActual('../../testing/stores'))
jest.mock('../workers/compute', () => jest.requireActual('../../testing/compute'))

beforeAll(() => {
  window.matchMedia = () =>
    ({
      matches: false,
      addEventListener: () => undefined,
      removeEventListener: () => undefined,
    }) as unknown as MediaQueryList
})

let jobs = 0
/** A job whose boiler call sits in the wrong terminal; or, without it, its wiring as it was assumed. */
async function checked({ miswired = true } = {}) {
  const job = `job-checks-${++jobs}`
  const store = storeOf(job)
  await store.load()
  const core = () =>
    store
      .current()
      .state!.document.wiring.cables.find(({ id }) => id === 'boiler-cable')!
      .cores.find((one) => one.id === 'black')!
  const planned = core().ends[1]
  if (miswired)
    await store.edit('Moved', (document) => {
      const wiring = structuredClone(document.wiring)
      const line = wiring.cables.find(({ id }) => id === 'boiler-cable')!.cores.find(({ id }) => id === 'brown')!
        .ends[1]
      moveCore(wiring, 'boiler-cable', 'black', 1, line.at === 'terminal' ? line.terminal : '')
      return { ...document, wiring }
    })
  const page = showAt('/jobs/:job/checks', `/jobs/${job}/checks`, <ChecksPage />)
  await waitFor(() => expect(verdict().getAttribute('aria-busy')).toBe('false'))
  const state = () => store.current().state!
  return { job, state, core, planned, ...page }
}
const verdict = () => screen.getByRole('region', { name: 'Verdict of the check' })
const findings = () => within(screen.getByRole('list', { name: 'Findings' }))
const uncalled = () =>
  findings()
    .getAllByRole('listitem')
    .find((item) => item.textContent.includes('called with no demand'))!

describe('the checks', () => {
  it('of wiring that nobody has looked at say so, and lead to the hunt', async () => {
    const { job } = await checked({ miswired: false })
    expect(verdict().textContent).toMatch(/nobody has looked/)
    expect(screen.getByRole('link', { name: 'Start the hunt' }).getAttribute('href')).toBe(`/jobs/${job}/hunt`)
    expect(screen.queryByRole('list', { name: 'Findings' })).toBeNull()
  })

  it('give the demand table of all states, what holds in each of them, and what was assumed', async () => {
    await checked({ miswired: false })
    const table = within(await screen.findByRole('region', { name: 'Demand table' }))
    expect(table.getAllByRole('columnheader').map(({ textContent }) => textContent)).toEqual(
      expect.arrayContaining(['House', 'Hot water', 'Boiler SL called', 'As expected']),
    )
    expect(table.getAllByRole('row')).toHaveLength(5)
    const properties = within(screen.getByRole('region', { name: 'Properties' })).getAllByRole('listitem')
    expect(properties.every((one) => one.dataset.verdict !== 'broken')).toBe(true)
    expect(
      within(screen.getByRole('region', { name: 'What was assumed' })).getAllByRole('listitem').length,
    ).toBeGreaterThan(1)
  })

  it('name what is wrong and the conductor behind it, with ways to see it', async () => {
    const { job } = await checked()
    expect(uncalled().textContent).toContain('Danger')
    const links = within(uncalled()).getAllByRole('link')
    expect(links.map((link) => link.getAttribute('href')!.split('?')[0])).toEqual(
      expect.arrayContaining([`/jobs/${job}/trace`]),
    )
    const broken = within(screen.getByRole('region', { name: 'Properties' }))
      .getAllByRole('listitem')
      .filter((one) => one.dataset.verdict === 'broken')
    expect(broken.length).toBeGreaterThan(0)
  })

  it('put it right by one press, behind the isolation step, and it is gone', async () => {
    const { core, planned, state } = await checked()
    const remedies = await waitFor(() => {
      const found = findings().getAllByRole('button', { name: /black/ })
      expect(found.length).toBeGreaterThan(0)
      return found
    })
    fireEvent.click(remedies[0])
    expect(core().ends[1]).not.toEqual(planned)
    const gate = within(await screen.findByRole('dialog'))
    await act(async () => void fireEvent.click(gate.getByRole('button', { name: 'Acknowledge for this visit' })))
    await waitFor(() =>
      expect(core().ends[1]).toMatchObject({ terminal: planned.at === 'terminal' && planned.terminal }),
    )
    expect(openVisit(recordOf(state()))!.isolated).toBeDefined()
    await waitFor(() => expect(screen.queryByText(/called with no demand/)).toBeNull())
  })

  it('let a finding stand with a reason that is kept with the wiring, and take that back', async () => {
    const { state } = await checked()
    const before = findings().getAllByRole('listitem').length
    fireEvent.click(within(uncalled()).getByRole('button', { name: 'Let it stand' }))
    const why = screen.getByRole('textbox', { name: 'Why it may stand' })
    const keep = screen.getByRole<HTMLButtonElement>('button', { name: 'Keep' })
    expect(keep.disabled).toBe(true)
    fireEvent.change(why, { target: { value: 'Left so until the boiler is changed' } })
    await act(async () => void fireEvent.submit(why.closest('form')!))
    const stands = within(await screen.findByRole('region', { name: 'Let stand' }))
    expect(stands.getByText(/Left so until the boiler is changed/)).toBeTruthy()
    expect(state().document.wiring.waivers).toMatchObject([{ reason: 'Left so until the boiler is changed' }])
    await act(async () => void fireEvent.click(stands.getByRole('button', { name: 'Take back' })))
    await waitFor(() => expect(findings().getAllByRole('listitem')).toHaveLength(before))
    expect(state().document.wiring.waivers ?? []).toEqual([])
  })
})
