/** @jest-environment jsdom */
import { fireEvent, screen, waitFor } from '@testing-library/react'
import { here } from '../../testing/stores'
import { showAt } from '../../testing/page'
import { OnTheWay } from '../shell/on-the-way'
import { addressOf } from './desk'
import { useDesk, useLeftSitting } from './use-desk'

jest.mock('react-router', () => ({ ...jest.requireActual('react-router'), useNavigation: () => navigation }))
const navigation = { state: 'idle' }
jest.mock('../store/stores', () => jest.requireActual('../../testing/stores'))

function Sitting({ job }: { job: string }) {
  const left = useLeftSitting(job)
  return left ? <Shown job={job} left={left} /> : <p>looking</p>
}
function Shown({ job, left }: { job: string; left: Record<string, string[]> }) {
  const desk = useDesk(job, left)
  return (
    <>
      <p data-testid="desk">{decodeURIComponent(addressOf(desk.current()))}</p>
      <button
        onClick={() => {
          desk.set({ do: [...desk.all('do'), 'programmer.heating=on'] })
          desk.put('meter', 'tester,wc.1,wc.3')
        }}
      >
        two at once
      </button>
      <button onClick={() => desk.set({ do: undefined, meter: undefined })}>clear</button>
    </>
  )
}
let jobs = 0
const open = (search = '', job = `job-desk-${++jobs}`) => ({
  job,
  ...showAt('/trace', `/trace${search}`, <Sitting job={job} />),
})
const desk = async () => (await screen.findByTestId('desk')).textContent

describe('what is set up at Trace', () => {
  it('goes into the address, two things at once and neither lost, and is kept for the job', async () => {
    const { at, job } = open('?follow=heating-1')
    await desk()
    fireEvent.click(screen.getByText('two at once'))
    await waitFor(() => expect(at().search).toContain('meter='))
    expect(new URLSearchParams(at().search).getAll('do')).toEqual(['programmer.heating=on'])
    expect(at().search).toContain('follow=heating-1')
    expect(await here.sitting(job)).toMatchObject({ do: ['programmer.heating=on'], meter: ['tester,wc.1,wc.3'] })
  })

  it('is found again where it was left, by an address that says nothing', async () => {
    const { job, unmount } = open()
    await desk()
    fireEvent.click(screen.getByText('two at once'))
    unmount()
    const again = open('', job)
    expect(await desk()).toContain('programmer.heating=on')
    await waitFor(() => expect(again.at().search).toContain('meter='))
  })

  it('is replaced by an address that says something, and left alone by one that says nothing', async () => {
    const { at, go, job } = open('?do=wait%3D1s')
    expect(await desk()).toBe('do=wait=1s')
    await go('/trace?do=programmer.heating%3Don')
    expect(await desk()).toBe('do=programmer.heating=on')
    await go('/trace')
    expect(await desk()).toBe('do=programmer.heating=on')
    await waitFor(() => expect(at().search).toContain('programmer'))
    expect(await here.sitting(job)).toEqual({ do: ['programmer.heating=on'] })
  })

  it('is not written while one is on the way to another station, which would be to turn back', async () => {
    const { at, job } = open('?follow=heating-1')
    await desk()
    navigation.state = 'loading'
    fireEvent.click(screen.getByText('two at once'))
    await new Promise((done) => setTimeout(done, 500))
    navigation.state = 'idle'
    expect(at().search).toBe('?follow=heating-1')
    expect(await here.sitting(job)).toMatchObject({ do: ['programmer.heating=on'] })
  })

  it('is not written either in the moment before the screen learns that one is on the way', async () => {
    const left = jest.fn(() => true)
    const shown = (
      <OnTheWay value={left}>
        <Sitting job="job-desk-way" />
      </OnTheWay>
    )
    const { at } = showAt('/trace', '/trace?follow=heating-1', shown)
    await desk()
    fireEvent.click(screen.getByText('two at once'))
    await waitFor(() => expect(left).toHaveBeenCalled())
    expect(at().search).toBe('?follow=heating-1')
  })

  it('is empty once it is cleared, and stays so', async () => {
    const { at, job, unmount } = open('?do=wait%3D1s')
    await desk()
    fireEvent.click(screen.getByText('clear'))
    await waitFor(() => expect(at().search).toBe(''))
    unmount()
    open('', job)
    expect(await desk()).toBe('')
  })
})
