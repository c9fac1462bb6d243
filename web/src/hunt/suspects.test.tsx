/** @jest-environment jsdom */
import { compile, exampleById, unlisted, type RankedSuspect } from '@nobbet/core'
import { render, screen, within } from '@testing-library/react'
import { MemoryRouter } from 'react-router'
import { head, pump, twoAtOnce } from '../../testing/two-at-once'
import type { HuntScreen } from './hunt-screen'
import { groupsOf, Suspects } from './suspects'

jest.mock('../store/stores', () => jest.requireActual('../../testing/stores'))
jest.mock('../workers/compute', () => jest.requireActual('../../testing/compute'))

const one = (of: Partial<RankedSuspect>): RankedSuspect => ({
  id: 'pump.motor.jammed',
  label: 'pump: jammed',
  remedy: 'Replace the pump',
  kind: 'part',
  group: 'pump|Replace the pump',
  prior: 0.01,
  share: 0.1,
  against: [],
  supported: [],
  ...of,
})
const circuit = compile(exampleById('two-port-heating-hot-water')!.installation)
const show = (suspects: RankedSuspect[]) => {
  const standing = { suspects, unlikely: 12, ruledOut: [], contradictions: [], putBack: [] }
  const handle = {
    view: { standing, answer: { ...standing, next: [] }, current: true, along: 1 },
    circuit,
    entries: [],
    lines: [],
    job: 'job-1',
    labelOf: (id: string) => id,
    record: { options: {} },
  } as unknown as HuntScreen
  render(<Suspects screen={handle} />, { wrapper: MemoryRouter })
}

it('are grouped by what puts them right, the likeliest group first, however its suspects are ordered', () => {
  const groups = groupsOf([
    one({ id: unlisted, group: '', share: 0.3 }),
    one({ share: 0.2 }),
    one({ id: 'pump.motor.open', share: 0.25 }),
  ])
  expect(groups.map(({ key, share }) => [key, share])).toEqual([
    ['pump|Replace the pump', expect.closeTo(0.45)],
    [unlisted, 0.3],
  ])
})

it('that are two at once say so, with what puts either right, and the parts of both are to be brought', () => {
  show([twoAtOnce, one({})])
  const [item] = screen.getAllByRole('listitem').filter((li) => li.dataset.suspect === twoAtOnce.id)
  expect(within(item).getByText('Two at once:')).toBeTruthy()
  const remedies = [...item.querySelectorAll('.remedy')].map((p) => p.textContent)
  expect(remedies).toEqual([head.remedy, pump.remedy])
  const bring = screen.getByText(/^Parts to bring/).closest('details')!
  expect([...bring.querySelectorAll('li')].map((li) => li.textContent)).toEqual([
    'Replace the head House valve, 80 %',
    'Replace the pump Pump, 90 %',
  ])
})

it('that are two at once in the same part have it brought once, for the share that the two have', () => {
  const jammed = { ...head, id: 'zv-1.motor.jammed', label: 'zone valve 1: motor jammed' }
  show([{ ...twoAtOnce, id: `${head.id} + ${jammed.id}`, causes: [head, jammed] }])
  const bring = screen.getByText('Parts to bring: 1').closest('details')!
  expect(bring.querySelector('li')?.textContent).toBe('Replace the head House valve, 80 %')
})
