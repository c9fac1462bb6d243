import crc32 from 'crc-32'
import { deflateSync, inflateSync } from 'fflate'
import { DocumentError, type Installation } from '../installation'
import { base45, fromBase45 } from './base45'
import { readInstallation } from './installation-file'
import dictionary from './lid-dictionary.json'

/**
 * An installation as text that fits into the QR codes of a lid sheet, to be read without a server, an account or this program's
 * memory: `NOBBET-LID/1/2-3/0A1B2C3D/…` is format 1, the second code of three, the CRC-32 of the whole document's text, and a piece
 * of it. The document is JSON without blanks, deflated (RFC 1951) with the dictionary of that format before it, in base 45
 * (RFC 9285), whose letters are those that a QR code packs best. The dictionary of a format never changes: sheets in lids need it.
 */
const format = 1
const marked = /^NOBBET-LID\/(\d{1,3})\/(\d{1,2})-(\d{1,2})\/([0-9A-F]{8})\/([\s\S]*)$/

/** What a code holds at most, bytes: a QR code of version 24 at level M, of which some 15 % may be spoilt. */
const mostBytes = 840
/** A document longer than so many codes is better kept as a file. */
export const mostLidCodes = 24

/** One code of a lid sheet, read. */
export interface LidCode {
  part: number
  of: number
  /** Which document it is of. */
  sum: string
  bytes: Uint8Array
}

/** The texts of the codes that together carry an installation; null where it would take more than {@link mostLidCodes}. */
export function lidCodes(installation: Installation): string[] | null {
  const text = JSON.stringify(installation)
  const packed = deflateSync(new TextEncoder().encode(text), { level: 9, dictionary: known() })
  const of = Math.ceil(packed.length / mostBytes)
  if (of > mostLidCodes) return null
  // All alike in size: the fullest is the hardest to read.
  const each = Math.ceil(packed.length / of)
  return Array.from({ length: of }, (_, i) =>
    ['NOBBET-LID', format, `${i + 1}-${of}`, sumOf(text), base45(packed.subarray(i * each, (i + 1) * each))].join('/'),
  )
}

/**
 * Reads the text of one code; undefined where it is not of a lid sheet.
 *
 * @throws DocumentError of a newer format, or spoilt
 */
export function readLidCode(code: string): LidCode | undefined {
  // A blank at the end is one of its letters.
  const [, version, part, of, sum, data] = marked.exec(code.replace(/^\s+|[\r\n]+$/g, '')) ?? []
  if (version === undefined) return undefined
  if (Number(version) !== format)
    throw problem(`the sheet was made by a newer Nobbet (format ${version}); this one reads format ${format}`)
  const bytes = fromBase45(data)
  const inRange = Number(part) >= 1 && Number(part) <= Number(of) && Number(of) <= mostLidCodes
  if (!bytes || !inRange) throw problem('the code is spoilt: read it again')
  return { part: Number(part), of: Number(of), sum, bytes }
}

/** The document that codes make together, or which parts of it are still to be read. */
export type LidReading = { document: Installation } | { missing: number[]; of: number }

/**
 * Puts codes together, in any order, some perhaps twice. All are to be of one document.
 *
 * @throws DocumentError of several documents, spoilt, or not an installation
 */
export function lidReading(codes: readonly LidCode[]): LidReading {
  const [first] = codes
  if (!first) return { missing: [1], of: 1 }
  if (codes.some(({ sum, of }) => sum !== first.sum || of !== first.of))
    throw problem('these codes are of different sheets: photograph one sheet at a time')
  const parts = Array.from({ length: first.of }, (_, i) => codes.find(({ part }) => part === i + 1))
  const missing = parts.flatMap((one, i) => (one ? [] : [i + 1]))
  if (missing.length > 0) return { missing, of: first.of }
  const packed = new Uint8Array(parts.flatMap((one) => [...one!.bytes]))
  let text: string
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(inflateSync(packed, { dictionary: known() }))
  } catch {
    throw problem('the codes are spoilt: read them again')
  }
  if (sumOf(text) !== first.sum) throw problem('the codes are spoilt: read them again')
  return { document: readInstallation(text) }
}

const known = () => new TextEncoder().encode(dictionary.text)
const sumOf = (text: string) => (crc32.str(text) >>> 0).toString(16).toUpperCase().padStart(8, '0')
const problem = (reason: string) => new DocumentError([{ field: 'lid sheet', reason }])
