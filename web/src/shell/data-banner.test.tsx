/** @jest-environment jsdom */
import { screen } from '@testing-library/react'
import { showAt } from '../../testing/page'
import { DataBanner } from './data-banner'

const health = jest.fn()
jest.mock('../api/client', () => ({ ...jest.requireActual('../api/client'), call: () => health() }))

describe('over every view', () => {
  it.each([
    ['damaged', 'The server’s data are damaged.'],
    ['full', 'The server’s disk is full.'],
    ['read-only', 'The server’s data folder cannot be written.'],
  ])('it stands where the server cannot keep what is done: %s', async (status, words) => {
    health.mockResolvedValue({ status, detail: 'Make room on it.', version: '1' })
    showAt('/', '/', <DataBanner />)
    const banner = await screen.findByRole('alert')
    expect(banner.textContent).toContain(`${words} Make room on it. What you do is kept in this browser.`)
  })

  it('nothing stands where all is well, or where no server answers', async () => {
    health.mockResolvedValueOnce({ status: 'ok', detail: '', version: '1' }).mockRejectedValue(new TypeError('away'))
    showAt('/', '/', <DataBanner />)
    await Promise.resolve()
    expect(screen.queryByRole('alert')).toBeNull()
  })
})
