import type { LabelText } from '@nobbet/core'
import type { Content, ContentTable, TDocumentDefinitions } from 'pdfmake/interfaces'
import { ink, mm } from './frame'
import type { PaperHeading } from './heading'
import type { LabelGrid } from './label-grids'

/**
 * Labels in a grid, from the `from`th place on (1 is the first): a sheet that has been begun is used up. The first label of every
 * sheet says whose they are, as there is no margin for it.
 */
export function labelSheets(
  labels: readonly LabelText[],
  heading: PaperHeading,
  grid: LabelGrid,
  from: number,
): TDocumentDefinitions {
  const sheets = sheetsOf(labels, grid.columns * grid.rows, from)
  return {
    pageSize: 'A4',
    pageMargins: 0,
    info: { title: `${heading.job}: labels`, author: heading.by, creator: 'Nobbet' },
    defaultStyle: { font: 'Paper', fontSize: grid.height < 25 ? 5.5 : 7, color: ink, lineHeight: 1.05 },
    content: sheets.flatMap((sheet, page) =>
      sheet.map(({ place, label }, i): Content => {
        const own: LabelText = label ?? {
          mark: heading.job,
          lines: [heading.revision, `${heading.date}, by ${heading.by}`, `page ${page + 1} of ${sheets.length}`],
        }
        return {
          ...labelContent(own, grid),
          absolutePosition: {
            x: (grid.left + (place % grid.columns) * grid.pitch + grid.inset) * mm,
            y: (grid.top + Math.floor(place / grid.columns) * grid.height + grid.inset) * mm,
          },
          ...(i === 0 && page > 0 && { pageBreak: 'before' as const }),
        }
      }),
    ),
  }
}

interface Placed {
  place: number
  /** Left out of the one that tells what the sheet is. */
  label?: LabelText
}

/** Which label comes where: on every sheet the one that tells whose it is, then the next ones. */
export function sheetsOf(labels: readonly LabelText[], places: number, from: number): Placed[][] {
  const sheets: Placed[][] = []
  for (let next = 0, first = from - 1; next < labels.length || sheets.length === 0; first = 0) {
    const fit = Math.max(0, places - first - 1)
    const own = labels.slice(next, next + fit)
    sheets.push([{ place: first }, ...own.map((label, i) => ({ place: first + 1 + i, label }))])
    next += own.length
  }
  return sheets
}

/** What is longer than its label is cut: a line that runs into the next label would be read there. */
function labelContent({ mark, lines }: LabelText, { width, height, inset }: LabelGrid): ContentTable {
  const small = height < 25
  const markSize = mark.length > 6 ? (small ? 7 : 10) : small ? 13 : 20
  const letters = Math.floor((width - 2 * inset) / (small ? 1.05 : 1.3))
  const short = (text: string, most: number) => (text.length > most ? `${text.slice(0, most - 1)}…` : text)
  return {
    table: {
      widths: [(width - 2 * inset) * mm],
      body: [
        [
          {
            border: [false, false, false, false],
            margin: [0, -2, 0, 0],
            stack: [
              {
                text: short(mark, Math.floor((letters * (small ? 5.5 : 7)) / markSize)),
                bold: true,
                fontSize: markSize,
              },
              ...lines.map((text) => ({ text: short(text, letters) })),
            ],
          },
        ],
      ],
    },
  }
}
