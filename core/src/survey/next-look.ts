import { information, type Candidate } from '../inference'
import { ownerOf } from '../installation'
import { siteMinutes, walkMinutes } from '../looks'
import { Box } from './box'
import type { SurveyFact } from './document'
import { platesOf } from './certain'
import type { Departure } from './departures'
import type { Expected } from './expected'
import type { Ground } from './routes'
import type { Predicted } from './predicted'
import { goesTo, readsLive } from './soft-evidence'
import type { CableStanding, CoreStanding } from './standing'
import type { Suspect } from './suspects'
import { feltRight, readRight } from './weights'

/** Something that can be looked at next. */
export type SurveyLook =
  /** Follow a lead by eye to its device. */
  | { look: 'follow'; cable: string }
  /** Take the plate off, write down which colour is where. */
  | { look: 'plate'; device: string }
  /** Ring a conductor out to a terminal whose plate is off. */
  | { look: 'ring'; cable: string; core: string; to: string }
  | { look: 'feel'; cable: string; device: string }
  | { look: 'read'; terminal: string; wanted: string[] }
  /** Between two devices, with the box's conductors lifted. */
  | { look: 'through'; between: [string, string] }

export interface SurveyNext {
  what: SurveyLook
  /** Minutes, by the costs of looks; the way there counted. */
  minutes: number
  /** How much it is expected to tell, bits. */
  bits: number
  /** How many conductors would be certain after it, as expected. */
  settles: number
}

/** Minutes, trade estimates: of what a look takes, and of the way to another place. */
export const surveyMinutes = {
  follow: 1,
  followFar: 3,
  plate: siteMinutes.plateOfControl + 1,
  casing: siteMinutes.casingOfBoiler + 1,
  ring: siteMinutes.deadTest,
  feel: 2,
  read: 1.5,
  through: 2 * siteMinutes.deadTest,
} as const

/** Of a conductor made certain, as many bits. What is only likely still has to be gone to. */
const perConductor = 0.3

/** Every look worth making, the one that tells and settles most a minute first. */
export function nextLooks(
  ground: Ground,
  suspects: readonly Suspect[],
  shares: Float64Array,
  cables: readonly CableStanding[],
  cores: readonly CoreStanding[],
  departures: readonly Departure[],
  predicted: Predicted,
): SurveyNext[] {
  const { survey, expected } = ground
  const boxPlace = expected.installation.wiringCentres[0]?.place
  const plates = platesOf(survey)
  const open = (cable: string) => cores.filter((core) => core.cable === cable && core.sure !== 'certain').length
  const walk = (device: string) => {
    const place = expected.devices.find(({ id }) => id === device)?.place
    return place === undefined || boxPlace === undefined ? 0 : walkMinutes(expected.installation, boxPlace, place)
  }
  const found: SurveyNext[] = []
  const made = new Set(survey.facts.map(lookOf))
  const add = (what: SurveyLook, minutes: number, answers: Candidate['answers'], settles: number) => {
    if (!made.has(JSON.stringify(what)))
      found.push({ what, minutes, bits: information(shares, { minutes, answers }), settles })
  }
  /** Answers by what each suspect shows; what is on no list may show any of them. */
  const answersBy = (shown: (suspect: Suspect) => string, right = 1): Map<string, Float64Array> => {
    const words = suspects.map(shown)
    const all = [...new Set(words)]
    const wrong = all.length > 1 ? (1 - right) / (all.length - 1) : 0
    return new Map(
      all.map((word) => {
        const likelihood = new Float64Array(suspects.length + 1).fill(1 / all.length)
        words.forEach((own, i) => (likelihood[i] = own === word ? (all.length > 1 ? right : 1) : wrong))
        return [word, likelihood]
      }),
    )
  }

  for (const [c, { id, leadOf, cores: own }] of survey.cables.entries()) {
    if (open(id) === 0) continue
    const standing = cables[c]
    if (leadOf !== undefined && standing.sure !== 'certain') {
      add(
        { look: 'follow', cable: id },
        surveyMinutes.follow,
        answersBy(({ devices }) => `${devices[c]}`),
        own.length,
      )
      continue
    }
    const goes = survey.cables.length > 1 ? shareTo(expected, suspects, shares, c, -1) : 0
    if (goes > 0.2 && standing.sure !== 'certain') {
      const is = ({ devices }: Suspect) => (devices[c] < 0 ? 'leaves' : 'comes to something')
      add({ look: 'follow', cable: id }, surveyMinutes.followFar, answersBy(is, feltRight), goes * open(id))
    }
    const { device } = standing
    const plate = device === undefined ? undefined : plates.get(device)
    if (device !== undefined && standing.sure !== 'certain' && !plate) {
      const number = expected.deviceAt(device)
      const is = (one: Suspect) => (goesTo(one, expected, c, number) ? 'moves' : 'still')
      add({ look: 'feel', cable: id, device }, surveyMinutes.feel + walk(device), answersBy(is, feltRight), 0)
    }
    for (const [ring, share] of rings(ground, suspects, shares, c)) {
      const at = expected.terminals[ring.end].ref
      const core = own[ring.core].id
      const joined = new Float64Array(suspects.length + 1).fill(0.5)
      suspects.forEach(({ chances }, i) => {
        joined[i] = chances[c][ring.core].find(({ end }) => end === ring.end)?.share ?? 0
      })
      add(
        { look: 'ring', cable: id, core, to: at },
        surveyMinutes.ring + walk(ownerOf(at)),
        new Map([
          ['joined', joined],
          ['open', joined.map((one) => 1 - one)],
        ]),
        share * open(id),
      )
    }
  }
  for (const [number, { id, isSupply, isBoiler, cables: has }] of expected.devices.entries()) {
    if (plates.has(id) || (isSupply && has === 0)) continue
    const undecided = survey.cables.map((cable, c) =>
      open(cable.id) > 0 ? shareTo(expected, suspects, shares, c, number) : 0,
    )
    const expectedOpen = survey.cables.reduce((sum, cable, c) => sum + undecided[c] * open(cable.id), 0)
    if (expectedOpen < 0.05 || expected.devices[number].terminals.every((t) => expected.terminals[t].lead)) continue
    const shown = (one: Suspect) => plateShown(ground, one, number)
    const minutes = (isBoiler ? surveyMinutes.casing : surveyMinutes.plate) + walk(id)
    // The plate by itself makes nothing certain: one conductor of each cable has to be rung out after it.
    const likelyCables = undecided.reduce((sum, share) => sum + share, 0)
    const whole = minutes + likelyCables * surveyMinutes.ring
    add({ look: 'plate', device: id }, minutes, answersBy(shown), (expectedOpen * minutes) / whole)
  }
  const anyOpen = cores.some(({ sure }) => sure !== 'certain')
  if (suspects.length > 1 && anyOpen) readings(ground, suspects, add, answersBy, predicted)
  for (const departure of departures)
    if (
      departure.kind === 'through-wall' &&
      departure.sure !== 'certain' &&
      departure.between &&
      !made.has(JSON.stringify({ look: 'through', between: departure.between }))
    )
      found.push({
        what: { look: 'through', between: departure.between },
        minutes: surveyMinutes.through + walk(ownerOf(departure.between[0])),
        bits: 0.5,
        settles: 1,
      })
  const worth = ({ bits, settles, minutes }: SurveyNext) => (bits + perConductor * settles) / minutes
  return found.filter((one) => worth(one) > 0.005).sort((x, y) => worth(y) - worth(x))
}

/** The look that a fact is the answer to, as text. */
function lookOf(fact: SurveyFact): string {
  const of = (look: SurveyLook) => JSON.stringify(look)
  switch (fact.see) {
    case 'follows':
    case 'leaves':
    case 'not-found':
      return of({ look: 'follow', cable: fact.cable })
    case 'plate':
      return of({ look: 'plate', device: fact.device })
    case 'rung':
      return of({ look: 'ring', cable: fact.cable, core: fact.core, to: fact.to })
    case 'felt':
      return of({ look: 'feel', cable: fact.cable, device: fact.device })
    case 'reads':
      return of({ look: 'read', terminal: fact.terminal, wanted: fact.wanted })
    case 'through':
      return of({ look: 'through', between: fact.between })
    default:
      return ''
  }
}

/** How likely a cable goes to a device, as its only one or with some of its conductors. */
const shareTo = (
  expected: Expected,
  suspects: readonly Suspect[],
  shares: Float64Array,
  cable: number,
  device: number,
): number => suspects.reduce((sum, one, i) => (goesTo(one, expected, cable, device) ? sum + shares[i] : sum), 0)

/** The likeliest conductors to ring out at plates that are off: at each device one, of several of one colour first. */
function rings(
  { survey, expected, certain }: Ground,
  suspects: readonly Suspect[],
  shares: Float64Array,
  c: number,
): [{ core: number; end: number }, number][] {
  const { id: cable, cores } = survey.cables[c]
  const plates = platesOf(survey)
  const twins = cores.map(({ colour }) => cores.filter((core) => core.colour === colour).length)
  const ways = new Map<string, { core: number; end: number; share: number }>()
  suspects.forEach(({ ends }, i) => {
    const best = new Map<number, number>()
    for (const [k, end] of ends[c].entries()) {
      if (end < 0 || certain.ends.has(`${cable}.${cores[k].id}`)) continue
      const { device, id } = expected.terminals[end]
      const plate = plates.get(expected.devices[device].id)
      if (!plate || !isAlone(plate, cores[k].colour, id)) continue
      const before = best.get(device)
      if (before === undefined || twins[k] > twins[before]) best.set(device, k)
    }
    for (const core of best.values()) {
      const end = ends[c][core]
      const key = `${core} ${end}`
      const before = ways.get(key)
      if (before) before.share += shares[i]
      else ways.set(key, { core, end, share: shares[i] })
    }
  })
  return [...ways.values()].filter(({ share }) => share > 0.02).map(({ core, end, share }) => [{ core, end }, share])
}

/** Just one sheath has this colour on this terminal: ringing it out tells which sheath it is. */
const isAlone = (
  { sheaths }: { sheaths: readonly { cores: readonly { colour: string; at: { at: string; terminal?: string } }[] }[] },
  colour: string,
  terminal: string,
): boolean =>
  sheaths.filter(({ cores }) => cores.some(({ colour: own, at }) => own === colour && at.terminal === terminal))
    .length === 1

/** What the plate would show, as a suspect has it: of each cable from the box, which colour is where. */
function plateShown({ survey }: Ground, { devices, ends }: Suspect, device: number): string {
  return survey.cables
    .flatMap(({ cores }, c) =>
      devices[c] === device
        ? [
            cores
              .map(({ colour }, k) => `${colour}${ends[c][k]}`)
              .sort()
              .join(' '),
          ]
        : [],
    )
    .sort()
    .join('; ')
}

/** A reading for each net of the box that is not sure, with each demand on by itself and with all. */
function readings(
  { survey, expected }: Ground,
  suspects: readonly Suspect[],
  add: (what: SurveyLook, minutes: number, answers: Candidate['answers'], settles: number) => void,
  answersBy: (shown: (suspect: Suspect) => string, right?: number) => Map<string, Float64Array>,
  predicted: Predicted,
): void {
  const box = new Box(survey)
  const { demands } = expected.installation.intent
  const states = demands.map(({ id }) => [id])
  const done = new Set<number>()
  for (const { cores } of survey.cables)
    for (const { at } of cores) {
      if (at.at !== 'terminal') continue
      const net = box.netAt(at.terminal)
      if (done.has(net) || new Set(suspects.map(({ means }) => means[net])).size < 2) continue
      done.add(net)
      for (const wanted of states.slice(0, 12)) {
        const live = predicted.live(wanted)
        const is = (one: Suspect) => (readsLive(one, box, at.terminal, live) ? 'live' : 'dead')
        add({ look: 'read', terminal: at.terminal, wanted }, surveyMinutes.read, answersBy(is, readRight), 0)
      }
    }
}
