/** @jest-environment jsdom */
import { recordOf, type Entry } from '@nobbet/contract'
import { edited, exampleById } from '@nobbet/core'
import { act, fireEvent, screen, waitFor, within } from '@testing-library/react'
import '../../testing/patience'
import { showAt } from '../../testing/page'
import { serverOf, storeOf } from '../../testing/stores'
import { IsolationStep, severalSupplies } from '../shell/isolation-step'
import { IntoRecord } from './into-record'
import { VisitChip } from './visit-chip'
import { VisitPage } from './visit-page'

jest.mock('../store/stores', () => jest.requireActual('../../testing/stores'))
jest.mock('../workers/compute', () => jest.requireActual('../../testing/compute'))
jest.mock('../api/client', () => ({
  ...jest.requireActual('../api/client'),
  call: () => Promise.reject(new TypeError('failed to fetch')),
}))

let jobs = 0
async function shown(...entries: Entry[]) {
  const job = `job-visit-${++jobs}`
  const store = storeOf(job)
  await store.load()
  for (const entry of entries) await store.record(entry as Exclude<Entry, { do: 'edit' }>)
  showAt(
    '/jobs/:job/visit',
    `/jobs/${job}/visit`,
    <>
      <VisitChip job={job} />
      <VisitPage />
    </>,
  )
  await screen.findByLabelText('The visit')
  const record = () => recordOf(store.current().state!)
  return { job, store, record }
}
const at = '2026-11-27T09:00:00.000Z'
const visit: Entry = { do: 'visit', visit: { id: 'visit-1', who: 'A. Engineer', why: 'cold', at } }
const cover: Entry = { do: 'disturb', disturbed: { id: 'cover', what: 'Cover off' } }
const press = (name: string | RegExp, within_ = document.body) =>
  fireEvent.click(within(within_).getAllByRole('button', { name })[0])
const fill = (label: string, value: string) =>
  fireEvent.change(screen.getByLabelText(label, { selector: 'input, select, textarea' }), { target: { value } })

describe('a visit', () => {
  it('begins with one press from anywhere, by who uses this browser; all that is written then belongs to it', async () => {
    const { record, store, job } = await shown()
    press('Begin a visit')
    await screen.findByText(/Visit since/)
    expect(record().visits).toMatchObject([{ who: 'A. Engineer' }])
    await act(() => store.record({ do: 'note', text: 'Dog' }))
    const { id } = record().visits[0]
    await waitFor(() => expect(store.current().unsent).toBe(0))
    expect(serverOf(job).log.at(-1)).toMatchObject({ visit: id, entry: { do: 'note' } })
  })

  it('says otherwise who is here and why, once the field is left', async () => {
    const { record } = await shown(visit)
    fill('Who', 'B. Engineer')
    fireEvent.blur(screen.getByLabelText('Who'))
    await waitFor(() => expect(record().visits[0]).toMatchObject({ who: 'B. Engineer', why: 'cold' }))
  })

  it('does not end while something is to be put back, and says how many; then it does, and goes on if need be', async () => {
    const { record } = await shown(visit, cover)
    press('End the visit')
    expect((await screen.findByRole('alert')).textContent).toMatch(/not ended: one thing is to be put back/)
    press('Put back')
    await screen.findByText('Nothing that Nobbet knows of is disturbed.')
    press('End the visit')
    await screen.findByText('No visit is open')
    expect(record().visits[0].ended).toBeDefined()
    press('It goes on')
    await screen.findByText(/Visit 1, since/)
  })

  it('is begun by acknowledging the isolation step where none is open', async () => {
    const job = `job-visit-${++jobs}`
    const store = storeOf(job)
    await store.load()
    showAt('/', '/', <IsolationStep job={job} before="wiring is altered" />)
    press('Acknowledge for this visit')
    await screen.findByText('Isolation step acknowledged for this visit.')
    expect(recordOf(store.current().state!).visits).toMatchObject([{ isolated: expect.any(String) }])
  })
})

it('the isolation step names the supplies where there is more than one', () => {
  const of = (id: string) => severalSupplies(exampleById(id)!.installation)
  expect(of('two-port-heating')).toBeUndefined()
  expect(of('single-zone-electric')).toMatch(/^More than one supply: .+, Boiler circuit\. Each off and locked\.$/)
  expect(of('unvented')).toContain('Immersion circuit')
})

describe('what is to be put back', () => {
  it('is written by hand, put back, stays, and is not so after all', async () => {
    const { record } = await shown(visit)
    press('Plate off')
    expect(screen.getByLabelText<HTMLInputElement>('What was disturbed').value).toBe('Plate off: ')
    fill('What was disturbed', 'Plate off: programmer')
    press('Add', screen.getByLabelText('To put back'))
    await screen.findByText('Plate off: programmer')
    press('Stays so')
    await waitFor(() => expect(record().disturbed[0].settled?.how).toBe('stays'))
    press('Not so')
    await waitFor(() => expect(record().disturbed[0]).not.toHaveProperty('settled'))
  })

  it('of the wiring is put back in the wiring; where something else is there by then, that is said', async () => {
    const { store, record } = await shown(visit)
    const before = store.current().state!.document.wiring
    const lift = (document: { wiring: typeof before }) => ({
      ...document,
      wiring: edited(document.wiring, {
        label: 'lift',
        changes: [{ do: 'end', cable: 'boiler-cable', core: 'black', end: 1, to: { at: 'loose', provenance: 'seen' } }],
      }).doc,
    })
    await act(() => store.edit('Lifted', (document) => ({ ...document, ...lift(document) })))
    await screen.findByText(/^black of .* is off/)
    press('Put back')
    await screen.findByText('Nothing that Nobbet knows of is disturbed.')
    const end = (wiring: typeof before) =>
      wiring.cables.find(({ id }) => id === 'boiler-cable')!.cores.find(({ id }) => id === 'black')!.ends[1]
    expect(end(store.current().state!.document.wiring)).toMatchObject({ ...end(before), provenance: 'seen' })
    expect(record().disturbed).toEqual([])
  })

  it('is left until a day with limits and who was told; ended, it is put back', async () => {
    const { record } = await shown(visit, cover)
    press('Leave it for now')
    const leave = screen.getByRole<HTMLButtonElement>('button', { name: 'Leave it until then' })
    expect(leave.disabled).toBe(true)
    fill('Its limits', 'nobody in')
    fill('Who was told', 'Ms Okoro')
    fireEvent.click(leave)
    await waitFor(() =>
      expect(record().measures).toMatchObject([{ limits: 'nobody in', told: 'Ms Okoro', puts: 'cover' }]),
    )
    expect(screen.getByLabelText('Left for now').textContent).toContain('in 7 days')
    press('Put back, ended')
    await waitFor(() => expect(record().disturbed[0].settled?.how).toBe('back'))
    expect(record().measures[0].ended).toBeDefined()
  })

  it('goes through all states first where it leaves another wiring: a dangerous one is refused with the reason', async () => {
    const { store, record } = await shown(visit)
    await act(() =>
      store.edit('Lifted', (document) => ({
        ...document,
        wiring: edited(document.wiring, {
          label: 'lift',
          changes: [
            { do: 'end', cable: 'programmer-cable', core: 'brown', end: 0, to: { at: 'loose', provenance: 'seen' } },
          ],
        }).doc,
      })),
    )
    await screen.findByText(/^brown of .* is off/)
    press('Leave it for now')
    fill('Its limits', 'nobody in')
    fill('Who was told', 'Ms Okoro')
    press('Leave it until then')
    const refused = await screen.findByRole('alert', {}, { timeout: 30_000 })
    expect(refused.textContent).toMatch(/It must not be left so\..*loose/)
    expect(record().measures).toEqual([])
  })

  it('of a hunt’s link leaves a revision “as left”, once no state of it is dangerous', async () => {
    const line = (id: string, act: string): Entry => ({ do: 'hunt', lines: [{ entry: { id, do: act }, at, note: '' }] })
    const { store, record } = await shown(visit, line('line-1', 'lift=boiler-cable.black.1'))
    press('Leave it for now')
    fill('Its limits', 'no heating')
    fill('Who was told', 'Ms Okoro')
    press('Leave it until then')
    await waitFor(() => expect(record().measures).toHaveLength(1), { timeout: 30_000 })
    const { revisions, document } = store.current().state!
    const left = revisions.find(({ id }) => id === record().measures[0].revision)!
    expect(left.kind).toBe('as-left')
    const end = (wiring: typeof document.wiring) =>
      wiring.cables.find(({ id }) => id === 'boiler-cable')!.cores.find(({ id }) => id === 'black')!.ends[1].at
    expect([end(document.wiring), end(left.installation)]).toEqual(['terminal', 'cut-back'])
  })
})

describe('what is written down', () => {
  it('is found, changed, taken out, and put back', async () => {
    const { record } = await shown(visit)
    press('Made safe')
    fill('What is written', 'Immersion heater isolated')
    press('Write it down')
    await screen.findByText('Immersion heater isolated')
    expect(record().items).toMatchObject([{ kind: 'made-safe', severity: 'remark', visit: 'visit-1' }])
    press('Change')
    const form = screen.getByLabelText('Change what is written')
    fireEvent.change(within(form).getByLabelText('What is written'), { target: { value: 'Isolated and tagged' } })
    press('Keep', form)
    await screen.findByText('Isolated and tagged')
    press('Take out', screen.getByLabelText('Found and done'))
    await waitFor(() => expect(record().items).toEqual([]))
    press('Put it back')
    await screen.findByText('Isolated and tagged')
  })

  it('has parts to bring that are used, who was told, and follow-ups that are done', async () => {
    const { record } = await shown(visit)
    const parts = screen.getByLabelText('Parts')
    fill('Used or to bring', 'bring')
    fill('How many', '2')
    fill('Which part', 'End switch')
    press('Add', parts)
    await within(parts).findByText(/2 × End switch/)
    press('Used now', parts)
    await waitFor(() => expect(record().parts).toMatchObject([{ use: 'used', count: 2 }]))
    const told = screen.getByLabelText('Who was told', { selector: 'section' })
    fill('Whom', 'Ms Okoro')
    fill('What they were told', 'Keep the lever on auto')
    press('Add', told)
    await waitFor(() => expect(record().told).toMatchObject([{ whom: 'Ms Okoro' }]))
    const follow = screen.getByLabelText('Follow-ups')
    fill('What is to be done', 'Fit the head')
    fill('By which day', '2026-12-03')
    press('Add', follow)
    await within(follow).findByText(/Fit the head/)
    press('Done', follow)
    await waitFor(() => expect(record().followUps[0].done).toBeDefined())
  })

  it('takes in what Checks or Hunt found with one press, once, and then leads to it', async () => {
    const job = `job-visit-${++jobs}`
    const store = storeOf(job)
    await store.load()
    await store.record(visit)
    const found = {
      kind: 'found',
      severity: 'danger',
      text: 'No earth at the pump',
      part: 'pump',
      evidence: ['open'],
    } as const
    showAt('/', '/', <IntoRecord job={job} {...found} evidence={[...found.evidence]} />)
    press('Into the record')
    await screen.findByText('In the record')
    expect(recordOf(store.current().state!).items).toMatchObject([{ ...found, visit: 'visit-1' }])
  })
})
