/** @jest-environment jsdom */
import { headingOf, standingSchema, type JobSummary } from '@nobbet/contract'
import { fireEvent, screen, waitFor, within } from '@testing-library/react'
import { documentOf } from '../../testing'
import { here, serverOf, storeOf } from '../../testing/stores'
import { showAt } from '../../testing/page'
import { JobsPage } from './jobs-page'

jest.mock('../store/stores', () => jest.requireActual('../../testing/stores'))
const list = jest.fn()
jest.mock('../api/client', () => ({
  ...jest.requireActual('../api/client'),
  call: (...args: unknown[]) => list(...args),
}))

const job = (id: string, site: string, status: 'open' | 'closed' = 'open'): JobSummary => ({
  id,
  number: 3,
  ...headingOf({ ...documentOf(site), status }, standingSchema.parse({ findings: 2 })),
  createdAt: '2026-11-25T09:00:00.000Z',
  updatedAt: '2026-11-25T09:00:00.000Z',
})
/** The server's list, which gives out what it is asked for. */
const serve = (...jobs: JobSummary[]) =>
  list.mockImplementation((operation: string, { query }: { query?: { status: string } } = {}) => {
    if (operation !== 'listJobs') return Promise.resolve()
    const of = (status: string) => jobs.filter((j) => !j.deletedAt && (status === 'all' || j.status === status))
    const deleted = jobs.filter((j) => j.deletedAt)
    const counts = { open: of('open').length, closed: of('closed').length, deleted: deleted.length }
    return Promise.resolve({ jobs: query!.status === 'deleted' ? deleted : of(query!.status), counts })
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
    serve(job('a-job-1', 'Mill House'), job('a-job-2', 'Old Barn', 'closed'))
    show()
    await screen.findByText('1 job')
    fireEvent.click(screen.getByText('Show 1 closed'))
    await waitFor(() => expect(sites()).toEqual(['Mill House', 'Old Barn']))
    expect(await here.list()).toMatchObject({ jobs: [{ id: 'a-job-1' }, { id: 'a-job-2' }] })
  })

  it('stays as it was told last where the server is away, with the time', async () => {
    await here.keepList([job('a-job-1', 'Mill House')], Date.parse('2026-11-26T08:05:00Z'))
    away()
    show()
    await screen.findByText('Mill House')
    expect(screen.getByRole('status').textContent).toMatch(/As of 26 Nov.*The server cannot be reached/)
  })

  it('closes a job without any server, and says that this is not sent yet', async () => {
    serve(job('job-close-1', 'Mill House'))
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

  it('deletes a closed job as it was seen, says where it is, and brings it back', async () => {
    const closed = job('a-job-2', 'Old Barn', 'closed')
    serve(job('a-job-1', 'Mill House'), closed)
    show()
    fireEvent.click(await screen.findByText('Show 1 closed'))
    fireEvent.click(await screen.findByLabelText('Delete Old Barn'))
    await screen.findByText('“Old Barn” is in the bin, and gone for good in 30 days.')
    expect(list).toHaveBeenCalledWith('deleteJob', { params: { job: 'a-job-2' }, over: 3 })
    expect(sites()).not.toContain('Old Barn')
    fireEvent.click(screen.getByText('Undo'))
    await waitFor(() => expect(sites()).toContain('Old Barn'))
    expect(list).toHaveBeenCalledWith('restoreJob', { params: { job: 'a-job-2' }, body: {} })
  })

  it('has a bin from which a job is brought back', async () => {
    serve(job('a-job-1', 'Mill House'), { ...job('a-job-3', 'Far Croft'), deletedAt: '2026-11-20T09:00:00.000Z' })
    show()
    fireEvent.click(await screen.findByText('Bin: 1'))
    await screen.findByText('Far Croft')
    screen.getByText(/gone for good 20 Dec/)
    fireEvent.click(screen.getByText('Bring back'))
    await waitFor(() => expect(list).toHaveBeenCalledWith('restoreJob', { params: { job: 'a-job-3' }, body: {} }))
  })

  it('does not close a job in which a test has left something otherwise, and says what', async () => {
    const id = 'job-disturbed-1'
    const store = storeOf(id)
    await store.load()
    const at = '2026-11-27T07:00:00.000Z'
    const entries = [
      { id: 'on', do: 'programmer.heating=on' },
      { id: 'seen', see: { at: 'boiler' as const, device: 'boiler' }, found: { word: 'called' } },
    ]
    await store.record({ do: 'hunt', lines: entries.map((entry) => ({ entry, at, note: '' })) })
    serve(job(id, 'Weir House'))
    show()
    await waitFor(() => expect(document.querySelector(`a[href*="${id}"]`)).not.toBeNull())
    const close = () =>
      within(document.querySelector<HTMLElement>(`a[href*="${id}"]`)!.closest('li')!).getByRole('button', {
        name: 'Close',
      })
    fireEvent.click(close())
    await screen.findByText(/is not closed: there is something to put back. Programmer: heating off/)
    expect(store.current().state!.document.status).toBe('open')
    await store.record({ do: 'hunt', lines: [{ entry: { id: 'off', do: 'programmer.heating=off' }, at, note: '' }] })
    fireEvent.click(close())
    await waitFor(() => expect(store.current().state!.document.status).toBe('closed'))
  })
})
