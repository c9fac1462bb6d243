import type { HuntRecord, LogLine } from '@nobbet/contract'
import { same, type Circuit, type Found, type HuntEntry, type WrittenLook } from '@nobbet/core'
import type { HuntWriter } from './hunt-log'
import type { HuntView } from './use-hunt'

/** What every part of Hunt's screen has in hand. */
export interface HuntScreen {
  job: string
  circuit: Circuit
  record: HuntRecord
  lines: readonly LogLine[]
  entries: readonly HuntEntry[]
  view: HuntView
  writer: HuntWriter
  /** What a suspect is called, by its id. */
  labelOf: (suspect: string) => string
}

export type Answer = Found | 'cannot-do' | 'cannot-tell'

/** A look that somebody is about to make: what is set first, and what is looked at. */
export interface Chosen {
  acts: readonly string[]
  see: WrittenLook
}

export const sameLook = (one: Chosen, other: Chosen): boolean => same([one.acts, one.see], [other.acts, other.see])

/** A place by its id; empty where the document has none of it. */
export const placeName = ({ installation }: Circuit, id: string | undefined): string =>
  installation.places.find((place) => place.id === id)?.name ?? ''

/** Where a device or wiring centre stands, as a place's id. */
export function placeOf({ installation }: Circuit, owner: string): string | undefined {
  const { devices, wiringCentres, connectors } = installation
  return [...devices, ...wiringCentres, ...connectors].find(({ id }) => id === owner)?.place
}
