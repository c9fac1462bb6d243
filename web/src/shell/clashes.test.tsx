/** @jest-environment jsdom */
import type { JobState } from '@nobbet/contract'
import type { Clash, FieldChange } from '@nobbet/core'
import { fireEvent, render, screen, within } from '@testing-library/react'
import { documentOf } from '../../testing'
import type { JobStore } from '../store/job-store'
import type { JobView } from '../store/job-view'
import type { KeptClash } from '../store/kept'
import { Clashes } from './clashes'

const state = { document: documentOf() } as JobState
const kept = (clash: Partial<Clash>, rest: Partial<KeptClash> = {}): KeptClash => ({
  id: 'clash-1',
  job: 'job-1',
  of: 'entry-1',
  label: 'What I did',
  at: '2026-11-26T09:00:00.000Z',
  clash: { mine: [], why: 'both', restore: [], ...clash },
  ...rest,
})
function shown(...clashes: KeptClash[]) {
  const choose = jest.fn()
  render(<Clashes view={{ state, clashes } as unknown as JobView} store={{ choose } as unknown as JobStore} />)
  return choose
}
const set = (path: string[], now: unknown): FieldChange => ({ do: 'set', path, was: 'x', now })

describe('things that two have changed', () => {
  it('are nothing on the screen where there are none', () => {
    shown()
    expect(screen.queryByRole('region')).toBeNull()
  })

  it('stand side by side with who had changed them, and one is chosen', () => {
    const end = ['wiring', 'cables', 'pump-cable', 'cores', 'brown', 'ends', '1']
    const choose = shown(
      kept(
        { mine: [set(end, { at: 'loose' })], theirs: { at: 'terminal', terminal: 'wc.1', provenance: 'tested' } },
        { by: { author: 'R. Tamsin', at: '2026-11-26T10:30:00.000Z' } },
      ),
    )
    const box = within(screen.getByRole('region', { name: 'Changed by two' }))
    box.getByText('brown of Pump cable, end 2: loose')
    box.getByText(/^R\. Tamsin, 26 Nov/)
    box.getByText(/Wiring centre.*, tested$/)
    fireEvent.click(box.getByText('Leave theirs'))
    fireEvent.click(box.getByText('Put mine there'))
    expect(choose.mock.calls).toEqual([
      ['clash-1', 'theirs'],
      ['clash-1', 'mine'],
    ])
  })

  it.each<[string, Partial<Clash>, string[]]>([
    [
      'words of the brief',
      { mine: [set(['brief', 'symptom'], 'mine')], theirs: 'theirs' },
      ['Reported symptom: “mine”', '“theirs”'],
    ],
    [
      'a name',
      { mine: [set(['wiring', 'devices', 'pump', 'name'], 'Big pump')], theirs: 'Old pump' },
      ['Pump, name: “Big pump”', '“Old pump”'],
    ],
    [
      'something they took out',
      { mine: [set(['wiring', 'links', 'nowhere', 'kind'], 'cut')], why: 'gone' },
      ['link nowhere, kind: “cut”', 'taken out', 'Bring it back with mine'],
    ],
    [
      'what cannot stand beside theirs',
      {
        mine: [{ do: 'drop', path: ['wiring', 'devices'], was: { id: 'pump', name: 'Pump' }, after: null }],
        why: 'senseless',
      },
      ['Pump taken out', 'cannot stand beside yours'],
    ],
    [
      'many at once',
      { mine: Array.from({ length: 5 }, () => set(['brief', 'site'], 'a')), why: 'senseless' },
      ['5 changes'],
    ],
  ])('are told in words: %s', (_, clash, words) => {
    shown(kept(clash))
    for (const text of words) screen.getByText(text)
  })

  it('are counted', () => {
    shown(kept({}), kept({}, { id: 'clash-2' }))
    screen.getByText('2 things were changed by two')
  })
})
