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
const sites = () => screen.getAllByRole('listitem').map((li) => li.querySelector('.site a')?.textContent)

/** Does what stands in a job's menu. */
async function choose(site: string, what: string): Promise<void> {
  fireEvent.click(await screen.findByLabelText(`More of ${site}`))
  fireEvent.click(await screen.findByText(what))
}
const closeIt = async () => {
  const button = await screen.findByText('Close it')
  await waitFor(() => expect((button as HTMLButtonElement).disabled).toBe(false))
  fireEvent.click(button)
}

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
    await choose('Mill House', 'Close')
    await screen.findByText('Nothing is open in it. It can be opened again.')
    await closeIt()
    await screen.findByText('No open jobs')
    fireEvent.click(screen.getByText('Show 1 closed'))
    await screen.findByText('Kept in this browser, not sent yet')
    // Closing asks, and can be undone.
    fireEvent.click(screen.getByText('Undo'))
    await waitFor(() => expect(document.querySelector('.job-list .closed')).toBeNull(), { timeout: 3000 })
  })

  it('deletes a closed job as it was seen, says where it is, and brings it back', async () => {
    const closed = job('a-job-2', 'Old Barn', 'closed')
    serve(job('a-job-1', 'Mill House'), closed)
    show()
    fireEvent.click(await screen.findByText('Show 1 closed'))
    await choose('Old Barn', 'Delete')
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
    const site = 'Weir House'
    await store.edit('Site', (document) => ({ ...document, brief: { ...document.brief, site } }))
    serve(job(id, site))
    show()
    await choose(site, 'Close')
    const asked = await screen.findByRole('dialog')
    await within(asked).findByText('Programmer: heating off')
    expect(screen.getByText<HTMLButtonElement>('Close it').disabled).toBe(true)
    fireEvent.click(screen.getByText('Leave it open'))
    expect(store.current().state!.document.status).toBe('open')
    await store.record({ do: 'hunt', lines: [{ entry: { id: 'off', do: 'programmer.heating=off' }, at, note: '' }] })
    await choose(site, 'Close')
    await closeIt()
    await waitFor(() => expect(store.current().state!.document.status).toBe('closed'))
  })

  it('tells what is due first where it stands, what was found by its words, and the history of a site', async () => {
    const due = {
      ...job('a-job-1', 'Mill House'),
      due: { kind: 'measure' as const, what: 'Link in', on: '2020-01-01' },
    }
    serve(due, { ...job('a-job-2', 'Old Barn'), match: 'noise behind the ⟦cup⟧board' })
    show()
    const overdue = (await screen.findByText(/Left for now: \d+ days over/)).closest('li')!
    expect(within(overdue).getByText('Link in')).toBeTruthy()
    expect(document.querySelector('mark')?.textContent).toBe('cup')
    await choose('Old Barn', 'All jobs at this site')
    await screen.findByText('All jobs at “Old Barn”, closed ones too.')
    await waitFor(() =>
      expect(list).toHaveBeenCalledWith('listJobs', {
        query: { status: 'all', find: '', site: 'Old Barn', kind: 'all', after: '' },
      }),
    )
  })
})
