import { typeIn } from '../catalogue'
import { ownerOf } from '../installation'
import type { BehindPlate, SeenCable, Sheath, Survey, SurveyFact } from './document'
import type { Expected } from './expected'

/** Where a conductor's far end is. `away`: in another box, or where nothing of this is. */
export type FarEnd =
  | { at: 'terminal'; terminal: string }
  | { at: 'cut-back'; device: string }
  | { at: 'joint'; device: string; joint: number }
  | { at: 'away' }

/** What is certain of a conductor, and the ids of what it rests on. */
export interface CertainEnd {
  to: FarEnd
  rests: string[]
}

type Plate = Extract<SurveyFact, { see: 'plate' }>

/** What is known beyond doubt, if what was written down is so. Nothing is certain by being likely, or by being what is left. */
export interface Certain {
  /** By `cable.core`. */
  ends: Map<string, CertainEnd>
  /** What was written down and cannot all be so, by the ids of the facts; nothing is certain by them. */
  disputes: string[][]
  /** Cables of which it is known to which device they go, and which of the sheaths behind its plate they are, where that is known. */
  cables: Map<string, { device: string; sheath?: number; rests: string[] }>
}

const onTerminal = (sheath: Sheath, colour: string, terminal: string): boolean =>
  sheath.cores.some((core) => core.colour === colour && core.at.at === 'terminal' && core.at.terminal === terminal)

/** The last thing seen of each device's plate. */
export const platesOf = ({ facts }: Survey): Map<string, Plate> =>
  new Map(facts.flatMap((fact) => (fact.see === 'plate' ? [[fact.device, fact] as const] : [])))

/**
 * Certain is: a conductor whose far end was seen, or that was rung out; the conductors of a device's own lead that was followed; and,
 * where one conductor of a cable was rung out to a sheath behind a plate, the others of that sheath by their colours, since a conductor
 * keeps its colour along a cable; of several of one colour, the last one by what is left.
 */
export function certainOf(survey: Survey, expected: Expected): Certain {
  const disputes = disputesIn(survey)
  const disputed = new Set(disputes.flat())
  const sound = { ...survey, facts: survey.facts.filter(({ id }) => !disputed.has(id)) }
  const certain: Certain = { ends: new Map(), cables: new Map(), disputes }
  const plates = platesOf(sound)
  for (const cable of survey.cables) ofCable(cable, sound, expected, plates, certain)
  return certain
}

function ofCable(
  cable: SeenCable,
  { facts }: Survey,
  expected: Expected,
  plates: ReadonlyMap<string, Plate>,
  { ends, cables }: Certain,
): void {
  const followed = facts.find((fact) => fact.see === 'follows' && fact.cable === cable.id)
  const away = facts.find((fact) => fact.see === 'leaves' && fact.cable === cable.id)
  if (away) for (const core of cable.cores) ends.set(`${cable.id}.${core.id}`, { to: { at: 'away' }, rests: [away.id] })
  if (followed?.see === 'follows') {
    cables.set(cable.id, { device: followed.device, rests: [followed.id] })
    if (cable.leadOf !== undefined) byLead(cable, followed.device, followed.id, expected, ends)
  }
  const seen = facts.filter(
    (fact) =>
      (fact.see === 'far-end' || (fact.see === 'rung' && fact.joined)) &&
      fact.cable === cable.id &&
      expected.at(fact.to) !== undefined,
  ) as Extract<SurveyFact, { see: 'far-end' | 'rung' }>[]
  for (const { core, to, id } of seen)
    ends.set(`${cable.id}.${core}`, { to: { at: 'terminal', terminal: to }, rests: [id] })
  for (const { core, to, id } of seen) {
    const [device, terminal] = to.split('.')
    const colour = cable.cores.find((one) => one.id === core)?.colour
    if (!cables.has(cable.id)) cables.set(cable.id, { device, rests: [id] })
    const plate = plates.get(device)
    if (!plate || colour === undefined) continue
    const same = [...plate.sheaths.keys()].filter((i) => onTerminal(plate.sheaths[i], colour, terminal))
    if (same.length !== 1) continue
    cables.set(cable.id, { device, sheath: same[0], rests: [plate.id, id] })
    bySheath(cable, plate, plate.sheaths[same[0]], id, ends)
  }
}

/** The conductors of a lead by their colours. */
function byLead(
  cable: SeenCable,
  device: string,
  fact: string,
  expected: Expected,
  ends: Map<string, CertainEnd>,
): void {
  const at = expected.devices.find(({ id }) => id === device)
  if (!at || at.type !== cable.leadOf) return
  const { terminals } = typeIn(expected.installation, at.type)
  for (const core of cable.cores) {
    const [own, ...others] = terminals.filter(({ lead }) => lead === core.colour)
    if (own && others.length === 0)
      ends.set(`${cable.id}.${core.id}`, { to: { at: 'terminal', terminal: `${device}.${own.id}` }, rests: [fact] })
  }
}

/** All conductors of a sheath once it is known which cable it is. */
function bySheath(cable: SeenCable, plate: Plate, sheath: Sheath, rung: string, ends: Map<string, CertainEnd>): void {
  const text = (at: FarEnd) => JSON.stringify(at)
  for (const colour of new Set(cable.cores.map((core) => core.colour))) {
    const here = sheath.cores.filter((core) => core.colour === colour).map(({ at }) => farEnd(plate.device, at))
    const cores = cable.cores.filter((core) => core.colour === colour)
    const known = cores.filter(({ id }) => ends.has(`${cable.id}.${id}`))
    const open = cores.filter((core) => !known.includes(core))
    const left = [...here]
    for (const { id } of known) {
      const at = left.findIndex((one) => text(one) === text(ends.get(`${cable.id}.${id}`)!.to))
      if (at >= 0) left.splice(at, 1)
    }
    // One is left, or all that are left are at one place.
    if (left.length === open.length && new Set(left.map(text)).size === 1)
      for (const { id } of open) ends.set(`${cable.id}.${id}`, { to: left[0], rests: [plate.id, rung] })
  }
}

/**
 * Facts that exclude each other: one conductor at two terminals, joined and not joined, a lead followed to one device and rung out at
 * another, a colour rung out to a terminal behind whose plate it is on nothing and in no joint. A cable may serve two devices; a lead never does.
 */
function disputesIn(survey: Survey): string[][] {
  const found: string[][] = []
  const plates = platesOf(survey)
  const colourOf = (cable: string, core: string) =>
    survey.cables.find(({ id }) => id === cable)?.cores.find(({ id }) => id === core)?.colour
  const pairs = survey.facts.flatMap((x, i) => survey.facts.slice(i + 1).map((y) => [x, y] as const))
  const leads = new Set(survey.cables.flatMap(({ id, leadOf }) => (leadOf === undefined ? [] : [id])))
  for (const [x, y] of pairs) if (exclude(x, y, leads)) found.push([x.id, y.id])
  for (const fact of survey.facts) {
    if (fact.see !== 'far-end' && !(fact.see === 'rung' && fact.joined)) continue
    const [device, terminal] = fact.to.split('.')
    const plate = plates.get(device)
    const colour = colourOf(fact.cable, fact.core)
    const mayBe = (sheath: Sheath) =>
      onTerminal(sheath, colour!, terminal) ||
      sheath.cores.some((core) => core.colour === colour && core.at.at === 'joint')
    if (plate && colour !== undefined && !plate.sheaths.some(mayBe)) found.push([plate.id, fact.id])
  }
  return found
}

/** Where a conductor was found to be by hand or meter. */
const placed = (fact: SurveyFact): { cable: string; core: string; to: string } | undefined =>
  fact.see === 'far-end' || (fact.see === 'rung' && fact.joined) ? fact : undefined

function exclude(x: SurveyFact, y: SurveyFact, leads: ReadonlySet<string>): boolean {
  const [a, b] = [placed(x), placed(y)]
  if (a && b) return a.cable === b.cable && a.core === b.core && a.to !== b.to
  const not = [x, y].find((fact) => fact.see === 'rung' && !fact.joined)
  const is = a ?? b
  if (not?.see === 'rung' && is) return not.cable === is.cable && not.core === is.core && not.to === is.to
  if (x.see === 'through' && y.see === 'through')
    return x.joined !== y.joined && [...x.between].sort().join() === [...y.between].sort().join()
  if (x.see === 'follows' && y.see === 'follows') return x.cable === y.cable && x.device !== y.device
  const followed = x.see === 'follows' ? x : y
  if (followed.see === 'follows' && is)
    return leads.has(is.cable) && followed.cable === is.cable && ownerOf(is.to) !== followed.device
  const [leaves, other] = x.see === 'leaves' ? [x, y] : [y, x]
  if (leaves.see === 'leaves')
    return (placed(other)?.cable ?? (other.see === 'follows' ? other.cable : undefined)) === leaves.cable
  return false
}

export const farEnd = (device: string, at: BehindPlate): FarEnd =>
  at.at === 'terminal'
    ? { at: 'terminal', terminal: `${device}.${at.terminal}` }
    : at.at === 'joint'
      ? { at: 'joint', device, joint: at.joint }
      : { at: 'cut-back', device }
