/** @jest-environment jsdom */
import type { Revision } from '@nobbet/contract'
import { act, fireEvent, screen, waitFor } from '@testing-library/react'
import { serverOf, storeOf } from '../../testing/stores'
import { showAt } from '../../testing/page'
import { Photos } from './photos'

jest.mock('../store/stores', () => jest.requireActual('../../testing/stores'))
jest.mock('../api/client', () => ({
  ...jest.requireActual('../api/client'),
  call: () => Promise.reject(new TypeError('failed to fetch')),
}))

const job = 'job-photos-1'
const revision = { id: 'revision-1', name: 'As found' } as Revision

describe('photos of a kept state', () => {
  it('are shown as soon as they are kept here, sent in their turn, and taken down', async () => {
    const store = storeOf(job)
    await store.load()
    serverOf(job).weather = () => 'away'
    showAt('/', '/', <Photos job={job} revision={revision} />)
    await act(() => store.record({ do: 'keep', revision: revision.id, kind: 'as-found', name: revision.name }))
    await act(() =>
      store.photo('photo-1', { revision: revision.id, caption: 'Lid off', image: 'data:image/png;base64,AA==' }),
    )
    const picture = await screen.findByAltText('Lid off')
    expect(picture.getAttribute('src')).toBe('data:image/png;base64,AA==')
    serverOf(job).weather = () => 'fair'
    await act(async () => store.again())
    await waitFor(() => expect([...serverOf(job).photos]).toEqual(['photo-1']), { timeout: 5000 })
    await act(() => store.photo('photo-1'))
    await waitFor(() => expect(serverOf(job).photos.size).toBe(0), { timeout: 5000 })
  })

  it('are refused with the file’s name where it is no picture', async () => {
    showAt('/', '/', <Photos job={job} revision={revision} />)
    const file = new File(['x'], 'notes.txt', { type: 'text/plain' })
    fireEvent.change(await screen.findByLabelText('Pin a photo'), { target: { files: [file] } })
    expect((await screen.findByRole('alert')).textContent).toBe(
      'Not pinned: "notes.txt" is no picture that this browser can read.',
    )
  })
})
