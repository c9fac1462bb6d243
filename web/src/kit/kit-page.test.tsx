/** @jest-environment jsdom */
import { deviceTypes, examples, families } from '@nobbet/core'
import { act, fireEvent, screen, waitFor, within } from '@testing-library/react'
import '../../testing/patience'
import { showAt } from '../../testing/page'
import { call } from '../api/client'
import { KitPage } from './kit-page'

jest.mock('../workers/compute', () => jest.requireActual('../../testing/compute'))
jest.mock('../api/client', () => ({
  ...jest.requireActual<object>('../api/client'),
  call: jest.fn(),
}))

const asked = call as unknown as jest.Mock
const valve = deviceTypes.find(({ id }) => id === 'two-port-valve')!
/** A type of somebody's own, on their shelf. */
const own = { ...valve, id: 'own-slow-valve', name: 'Slow valve', version: 3 }
const shelf = (types: readonly object[]) =>
  asked.mockImplementation((operation: string) => {
    if (operation === 'listTypes') return Promise.resolve(types)
    return Promise.resolve(undefined)
  })
beforeEach(() => {
  asked.mockReset()
  shelf([{ id: own.id, version: 3, definition: own }])
})

const kit = (path = '/kit') => showAt('/kit/:type?', path, <KitPage />)
const shelves = () => within(screen.getByRole('navigation', { name: 'Device types' }))
const find = (text: string) =>
  fireEvent.change(screen.getByRole('searchbox', { name: 'Find a device type' }), { target: { value: text } })
const read = (name: string, content: string) =>
  act(async () => {
    const file = new File([content], name, { type: 'application/json' })
    // jsdom reads no file by itself.
    Object.defineProperty(file, 'text', { value: () => Promise.resolve(content) })
    fireEvent.change(screen.getByLabelText('File of a device type'), { target: { files: [file] } })
  })

describe('the shelves', () => {
  it('hold every type of the catalogue by family, one’s own first, and every complete system', async () => {
    kit()
    expect(await shelves().findByRole('link', { name: 'Slow valve' })).toBeTruthy()
    const names = shelves()
      .getAllByRole('link')
      .map(({ textContent }) => textContent)
    expect(names).toEqual(expect.arrayContaining(deviceTypes.map(({ name }) => name)))
    const headings = shelves()
      .getAllByRole('heading')
      .map(({ textContent }) => textContent)
    expect(headings[0]).toBe('Yours')
    expect(headings.slice(1).every((name) => (Object.values(families) as string[]).includes(name))).toBe(true)
    expect(document.querySelectorAll('.systems a')).toHaveLength(examples.length)
  })

  it('are searched by name, by what is said of a type, and by legends; one’s own too', async () => {
    kit()
    await shelves().findByRole('link', { name: 'Slow valve' })
    find('two-port')
    expect(shelves().getByRole('link', { name: valve.name })).toBeTruthy()
    expect(shelves().queryByRole('link', { name: 'Slow valve' })).toBeNull()
    find('slow')
    expect(shelves().getByRole('link', { name: 'Slow valve' })).toBeTruthy()
    find('nothing called so')
    expect(shelves().getByText(/Try fewer letters/)).toBeTruthy()
  })

  it('stand without one’s own types where the server cannot be asked', async () => {
    asked.mockRejectedValue(new TypeError('failed to fetch'))
    kit()
    expect(await screen.findByText(/Your own types cannot be read just now/)).toBeTruthy()
    expect(shelves().getByRole('link', { name: valve.name })).toBeTruthy()
  })
})

describe('a type that was taken down', () => {
  it('shows each terminal with its lead, its settings with where their figures are from, and what to measure', async () => {
    kit(`/kit/${valve.id}`)
    expect(screen.getByRole('heading', { level: 1 }).textContent).toBe(valve.name)
    const tables = screen.getAllByRole('table')
    const rows = tables.flatMap((table) =>
      within(table)
        .getAllByRole('row')
        .map(({ textContent }) => textContent),
    )
    for (const { legend, lead, internal } of valve.terminals)
      if (!internal) expect(rows.some((row) => row.includes(legend) && (!lead || row.includes(lead)))).toBe(true)
    for (const { label, origin } of valve.settings)
      expect(rows.some((row) => row.includes(label) && row.includes(origin))).toBe(true)
    await waitFor(() => expect(document.title).toContain(valve.name))
  })

  it('tells how it fails, the commonest first, what that shows, and where it can be watched', async () => {
    kit(`/kit/${valve.id}`)
    const failures = await waitFor(() => {
      const all = [...document.querySelectorAll('[data-fault]')]
      expect(all.length).toBeGreaterThan(5)
      return all
    })
    const rank = { often: 0, 'at times': 1, seldom: 2 } as Record<string, number>
    const ranks = failures.map((one) => rank[one.querySelector('.often')!.textContent])
    expect(ranks).toEqual([...ranks].sort())
    const motor = failures.find((one) => one.textContent.includes('motor open'))!
    expect(motor.textContent).toMatch(/not called|shut/i)
    expect(
      within(motor as HTMLElement)
        .getByRole('link')
        .getAttribute('href'),
    ).toMatch(/^\/examples\/.*fault/)
  })

  it('that ships is copied or exported, and neither changed nor taken out', () => {
    kit(`/kit/${valve.id}`)
    expect(screen.getByRole('link', { name: 'Make one like it' }).getAttribute('href')).toBe(
      `/kit/new?from=${valve.id}`,
    )
    expect(screen.queryByRole('link', { name: 'Change it' })).toBeNull()
    expect(screen.queryByRole('button', { name: 'Take out of Kit' })).toBeNull()
  })

  it('of one’s own is taken out at the version that was seen; where that is refused it stays, and says why', async () => {
    const { at } = kit('/kit/own-slow-valve')
    const out = await screen.findByRole('button', { name: 'Take out of Kit' })
    asked.mockImplementation((operation: string) =>
      operation === 'listTypes'
        ? Promise.resolve([{ id: own.id, version: 3, definition: own }])
        : Promise.reject(new Error('It was changed meanwhile')),
    )
    await act(async () => void fireEvent.click(out))
    expect((await screen.findByRole('alert')).textContent).toContain('It was changed meanwhile')
    expect(asked).toHaveBeenCalledWith('deleteType', { params: { type: own.id }, over: 3 })
    shelf([])
    await act(async () => void fireEvent.click(screen.getByRole('button', { name: 'Take out of Kit' })))
    await waitFor(() => expect(at().pathname).toBe('/kit'))
  })

  it('that is not there says so, and leads back to the shelves', async () => {
    kit('/kit/no-such-type')
    expect(await screen.findByRole('heading', { name: 'No such device type' })).toBeTruthy()
    expect(screen.getByRole('link', { name: 'Look on the shelves' })).toBeTruthy()
  })
})

describe('a file of a type', () => {
  it('that cannot be read is told by field and reason, and nothing is kept', async () => {
    kit()
    await read('valve.json', 'not json')
    expect((await screen.findByRole('alert')).textContent).toMatch(/valve\.json: is not JSON/)
    await read('valve.json', JSON.stringify({ ...valve, terminals: 'none' }))
    expect(screen.getByRole('alert').textContent).toMatch(/terminals/)
    expect(asked.mock.calls.filter(([operation]) => operation === 'writeType')).toEqual([])
  })

  it('of something that ships is put on the shelf under a name of its own; of one that is there, over it', async () => {
    const { at } = kit()
    await shelves().findByRole('link', { name: 'Slow valve' })
    const written = () =>
      asked.mock.calls.filter(([operation]) => operation === 'writeType').map(([, what]) => what as object)
    await read('valve.json', JSON.stringify({ format: 'nobbet-device-type', ...valve }))
    await waitFor(() => expect(written()).toHaveLength(1))
    expect(written()[0]).toMatchObject({ params: { type: `own-${valve.id}` }, over: 'new' })
    await waitFor(() => expect(at().pathname).toBe(`/kit/own-${valve.id}`))
    await read('own.json', JSON.stringify({ format: 'nobbet-device-type', ...own }))
    await waitFor(() => expect(written()).toHaveLength(2))
    expect(written()[1]).toMatchObject({ params: { type: own.id }, over: 3 })
  })
})
