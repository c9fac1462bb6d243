import { agrees, lookAt, wordOf, type Found, type LookResult, type WrittenLook } from '../looks'
import type { Simulation } from '../simulation'
import type { RowLook } from './row'

/** Insulation from which a circuit passes, MΩ: the least usual in the trade; the rules of the place come before it. */
export const leastMegohms = 1

/** What a look shows in a simulation. Clicks are counted from its beginning. */
export const shownTo = (sim: Simulation, see: WrittenLook): LookResult =>
  lookAt(sim, see.at === 'clicks' ? { ...see, since: 0 } : see)

/** What is expected where a simulation shows this, as somebody would write it down; undefined of what cannot be known. */
export function expectedOf(sim: Simulation, see: WrittenLook): RowLook | undefined {
  const shown = shownTo(sim, see)
  if ('unknown' in shown || 'chances' in shown) return undefined
  const word = wordOf(shown)
  if (!('value' in shown)) return { see, expect: shown }
  if (shown.unit !== 'V') return { see, expect: { value: shown.value, unit: shown.unit } }
  const { value, full } = shown
  return { see, expect: word === undefined ? { value, unit: 'V' } : { word }, full }
}

/** What somebody found, as a look shows it: volts against the full volts there. */
const asShown = (found: LookResult | Found, full: number): LookResult =>
  'unit' in found && found.unit === 'V' && !('full' in found) ? { ...found, full } : found

/**
 * Is what was found as good as what is expected? Of insulation as much as the trade asks is enough; of the ohms of an earth or of a
 * conductor less is no fault.
 */
export function meets({ see, expect, full = 0 }: RowLook, found: LookResult | Found): boolean {
  const shown = asShown(found, full)
  if (see.at === 'points' && 'value' in shown && shown.unit !== 'V') {
    if (see.with === 'insulation') return shown.value === null || shown.value >= leastMegohms
    const isLess = 'value' in expect && expect.value !== null && shown.value !== null && shown.value <= expect.value
    if ((see.with === 'earth' || see.with === 'continuity') && isLess) return true
  }
  return agrees(asShown(expect, full), shown, see.at === 'points' ? see.with : undefined)
}
