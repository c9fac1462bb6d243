import { cableLabels, conductorLabels, type FirstDone, type Installation } from '@nobbet/core'
import type { TDocumentDefinitions } from 'pdfmake/interfaces'
import type { PaperHeading } from './heading'
import { labelGrids, type LabelGridId } from './label-grids'
import { labelSheets } from './label-sheet'
import { lidLayouts, lidSheet } from './lid-sheet'
import { packPages } from './pack'

/** Turns a description of pages into a PDF; says how many pages it has. */
export type Typesetter = (pages: TDocumentDefinitions) => Promise<{ pdf: Uint8Array; pages: number }>

/** A paper that can be made of an installation. */
export type PaperOrder =
  { is: 'pack'; first?: FirstDone } | { is: 'lid' } | { is: 'labels'; grid: LabelGridId; from: number }

/** Makes a paper as PDF. The lid sheet in the largest type with which it is one page. */
export async function makePaper(
  order: PaperOrder,
  installation: Installation,
  heading: PaperHeading,
  set: Typesetter,
): Promise<Uint8Array> {
  if (order.is === 'pack') return (await set(packPages(installation, heading, order.first))).pdf
  if (order.is === 'labels') {
    const labels = [...cableLabels(installation), ...conductorLabels(installation)]
    return (await set(labelSheets(labels, heading, labelGrids[order.grid], order.from))).pdf
  }
  let made = new Uint8Array()
  for (const layout of lidLayouts) {
    const { pdf, pages } = await set(await lidSheet(installation, heading, layout))
    made = new Uint8Array(pdf)
    if (pages === 1) break
  }
  return made
}
