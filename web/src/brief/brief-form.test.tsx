/** @jest-environment jsdom */
import { fireEvent, screen, waitFor, within } from '@testing-library/react'
import { showBrief } from '../../testing/brief'

jest.mock('../workers/compute', () => jest.requireActual('../../testing/compute'))

const choose = (name: RegExp) => fireEvent.click(screen.getByRole('radio', { name }))
const outcome = () => within(screen.getByRole('complementary', { name: 'What it comes to' }))

describe('the brief and the plan in one breath', () => {
  it('show the box, its sums and the verdict beside the answers', async () => {
    showBrief()
    await waitFor(() => expect(outcome().getByText('No defect found in the wiring as planned')).toBeTruthy())
    expect(within(outcome().getByRole('list', { name: 'Wiring centre' })).getAllByRole('listitem')).toHaveLength(12)
    fireEvent.click(screen.getByRole('button', { name: 'Add: Heating' }))
    await waitFor(() => expect(outcome().getByText('Circuit 3 valve')).toBeTruthy())
  })

  it('suggest the schemes that serve, with what speaks for and against each, and say why the others do not', () => {
    showBrief()
    expect(screen.getByText('Scheme: 8 would serve')).toBeTruthy()
    const two = screen.getByRole('radio', { name: /^Two-port each circuit/ }).closest('label')!
    expect(two.textContent).toContain('an end switch tells that a valve is open')
    expect(two.textContent).toContain('2 driven valves')
    const single = screen.getByRole('radio', { name: /^Single zone, volt-free call/ }).closest('label')!
    expect(single.textContent).toContain('takes 0 hot water circuits, not 1')
  })

  it('name the fewest answers that cannot be together, and take the way out that is pressed', async () => {
    const saved = showBrief()
    choose(/^Mid-position/)
    choose(/^It has none/)
    await waitFor(() => expect(outcome().getByText('These cannot be together')).toBeTruthy())
    const answers = outcome().getAllByRole('listitem')
    expect(answers.map(({ textContent }) => textContent)).toEqual([
      'scheme: Mid-position',
      'the programmer has no OFF contact for hot water',
    ])
    fireEvent.click(outcome().getByText('Take a programmer with an OFF contact'))
    await waitFor(() => expect(outcome().queryByText('These cannot be together')).toBeNull())
    fireEvent.click(screen.getByText('Save'))
    await waitFor(() => expect(saved).toHaveLength(1))
    expect(saved[0].fitted).toMatchObject({ scheme: 'mid-position' })
    expect(saved[0].fitted.offContact).toBeUndefined()
  })

  it('take another thermostat for a zone, and refuse a plain one that should time itself', async () => {
    const saved = showBrief()
    const set = (name: string, value: string) =>
      fireEvent.click(document.querySelector(`input[name="${name}"][value="${value}"]`)!)
    set('timed-1', 'by-itself')
    await waitFor(() => expect(outcome().getByText(/“House”: by its thermostat/)).toBeTruthy())
    set('thermostat-1', 'wireless')
    await waitFor(() => expect(outcome().queryByText('These cannot be together')).toBeNull())
    expect(screen.getByText('Wireless thermostat, receiver in its place, timed by its thermostat')).toBeTruthy()
    fireEvent.click(screen.getByText('Save'))
    await waitFor(() => expect(saved).toHaveLength(1))
    expect(saved[0].fitted.circuits[0]).toMatchObject({ thermostat: 'wireless', timed: 'by-itself' })
  })

  it('time a programmable thermostat by itself, or by the channel where somebody says so, and tell what feeds it', async () => {
    const saved = showBrief()
    const set = (name: string, value: string) =>
      fireEvent.click(document.querySelector(`input[name="${name}"][value="${value}"]`)!)
    set('thermostat-1', 'programmable')
    expect(screen.getByText('Programmable thermostat, timed by its thermostat')).toBeTruthy()
    expect(screen.getByText(/dark while that is off, so leave it on for good/)).toBeTruthy()
    set('timed-1', 'by-channel')
    expect(screen.getByText('Programmable thermostat, timed by the programmer')).toBeTruthy()
    fireEvent.click(screen.getByText('Save'))
    await waitFor(() => expect(saved).toHaveLength(1))
    expect(saved[0].fitted.circuits[0]).toMatchObject({ thermostat: 'programmable', timed: 'by-channel' })
  })

  it('take a cable that is in the wall as it is, and refuse one with too few cores', async () => {
    showBrief()
    const pick = (value: string) =>
      fireEvent.click(document.querySelector(`[data-cable="stat-1-cable"] input[value="${value}"]`)!)
    const isLaid = () => document.querySelector<HTMLInputElement>('[data-cable="stat-1-cable"] [type=radio]')!.checked
    expect(isLaid()).toBe(true)
    pick('brown, blue, green-yellow')
    await waitFor(() => expect(outcome().getByText(/none is left for a switched live/)).toBeTruthy())
    fireEvent.click(outcome().getByText('Lay a new cable: House thermostat cable'))
    await waitFor(() => expect(isLaid()).toBe(true))
    pick('brown, black, grey, green-yellow')
    await waitFor(() => expect(screen.getByLabelText('What it comes to').textContent).toContain('sleeved blue'))
  })

  it('take how long a cable is; what is out of all bounds changes nothing', async () => {
    const saved = showBrief()
    await waitFor(() => expect(outcome().getByText(/cables of 30 m/)).toBeTruthy())
    const length = screen.getByLabelText('House thermostat cable: length, m')
    fireEvent.change(length, { target: { value: '32' } })
    await waitFor(() => expect(outcome().getByText(/cables of 50 m/)).toBeTruthy())
    fireEvent.change(length, { target: { value: '3200' } })
    expect(outcome().getByText(/cables of 50 m/)).toBeTruthy()
    fireEvent.click(screen.getByText('Save'))
    await waitFor(() => expect(saved).toHaveLength(1))
    expect(saved[0].fitted.lengths).toEqual({ 'stat-1-cable': 32 })
  })

  it('take where a place is; nothing else of the plan follows', async () => {
    const saved = showBrief()
    const floor = await screen.findByLabelText('Programmer position: floor')
    fireEvent.change(floor, { target: { value: '1' } })
    const more = screen.getByLabelText('Plant cupboard: minutes more, min')
    fireEvent.change(more, { target: { value: '7' } })
    fireEvent.blur(more)
    fireEvent.change(more, { target: { value: '700' } })
    fireEvent.blur(more)
    expect(screen.getByText(/2 of 4 told/)).toBeTruthy()
    fireEvent.click(screen.getByText('Save'))
    await waitFor(() => expect(saved).toHaveLength(1))
    expect(saved[0].fitted.places).toEqual({ controls: { floor: 1 }, plant: { apartMin: 7 } })
  })

  it('know which zone is to heat with hot water, and that priority shuts it off', async () => {
    showBrief()
    fireEvent.click(screen.getByLabelText('heats while hot water does'))
    choose(/^Hot-water priority/)
    await waitFor(() => expect(outcome().getByText('“House” heats while hot water does')).toBeTruthy())
    fireEvent.click(outcome().getByText('Let “House” wait for hot water'))
    await waitFor(() =>
      expect(screen.getByLabelText<HTMLInputElement>('heats while hot water does').checked).toBe(false),
    )
  })
})
