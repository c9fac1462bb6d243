import type { Installation } from '@nobbet/core'
import regular from '@expo-google-fonts/atkinson-hyperlegible-next/400Regular/AtkinsonHyperlegibleNext_400Regular.ttf?inline'
import bold from '@expo-google-fonts/atkinson-hyperlegible-next/700Bold/AtkinsonHyperlegibleNext_700Bold.ttf?inline'
import { expose, transfer } from 'comlink'
import pdfMake from 'pdfmake/build/pdfmake'
import type { Block } from '../handover/report'
import type { PaperHeading, ReportHeading } from './heading'
import { makePaper, type PaperOrder, type Typesetter } from './make-paper'
import { reportPages } from './report-paper'

// The type that papers are set in comes with the application.
pdfMake.addVirtualFileSystem({ 'regular.ttf': base64Of(regular), 'bold.ttf': base64Of(bold) })
pdfMake.addFonts({
  Paper: { normal: 'regular.ttf', bold: 'bold.ttf', italics: 'regular.ttf', bolditalics: 'bold.ttf' },
})
// Nothing that stands in a document may make it fetch.
pdfMake.setUrlAccessPolicy(() => false)

const set: Typesetter = async (definition) => {
  let pages = 0
  const { footer } = definition
  const counted: typeof definition = {
    ...definition,
    footer: (page, of, size) => {
      pages = of
      return typeof footer === 'function' ? footer(page, of, size) : (footer ?? '')
    },
  }
  const pdf = await pdfMake.createPdf(counted).getBuffer()
  return { pdf: new Uint8Array(pdf), pages }
}

const api = {
  async make(order: PaperOrder, installation: Installation, heading: PaperHeading): Promise<Uint8Array> {
    const pdf = await makePaper(order, installation, heading, set)
    return transfer(pdf, [pdf.buffer])
  },
  async report(blocks: readonly Block[], heading: ReportHeading, title: string): Promise<Uint8Array> {
    const { pdf } = await set(reportPages(blocks, heading, title))
    return transfer(pdf, [pdf.buffer])
  },
}
export type PaperApi = typeof api
expose(api)

/** What stands behind the comma of a data address. */
function base64Of(address: string): string {
  return address.slice(address.indexOf(',') + 1)
}
