/** @jest-environment jsdom */
import { neededFor } from '@nobbet/core'
import { fireEvent, screen, waitFor, within } from '@testing-library/react'
import { onBench } from '../../testing/hand'
import { plannedIn } from '../../testing/plans'
import { Demands } from './demands'
import { Devices } from './devices'
import { PickedPanel } from './picked-panel'

jest.mock('../api/client', () => ({ ...jest.requireActual<object>('../api/client'), call: async () => [] }))

const plan = plannedIn('separate')
const device = (of: typeof plan, id: string) => of.devices.find((one) => one.id === id)!
const card = (id: string) => within(document.querySelector<HTMLElement>(`[data-device="${id}"]`)!)

describe('the devices of the Bench', () => {
  it('take another name where one is written, and none where it is empty', () => {
    const { doc, done } = onBench(plan, <Devices />)
    const name = () => card('pump').getByLabelText('Name')
    fireEvent.change(name(), { target: { value: 'Pump under the stairs' } })
    fireEvent.blur(name())
    expect(device(doc(), 'pump').name).toBe('Pump under the stairs')
    fireEvent.change(name(), { target: { value: '  ' } })
    fireEvent.blur(name())
    expect([device(doc(), 'pump').name, done.length]).toEqual(['Pump under the stairs', 1])
  })

  it('take a setting within its bounds, and say the bounds of what lies beyond', () => {
    const { doc, done } = onBench(plan, <Devices />)
    const minutes = () => card('boiler').getByLabelText(/^Pump overrun/)
    fireEvent.change(minutes(), { target: { value: '60' } })
    fireEvent.blur(minutes())
    expect(card('boiler').getByRole('alert').textContent).toBe('0 to 15 min')
    expect(done).toEqual([])
    fireEvent.change(minutes(), { target: { value: '7' } })
    fireEvent.blur(minutes())
    expect(device(doc(), 'boiler').settings).toMatchObject({ overrun: 7 })
    expect(card('boiler').queryByRole('alert')).toBeNull()
  })

  it('are taken out with their conductors loose, but for what a demand needs', () => {
    const { doc } = onBench(plan, <Devices />)
    for (const { id, name } of plan.devices) {
      const out = card(id).getByRole<HTMLButtonElement>('button', { name: `Take ${name} out` })
      expect([id, out.disabled]).toEqual([id, neededFor(plan, id).length > 0])
    }
    fireEvent.click(card('pump').getByRole('button', { name: 'Take Pump out' }))
    expect(doc().devices.some(({ id }) => id === 'pump')).toBe(false)
    const ends = doc().cables.flatMap(({ cores }) => cores.flatMap((core) => core.ends))
    expect(ends.some((end) => 'terminal' in end && end.terminal.startsWith('pump.'))).toBe(false)
  })

  it('are added of a type, at a place', async () => {
    const { doc } = onBench(plan, <Devices />)
    fireEvent.click(screen.getByRole('button', { name: 'Add a device' }))
    fireEvent.change(screen.getByLabelText('Type of the device'), { target: { value: 'frost-thermostat' } })
    fireEvent.change(screen.getByLabelText('Name of the device'), { target: { value: 'Frost' } })
    fireEvent.change(screen.getByLabelText('Place'), { target: { value: 'cylinder' } })
    fireEvent.click(screen.getByRole('button', { name: 'Add' }))
    await waitFor(() => expect(screen.getByText('Frost')).toBeTruthy())
    expect(doc().devices.at(-1)).toMatchObject({ name: 'Frost', type: 'frost-thermostat', place: 'cylinder' })
  })

  it('of a zone are doubled with it, under the name that is given', () => {
    const { doc } = onBench(plan, <Devices />)
    fireEvent.click(screen.getByRole('button', { name: 'Duplicate a zone' }))
    fireEvent.change(screen.getByLabelText('Name of the new zone'), { target: { value: 'Loft' } })
    fireEvent.click(screen.getByRole('button', { name: 'Duplicate' }))
    expect(doc().intent.demands.map(({ name }) => name)).toEqual([
      ...plan.intent.demands.map(({ name }) => name),
      'Loft',
    ])
    expect(doc().devices.length).toBeGreaterThan(plan.devices.length + 1)
  })
})

describe('where places are', () => {
  it('is told by floor and by what lies apart; told no more, nothing of it stays', () => {
    const { doc, done } = onBench(plan, <Devices />)
    const place = () => doc().places.find(({ id }) => id === 'controls')!
    const floor = () => screen.getByLabelText('Programmer position: floor')
    const more = () => screen.getByLabelText('Programmer position: minutes more, min')
    fireEvent.change(floor(), { target: { value: '-1' } })
    fireEvent.change(more(), { target: { value: '4' } })
    fireEvent.blur(more())
    expect(place()).toEqual({ id: 'controls', name: 'Programmer position', floor: -1, apartMin: 4 })
    fireEvent.change(more(), { target: { value: '-4' } })
    fireEvent.blur(more())
    expect(done).toHaveLength(2)
    fireEvent.change(floor(), { target: { value: 'untold' } })
    fireEvent.change(more(), { target: { value: '' } })
    fireEvent.blur(more())
    expect(doc()).toEqual(plan)
  })
})

describe('the demands of the Bench', () => {
  const demand = (of: typeof plan, id: string) => of.intent.demands.find((one) => one.id === id)!
  const of = (name: string) => within(screen.getByRole('region', { name }))

  it('are asked by other contacts, call other inputs, open other valves', () => {
    const { doc } = onBench(plan, <Demands />)
    fireEvent.change(of('Zone 1').getByLabelText('Channel'), { target: { value: '' } })
    expect(demand(doc(), 'heating-1').channel).toBeNull()
    fireEvent.change(of('Zone 1').getByLabelText('Thermostat'), { target: { value: 'stat-2.contact' } })
    expect(demand(doc(), 'heating-1').thermostat).toEqual({ device: 'stat-2', contact: 'contact' })
    fireEvent.click(of('Zone 1').getByLabelText(device(plan, 'zv-2').name))
    expect(demand(doc(), 'heating-1').circuit.valves.map((valve) => valve.device)).toEqual(['zv-1', 'zv-2'])
    fireEvent.click(of('Zone 1').getByLabelText(device(plan, 'zv-1').name))
    expect(demand(doc(), 'heating-1').circuit.valves.map((valve) => valve.device)).toEqual(['zv-2'])
  })

  it('taken out are no companion of any other any more', () => {
    const { doc } = onBench(plan, <Demands />)
    fireEvent.click(of('Zone 1').getByLabelText('Zone 2'))
    expect(demand(doc(), 'heating-1').companions).toEqual(['heating-2'])
    fireEvent.click(screen.getByRole('button', { name: 'Take Zone 2 out' }))
    expect(doc().intent.demands.map(({ id }) => id)).not.toContain('heating-2')
    expect(demand(doc(), 'heating-1').companions).toEqual([])
  })

  it('are added only with a name', () => {
    const { doc } = onBench(plan, <Demands />)
    fireEvent.click(screen.getByRole('button', { name: 'Add' }))
    expect(doc()).toEqual(plan)
    fireEvent.change(screen.getByLabelText('Name of the demand'), { target: { value: 'Sauna' } })
    fireEvent.click(screen.getByRole('button', { name: 'Add' }))
    expect(doc().intent.demands.at(-1)).toMatchObject({ name: 'Sauna', channel: null, thermostat: null })
  })
})

describe('what is picked', () => {
  const end = { cable: 'stat-1-cable', core: 'brown', end: 1 } as const
  const core = (of: typeof plan) =>
    of.cables.find(({ id }) => id === end.cable)!.cores.find(({ id }) => id === end.core)!

  it('of a conductor is sleeved, coloured, cut back, known, and goes where it is typed', () => {
    const { doc } = onBench(plan, <PickedPanel />, { kind: 'end', end })
    fireEvent.change(screen.getByLabelText('Sleeve'), { target: { value: 'red' } })
    expect(core(doc()).sleeve).toBe('red')
    fireEvent.change(screen.getByLabelText('Sleeve'), { target: { value: '' } })
    expect(core(doc()).sleeve).toBeUndefined()
    fireEvent.change(screen.getByLabelText('Colour'), { target: { value: 'grey' } })
    expect(core(doc()).colour).toBe('grey')
    fireEvent.click(screen.getByRole('button', { name: 'Tested' }))
    expect(core(doc()).ends[1].provenance).toBe('tested')
    const to = screen.getByLabelText('Move to')
    fireEvent.change(to, { target: { value: '99' } })
    fireEvent.keyDown(to, { key: 'Enter' })
    expect(screen.getByRole('alert')).toBeTruthy()
    fireEvent.change(to, { target: { value: '3' } })
    fireEvent.keyDown(to, { key: 'Enter' })
    expect(core(doc()).ends[1]).toMatchObject({ at: 'terminal', terminal: 'wc.3' })
    fireEvent.click(screen.getByRole('button', { name: 'Cut back' }))
    expect(core(doc()).ends[1].at).toBe('cut-back')
  })

  it('of a terminal is its legend, its ways and its links, which are fitted and taken out', () => {
    const { doc } = onBench(plan, <PickedPanel />, { kind: 'terminal', ref: 'wc.7' })
    const own = () => doc().wiringCentres[0].terminals.find(({ id }) => id === '7')!
    fireEvent.change(screen.getByLabelText('Ways'), { target: { value: '2' } })
    expect(own().ways).toBe(2)
    const legend = screen.getByLabelText('Legend')
    fireEvent.change(legend, { target: { value: 'To the hall' } })
    fireEvent.blur(legend)
    expect(own().legend).toBe('To the hall')
    const listed = plan.links.filter(({ between }) => between.includes('wc.7')).length
    const to = screen.getByLabelText('Link to terminal')
    fireEvent.change(to, { target: { value: '9' } })
    fireEvent.keyDown(to, { key: 'Enter' })
    const links = () => doc().links.filter(({ between }) => between.includes('wc.7') && between.includes('wc.9'))
    expect(links()).toHaveLength(1)
    fireEvent.click(
      within(screen.getByRole('list', { name: 'Links' })).getAllByRole('button', { name: 'Take out' })[listed],
    )
    expect(links()).toHaveLength(0)
  })
})
