import type { Instrument } from '../instruments'
import type { LookResult } from './look'

/** Shares of the full volts from which a two-pole tester's word is live, and up to which it is dead. Between, it could be either. */
const [liveShare, deadShare] = [0.8, 0.2]

/**
 * What two readings of the same thing may differ by: a share of the larger, and at least so much in its unit. Usual for a meter
 * of the trade, contact of the leads and drift of the supply included; a hand-held thermometer for temperatures.
 */
const tolerances: Record<'V' | 'Ω' | 'MΩ' | 'W' | '°C', { share: number; least: number }> = {
  V: { share: 0.02, least: 1 },
  Ω: { share: 0.05, least: 0.5 },
  MΩ: { share: 0.1, least: 0.1 },
  W: { share: 0.05, least: 1 },
  '°C': { share: 0, least: 2 },
}

/** The word that stands for a number, where there is one for it: live or dead of volts; undefined between. */
export function wordOf(shown: LookResult): string | undefined {
  if ('word' in shown) return shown.word
  if ('chances' in shown) return undefined
  if (!('full' in shown)) return undefined
  if (shown.value >= liveShare * shown.full) return 'live'
  return shown.value <= deadShare * shown.full ? 'dead' : undefined
}

/**
 * Could somebody find this where that is to be expected? One criterion for everything that compares: what a terminal should read,
 * what a suspect predicts. What is not known agrees with everything; a word agrees with every number that it may be said of.
 */
export function agrees(expected: LookResult, found: LookResult, instrument?: Instrument): boolean {
  if ('unknown' in expected || 'unknown' in found) return true
  if ('value' in expected && 'value' in found) {
    if (expected.unit !== found.unit) return false
    if (expected.value === null || found.value === null) return expected.value === found.value
    const { share, least } = tolerances[expected.unit]
    // What a high-impedance meter picks up on an open core depends on cables nobody has measured.
    const wide = instrument === 'meter' && isInduced(expected) && isInduced(found)
    const within = Math.max(least, share * Math.max(Math.abs(expected.value), Math.abs(found.value)))
    return wide || Math.abs(expected.value - found.value) <= within
  }
  const [one, other] = [wordsOf(expected), wordsOf(found)]
  return !one || !other || one.some((word) => other.includes(word))
}

/** The words that it may be said of; undefined of a number that none or any may be said of. */
function wordsOf(shown: LookResult): string[] | undefined {
  if ('chances' in shown) return Object.keys(shown.chances).filter((word) => (shown.chances[word] ?? 0) > 0)
  const word = wordOf(shown)
  return word === undefined ? undefined : [word]
}

/** Volts that are neither a supply nor nothing. */
const isInduced = (shown: LookResult): boolean => 'full' in shown && wordOf(shown) === undefined
