/** @jest-environment jsdom */
import { fireEvent, render, screen } from '@testing-library/react'
import type { JobStore } from '../store/job-store'
import type { JobView } from '../store/job-view'
import type { Sending } from '../store/sending'
import { SavingNote } from '../wiring/saving-note'
import { Condition } from './condition'

const store = { again: jest.fn(), putAside: jest.fn(), seen: jest.fn() }
const shown = (view: Partial<JobView>) =>
  render(
    <Condition
      view={{ sending: { is: 'saved' }, renamed: [], ...view } as JobView}
      store={store as unknown as JobStore}
    />,
  )

describe('how what is shown stands to the server', () => {
  it('is nothing on the screen while all is well', () => {
    expect(shown({}).container.textContent).toBe('')
  })

  it('says since when it is not newer, and why', () => {
    shown({ age: { readAt: Date.parse('2026-11-26T09:05:00Z'), reason: 'The server cannot be reached.' } })
    expect(screen.getByRole('status').textContent).toMatch(
      /As the server had it 26 Nov.*\. The server cannot be reached\./,
    )
  })

  it('says that what is done waits, and why', () => {
    shown({ sending: { is: 'kept-here', reason: 'The server does not answer.' } })
    expect(screen.getByRole('status').textContent).toBe(
      'The server does not answer. What you do is kept in this browser, and sent when it is back.',
    )
  })

  it('says what the server does not take, and lets the rest go', () => {
    shown({ sending: { is: 'stopped', reason: 'brief.site: the site is missing', first: 'Brief' } })
    screen.getByText('The server does not take “Brief”.')
    fireEvent.click(screen.getByText('Put it aside, send the rest'))
    fireEvent.click(screen.getByText('Try again'))
    expect([store.putAside, store.again].map((f) => f.mock.calls.length)).toEqual([1, 1])
  })

  it('offers nothing to put aside where it is not one thing that is refused', () => {
    shown({ sending: { is: 'stopped', reason: 'The server answered something this page cannot read.' } })
    expect(screen.queryByText('Put it aside, send the rest')).toBeNull()
    expect(screen.getByRole('alert').textContent).toContain('kept in this browser')
  })

  it('says which terminal has another number now, until that is seen', () => {
    shown({ renamed: [{ path: ['wiring', 'wiringCentres', 'wc', 'terminals'], from: '14', to: '15' }] })
    expect(screen.getByRole('status').textContent).toContain(
      'Your terminal 14 is 15 now. What you put on it has followed.',
    )
    fireEvent.click(screen.getByText('Seen'))
    expect(store.seen).toHaveBeenCalled()
  })

  it('says what could not be kept', () => {
    shown({ problem: 'Not kept, and not done: no room left' })
    expect(screen.getByRole('alert').textContent).toContain('no room left')
  })

  it.each<[Sending, string]>([
    [{ is: 'saved' }, 'Saved with the job'],
    [{ is: 'saving' }, 'Kept here, saving'],
    [{ is: 'kept-here', reason: '' }, 'Kept in this browser; sent when the server is back'],
    [{ is: 'stopped', reason: '' }, 'Kept in this browser; not sent'],
  ])('is said in three words beside undo: %j', (sending, words) => {
    render(<SavingNote sending={sending} />)
    expect(screen.getByRole('status').textContent?.trim()).toBe(words)
  })
})
