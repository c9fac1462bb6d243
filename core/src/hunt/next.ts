import type { Circuit } from '../circuit'
import { decided, information, outcomesOf, type Candidate, type Decision, type Remedy } from '../inference'
import { actionsFor } from '../inputs'
import { nth } from '../lists'
import type { Look, WrittenLook } from '../looks'
import type { Action, Simulation } from '../simulation'
import { askableContacts, candidateStates, looksAt, type ControlState } from './candidates'
import type { HuntEntry } from './case'
import { lookIn, type Hunt } from './hunt'
import { answersOf, chanceAtRandom, chancesOf } from './likelihood'
import { controlsAfter, stateAfter } from './standing'
import {
  lookMinutes,
  minutesOfRemedy,
  minutesToOpen,
  unmendedMinutes,
  otherMinutes,
  placeOf,
  placeOfOwner,
} from './minutes'

/** A look that could be made next, after setting the controls. */
export interface NextLook {
  /** What to do first, as the log takes it; empty where things are to be left as they stand. */
  acts: string[]
  /** Contacts that then ask, where that is not as they stand. */
  asking?: ControlState
  see: WrittenLook
  minutes: number
  /** It is made on live parts. */
  live: boolean
  /** An enclosure that nobody has opened yet: isolate, open it, restore the supply, then look. */
  isolateFirst?: string
  /** What it is expected to tell, bits. */
  bits: number
  /** Per answer, how probable it is, and how many suspects then have more than one part in a hundred. */
  outcomes: { answer: string; probability: number; remaining: number }[]
}

/** What could be mended, the remedies of suspects that are cured by the same one together. */
export interface HuntRemedy {
  text: string
  suspects: number[]
  /** Of the suspects' weight, from 0 to 1. */
  share: number
}

export interface Advice {
  next: NextLook[]
  /** `what`: the remedy to go for where it is time to stop, else the one that is likeliest so far. */
  decision: Decision & { what?: HuntRemedy }
}

/** Suspects with less of the weight than this, all together, are left out of what is worked out ahead. */
const leftOut = 0.005
const mostAhead = 60
/** A look that tells less than this is not worth the way, bits. */
const leastBits = 0.005
/** So many of the best are weighed for whether they pay. */
const mostWeighed = 16

/** What to look at next, the most information for the time first; and whether to look any more at all. */
export function advice(
  hunt: Hunt,
  log: readonly HuntEntry[],
  most = 5,
  looks: readonly WrittenLook[] = looksAt(hunt.circuit),
): Advice {
  const { shares, ahead } = likely(hunt)
  const { looked } = hunt
  const found = states(hunt.circuit, log).flatMap((state) =>
    looksIn(hunt, log, state, ahead, (see, where) => !looked.has(lookIn(see, where)), looks),
  )
  const rated = found
    .map(({ look, candidate }) => ({ look: { ...look, bits: information(shares, candidate) }, candidate }))
    .filter(({ look }) => look.bits >= leastBits)
    .sort((x, y) => y.look.bits / y.look.minutes - x.look.bits / x.look.minutes)
  const remedies = remediesOf(hunt, ahead, shares)
  const decision = decided(
    shares,
    { remedies: remedies.map((r) => r.remedy), unmended: unmendedMinutes },
    rated.slice(0, mostWeighed).map((r) => r.candidate),
  )
  return {
    next: rated.slice(0, most).map(({ look, candidate }) => ({
      ...look,
      outcomes: outcomesOf(shares, candidate).map(({ answer, probability, shares: left }) => ({
        answer,
        probability,
        remaining: left.filter((share) => share > 0.01).length,
      })),
    })),
    decision: { ...decision, what: decision.stop ? nth(remedies, decision.remedy ?? 0).what : likeliest(remedies) },
  }
}

/** While more is looked at, the cheapest thing to try says little: what is likeliest is told instead. */
const likeliest = (remedies: readonly { what: HuntRemedy }[]): HuntRemedy | undefined =>
  remedies
    .map(({ what }) => what)
    .reduce<HuntRemedy | undefined>((x, y) => (x && x.share >= y.share ? x : y), undefined)

/** The suspects worth looking ahead for, and their shares among each other. */
function likely(hunt: Hunt): { ahead: number[]; shares: Float64Array } {
  const { shares: all } = hunt.ranking()
  const order = [...all.keys()].sort((x, y) => nth(all, y) - nth(all, x))
  const ahead: number[] = []
  let sum = 0
  for (const suspect of order) {
    if (sum > 1 - leftOut || ahead.length >= mostAhead) break
    ahead.push(suspect)
    sum += nth(all, suspect)
  }
  return { ahead, shares: Float64Array.from(ahead, (suspect) => nth(all, suspect) / sum) }
}

/** States worth looking in, each with the acts that bring the controls there; first the one they stand in, as they do. */
function states(circuit: Circuit, log: readonly HuntEntry[]): { asking?: ControlState; acts: string[] }[] {
  const last = log.findLast((entry) => 'do' in entry)
  const moving = last !== undefined && 'do' in last && last.do !== 'settle'
  const others = candidateStates(circuit)
    .map((asking) => ({ asking, acts: actsTo(circuit, asking, log) }))
    .filter(({ acts }) => acts.length > 0)
    .map(({ asking, acts }) => ({ asking, acts: [...acts, 'settle'] }))
  return [{ acts: moving ? ['settle'] : [] }, ...others]
}

const textOf = (action: Action): string[] =>
  action.do === 'set' ? [`${action.device}.${action.control}=${action.value}`] : []

/** What brings the controls to a state, wherever the log has left them: only what stands otherwise has to be set. */
export function actsTo(circuit: Circuit, asking: ControlState, log: readonly HuntEntry[]): string[] {
  const stands = controlsAfter(circuit, log)
  return askableContacts(circuit)
    .flatMap((contact) => actionsFor(circuit, contact, asking.includes(`${contact.device}.${contact.contact}`)))
    .flatMap(textOf)
    .filter((text) => stands.get(text.slice(0, text.indexOf('='))) !== text.slice(text.indexOf('=') + 1))
}

function looksIn(
  hunt: Hunt,
  log: readonly HuntEntry[],
  { acts, asking }: { asking?: ControlState; acts: string[] },
  ahead: readonly number[],
  isNew: (see: WrittenLook, state: string) => boolean,
  looks: readonly WrittenLook[],
) {
  const { circuit, options } = hunt
  const state = stateAfter(circuit, [...log, ...acts.map((text): HuntEntry => ({ id: text, do: text }))])
  const all = looks.filter((see) => {
    if (options.deadOnly && see.at === 'points') return false
    // Asked in this state before: answered or not, asked again it tells little.
    return isNew(see, state)
  })
  const chances = all.map((see) => answersOf(see.at).map(() => new Float64Array(ahead.length)))
  ahead.forEach((suspect, column) => {
    const listed = nth(hunt.suspects, suspect).hypothesis !== undefined
    const sim = listed ? after(hunt.simulationOf(suspect), acts) : undefined
    all.forEach((see, i) => {
      const look = see as Look
      const each = sim ? chancesOf(sim, look, options.errors) : answersOf(see.at).map(() => chanceAtRandom(look))
      each.forEach((chance, answer) => (nth(nth(chances, i), answer)[column] = chance))
    })
  })
  return all.map((see, i) => {
    const { minutes, isolateFirst } = minutesFor(circuit, log, acts, see)
    const answers = new Map(answersOf(see.at).map((answer, k) => [answer, nth(nth(chances, i), k)]))
    const candidate: Candidate = { minutes, answers }
    return {
      look: {
        acts,
        ...(asking && { asking }),
        see,
        minutes,
        live: see.at === 'points',
        ...(isolateFirst && { isolateFirst }),
      },
      candidate,
    }
  })
}

function after(sim: Simulation, acts: readonly string[]): Simulation {
  const ahead = sim.fork()
  for (const text of acts) {
    if (text === 'settle') ahead.settle()
    else {
      const [, device = '', control = '', value = ''] = /^([^.]+)\.([^=]+)=(.*)$/.exec(text) ?? []
      ahead.set(device, control, value)
    }
  }
  return ahead
}

/** What it takes to set the controls, walk there, open it and look, in minutes from where the log has left somebody. */
function minutesFor(circuit: Circuit, log: readonly HuntEntry[], acts: readonly string[], see: WrittenLook) {
  let here = standsAt(circuit, log)
  let minutes = 0
  const walkTo = (place: string | undefined) => {
    if (place !== undefined && place !== here) minutes += otherMinutes.walk
    here = place ?? here
  }
  for (const text of acts) {
    if (text === 'settle') continue
    walkTo(placeOfOwner(circuit, text.split('.')[0] ?? ''))
    minutes += otherMinutes.setControl
  }
  if (acts.length > 1) minutes += otherMinutes.valveTravels
  walkTo(placeOf(circuit, see))
  minutes += lookMinutes[see.at] * (see.at === 'points' ? otherMinutes.liveFactor : 1)
  if (see.at !== 'points') return { minutes }
  const owner = see.red.split('.')[0] ?? ''
  const opened = log.some(
    (entry) => 'see' in entry && entry.see.at === 'points' && entry.see.red.startsWith(`${owner}.`),
  )
  if (opened) return { minutes }
  return { minutes: minutes + minutesToOpen(circuit, owner), isolateFirst: owner }
}

/** Where the last act or look was. */
function standsAt(circuit: Circuit, log: readonly HuntEntry[]): string | undefined {
  for (const entry of [...log].reverse()) {
    if ('see' in entry) return placeOf(circuit, entry.see)
    if ('do' in entry && entry.do.includes('.')) return placeOfOwner(circuit, entry.do.split('.')[0] ?? '')
  }
  return undefined
}

/** Suspects that the same remedy cures, together. */
function remediesOf(
  hunt: Hunt,
  ahead: readonly number[],
  shares: Float64Array,
): { remedy: Remedy; what: HuntRemedy }[] {
  const found = new Map<string, { remedy: Remedy & { cures: boolean[] }; what: HuntRemedy }>()
  ahead.forEach((suspect, i) => {
    const { hypothesis, remedy: text } = nth(hunt.suspects, suspect)
    if (!hypothesis) return
    const owner = hypothesis.kind === 'part' ? hypothesis.id.split('.')[0] : text === '' ? '' : hypothesis.id
    const key = `${owner}|${text}`
    let one = found.get(key)
    if (!one) {
      const minutes = minutesOfRemedy(hunt.circuit, hypothesis)
      one = { remedy: { ...minutes, cures: ahead.map(() => false) }, what: { text, suspects: [], share: 0 } }
      found.set(key, one)
    }
    one.remedy.cures[i] = true
    one.what.suspects.push(suspect)
    one.what.share += nth(shares, i)
  })
  return [...found.values()]
}
