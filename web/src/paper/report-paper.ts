import type { Column, Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces'
import type { Block } from '../handover/report'
import { strokePath } from '../handover/stroke-path'
import { framed, grey, ink, table, textWidth } from './frame'
import type { ReportHeading } from './heading'

/** A report as pages. Its photos have to be data addresses: nothing is fetched while paper is made. */
export const reportPages = (blocks: readonly Block[], heading: ReportHeading, title: string): TDocumentDefinitions =>
  framed(heading, title, blocks.map(contentOf))

function contentOf(block: Block): Content {
  switch (block.is) {
    case 'title':
      return {
        stack: [{ text: block.text, style: 'h1' }, ...(block.under ? [{ text: block.under, style: 'quiet' }] : [])],
      }
    case 'heading':
      return { text: block.text, style: 'h2', headlineLevel: 1 }
    case 'text':
      return { text: block.text, bold: block.strong, fontSize: 10, margin: [0, 0, 0, 3] }
    case 'list':
      return { ul: [...block.items], fontSize: 10, margin: [0, 0, 0, 3] }
    case 'table':
      return {
        margin: [0, 2, 0, 6],
        ...table(
          [...block.widths],
          [...block.head],
          block.rows.map((row) => row.map((text): TableCell => ({ text }))),
        ),
      }
    case 'photos':
      return pairs(block.photos).map((row): Content => ({
        margin: [0, 4, 0, 4],
        columnGap: 12,
        columns: row.map(({ image, caption }): Column => ({
          width: textWidth / 2 - 6,
          stack: [
            { image, fit: [textWidth / 2 - 6, 220] },
            { text: caption, color: grey },
          ],
        })),
      }))
    case 'caution':
      return {
        margin: [0, 12, 0, 0],
        table: {
          widths: ['*'],
          body: [
            [
              {
                margin: [4, 3, 4, 3],
                stack: [{ text: block.title, bold: true, fontSize: 10 }, { ul: [...block.lines] }],
              },
            ],
          ],
        },
      }
    case 'signature':
      return {
        margin: [0, 14, 0, 0],
        unbreakable: true,
        stack: [
          {
            svg: `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 1000 320"><path d="${strokePath(block.strokes)}" fill="none" stroke="${ink}" stroke-width="6" stroke-linecap="round" stroke-linejoin="round"/></svg>`,
            width: 220,
          },
          { text: `${block.name}, ${block.day}`, color: grey },
        ],
      }
  }
}

const pairs = <T>(list: readonly T[]): T[][] => list.flatMap((_, i) => (i % 2 === 0 ? [list.slice(i, i + 2)] : []))
