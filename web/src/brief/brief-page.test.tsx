/** @jest-environment jsdom */
import { act, fireEvent, screen, waitFor, within } from '@testing-library/react'
import { serverOf, storeOf } from '../../testing/stores'
import { showAt } from '../../testing/page'
import { BriefPage } from './brief-page'
import { NewJobPage } from './new-job-page'

jest.mock('../store/stores', () => jest.requireActual('../../testing/stores'))
jest.mock('../workers/compute', () => jest.requireActual('../../testing/compute'))
jest.mock('../api/client', () => ({
  ...jest.requireActual('../api/client'),
  call: () => Promise.reject(new TypeError('failed to fetch')),
}))

let jobs = 0
async function brief() {
  const job = `job-brief-${++jobs}`
  showAt('/jobs/:job/brief', `/jobs/${job}/brief`, <BriefPage />)
  await screen.findByLabelText('Site')
  return { job, document: () => storeOf(job).current().state!.document }
}
const write = (label: string, value: string) => fireEvent.change(screen.getByLabelText(label), { target: { value } })
const save = () => fireEvent.click(screen.getByText('Save the brief'))

describe('the brief of a job', () => {
  it('is kept word by word, and the wiring stays the very same', async () => {
    const { document } = await brief()
    const { wiring } = document()
    write('Reported symptom', 'stone cold')
    save()
    await screen.findByText('Saved.')
    expect(document().brief.symptom).toBe('stone cold')
    expect(document().wiring).toBe(wiring)
  })

  it('gives another name to a circuit in the wiring as it stands', async () => {
    const { document } = await brief()
    write('Circuit 1 name', 'Ground floor')
    save()
    await screen.findByText(/The wiring has the new names/)
    expect(document().wiring.devices.map((d) => d.name)).toContain('Ground floor thermostat')
  })

  it('is not saved where something is missing, and says what', async () => {
    const { document } = await brief()
    write('Site', ' ')
    save()
    await screen.findByText('the site is missing')
    expect(document().brief.site).toBe('Mill House')
  })

  it.each([
    ['Lay it out anew, keep the present wiring as a revision', 'mid-position', 1],
    ['Save the brief only, leave the wiring', 'mid-position', 0],
    ['Back to the form', 'two-port', 0],
  ])('of another scheme changes nothing until one has chosen: %s', async (choice, scheme, revisions) => {
    const { document, job } = await brief()
    const { wiring } = document()
    fireEvent.click(screen.getByRole('radio', { name: /^Mid-position/ }))
    save()
    const box = within(await screen.findByRole('alertdialog', { name: 'A new plan' }))
    expect(document().wiring).toBe(wiring)
    box.getByText('0 ends')
    fireEvent.click(box.getByText(choice))
    await waitFor(() => expect(screen.queryByRole('alertdialog')).toBeNull())
    expect(document().brief.fitted.scheme).toBe(scheme)
    expect(document().wiring === wiring).toBe(revisions === 0)
    expect(storeOf(job).current().state!.revisions).toHaveLength(revisions)
  })

  it('leaves alone what somebody else has changed since the form was opened', async () => {
    const { job, document } = await brief()
    const server = serverOf(job)
    write('Who attends', 'R. Tamsin')
    const entry = {
      do: 'edit' as const,
      label: 'Elsewhere',
      changes: [{ do: 'set' as const, path: ['brief', 'symptom'], was: 'cold', now: 'too hot' }],
    }
    await server.writeLog(job, {
      after: 0,
      entries: [{ id: 'elsewhere-1', author: 'O. Brand', visit: 'visit-2', at: '2026-11-26T09:00:00.000Z', entry }],
    })
    await act(() => storeOf(job).catchUp())
    save()
    await screen.findByText('Saved.')
    expect(document().brief).toMatchObject({ engineer: 'R. Tamsin', symptom: 'too hot' })
    expect(storeOf(job).current().clashes).toEqual([])
  })

  it('shows what stands where somebody else was at the same thing, and asks', async () => {
    const { job, document } = await brief()
    write('Reported symptom', 'mine')
    const change = { do: 'set' as const, path: ['brief', 'symptom'], was: 'cold', now: 'theirs' }
    await serverOf(job).writeLog(job, {
      after: 0,
      entries: [
        {
          id: 'elsewhere-2',
          author: 'O. Brand',
          visit: 'visit-2',
          at: '2026-11-26T09:00:00.000Z',
          entry: { do: 'edit', label: 'Elsewhere', changes: [change] },
        },
      ],
    })
    await act(() => storeOf(job).catchUp())
    expect(screen.getByLabelText<HTMLTextAreaElement>('Reported symptom').value).toBe('mine')
    save()
    await waitFor(() => expect(storeOf(job).current().clashes).toHaveLength(1))
    expect(document().brief.symptom).toBe('theirs')
    await waitFor(() => expect(screen.getByLabelText<HTMLTextAreaElement>('Reported symptom').value).toBe('theirs'))
  })

  it('follows what is taken back, while nothing is entered in it', async () => {
    await brief()
    write('Reported symptom', 'stone cold')
    save()
    await screen.findByText('Saved.')
    fireEvent.click(screen.getByLabelText('Undo'))
    await waitFor(() => expect(screen.getByLabelText<HTMLTextAreaElement>('Reported symptom').value).toBe('cold'))
  })

  it('has the job’s log beneath it, to which a line is added without any server', async () => {
    await brief()
    write('Entry', 'lever put back to auto')
    fireEvent.click(screen.getByText('Record it'))
    await screen.findByText('Done: lever put back to auto')
    expect(screen.getByLabelText<HTMLInputElement>('Entry').value).toBe('')
  })
})

describe('a new job', () => {
  it('is begun without any server, and opens where work on it begins', async () => {
    const { at } = showAt('/jobs/new', '/jobs/new', <NewJobPage />)
    write('Site', 'Tide Mill')
    fireEvent.click(screen.getByText('Make the job and lay out its wiring'))
    await screen.findByText('elsewhere')
    const [, , job, station] = at().pathname.split('/')
    expect(station).toBe('hunt')
    expect(storeOf(job).current().state!.document.brief.site).toBe('Tide Mill')
  })
})
