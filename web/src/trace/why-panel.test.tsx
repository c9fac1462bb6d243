/** @jest-environment jsdom */
import { edited, exampleById, type Installation } from '@nobbet/core'
import { fireEvent, screen, waitFor, within } from '@testing-library/react'
import { showAt } from '../../testing/page'
import '../../testing/patience'
import { Trace } from './trace-page'

jest.mock('../store/stores', () => jest.requireActual('../../testing/stores'))
jest.mock('../workers/compute', () => jest.requireActual('../../testing/compute'))
jest.mock('react-router', () => ({ ...jest.requireActual('react-router'), useNavigation: () => ({ state: 'idle' }) }))

const { installation } = exampleById('two-port-heating-hot-water')!
Element.prototype.scrollIntoView = jest.fn()
let jobs = 0
const show = (search: string, { wiring = installation, plan }: { wiring?: Installation; plan?: Installation } = {}) =>
  showAt('/trace', `/trace${search}`, <Trace installation={wiring} job={`job-why-${++jobs}`} plan={plan} />)
const did = (at: string, ...acts: string[]) =>
  `?${new URLSearchParams([...acts.map((act) => ['do', act]), ['at', at]])}`
const panel = () => screen.getByRole('region', { name: 'Why' })

describe('why the boiler does not fire', () => {
  it('is answered with what would have to change; done by one press, it fires', async () => {
    show(did('?boiler', 'wait=1s'))
    expect(within(panel()).getByRole('heading', { name: 'Boiler: idle' })).toBeTruthy()
    const change = await within(panel()).findByText(/Programmer: heating on or boost/)
    expect(change.closest('li')!.textContent).toMatch(/and House thermostat: up to 23 °C/)
    fireEvent.click(within(change.closest('li')!).getByRole('button', { name: 'Do it' }))
    fireEvent.click(screen.getByRole('button', { name: /Next event/ }))
    expect(document.querySelector('[data-demand="heating-1"]')!.textContent).toMatch(/Opening|Calling/)
  })
})

describe('why a demand is held up', () => {
  it('names the part that failed and that no switch helps', async () => {
    show(did('?hot-water', 'fault=zv-hw.motor.open', 'programmer.hot-water=on', 'cyl-stat.set=75', 'wait=60s'))
    expect(panel().querySelector('.wrong')!.textContent).toContain('Hot water valve motor is open inside')
    await waitFor(() => expect(panel().textContent).toContain('what is marked ✕ has to be put right'))
  })

  it('names the conductor that is not where it is planned, leads to it, and to the Bench', () => {
    const wiring = edited(installation, {
      label: '',
      changes: [{ do: 'end', cable: 'boiler-cable', core: 'black', end: 1, to: { at: 'terminal', terminal: 'wc.30' } }],
    }).doc
    const { at } = show(did('?heating-1', 'programmer.heating=on', 'stat-1.set=25', 'wait=60s'), {
      wiring,
      plan: installation,
    })
    const wrong = panel().querySelector<HTMLElement>('.wrong')!
    expect(wrong.textContent).toMatch(/✕ black of Boiler cable is in Wiring centre 30.*, planned in Wiring centre/)
    expect(within(wrong).getByRole('link', { name: 'Show it on the Bench' }).getAttribute('href')).toContain(
      'boiler-cable.black',
    )
    fireEvent.click(within(wrong).getByRole('button'))
    expect(screen.getByRole('region', { name: 'Picked conductor' }).textContent).toContain('black of Boiler cable')
    expect(at().pathname).toBe('/trace')
  })

  it('names what departs where no way shows it: put right by itself, the demand is served', async () => {
    const { installation: plan } = exampleById('mid-position')!
    const wiring = edited(plan, {
      label: '',
      changes: [{ do: 'put', in: 'links', value: { id: 'stray', kind: 'fitted', between: ['wc.19', 'wc.20'] } }],
    }).doc
    show(did('?hot-water', 'programmer.hot-water=on', 'cyl-stat.set=75', 'wait=30min'), { wiring, plan })
    await within(panel()).findByText(/The link between Wiring centre 19.*is in, and should be out/)
    expect(panel().textContent).toContain('Tried: put right by itself, this is gone.')
  })

  it('names the pump that does not turn, though the boiler is called', () => {
    show(did('?heating-1', 'fault=pump.motor.jammed', 'programmer.heating=on', 'stat-1.set=25', 'wait=30min'))
    expect(panel().querySelector('.wrong')!.textContent).toContain('Pump motor has its supply and does not turn')
  })

  it('says of wiring without a plan what was tried and put it right', async () => {
    const wiring = edited(installation, {
      label: '',
      changes: [{ do: 'end', cable: 'boiler-cable', core: 'black', end: 1, to: { at: 'loose' } }],
    }).doc
    show(did('?heating-1', 'programmer.heating=on', 'stat-1.set=25', 'wait=60s'), { wiring })
    fireEvent.click(within(panel()).getByRole('button', { name: /Try what in the wiring/ }))
    await within(panel()).findByText(
      /black of Boiler cable is on nothing, it does what is needed in/,
      {},
      { timeout: 60_000 },
    )
  })
})
