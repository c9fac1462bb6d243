import type { Item, JobState, Photo, SiteRecord, Visit } from '@nobbet/contract'

/** A photo of a report: an address that the page can show, or a data address that paper can. */
export interface ReportPhoto {
  id: string
  image: string
  caption: string
  spot?: Photo['spot']
}

/** A piece of a report; the page and the paper set the same pieces. */
export type Block =
  | { is: 'title'; text: string; under?: string }
  | { is: 'heading'; text: string }
  | { is: 'text'; text: string; strong?: boolean }
  | { is: 'list'; items: readonly string[] }
  | { is: 'table'; head: readonly string[]; widths: readonly (number | '*')[]; rows: readonly (readonly string[])[] }
  | { is: 'photos'; photos: readonly ReportPhoto[] }
  | { is: 'caution'; title: string; lines: readonly string[] }
  | { is: 'signature'; name: string; day: string; strokes: readonly (readonly number[])[] }

/** What both reports are made of. */
export interface ReportOf {
  state: JobState
  record: SiteRecord
  photos: readonly ReportPhoto[]
  /** What day something was, in words. */
  dayOf: (iso: string) => string
}

/** A heading and what stands under it; nothing where nothing does. */
export const under = (heading: string, blocks: readonly Block[]): Block[] =>
  blocks.length > 0 ? [{ is: 'heading', text: heading }, ...blocks] : []

export const listed = (items: readonly string[]): Block[] => (items.length > 0 ? [{ is: 'list', items }] : [])

/** With a full stop, where it has no end of its own. */
export const sentence = (text: string): string => (/[.!?]$/.test(text.trim()) ? text.trim() : `${text.trim()}.`)

/** The lines of a record that are of certain kinds. */
export const ofKind = (items: readonly Item[], ...kinds: readonly Item['kind'][]): Item[] =>
  items.filter(({ kind }) => kinds.includes(kind))

export const signedBlocks = (visits: readonly Visit[], dayOf: ReportOf['dayOf']): Block[] => {
  const signed = visits.findLast((visit) => visit.signed)?.signed
  return signed ? [{ is: 'signature', name: signed.name, day: dayOf(signed.at), strokes: signed.strokes }] : []
}

/** What every report defers to. */
export const deference =
  'The rules of the place, the supply authority and the makers’ instructions come before this report. It speaks only of what is written in it.'
