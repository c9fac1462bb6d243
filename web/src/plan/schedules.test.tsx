/** @jest-environment jsdom */
import { edited, terminalSchedule, type Installation } from '@nobbet/core'
import { render, screen, within } from '@testing-library/react'
import { plannedIn } from '../../testing/plans'
import { CableSchedule, TerminalSchedule } from './schedules'

const zones = ['heating', 'heating']
const shown = (installation: Installation) =>
  render(<TerminalSchedule installation={installation} centre={installation.wiringCentres[0]} />)
const cells = (row: HTMLElement) =>
  within(row)
    .getAllByRole('cell')
    .map((cell) => cell.textContent)

describe('the terminal schedule', () => {
  it.each(['strip-12', 'levers', 'board', 'separate'])(
    'of %s has a row to each conductor, with its colour beside its own other end',
    (kind) => {
      const plan = plannedIn(kind, zones)
      const { container } = shown(plan)
      const wanted = terminalSchedule(plan, 'wc').flatMap(({ conductors }) => conductors)
      const pairs = [...container.querySelectorAll<HTMLElement>('tbody tr')]
        .map((row) => [
          row.querySelector('.conductor')?.textContent,
          row.querySelector('.conductor')?.closest('td')?.nextElementSibling?.textContent,
        ])
        .filter(([colour]) => colour !== undefined)
      expect(pairs).toHaveLength(wanted.length)
      wanted.forEach(({ colour, farText }, i) => {
        expect(pairs[i][0]).toContain(colour)
        expect(pairs[i][1]).toContain(farText)
      })
    },
  )

  it('names a terminal once, however many conductors are in it, and says what it is linked to and cut from', () => {
    const plan = plannedIn('board-cut', zones)
    shown(plan)
    const numbers = screen.getAllByText((_, element) => element?.className === 'terminal-number')
    expect(numbers.map((one) => one.textContent)).toEqual(plan.wiringCentres[0].terminals.map(({ id }) => id))
    const [cut] = plan.links.filter(({ kind }) => kind === 'cut')
    const [one, other] = cut.between.map((ref) => ref.slice(3))
    const row = screen.getByText(one).closest('tr')!
    expect(cells(row).at(-1)).toContain(`cut from ${other}`)
  })

  it('tells a conductor that lies loose or was parked by its cable', () => {
    const plan = plannedIn('strip-12', zones)
    const [cable] = plan.cables
    const loose = edited(plan, {
      label: 'Loose',
      changes: [{ do: 'end', cable: cable.id, core: cable.cores[0].id, end: 0, to: { at: 'loose' } }],
    }).doc
    const { container } = shown(loose)
    expect(container.textContent).toContain(`(${cable.label})`)
    expect(container.textContent).toContain('parked here')
  })
})

describe('the cable schedule', () => {
  it('has every core of every cable, and calls a lead its device’s own', () => {
    const plan = plannedIn('board-cut', zones)
    const { container } = render(<CableSchedule installation={plan} />)
    const rows = [...container.querySelectorAll('tbody tr:not(.cable-name)')]
    expect(rows).toHaveLength(plan.cables.reduce((sum, { cores }) => sum + cores.length, 0))
    const lead = screen.getByText('Board fuse lead', { exact: false })
    expect(lead.textContent).toContain('its device’s own')
    expect(screen.getByText('Supply cable', { exact: false }).textContent).not.toContain('its device’s own')
  })
})
