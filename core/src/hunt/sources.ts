import type { Circuit } from '../circuit'
import type { Evidence } from '../inference'
import type { WrittenLook } from '../looks'
import type { TellingEntry } from './along'
import type { HuntEntry, HuntOptions } from './case'
import { answersWith, blamedRightly, oddsOf, oddsOfTold, usualToldError } from './likelihood'
import { causesOf, devicesOf, type Suspect } from './suspects'

/** Whatever state it is made in: what makes one reading wrong makes the next one of the same thing wrong as well. */
export const sourceOfLook = (see: WrittenLook): string => JSON.stringify(see)

/** How probable it is that somebody held a device to be at fault, with a suspect. Above 0, below 1. */
export function blamedOf(
  circuit: Circuit,
  suspect: Suspect,
  { blamed }: Extract<HuntEntry, { blamed: string }>,
  errors: HuntOptions['errors'],
): number {
  const isAt = causesOf(suspect).some((cause) => devicesOf(circuit, cause).includes(blamed))
  return isAt ? blamedRightly : (errors.told ?? usualToldError)
}

/** Where a finding comes from, and how often what is so, and what is not, is written down there. */
export function sourceOf(
  entry: TellingEntry,
  errors: HuntOptions['errors'],
): Pick<Evidence, 'source' | 'hit' | 'miss'> {
  if ('says' in entry) return { source: `says ${JSON.stringify(entry.says)}`, ...oddsOfTold(entry.says, errors) }
  if ('blamed' in entry) return { source: 'blamed', hit: blamedRightly, miss: errors.told ?? usualToldError }
  return { source: sourceOfLook(entry.see), ...oddsOf(entry.see, errors, answersWith(entry.see, entry.found)) }
}
