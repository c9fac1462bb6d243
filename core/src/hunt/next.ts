import type { Circuit } from '../circuit'
import { decided, information, outcomesOf, type Candidate } from '../inference'
import { actionsFor } from '../inputs'
import { nth } from '../lists'
import type { Look, WrittenLook } from '../looks'
import { formatAction } from '../simulation'
import { perform, settle } from './acts'
import { askableContacts, candidateStates, looksAt, type ControlState } from './candidates'
import type { HuntEntry } from './case'
import { lookIn, type Hunt } from './hunt'
import { answersOf, chancesOf, expectedOf } from './likelihood'
import { controlsAfter, stateAfter } from './standing'
import { minutesFor, unmendedMinutes } from './minutes'
import { remediesOf, type HuntRemedy } from './remedies'

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

export interface Advice {
  next: NextLook[]
  decision: {
    /** Looking any further costs more than it saves. */
    stop: boolean
    /** The remedy to go for where it is time to stop, else the one that is likeliest so far. */
    remedy?: HuntRemedy
  }
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
  const remedies = remediesOf(hunt, ahead)
  const { stop, remedy = -1 } = decided(
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
    decision: { stop, remedy: stop ? nth(remedies, remedy).told : likeliest(remedies.map((r) => r.told)) },
  }
}

/** While more is looked at, the cheapest thing to try says little: what is likeliest is told instead. */
const likeliest = (remedies: readonly HuntRemedy[]): HuntRemedy | undefined =>
  remedies.reduce<HuntRemedy | undefined>((x, y) => (x && x.share >= y.share ? x : y), undefined)

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
  const moving = last !== undefined && 'do' in last && last.do !== settle
  const others = candidateStates(circuit)
    .map((asking) => ({ asking, acts: actsTo(circuit, asking, log) }))
    .filter(({ acts }) => acts.length > 0)
    .map(({ asking, acts }) => ({ asking, acts: [...acts, settle] }))
  return [{ acts: moving ? [settle] : [] }, ...others]
}

/** What brings the controls to a state, wherever the log has left them: only what stands otherwise has to be set. */
export function actsTo(circuit: Circuit, asking: ControlState, log: readonly HuntEntry[]): string[] {
  const stands = controlsAfter(circuit, log)
  return askableContacts(circuit)
    .flatMap((contact) => actionsFor(circuit, contact, asking.includes(`${contact.device}.${contact.contact}`)))
    .map(formatAction)
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
  const chances = all.map((see) => answersOf(see).map(() => new Float64Array(ahead.length)))
  ahead.forEach((suspect, column) => {
    const isListed = nth(hunt.suspects, suspect).hypothesis !== undefined
    const sim = hunt.simulationOf(suspect).fork()
    if (isListed) acts.forEach((text) => perform(sim, text))
    all.forEach((see, i) => {
      // No clicks are among the looks ahead, which would need to be told since when.
      const each = chancesOf(isListed ? expectedOf(sim, see as Look) : 'open', see, options.errors)
      each.forEach((chance, answer) => (nth(nth(chances, i), answer)[column] = chance))
    })
  })
  return all.map((see, i) => {
    const { minutes, isolateFirst } = minutesFor(circuit, log, acts, see)
    const answers = new Map(answersOf(see).map((answer, k) => [answer, nth(nth(chances, i), k)]))
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
