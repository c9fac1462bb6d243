import { expose } from 'comlink'
import { prepareZXingModule, readBarcodes } from 'zxing-wasm/reader'
import reader from 'zxing-wasm/reader/zxing_reader.wasm?url'

prepareZXingModule({ overrides: { locateFile: () => reader } })

/** Photographs are made smaller to this before they are looked through, pixels of their longer side: a module still has several. */
const longestSide = 3200

const api = {
  /** The texts of all square codes in a picture. Rejects where it is no picture that this browser reads. */
  async codesIn(picture: Blob): Promise<string[]> {
    const bitmap = await createImageBitmap(picture)
    const scale = Math.min(1, longestSide / Math.max(bitmap.width, bitmap.height))
    const [width, height] = [Math.round(bitmap.width * scale), Math.round(bitmap.height * scale)]
    const context = new OffscreenCanvas(width, height).getContext('2d')!
    context.drawImage(bitmap, 0, 0, width, height)
    bitmap.close()
    const found = await readBarcodes(context.getImageData(0, 0, width, height), {
      formats: ['QRCode'],
      tryHarder: true,
      maxNumberOfSymbols: 24,
    })
    return found.filter(({ isValid }) => isValid).map(({ text }) => text)
  },
}
export type LidApi = typeof api
expose(api)
