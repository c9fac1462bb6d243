import type { Installation } from '@nobbet/core'
import { Asked } from '../workers/asked'
import type { Block } from '../handover/report'
import type { PaperHeading, ReportHeading } from './heading'
import type { LidApi } from './lid.worker'
import type { PaperOrder } from './make-paper'
import type { PaperApi } from './paper.worker'

const setters = new Asked<'paper', PaperApi>(
  () => new Worker(new URL('./paper.worker.ts', import.meta.url), { type: 'module', name: 'paper' }),
)
const readers = new Asked<'lid', LidApi>(
  () => new Worker(new URL('./lid.worker.ts', import.meta.url), { type: 'module', name: 'lid' }),
)

/** A paper as PDF, made off the main thread. */
export const paperOf = (order: PaperOrder, installation: Installation, heading: PaperHeading): Promise<Uint8Array> =>
  setters.ask('paper', (api) => api.make(order, installation, heading))

/** A report as PDF, made off the main thread; its photos are data addresses. */
export const reportPaper = (blocks: readonly Block[], heading: ReportHeading, title: string): Promise<Uint8Array> =>
  setters.ask('paper', (api) => api.report(blocks, heading, title))

/** The texts of the square codes in a picture. */
export const codesIn = (picture: Blob): Promise<string[]> => readers.ask('lid', (api) => api.codesIn(picture))
