/** @jest-environment jsdom */
import { fireEvent, screen, waitFor } from '@testing-library/react'
import { documentOf } from '../../testing'
import { here, serverOf, storeOf } from '../../testing/stores'
import { showAt } from '../../testing/page'
import { JobsPage } from './jobs-page'

jest.mock('../store/stores', () => jest.requireActual('../../testing/stores'))
const list = jest.fn()
jest.mock('../api/client', () => ({ ...jest.requireActual('../api/client'), call: () => list() }))

const { brief } = documentOf()
const job = (id: string, site: string, status = 'open') => ({
  id,
  brief: { ...brief, site },
  status,
  createdAt: '2026-11-25T09:00:00.000Z',
  updatedAt: '2026-11-25T09:00:00.000Z',
  findings: 2,
})
const show = () => showAt('/', '/', <JobsPage />)
const away = () => list.mockRejectedValue(new TypeError('failed to fetch'))
const sites = () => screen.getAllByRole('listitem').map((li) => li.querySelector('.site')?.textContent)

describe('the list of jobs', () => {
  it('says what a browser knows where no server answers and nothing was ever read', async () => {
    away()
    show()
    await screen.findByText('That did not work')
    screen.getByText('The server cannot be reached. Is Nobbet still running?')
  })

  it('shows open jobs, and closed ones on request', async () => {
    list.mockResolvedValue([job('a-job-1', 'Mill House'), job('a-job-2', 'Old Barn', 'closed')])
    show()
    await screen.findByText('1 job')
    fireEvent.click(screen.getByText('Show 1 closed'))
    expect(sites()).toEqual(['Mill House', 'Old Barn'])
    expect(await here.list()).toMatchObject({ jobs: [{ id: 'a-job-1' }, { id: 'a-job-2' }] })
  })

  it('stays as it was told last where the server is away, with the time', async () => {
    await here.keepList([job('a-job-1', 'Mill House') as never], Date.parse('2026-11-26T08:05:00Z'))
    away()
    show()
    await screen.findByText('Mill House')
    expect(screen.getByRole('status').textContent).toMatch(/As of 26 Nov.*The server cannot be reached/)
  })

  it('closes a job without any server, and says that this is not sent yet', async () => {
    list.mockResolvedValue([job('job-close-1', 'Mill House')])
    await storeOf('job-close-1').load()
    serverOf('job-close-1').weather = () => 'away'
    show()
    fireEvent.click(await screen.findByText('Close'))
    await screen.findByText('No open jobs')
    fireEvent.click(screen.getByText('Show 1 closed'))
    screen.getByText('Kept in this browser, not sent yet')
    fireEvent.click(screen.getByText('Open again'))
    await waitFor(() => expect(screen.queryByText('Open again')).toBeNull(), { timeout: 3000 })
  })
})
