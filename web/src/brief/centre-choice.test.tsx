/** @jest-environment jsdom */
import type { CentreKindId } from '@nobbet/core'
import { fireEvent, screen, waitFor } from '@testing-library/react'
import { showBrief } from '../../testing/brief'
import { emptyBrief } from './brief-form'

jest.mock('../workers/compute', () => jest.requireActual('../../testing/compute'))

const tile = (kind: CentreKindId) => document.querySelector<HTMLInputElement>(`input[type=radio][value="${kind}"]`)!
const add = (name: string) => {
  fireEvent.click(screen.getByRole('button', { name: 'Add: Heating' }))
  const fields = screen.getAllByPlaceholderText('Its name, for example Upstairs')
  fireEvent.change(fields[fields.length - 1], { target: { value: name } })
}

describe('the wiring centre of a brief', () => {
  it('says of each kind what this wiring would take there, and which is the smallest that does', () => {
    showBrief()
    expect(tile('strip-10').labels![0].textContent).toContain('Too small: it takes 11')
    expect(tile('strip-12').labels![0].textContent).toContain('3 links to fit')
    expect(tile('strip-12').labels![0].textContent).toContain('Smallest that does')
    expect(tile('strip-12').checked).toBe(true)
  })

  it('gives way to the smallest that does where a circuit more makes it too small', async () => {
    const saved = showBrief()
    add('Upstairs')
    await waitFor(() => expect(tile('levers').checked).toBe(true))
    fireEvent.click(screen.getByText('Save'))
    await waitFor(() => expect(saved).toHaveLength(1))
    expect(saved[0].fitted.terminals).toBe('levers')
  })

  it('gives way as well where the hand is quicker than what is worked out beside it', async () => {
    const saved = showBrief()
    add('Upstairs')
    fireEvent.click(screen.getByText('Save'))
    await waitFor(() => expect(saved).toHaveLength(1))
    expect(saved[0].fitted.terminals).toBe('levers')
  })

  it('stays as it was chosen: too small then, it is refused and says what would do', async () => {
    const saved = showBrief()
    fireEvent.click(tile('separate'))
    fireEvent.click(tile('strip-12'))
    fireEvent.click(tile('strip-8'))
    fireEvent.click(screen.getByText('Save'))
    expect((await screen.findByRole('alert')).textContent).toContain('Strip of 12 would do')
    expect(saved).toEqual([])
    expect(tile('strip-8').checked).toBe(true)
  })

  it('says nothing of what cannot be laid out yet', () => {
    showBrief({ ...emptyBrief, fitted: { ...emptyBrief.fitted, circuits: [] } })
    expect(tile('strip-12').labels![0].textContent).not.toMatch(/terminals|small/)
  })
})
