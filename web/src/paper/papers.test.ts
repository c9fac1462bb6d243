import { cableLabels, conductorLabels, terminalSchedule, type FirstDone, type LabelText } from '@nobbet/core'
import fc from 'fast-check'
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces'
import { plannedIn } from '../../testing/plans'
import { mm } from './frame'
import { labelGrids, type LabelGridId } from './label-grids'
import { labelSheets } from './label-sheet'
import { lidSheet } from './lid-sheet'
import { packPages } from './pack'

const heading = {
  job: '4 Weir Lane',
  revision: 'As planned',
  date: '28 November 2026',
  by: 'I. Halloran',
  verdict: 'No defect found',
  basis: 'All states looked at.',
}
/** Everything that is printed of a piece of content, in its order. */
function printed(content: unknown): string[] {
  if (typeof content === 'string') return [content]
  if (Array.isArray(content)) return content.flatMap(printed)
  if (typeof content !== 'object' || content === null) return []
  const { text, stack, columns, table, ul, ol } = content as Record<string, unknown>
  return [text, stack, columns, (table as { body?: unknown } | undefined)?.body, ul, ol].flatMap(printed)
}
const lines = (paper: TDocumentDefinitions) => printed(paper.content)

/** What stands in the same line of a paper: text beside text. */
function linesBeside(content: unknown): string[][] {
  if (Array.isArray(content)) return content.flatMap(linesBeside)
  if (typeof content !== 'object' || content === null) return []
  const { stack, columns, table } = content as { stack?: unknown; columns?: Content[]; table?: { body: unknown } }
  return [
    ...(columns ? [columns.map((one) => printed(one).join(' '))] : []),
    ...[stack, table?.body].flatMap(linesBeside),
  ]
}

describe('the wiring pack', () => {
  it.each(['strip-12', 'levers', 'strips-12', 'board-cut'])(
    'in %s has every conductor in one line with its other end',
    (kind) => {
      const plan = plannedIn(kind, ['heating'])
      const beside = linesBeside(packPages(plan, heading).content)
      const wanted = plan.wiringCentres
        .flatMap(({ id }) => terminalSchedule(plan, id))
        .flatMap(({ conductors }) => conductors)
      expect(wanted.length).toBeGreaterThan(15)
      for (const { colour, farText, cableLabel } of wanted)
        expect(
          beside.some(([first, second]) => first.startsWith(colour) && second.startsWith(`${farText} (${cableLabel}`)),
        ).toBe(true)
    },
  )

  it('says what is linked and what is cut, and what isolation comes before', () => {
    const text = lines(packPages(plannedIn('board-cut'), heading))
    expect(text.filter((line) => /cut from [A-Z]\d/.test(line))).toHaveLength(5)
    expect(text.some((line) => line.startsWith('to '))).toBe(true)
    expect(text.findIndex((line) => line.includes('prove dead'))).toBeLessThan(text.indexOf('No.'))
    expect(text).toContain(heading.verdict)
  })
})

it('the wiring pack has the steps in the order that the brief asks for', () => {
  const stages = (first: FirstDone) =>
    lines(packPages(plannedIn('strip-12', ['heating']), heading, first)).filter((line) =>
      / (of|at) the Wiring centre$/.test(line),
    )
  expect(stages('links')[0]).toBe('Links of the Wiring centre')
  expect(stages('supply')[0]).toBe('Supply cable, at the Wiring centre')
  expect(stages('mains')).toContain('Line, neutral and earth, at the Wiring centre')
})

describe('a lid sheet', () => {
  it('tells the conductors of every terminal, links as chains, and what is cut, and carries the wiring as codes', async () => {
    const plan = plannedIn('board-cut')
    const text = lines(await lidSheet(plan, heading, { fontSize: 8, beside: 1 }))
    for (const { number, conductors } of terminalSchedule(plan, 'wc')) {
      if (conductors.length === 0) continue
      const own = text.findIndex((line) => line === `${number}\u00a0`)
      for (const { farText } of conductors) expect(text[own + 1]).toContain(farText)
    }
    expect(text.some((line) => /cut [A-Z]\d-[A-Z]\d/.test(line))).toBe(true)
    expect(text.some((line) => /^code 1|^code$/.test(line))).toBe(true)
  })

  it('has the same in two tables beside each other as in one', async () => {
    const plan = plannedIn('board-cut')
    const [one, two] = await Promise.all(
      [1, 2].map((beside) => lidSheet(plan, heading, { fontSize: 7, beside: beside as 1 | 2 })),
    )
    const heads = ['Wiring centre', 'In each terminal: conductor, and where its other end is', 'Linked']
    const said = (paper: TDocumentDefinitions) => lines(paper).filter((line) => !heads.includes(line))
    expect(said(two)).toEqual(said(one))
    expect(lines(two).filter((line) => line === heads[1])).toHaveLength(2)
  })

  it('tells neighbours that are linked as one chain', async () => {
    const text = lines(await lidSheet(plannedIn('separate'), heading, { fontSize: 8, beside: 1 }))
    expect(text.some((line) => /^1 to \d+$/.test(line))).toBe(true)
  })

  it('says so where the wiring is too large for codes', async () => {
    const plan = plannedIn('separate')
    const cables = Array.from({ length: 3000 }, (_, i) => ({
      ...plan.cables[0],
      id: `more-${i}`,
      label: `${i * 7919} x`,
    }))
    const large = { ...plan, cables: [...plan.cables, ...cables] }
    expect(lines(await lidSheet(large, heading, { fontSize: 6, beside: 2 })).join(' ')).toContain('too large for codes')
  })
})

describe('sheets of labels', () => {
  const some = fc.array(
    fc.record<LabelText>({
      mark: fc.string({ minLength: 1, maxLength: 30 }),
      lines: fc.array(fc.string(), { maxLength: 3 }),
    }),
    { maxLength: 200 },
  )
  const grids = Object.keys(labelGrids).map(Number) as LabelGridId[]

  it('have each label once, in its order, none on another, none over the edge; each sheet says whose it is', () => {
    fc.assert(
      fc.property(some, fc.constantFrom(...grids), fc.nat(), (labels, id, begun) => {
        const grid = labelGrids[id]
        const places = grid.columns * grid.rows
        const from = 1 + (begun % places)
        const { content } = labelSheets(labels, heading, grid, from)
        const sheets: { x: number; y: number; text: string[] }[][] = [[]]
        for (const one of content as (Content & { absolutePosition: { x: number; y: number }; pageBreak?: string })[]) {
          if (one.pageBreak) sheets.push([])
          sheets.at(-1)!.push({ ...one.absolutePosition, text: printed(one) })
        }
        sheets.forEach((sheet, i) => {
          expect(new Set(sheet.map(({ x, y }) => `${x} ${y}`)).size).toBe(sheet.length)
          expect(sheet.length).toBeLessThanOrEqual(places)
          for (const { x, y } of sheet) {
            expect(x + (grid.width - grid.inset) * mm).toBeLessThanOrEqual(210.5 * mm)
            expect(y + (grid.height - grid.inset) * mm).toBeLessThanOrEqual(297.5 * mm)
          }
          expect(sheet[0].text.at(-1)).toBe(`page ${i + 1} of ${sheets.length}`)
        })
        expect(sheets.flatMap((sheet) => sheet.slice(1))).toHaveLength(labels.length)
      }),
    )
  })

  it('of a plan have both ends of every cable, a lead once, and every conductor by its terminal', () => {
    const plan = plannedIn('levers')
    const marks = (labels: LabelText[]) => labels.map(({ mark }) => mark)
    for (const { label, leadOf } of plan.cables)
      expect(marks(cableLabels(plan)).filter((mark) => mark === label)).toHaveLength(leadOf === undefined ? 2 : 1)
    const conductors = terminalSchedule(plan, 'wc').flatMap((row) => row.conductors.map(() => row.number))
    expect(marks(conductorLabels(plan))).toEqual(conductors)
  })
})
