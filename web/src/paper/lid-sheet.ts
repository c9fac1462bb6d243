import { lidCodes, terminalSchedule, type Installation, type ScheduledTerminal } from '@nobbet/core'
import { toString as drawnCode } from 'qrcode'
import type { Column, Content, TDocumentDefinitions } from 'pdfmake/interfaces'
import { framed, mm, table } from './frame'
import type { PaperHeading } from './heading'

/** Codes in a row, and how large one is, quiet zone and all: a module of the fullest is half a millimetre. */
const [codesInRow, codeWidth] = [3, 60 * mm]

/** How the schedule of each box is set: the size of its type, points, and in one table or in two beside each other. */
export interface LidLayout {
  fontSize: number
  beside: 1 | 2
}

/** Layouts that are tried: the first with which it is one page. */
export const lidLayouts: readonly [LidLayout, ...LidLayout[]] = [
  { fontSize: 9, beside: 1 },
  { fontSize: 8, beside: 1 },
  { fontSize: 7, beside: 1 },
  { fontSize: 7, beside: 2 },
  { fontSize: 6, beside: 2 },
]

/** The page for the inside of the lid: what is in each terminal, and the whole installation as codes. */
export async function lidSheet(
  installation: Installation,
  heading: PaperHeading,
  { fontSize, beside }: LidLayout,
): Promise<TDocumentDefinitions> {
  const codes = lidCodes(installation)
  const drawn = await Promise.all(
    (codes ?? []).map((code) => drawnCode(code, { type: 'svg', margin: 4, errorCorrectionLevel: 'M' })),
  )
  const pictures = drawn.map((svg, i): Column => {
    const which = drawn.length > 1 ? `code ${i + 1} of ${drawn.length}` : 'code'
    return {
      stack: [
        { svg, width: codeWidth },
        { text: which, alignment: 'center', fontSize: 7 },
      ],
      width: codeWidth,
    }
  })
  const says = codes
    ? `${codes.length === 1 ? 'This code holds' : `These ${codes.length} codes together hold`} the whole wiring: devices, cables, cores, links and pipes. ` +
      'Photograph it and bring the picture to Nobbet, New job, from a lid sheet. No network, no account.'
    : 'This wiring is too large for codes: keep its file with the papers of the house.'
  return {
    ...framed(heading, 'Lid sheet', [
      { text: installation.name, style: 'h1' },
      {
        text: `${installation.scheme}. Isolate every pole and prove dead before the box is opened further.`,
        bold: true,
      },
      { text: heading.verdict, fontSize: 8, margin: [0, 2, 0, 0] },
      ...installation.wiringCentres.map(({ id, name }): Content => ({
        margin: [0, 8, 0, 0],
        columnGap: 14,
        columns: inParts(functionsOf(terminalSchedule(installation, id)), beside).map((part) =>
          boxTable(name, part, beside),
        ),
      })),
      { text: says, margin: [0, 8, 0, 4], fontSize: 8 },
      ...inRows(pictures, codesInRow).map((columns): Content => ({ columns, unbreakable: true })),
    ]),
    defaultStyle: { font: 'Paper', fontSize, lineHeight: 1.05 },
  }
}

type FunctionRow = [ScheduledTerminal, ...ScheduledTerminal[]]

function boxTable(name: string, functions: readonly FunctionRow[], beside: LidLayout['beside']): Column {
  const [legends, links] = beside === 1 ? [84, 84] : [52, 62]
  const own = table(
    [legends, '*', links],
    [name, 'In each terminal: conductor, and where its other end is', 'Linked'],
    functions.map((own) => [
      { text: own[0].legend, bold: true },
      { text: own.flatMap(inTerminal) },
      [chains(own), cuts(own)].filter((text) => text !== '').join('; '),
    ]),
  )
  return { ...own, width: '*' }
}

/** Rows in so many parts, about as long each. */
function inParts<T>(rows: readonly T[], parts: number): T[][] {
  const each = Math.ceil(rows.length / parts)
  return Array.from({ length: parts }, (_, i) => rows.slice(i * each, (i + 1) * each)).filter((part) => part.length > 0)
}

/** Terminals side by side that serve one function; those with nothing in them are left out. */
function functionsOf(rows: readonly ScheduledTerminal[]): FunctionRow[] {
  const functions: FunctionRow[] = []
  for (const row of rows.filter(({ conductors, linkedTo }) => conductors.length > 0 || linkedTo.length > 0)) {
    const last = functions.at(-1)
    if (last?.[0].legend === row.legend) last.push(row)
    else functions.push([row])
  }
  return functions
}

const inTerminal = ({ number, conductors }: ScheduledTerminal): Content[] => [
  { text: `${number}\u00a0`, bold: true },
  `${conductors.map(({ colour, sleeve, farText }) => `${colour}${sleeve ? ` (sleeved ${sleeve})` : ''}: ${farText}`).join('; ')}   `,
]

/** Links as chains: "1 to 9" of neighbours, "3-7" else. Each is told once, at the terminal that comes first. */
function chains(rows: readonly ScheduledTerminal[]): string {
  const order = rows.map(({ number }) => number)
  const areNeighbours = (a: string, b: string) => order.indexOf(b) === order.indexOf(a) + 1
  const told: { from: string; to: string; row: boolean }[] = []
  const links = new Set<string>()
  for (const { number, linkedTo } of rows)
    for (const to of linkedTo) {
      if (links.has(`${to} ${number}`)) continue
      links.add(`${number} ${to}`)
      const row = areNeighbours(number, to)
      const before = told.find((one) => one.row && row && one.to === number)
      if (before) before.to = to
      else told.push({ from: number, to, row })
    }
  return told.map(({ from, to, row }) => `${from}${row ? ' to ' : '-'}${to}`).join(', ')
}

/** Links that the box came with, and that are cut. */
function cuts(rows: readonly ScheduledTerminal[]): string {
  const cut = rows.flatMap(({ number, cutFrom }) => cutFrom.map((from) => `${number}-${from}`))
  return cut.length > 0 ? `cut ${cut.join(', ')}` : ''
}

const inRows = <T>(list: readonly T[], n: number): T[][] =>
  list.flatMap((_, i) => (i % n === 0 ? [list.slice(i, i + n)] : []))
