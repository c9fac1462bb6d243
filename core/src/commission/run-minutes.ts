import type { Circuit } from '../circuit'
import { lookMinutes, siteMinutes, thingLookedAt, walkMinutes, type WrittenLook } from '../looks'
import type { HandCheck, RunRow } from './row'

/** Nothing else to do meanwhile: what is waited for beside the looks, up to where a pump's overrun is only come back to. */
const mostWaited = 60_000

/** What a row takes, from where the row before has left somebody: the way to the controls and to the plant, settings, the wait, looks. */
export function runMinutes(
  { installation }: Circuit,
  before: RunRow | undefined,
  { acts, waitMs, looks, byHand }: Pick<RunRow, 'acts' | 'waitMs' | 'looks' | 'byHand'>,
  helper: boolean,
): number {
  const placeOf = (device: string) => installation.devices.find(({ id }) => id === device)?.place
  let here = before && lastPlace(before, placeOf)
  let minutes = Math.min(waitMs, mostWaited) / 60_000
  const go = (device: string) => {
    const place = placeOf(device)
    if (here !== undefined && place !== undefined) minutes += walkMinutes(installation, here, place)
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
  for (const check of byHand) minutes += minutesByHand(installation, check)
  // Everything that is felt warms at the same time.
  return minutes + (looks.some(({ see }) => see.at === 'warmth') ? siteMinutes.warms : 0)
}

/** Dead tests take longer than other looks: covers, leads, proving dead. */
function minutesOfLook(see: WrittenLook): number {
  if (see.at !== 'points' || see.with === 'tester') return lookMinutes[see.at]
  return see.with === 'insulation' ? siteMinutes.insulationTest : siteMinutes.deadTest
}

/** Each link and cable is looked at by itself; a cover is taken off and put on again. Trade estimates. */
function minutesByHand({ wiringCentres }: Circuit['installation'], check: HandCheck): number {
  switch (check.check) {
    case 'links':
      return 0.5 + 0.1 * check.links.length
    case 'clamped':
      return 0.1 * check.cables.length
    case 'cover':
      return wiringCentres.some(({ id }) => id === check.owner) ? 1.5 : siteMinutes.plateOfControl
    case 'told':
      return 3
    case 'stands':
    case 'as-wanted':
    case 'lit':
      return 0.5
  }
}

/** Where somebody stands after a row. */
function lastPlace({ acts, looks }: RunRow, placeOf: (device: string) => string | undefined): string | undefined {
  const seen = looks.at(-1)?.see
  if (seen) return placeOf(thingLookedAt(seen))
  const act = acts.findLast((one) => one.do === 'set')
  return act?.do === 'set' ? placeOf(act.device) : undefined
}
