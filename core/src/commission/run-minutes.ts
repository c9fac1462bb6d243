import type { Circuit } from '../circuit'
import { lookMinutes, siteMinutes, thingLookedAt, type Look } from '../looks'
import type { RunRow } from './row'

/** Nothing else to do meanwhile: what is waited for beside the looks, up to where a pump's overrun is only come back to. */
const mostWaited = 60_000

/** What a row takes, from where the row before has left somebody: the way to the controls and to the plant, settings, the wait, looks. */
export function runMinutes(
  { installation }: Circuit,
  before: RunRow | undefined,
  { acts, waitMs, looks }: Pick<RunRow, 'acts' | 'waitMs' | 'looks'>,
  helper: boolean,
): number {
  const placeOf = (device: string) => installation.devices.find(({ id }) => id === device)?.place
  let here = before && lastPlace(before, placeOf)
  let minutes = Math.min(waitMs, mostWaited) / 60_000
  const go = (device: string) => {
    const place = placeOf(device)
    if (here !== undefined && place !== here) minutes += siteMinutes.walk
    here = place
  }
  for (const act of acts) {
    if (act.do === 'wait') minutes += act.ms / 60_000
    if (act.do !== 'set') continue
    if (!helper) go(act.device)
    minutes += siteMinutes.setControl
  }
  for (const { see } of looks) {
    go(thingLookedAt(see))
    minutes += minutesOfLook(see)
  }
  // Everything that is felt warms at the same time.
  return minutes + (looks.some(({ see }) => see.at === 'warmth') ? siteMinutes.warms : 0)
}

/** Of two points only dead tests take longer than other looks; what is read with the supply on is counted like them. */
const minutesOfLook = ({ at }: Look): number => (at === 'points' ? siteMinutes.deadTest : lookMinutes[at])

/** Where somebody stands after a row. */
function lastPlace({ acts, looks }: RunRow, placeOf: (device: string) => string | undefined): string | undefined {
  const seen = looks.at(-1)?.see
  if (seen) return placeOf(thingLookedAt(seen))
  const act = acts.findLast((one) => one.do === 'set')
  return act?.do === 'set' ? placeOf(act.device) : undefined
}
