import type { Content, ContentTable, CustomTableLayout, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces'
import type { ReportHeading } from './heading'

export const ink = '#10201d'
export const grey = '#4a5855'
/** Points to a millimetre. */
export const mm = 72 / 25.4
/** The width of an A4 page between its margins, points. */
export const textWidth = 595 - 2 * 36

/** An A4 page with its job, revision, date, maker and number; `lines` between the rows of tables. */
export function framed(heading: ReportHeading, title: string, content: Content[]): TDocumentDefinitions {
  return {
    pageSize: 'A4',
    pageMargins: [36, 52, 36, 40],
    info: { title: `${heading.job}: ${title}`, author: heading.by, creator: 'Nobbet' },
    defaultStyle: { font: 'Paper', fontSize: 9, color: ink, lineHeight: 1.1 },
    styles: {
      h1: { fontSize: 20, bold: true, margin: [0, 0, 0, 2] },
      h2: { fontSize: 13, bold: true, margin: [0, 14, 0, 4] },
      head: { bold: true, color: grey },
      mark: { bold: true, fontSize: 11 },
      quiet: { color: grey },
    },
    header: {
      margin: [36, 22, 36, 0],
      columns: [
        { text: heading.job, bold: true },
        { text: title, alignment: 'center' },
        { text: heading.revision, alignment: 'right' },
      ],
    },
    footer: (page, of) => ({
      margin: [36, 8, 36, 0],
      fontSize: 8,
      columns: [
        { text: `${heading.date}, by ${heading.by}` },
        { text: `page ${page} of ${of}`, alignment: 'right', bold: true },
      ],
    }),
    content,
  }
}

const lines: CustomTableLayout = {
  hLineWidth: (i, node) => (i === 0 || i === node.table.body.length ? 1 : 0.4),
  vLineWidth: () => 0,
  hLineColor: () => ink,
  paddingLeft: (i) => (i === 0 ? 0 : 4),
  paddingRight: () => 4,
  paddingTop: () => 2,
  paddingBottom: () => 2,
}

/** Rows under a head that every page repeats. */
export const table = (widths: (string | number)[], head: string[], rows: TableCell[][]): ContentTable => ({
  layout: lines,
  table: {
    headerRows: 1,
    dontBreakRows: true,
    widths,
    body: [head.map((text): TableCell => ({ text, style: 'head' })), ...rows],
  },
})

/** A square to be ticked by hand. */
export const box = (): Content => ({ canvas: [{ type: 'rect', x: 0, y: 1, w: 9, h: 9, lineWidth: 1, lineColor: ink }] })
