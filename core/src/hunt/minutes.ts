import type { Circuit } from '../circuit'
import type { Hypothesis } from '../hypotheses'
import { comparedAt, lookMinutes, siteMinutes, thingLookedAt, walkMinutes, type WrittenLook } from '../looks'
import { deviceSetOf } from './acts'
import { isDeadTest } from './candidates'
import { rewiredAt, rewiringOf } from './rewiring'
import type { HuntEntry, HuntOptions } from './case'

/** Minutes beside the look itself, trade estimates. Live work counts so many times. */
const otherMinutes = {
  ...siteMinutes,
  valveTravels: 0.3,
  coverOfCentre: 1.5,
  liveFactor: 2,
  insulationTest: 3,
  isolateAndProve: 2,
  /** Done and put back. */
  link: 4,
  lift: 3,
  park: 3,
  'off-plate': 1,
} as const

/** What a remedy takes, and what it costs beside that to have done it for nothing, in minutes or what is worth as much. */
interface RemedyMinutes {
  cost: number
  wrong: number
}
/** What is worth as much as a call that ends without anything mended: a second visit. */
export const unmendedMinutes = 120
/** To go takes nothing; where it was not cured somebody has to come again. */
export const leaving: RemedyMinutes = { cost: 0, wrong: unmendedMinutes }
const remedyMinutes = {
  valveHead: { cost: 25, wrong: 70 },
  valveBody: { cost: 90, wrong: 200 },
  boiler: { cost: 45, wrong: 240 },
  control: { cost: 20, wrong: 60 },
  wiring: { cost: 10, wrong: 15 },
  /** Somebody who was told that all is well has to be gone to again. */
  explained: { cost: 3, wrong: unmendedMinutes },
  setBack: { cost: 2, wrong: 2 },
} as const satisfies Record<string, RemedyMinutes>

export const explaining: RemedyMinutes = remedyMinutes.explained

/** Trade estimates by what has to be changed; a wrong part costs its price and the customer's trust beside its minutes. */
export function minutesOfRemedy(circuit: Circuit, { kind, id, remedy }: Hypothesis): RemedyMinutes {
  if (kind === 'start' && remedy !== '') return remedyMinutes.setBack
  if (kind === 'nothing-wrong' || kind === 'start') return remedyMinutes.explained
  if (kind !== 'part') return remedyMinutes.wiring
  const [owner = '', part] = id.split('.')
  const device = circuit.devices[circuit.deviceIndex.get(owner) ?? -1]
  if (!device) return remedyMinutes.control
  const what = device.type.primitives.find((p) => p.id === part)
  if (what?.kind === 'port') return remedyMinutes.valveBody
  if (device.actuatorIndex.size > 0) return remedyMinutes.valveHead
  return device.type.inputs.length > 0 ? remedyMinutes.boiler : remedyMinutes.control
}

/** Minutes until the terminals of a wiring centre or device lie open. */
function minutesToOpen({ installation, devices, deviceIndex }: Circuit, owner: string): number {
  if (installation.wiringCentres.some(({ id }) => id === owner)) return otherMinutes.coverOfCentre
  const isBoiler = (devices[deviceIndex.get(owner) ?? -1]?.type.inputs.length ?? 0) > 0
  return isBoiler ? otherMinutes.casingOfBoiler : otherMinutes.plateOfControl
}

/** Where somebody stands for a look: a place's id. */
function placeOf(circuit: Circuit, look: WrittenLook): string | undefined {
  return placeOfOwner(circuit, thingLookedAt(look))
}

function placeOfOwner({ installation }: Circuit, owner: string): string | undefined {
  const { devices, wiringCentres, connectors } = installation
  return [...devices, ...wiringCentres, ...connectors].find(({ id }) => id === owner)?.place
}

/** What a look takes. */
export interface Effort {
  minutes: number
  /** An enclosure to be isolated and opened for it, where nobody has been in it yet. */
  isolateFirst?: string
  /** The way to it: places by their ids, as they are come to; the first is where somebody starts. */
  places: string[]
  /** Somebody has to go there from where they stand. */
  walks: boolean
  /** Of the minutes, those on the way from what is set last: so long nobody is there to see what goes on. */
  onTheWay: number
}

/** What it takes to set the controls, walk there, open it and look, in minutes from where the log has left somebody. */
export function minutesFor(
  circuit: Circuit,
  log: readonly HuntEntry[],
  acts: readonly string[],
  see: WrittenLook,
  { helper }: Pick<HuntOptions, 'helper'> = { helper: false },
): Effort {
  let here = standsAt(circuit, log)
  let minutes = 0
  let walks = false
  let onTheWay = 0
  const places: string[] = []
  const walkTo = (place: string | undefined) => {
    if (place === undefined) return
    if (places.at(-1) !== place) places.push(place)
    if (place === here) return
    const way = walkMinutes(circuit.installation, here, place)
    minutes += way
    onTheWay += way
    walks = true
    here = place
  }
  const where = () => ({ places, walks, onTheWay })
  for (const text of acts) {
    const rewiring = rewiringOf(text)
    if (rewiring) {
      const owner = rewiredAt(circuit, rewiring)
      walkTo(owner === undefined ? undefined : placeOfOwner(circuit, owner))
      // Putting it back is counted with it.
      if (!rewiring.back) minutes += otherMinutes[rewiring.what]
      if (!rewiring.back && owner !== undefined && rewiring.what !== 'off-plate' && !isOpen(log, owner))
        minutes += minutesToOpen(circuit, owner)
      continue
    }
    const device = deviceSetOf(text)
    if (device === undefined) continue
    if (!helper) walkTo(placeOfOwner(circuit, device))
    minutes += otherMinutes.setControl
    onTheWay = 0
  }
  if (acts.length > 1) minutes += otherMinutes.valveTravels
  walkTo(placeOf(circuit, see))
  // Whoever has a helper at the controls waits where something is to be seen.
  if (helper && acts.some((text) => deviceSetOf(text) !== undefined)) onTheWay = 0
  const warms = see.at === 'pipe' || see.at === 'warmth' || see.at === 'flow-temperature'
  if (warms && acts.length > 0) minutes += otherMinutes.warms
  if (see.at === 'eyes' || see.at === 'wiring') {
    minutes += lookMinutes[see.at] + (isOpen(log, see.thing) ? 0 : minutesToOpen(circuit, see.thing))
    if (see.at === 'wiring') minutes += otherMinutes.compared * comparedAt(circuit.installation, see.thing)
    if (acts.length > 0) minutes += otherMinutes.isolateAndProve
    return { minutes, ...where() }
  }
  if (see.at !== 'points') return { minutes: minutes + lookMinutes[see.at], ...where() }
  if (isDeadTest(see)) {
    minutes += see.with === 'insulation' ? otherMinutes.insulationTest : otherMinutes.deadTest
    if (acts.length > 0) minutes += otherMinutes.isolateAndProve
  } else minutes += lookMinutes.points * (see.with === 'power' ? 2 : otherMinutes.liveFactor)
  if (see.with === 'power') return { minutes, ...where() }
  const owner = see.red.split('.')[0] ?? ''
  if (isOpen(log, owner)) return { minutes, ...where() }
  minutes += minutesToOpen(circuit, owner)
  // A dead test has the supply off before anything is opened.
  return isDeadTest(see) ? { minutes, ...where() } : { minutes, isolateFirst: owner, ...where() }
}

/** Has somebody been in there already? */
const isOpen = (log: readonly HuntEntry[], owner: string): boolean =>
  log.some((entry) =>
    'see' in entry
      ? (entry.see.at === 'points' || 'thing' in entry.see) && thingLookedAt(entry.see) === owner
      : 'do' in entry && (rewiringOf(entry.do)?.of.includes(`${owner}.`) ?? false),
  )

/** Where the last act or look was. */
function standsAt(circuit: Circuit, log: readonly HuntEntry[]): string | undefined {
  for (const entry of [...log].reverse()) {
    if ('see' in entry) return placeOf(circuit, entry.see)
    if ('renew' in entry) return placeOfOwner(circuit, entry.renew)
    if (!('do' in entry)) continue
    const device = deviceSetOf(entry.do)
    if (device !== undefined) return placeOfOwner(circuit, device)
  }
  return undefined
}
