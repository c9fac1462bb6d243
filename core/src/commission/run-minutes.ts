import type { Circuit } from '../circuit'
import { ownerOf } from '../installation'
import type { Look } from '../looks'
import type { RunRow } from './row'

/** Minutes of the engineer's time, trade estimates. */
const minutesOf = {
  walk: 1,
  set: 0.5,
  boiler: 0.5,
  display: 0.5,
  valve: 1,
  pump: 0.5,
  warmth: 1,
  points: 1.5,
  warms: 5,
} as const

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
    if (here !== undefined && place !== here) minutes += minutesOf.walk
    here = place
  }
  for (const act of acts) {
    if (act.do === 'wait') minutes += act.ms / 60_000
    if (act.do !== 'set') continue
    if (!helper) go(act.device)
    minutes += minutesOf.set
  }
  for (const { see } of looks) {
    go(thingOf(see))
    minutes += minutesOfLook(see)
  }
  // Everything that is felt warms at the same time.
  return minutes + (looks.some(({ see }) => see.at === 'warmth') ? minutesOf.warms : 0)
}

/** Whose terminal or part is looked at. */
const thingOf = (look: Look): string =>
  look.at === 'points' ? ownerOf(look.red) : look.at === 'pipe' ? ownerOf(look.connection) : look.device

const minutesOfLook = ({ at }: Look): number =>
  at in minutesOf ? minutesOf[at as keyof typeof minutesOf] : minutesOf.boiler

/** Where somebody stands after a row. */
function lastPlace({ acts, looks }: RunRow, placeOf: (device: string) => string | undefined): string | undefined {
  const seen = looks.at(-1)?.see
  if (seen) return placeOf(thingOf(seen))
  const act = acts.findLast((one) => one.do === 'set')
  return act?.do === 'set' ? placeOf(act.device) : undefined
}
