/** @jest-environment jsdom */
import { exampleById, timedWeeks, type Installation } from '@nobbet/core'
import { fireEvent, screen, within } from '@testing-library/react'
import { useState } from 'react'
import { showAt } from '../../testing/page'
import { WeekEditor } from './week-editor'

/** The clocks of an example; gives its document as it stands. */
function shown(example = 'two-port-heating-hot-water', query = '') {
  let doc = structuredClone(exampleById(example)!.installation)
  function Host() {
    const [own, setOwn] = useState(doc)
    doc = own
    return <WeekEditor installation={own} onChange={setOwn} />
  }
  showAt('/week', `/week${query}`, <Host />)
  return {
    doc: (): Installation => doc,
    stepsOn: (day: number, clock = 'programmer.heating') =>
      timedWeeks(doc)
        .find(({ device, control }) => `${device.id}.${control.id}` === clock)!
        .programme.filter((step) => step.day === day)
        .map(({ minute, value }) => `${Math.floor(minute / 60)}:${String(minute % 60).padStart(2, '0')} ${value}`),
  }
}
const day = (name: string) => within(screen.getByRole('group', { name: `Steps of ${name}` }))
const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }))
const times = (name: string) => day(name).getAllByLabelText<HTMLInputElement>('Time')

describe('the clocks of an installation', () => {
  it('are one for each channel, and what is drawn off; one is open, and which stands in the address', () => {
    shown('two-port-heating-hot-water', '?clock=programmer.hot-water')
    const clocks = screen.getByLabelText<HTMLSelectElement>('Clock')
    expect([...clocks.options].map(({ text }) => text)).toEqual([
      'Programmer: heating',
      'Programmer: hot water',
      'Cylinder: drawn off',
    ])
    expect(clocks.value).toBe('programmer.hot-water')
  })

  it('show seven days as bars, told in words too; the day that is pressed has its steps beneath', () => {
    const { stepsOn } = shown()
    expect(times('Monday').map(({ value }) => value)).toEqual(
      stepsOn(0).map((step) => step.split(' ')[0].padStart(5, '0')),
    )
    press(/^Sat/)
    expect(times('Saturday').map(({ value }) => value)).toEqual(
      stepsOn(5).map((step) => step.split(' ')[0].padStart(5, '0')),
    )
  })

  it('take a time over when it is left, in its place among the others; half a time changes nothing', () => {
    const { stepsOn } = shown()
    const before = stepsOn(0)
    const [first] = times('Monday')
    fireEvent.change(first, { target: { value: '05:15' } })
    expect(stepsOn(0)).toEqual(before)
    fireEvent.blur(first)
    expect(stepsOn(0)[0]).toMatch(/^5:15 on$/)
    const [again] = times('Monday')
    fireEvent.change(again, { target: { value: '' } })
    fireEvent.blur(again)
    expect(stepsOn(0)[0]).toMatch(/^5:15 on$/)
    // Past another step: it goes behind it.
    const [moved] = times('Monday')
    fireEvent.change(moved, { target: { value: '23:50' } })
    fireEvent.blur(moved)
    expect(stepsOn(0).at(-1)).toBe('23:50 on')
  })

  it('get a step more that is otherwise than the last, lose one, and are copied to other days', () => {
    const { stepsOn } = shown()
    const before = stepsOn(0).length
    press(/Add a step/)
    expect(stepsOn(0)).toHaveLength(before + 1)
    const [last, former] = [stepsOn(0).at(-1)!, stepsOn(0).at(-2)!]
    expect(last.split(' ')[1]).not.toBe(former.split(' ')[1])
    fireEvent.click(day('Monday').getAllByRole('button', { name: /^Take out/ })[0])
    expect(stepsOn(0)).toHaveLength(before)
    const weekend = stepsOn(6)
    press('To Mon–Fri')
    for (const n of [1, 2, 3, 4]) expect(stepsOn(n)).toEqual(stepsOn(0))
    expect(stepsOn(6)).toEqual(weekend)
    press('To every day')
    expect(stepsOn(6)).toEqual(stepsOn(0))
  })

  it('without any step stay as they were the day before', () => {
    const { stepsOn } = shown()
    for (let left = stepsOn(0).length; left > 0; left--)
      fireEvent.click(day('Monday').getAllByRole('button', { name: /^Take out/ })[0])
    expect(stepsOn(0)).toEqual([])
    expect(day('Monday').getByText('No steps: it stays as it was the day before.')).toBeTruthy()
  })

  it('go back to the week they came with; until then the list says that they were changed', () => {
    const { doc } = shown()
    const came = structuredClone(doc())
    expect(screen.queryByText('Back to the week it came with')).toBeNull()
    press(/Add a step/)
    expect(screen.getByText('Programmer: heating (changed)')).toBeTruthy()
    press('Back to the week it came with')
    expect(doc().devices.map(({ programme }) => programme)).toEqual(came.devices.map(({ programme }) => programme))
  })
})

describe('what is set by hand', () => {
  it('a set-point is taken over within its range; beyond, it says which that is and stays as it was', () => {
    const { doc } = shown()
    const at = () => doc().devices.find(({ id }) => id === 'stat-1')!.positions?.set
    const field = screen.getByLabelText<HTMLInputElement>('House thermostat')
    fireEvent.change(field, { target: { value: '22.5' } })
    fireEvent.keyDown(field, { key: 'Enter' })
    expect(at()).toBe(22.5)
    fireEvent.change(field, { target: { value: '90' } })
    fireEvent.blur(field)
    expect(screen.getByText('5 to 30 °C')).toBeTruthy()
    expect(at()).toBe(22.5)
  })

  it('a channel is run by its clock until it is switched otherwise', () => {
    const { doc } = shown()
    const channel = screen.getByLabelText<HTMLSelectElement>('Programmer: heating')
    expect(channel.value).toBe('timed')
    fireEvent.change(channel, { target: { value: 'off' } })
    expect(doc().devices.find(({ id }) => id === 'programmer')!.positions).toEqual({ heating: 'off' })
  })

  it('nothing has a clock where thermostats alone decide', () => {
    shown('single-zone')
    expect(screen.queryByLabelText('Clock')).toBeNull()
    expect(screen.getByText(/its thermostats alone decide/)).toBeTruthy()
  })
})
