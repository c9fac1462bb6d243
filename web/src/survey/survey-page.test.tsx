/** @jest-environment jsdom */
import { recordOf } from '@nobbet/contract'
import { act, fireEvent, screen, waitFor, within } from '@testing-library/react'
import '../../testing/patience'
import { showAt } from '../../testing/page'
import { serverOf, storeOf } from '../../testing/stores'
import { planOf } from '../wiring/plan-of'
import { SurveyPage } from './survey-page'

jest.mock('../store/stores', () => jest.requireActual('../../testing/stores'))
jest.mock('../workers/compute', () => jest.requireActual('../../testing/compute'))

beforeAll(() => {
  window.matchMedia = (query) =>
    ({
      matches: query.includes('pointer'),
      addEventListener: () => undefined,
      removeEventListener: () => undefined,
    }) as unknown as MediaQueryList
})

let jobs = 0
async function surveying() {
  const job = `job-survey-${++jobs}`
  await storeOf(job).load()
  const page = showAt('/jobs/:job/survey', `/jobs/${job}/survey`, <SurveyPage />)
  await screen.findByText('How many terminals has the box?')
  const state = () => storeOf(job).current().state!
  return { job, state, seen: () => recordOf(state()).survey?.seen, ...page }
}
const line = () => screen.getByRole('textbox', { name: /A cable, or a link|: sits in/ })
const press = (name: RegExp | string) => fireEvent.click(screen.getByRole('button', { name }))
async function type(...texts: string[]) {
  for (const text of texts) {
    fireEvent.change(line(), { target: { value: text } })
    await act(async () => void fireEvent.submit(line().closest('form')!))
  }
}
/** The thermostat's cable beside the valve's lead. */
async function written() {
  const page = await surveying()
  await type('4', '4', '5', 'x', '3')
  press(/^Lead: Two-port valve/)
  await type('5', '2', '3', '1', '6')
  await screen.findAllByText('9', { selector: '.survey-tally strong' })
  return page
}

describe('a survey', () => {
  it('is written down line by line, each thing recorded at once; terminals come as they are named', async () => {
    const { seen } = await surveying()
    await type('3', '7', '2', 'x')
    expect(seen()).toMatchObject({
      cables: [
        {
          label: 'Cable 1',
          cores: [
            { colour: 'brown', at: { at: 'terminal', terminal: '7' } },
            { colour: 'blue', at: { at: 'terminal', terminal: '2' } },
            { colour: 'green-yellow', at: { at: 'cut-back' } },
          ],
        },
      ],
    })
    expect(seen()!.terminals).toHaveLength(7)
    await type('1-2-3')
    expect(seen()!.links.map(({ between }) => between.join())).toEqual(['1,2', '2,3'])
  })

  it('is written down by thumb as well: so many terminals, a cable, where each conductor sits', async () => {
    const { seen } = await surveying()
    press('12')
    await waitFor(() => expect(seen()!.terminals).toHaveLength(12))
    press('3 cores')
    for (const name of ['It sits in 1', 'It sits in 2']) fireEvent.click(await screen.findByRole('button', { name }))
    press('Later')
    await waitFor(() =>
      expect(seen()!.cables[0].cores.map(({ at }) => at.at)).toEqual(['terminal', 'terminal', 'unseen']),
    )
    press('Links')
    press('Terminal 4')
    press('Terminal 6')
    await waitFor(() => expect(seen()!.links).toMatchObject([{ between: ['4', '6'] }]))
    press('No such link')
    await waitFor(() => expect(seen()!.links).toEqual([]))
  })

  it('notes what is printed beside a terminal, and takes out one that is not there', async () => {
    const { seen } = await surveying()
    press('12')
    press('Terminal 12')
    fireEvent.blur(await screen.findByLabelText('What is printed beside it'), { target: { value: 'Spare' } })
    await waitFor(() => expect(seen()!.terminals.at(-1)).toEqual({ id: '12', legend: 'Spare' }))
    press('There is no such terminal')
    await waitFor(() => expect(seen()!.terminals).toHaveLength(11))
  })

  it('says why a line cannot be read, and keeps it', async () => {
    await surveying()
    await type('purple')
    expect(screen.getByRole('alert').textContent).toMatch(/neither/)
    expect((line() as HTMLInputElement).value).toBe('purple')
  })

  it('asks for the look that settles most, and takes its answer with one press; it can be taken back', async () => {
    const { seen } = await written()
    const card = within(await screen.findByRole('region', { name: 'Look next' }))
    expect(card.getByText(/^Follow Cable 2 by eye/)).toBeTruthy()
    fireEvent.click(card.getByRole('button', { name: 'House valve' }))
    await waitFor(() => expect(screen.getAllByText('certain', { selector: '.visually-hidden' })).toHaveLength(5))
    expect(seen()!.facts).toMatchObject([
      { see: 'follows', cable: seen()!.cables[1].id, device: 'zv-1', by: 'A. Engineer' },
    ])
    press('Take back')
    await waitFor(() => expect(seen()!.facts).toEqual([]))
  })

  it('goes on with another look where one cannot be made, and comes back to it', async () => {
    await written()
    const card = await screen.findByRole('region', { name: 'Look next' })
    const before = card.querySelector('.next-act')!.textContent
    press('Can’t do that')
    await waitFor(() => expect(document.querySelector('.next-act')!.textContent).not.toBe(before))
  })

  it('tells of a conductor where it goes, what speaks for that, and takes what somebody says of its cable', async () => {
    const { seen } = await written()
    fireEvent.click(screen.getByRole('button', { name: 'House valve' }))
    await screen.findAllByText('certain', { selector: '.visually-hidden' })
    fireEvent.click(screen.getByRole('button', { name: /^black Cable 1/ }))
    const one = within(await screen.findByRole('region', { name: 'This conductor' }))
    expect(one.getByText(/sits in 5 with Cable 2, brown/)).toBeTruthy()
    fireEvent.change(one.getByLabelText('The cable goes to'), { target: { value: 'boiler' } })
    fireEvent.change(one.getByLabelText('How that is known'), { target: { value: 'label' } })
    fireEvent.click(one.getAllByRole('button', { name: 'Note' })[0])
    await waitFor(() => expect(seen()!.facts).toMatchObject([{}, { see: 'said', from: 'label', device: 'boiler' }]))
    fireEvent.blur(one.getByLabelText('What is written on the cable'), { target: { value: 'Hall stat' } })
    await waitFor(() => expect(seen()!.cables[0].label).toBe('Hall stat'))
    fireEvent.click(one.getByRole('button', { name: 'There is no such cable' }))
    await waitFor(() => expect(seen()!.cables).toHaveLength(1))
    // What was found out of it went with it, and nothing else.
    expect(seen()!.facts).toMatchObject([{ see: 'follows', cable: seen()!.cables[0].id }])
    // A slip of the thumb is taken back with all of it.
    press('Bring it back')
    await waitFor(() => expect(seen()!.facts).toHaveLength(2))
    expect(seen()!.cables.map(({ label }) => label)).toContain('Hall stat')
  })

  it('reads a plate that is off colour by colour; nothing is saved with one left out', async () => {
    const { seen } = await written()
    while (!screen.queryByText(/^(Take the plate off|Open the casing)/)) press('Can’t do that')
    const card = within(screen.getByRole('region', { name: 'Look next' }))
    fireEvent.click(card.getByRole('button', { name: /^4 cores/ }))
    const save = () => card.getByRole('button', { name: /still to write down|That is all there is/ })
    expect((save() as HTMLButtonElement).disabled).toBe(true)
    for (const select of card.getAllByRole('combobox')) fireEvent.change(select, { target: { value: 'cut-back' } })
    fireEvent.click(save())
    await waitFor(() => expect(seen()!.facts[0]).toMatchObject({ see: 'plate', sheaths: [{ cores: { length: 4 } }] }))
  })

  it('becomes the wiring as found: what it was is kept, what departs stands in the record', async () => {
    const { job, state } = await written()
    fireEvent.click(screen.getByRole('checkbox', { name: /^Every cable/ }))
    await screen.findByText(/^The supply does not come into the box/)
    const before = state().document.wiring
    await storeOf(job).record({ do: 'keep', revision: 'revision-plan', kind: 'planned', name: 'As planned' })
    press('Make it the wiring as found')
    press('Yes, as found')
    await screen.findByText(/^It is the wiring as found/)
    expect(state().document.wiring.cables.map(({ id }) => id)).toContain('cable-1')
    const { taken } = recordOf(state()).survey!
    expect(state().revisions.slice(1)).toMatchObject([
      { id: taken!.before, installation: before },
      { id: taken!.revision, kind: 'as-found', installation: state().document.wiring },
    ])
    expect(
      recordOf(state())
        .items.map(({ text }) => text)
        .join(),
    ).toContain('The supply does not come into the box')
    // What was planned on paper, with other numbers, is no plan of this box: nothing departs from it.
    expect(planOf(state())).toBeUndefined()
    // It is still held against what it was held against before.
    expect(document.querySelector('.survey-tally strong')!.textContent).toBe('9')
    await waitFor(() => expect(serverOf(job).log.length).toBeGreaterThan(20))
  })
})
