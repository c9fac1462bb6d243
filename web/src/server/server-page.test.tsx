/** @jest-environment jsdom */
import { fireEvent, screen, waitFor, within } from '@testing-library/react'
import { call } from '../api/client'
import { showAt } from '../../testing/page'
import '../../testing/patience'
import { ServerPage } from './server-page'

jest.mock('../api/client', () => ({
  ...jest.requireActual<object>('../api/client'),
  call: jest.fn(),
}))

const asked = call as unknown as jest.Mock
const at = '2026-11-26T08:00:00.000Z'
const backups = [
  { name: 'day-2026-11-26', at, bytes: 120_000 },
  { name: 'before-restore-2026-11-25', at, bytes: 2_400_000 },
  { name: 'made-2026-11-24-10-00-00', at, bytes: 900 },
]
const standing = { host: true, folder: '/srv/nobbet', addresses: ['http://192.0.2.7:4600'], encrypted: false }
type Answers = Record<string, (with_?: { params?: Record<string, string> }) => unknown>

/** The page of a server that answers so; what else it is asked is noted. */
async function shown(answers: Answers = {}) {
  const said: [string, unknown][] = []
  asked.mockImplementation((operation: string, with_?: { params?: Record<string, string> }) => {
    said.push([operation, with_])
    const usual: Answers = {
      server: () => standing,
      listBackups: () => ({ backups }),
      listDevices: () => [{ id: 'van', name: 'Van phone', pairedAt: at, seenAt: at }],
    }
    return Promise.resolve().then(() => (answers[operation] ?? usual[operation])?.(with_))
  })
  showAt('/server', '/server', <ServerPage />)
  await screen.findByRole('heading', { name: /Server|paired as/ })
  return { said, of: (operation: string) => said.filter(([name]) => name === operation).map(([, with_]) => with_) }
}
const part = (name: string) => within(screen.getByRole('region', { name }))

describe('the server', () => {
  it('is managed at the machine it runs on: any other device is told so', async () => {
    asked.mockImplementation(() => Promise.resolve({ ...standing, host: false, device: 'Van phone' }))
    showAt('/server', '/server', <ServerPage />)
    await screen.findByText('This device is paired as “Van phone”')
    expect(screen.queryByText('Backups')).toBeNull()
  })

  it('says where its data is, and that what goes over the network is open', async () => {
    await shown()
    expect(screen.getByText('/srv/nobbet')).toBeTruthy()
    expect(screen.getByText(/not encrypted: anybody on it can read along/)).toBeTruthy()
  })

  it('lists backups by what made them, with their size, to be downloaded', async () => {
    await shown()
    await part('Backups').findAllByText(/120 kB · made by itself/)
    expect(part('Backups').getByText(/2\.4 MB · what was there before one was brought back/)).toBeTruthy()
    expect(part('Backups').getByText(/1 kB · made by hand/)).toBeTruthy()
    const [link] = part('Backups').getAllByText<HTMLAnchorElement>('Download')
    expect(link.getAttribute('href')).toContain('day-2026-11-26')
  })

  it('brings nothing back before it was asked once more, and says what came', async () => {
    const { of } = await shown({
      restoreBackup: () => ({ jobs: 3, findings: 1, photos: 0, kept: 'before-restore-2026-11-26' }),
    })
    const [first] = await part('Backups').findAllByText('Bring back')
    fireEvent.click(first)
    await screen.findByText('Put this backup in the place of everything?')
    expect(of('restoreBackup')).toEqual([])
    fireEvent.click(screen.getByText('Leave everything as it is'))
    expect(of('restoreBackup')).toEqual([])
    fireEvent.click(first)
    fireEvent.click(await screen.findByText('Bring it back'))
    await screen.findByText(/Brought back: 3 jobs, 1 finding, 0 photos\. What was there before is kept/)
    expect(of('restoreBackup')).toMatchObject([{ params: { backup: 'day-2026-11-26' } }])
  })

  it('keeps the list in sight where a backup could not be made, with the reason', async () => {
    await shown({
      makeBackup: () => {
        throw new Error('the disk is full')
      },
    })
    await part('Backups').findAllByText('Download')
    fireEvent.click(part('Backups').getByText('Make a backup now'))
    await waitFor(() => expect(part('Backups').getByRole('alert').textContent).toContain('the disk is full'))
    expect(part('Backups').getAllByText('Download')).toHaveLength(3)
  })

  it('takes one from elsewhere as a backup of its own', async () => {
    const { of } = await shown()
    const input = await part('Backups').findByLabelText('Bring a backup from elsewhere')
    const file = new File(['SQLite'], 'old.sqlite')
    fireEvent.change(input, { target: { files: [file] } })
    await waitFor(() => expect(of('takeBackup')).toHaveLength(1))
    expect(of('takeBackup')[0]).toMatchObject({
      body: file,
      params: { backup: expect.stringMatching(/^from-elsewhere-/) },
    })
  })
})

describe('devices that are let in', () => {
  it('are listed with when they were here, and shut out by one press', async () => {
    const { of } = await shown({ revokeDevice: () => undefined })
    await part('Devices').findByText('Van phone')
    fireEvent.click(part('Devices').getByText('Shut out'))
    await waitFor(() => expect(of('revokeDevice')).toMatchObject([{ params: { device: 'van' } }]))
  })

  it('are told how to come in where only this machine is served; nothing goes over a network then', async () => {
    await shown({ server: () => ({ ...standing, addresses: [] }), listDevices: () => [] })
    await part('Devices').findByText(/Only this machine is served/)
    expect(part('Devices').queryByText('Pair a device')).toBeNull()
    expect(screen.queryByText(/not encrypted/)).toBeNull()
  })
})
