/** @jest-environment jsdom */
import { exampleById, parseAction, type WeekNote, type WeekResult } from '@nobbet/core'
import { screen } from '@testing-library/react'
import { showAt } from '../../testing/page'
import { WeekNotes } from './week-notes'

const { installation } = exampleById('two-port-heating-hot-water')!
const week = (notes: WeekNote[]): WeekResult => ({
  minutes: [],
  outdoors: [],
  rooms: [],
  cylinders: [],
  water: [],
  demands: [],
  fires: [],
  energy: { brought: [], gains: 0, lost: [], cylinders: 0, drawn: 0, stored: 0 },
  notes,
})
const shown = (notes: WeekNote[], of: 'job' | 'example' = 'job') =>
  showAt(
    of === 'job' ? '/jobs/:job/week' : '/examples/:example/week',
    of === 'job' ? '/jobs/mill-end/week' : '/examples/two-port-heating-hot-water/week',
    <WeekNotes
      installation={installation}
      result={week(notes)}
      actions={[parseAction('programmer.heating=timed')]}
      scenario={{ house: 'semi', weather: 'winter' }}
    />,
  )
/** What the link does before it shows the moment. */
const done = (link: HTMLElement) => new URL((link as HTMLAnchorElement).href).searchParams.getAll('do')

describe('what went wrong in a week', () => {
  it('is told with when it was, what did it, and for how long', () => {
    shown([
      { note: 'lockout', minute: 1 * 1440 + 6 * 60 + 30, device: 'boiler' },
      { note: 'unasked', minute: 60, demand: 'heating-1', minutes: 150 },
      { note: 'dead-head', minute: 90, device: 'pump', minutes: 20 },
      { note: 'hunting', minute: 95 },
    ])
    const texts = screen.getAllByRole('listitem').map(({ textContent }) => textContent)
    expect(texts[0]).toMatch(/^Tue.* 06:30 Boiler locks itself out\./)
    expect(texts[1]).toContain('House warms unasked, 2.5 h in all.')
    expect(texts[2]).toContain('Pump runs against shut valves, 20 min in all.')
    expect(texts[3]).toContain('The week was followed no further.')
  })

  it('leads to the moment in Trace: the same knobs, clock, house and weather, a minute before', () => {
    shown([{ note: 'lockout', minute: 1830, device: 'boiler' }])
    const link = screen.getByText('See it in Trace')
    expect(link.getAttribute('href')).toMatch(/^\/jobs\/mill-end\/trace\?/)
    expect(done(link)).toEqual([
      'programmer.heating=timed',
      'clock=mon-00:00',
      'heat=semi/winter',
      `wait=${(1830 - 1) * 60}s`,
    ])
  })

  it('of an example leads to the example', () => {
    shown([{ note: 'lockout', minute: 0, device: 'boiler' }], 'example')
    const link = screen.getByText('See it in Trace')
    expect(link.getAttribute('href')).toMatch(/^\/examples\/two-port-heating-hot-water\?/)
    expect(done(link).at(-1)).toBe('wait=0s')
  })

  it('is nothing where nothing was, and of very many the first dozen, and how many more', () => {
    const { unmount } = shown([])
    expect(screen.getByText(/Nothing out of the ordinary/)).toBeTruthy()
    unmount()
    shown(Array.from({ length: 15 }, (_, i) => ({ note: 'limit', minute: i, device: 'boiler', part: 'limit' })))
    expect(screen.getAllByText('See it in Trace')).toHaveLength(12)
    expect(screen.getByText('and 3 more')).toBeTruthy()
  })
})
