import { coloursFound, isEarthColour, typeIn, type ColourSet, type SupplyId } from '../catalogue'
import type { Colour } from '../installation'
import { platesOf, type Certain } from './certain'
import type { BehindPlate, SeenCable, Survey } from './document'
import type { Expected } from './expected'
import { usual } from './weights'

/** Where a conductor may end, as numbers: a terminal from 0 on, or one of these. */
export const cutBack = -1
export const away = -2
export const joint = -3

/** A way a cable may go: to a device, as one of the sheaths seen behind its plate where that is off, or elsewhere. */
export interface Route {
  /** The device's number; -1 elsewhere. */
  device: number
  /** Which sheath behind its plate; -1 where nobody has seen them. */
  sheath: number
  /** A second one that it serves as well. */
  also?: { device: number; sheath: number }
  /** Per conductor, where it may end. */
  ends: number[][]
  /** Natural logarithm of how usual it is that a cable goes so. */
  log: number
}

/** The devices that a route serves, each with its sheath. */
export const servedBy = ({ device, sheath, also }: Route): { device: number; sheath: number }[] =>
  also ? [{ device, sheath }, also] : [{ device, sheath }]

/** What there is to draw the ways of cables from. */
export interface Ground {
  survey: Survey
  expected: Expected
  certain: Certain
  supply: SupplyId
}

/** Every way that a cable may go after what is certain: to one device, or with two devices in one cable. */
export function routesOf(ground: Ground, cable: SeenCable, serves: 'one' | 'two'): Route[] {
  const { expected, certain } = ground
  const known = certain.cables.get(cable.id)
  const fixed = cable.cores.map(({ id }) => {
    const end = certain.ends.get(`${cable.id}.${id}`)
    return end && numberOf(expected, end.to)
  })
  if (fixed.every((end) => end === away))
    return serves === 'one' ? [{ device: -1, sheath: -1, ends: fixed.map(() => [away]), log: 0 }] : []
  const forced = new Set(fixed.flatMap((end) => (end !== undefined && end >= 0 ? expected.terminals[end].device : [])))
  if (known) forced.add(expected.deviceAt(known.device))
  const parts = partsOf(ground, cable, fixed, known)
  const allForced = (...devices: number[]) => [...forced].every((one) => devices.includes(one))
  if (serves === 'one') {
    const routes = parts.filter(({ device, ends }) => allForced(device) && ends.every((own) => own.length > 0))
    return known || forced.size > 0
      ? routes
      : [...routes, { device: -1, sheath: -1, ends: fixed.map(() => [away]), log: Math.log(usual.away) }]
  }
  return parts.flatMap((one, i) =>
    parts.slice(i + 1).flatMap((other): Route[] => {
      if (one.device === other.device || !allForced(one.device, other.device)) return []
      const ends = one.ends.map((own, k) => [...new Set([...own, ...other.ends[k]])])
      const serving = [one, other].every((part) => part.ends.some((own) => own.some((end) => end >= 0)))
      if (!serving || ends.some((own) => own.length === 0)) return []
      const also = { device: other.device, sheath: other.sheath }
      return [{ device: one.device, sheath: one.sheath, also, ends, log: Math.log(usual.twoDevices) }]
    }),
  )
}

/** For each device and sheath, where the conductors of a cable may end there; none for one that may not. */
function partsOf(
  ground: Ground,
  cable: SeenCable,
  fixed: readonly (number | undefined)[],
  known: { device: string; sheath?: number } | undefined,
): Route[] {
  const { survey, expected } = ground
  const plates = platesOf(survey)
  return expected.devices.flatMap(({ id, type }, device): Route[] => {
    if (cable.leadOf !== undefined && type !== cable.leadOf) return []
    const plate = plates.get(id)
    const part = (sheath: number): Route => {
      const seen = plate?.sheaths[sheath]
      const ends = cable.cores.map(({ colour }, k) => {
        const at = fixed[k]
        if (at !== undefined) return at < 0 || expected.terminals[at].device === device ? [at] : []
        const own = seen
          ? seen.cores.filter((core) => core.colour === colour).map((core) => placeNumber(expected, id, core.at))
          : anyEnd(ground, device, colour, cable)
        return own.filter((end) => !isDenied(survey, expected, cable, k, end))
      })
      return { device, sheath, ends, log: 0 }
    }
    if (!plate) return [part(-1)]
    const sheaths = [...plate.sheaths.keys()]
    return known?.sheath !== undefined && known.device === id ? [part(known.sheath)] : sheaths.map(part)
  })
}

/** Where a conductor of this colour may end at a device whose plate is on: of a lead by its colour, else anywhere. */
function anyEnd({ expected }: Ground, device: number, colour: Colour, cable: SeenCable): number[] {
  const { terminals, type } = expected.devices[device]
  if (cable.leadOf === undefined) {
    // What has a lead of its own has no screws for a cable.
    const screws = terminals.filter((at) => expected.terminals[at].lead === undefined)
    return [...screws, cutBack]
  }
  const own = typeIn(expected.installation, type).terminals.filter(({ lead }) => lead === colour)
  // Not every type tells the colours of its lead.
  if (own.length === 0) return terminals
  return own.map(({ id }) => expected.at(`${expected.devices[device].id}.${id}`)!)
}

/** Somebody has measured that it is not there. */
const isDenied = ({ facts }: Survey, expected: Expected, cable: SeenCable, core: number, end: number): boolean =>
  end >= 0 &&
  facts.some(
    (fact) =>
      fact.see === 'rung' &&
      !fact.joined &&
      fact.cable === cable.id &&
      fact.core === cable.cores[core].id &&
      fact.to === expected.terminals[end].ref,
  )

const placeNumber = (expected: Expected, device: string, at: BehindPlate): number =>
  at.at === 'terminal' ? (expected.at(`${device}.${at.terminal}`) ?? cutBack) : at.at === 'joint' ? joint : cutBack

function numberOf(expected: Expected, to: { at: string; terminal?: string }): number {
  if (to.at === 'terminal') return expected.at(to.terminal!)!
  return to.at === 'away' ? away : to.at === 'joint' ? joint : cutBack
}

/** How usual a colour is on a terminal, as the logarithm of a factor. */
export function colourLog(
  { expected, supply }: Ground,
  cable: SeenCable,
  colours: readonly Colour[],
  core: number,
  end: number,
): number {
  if (end < 0) return 0
  const { role } = expected.terminals[end]
  const { colour, sleeve } = cable.cores[core]
  const worn = sleeve ?? colour
  if (cable.leadOf !== undefined) return 0
  if ((role === 'earth') !== isEarthColour(colour)) return Math.log(usual.earthMisused)
  if (role === 'earth') return 0
  const neutral = neutralOf(coloursFound(supply, colours))
  if (role === 'neutral') return worn === neutral ? 0 : Math.log(usual.otherAsNeutral)
  return worn === neutral ? Math.log(usual.neutralMisused) : 0
}

const neutralOf = (set: ColourSet): Colour => set.wanted.neutral[0]
