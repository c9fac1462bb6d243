import { alikeTo, decided, information, outcomesOf, type Candidate } from '../inference'
import { nth } from '../lists'
import type { Found, WrittenLook } from '../looks'
import { passes, settle } from './acts'
import { aheadOf, liftedStates, offPlateStates, statesAhead, type LookAhead, type StateAhead } from './ahead'
import { deadLooksAt, isByEye, looksAt, type ControlState } from './candidates'
import type { HuntEntry } from './case'
import type { Hunt } from './hunt'
import { liftsApart } from './lifts'
import { unmendedMinutes } from './minutes'
import { remediesOf, remedyKey, type HuntRemedy } from './remedies'
import { actDisturbs } from './rewiring'
import { inOrder } from './strategies'
import { causesOf, devicesOf } from './suspects'
import { nearly, twoAhead } from './two-ahead'

/** A look that could be made next, after setting the controls. */
export interface NextLook {
  /** What to do first, as the log takes it; empty where things are to be left as they stand. */
  acts: string[]
  /** Contacts that then ask, where that is not as they stand. */
  asking?: ControlState
  /** The supply is off then: it is to be isolated first, and proved. */
  isolated?: true
  see: WrittenLook
  minutes: number
  /** It is made on live parts. */
  live: boolean
  /** An enclosure that nobody has opened yet: isolate, open it, restore the supply, then look. */
  isolateFirst?: string
  /** The way to it, as it will be walked: places by their ids, each control on it where it is set. */
  places: string[]
  /** Until everything has come to rest after the acts, ms, as the likeliest suspects have it; only where that is waited for. */
  restsAfter?: number
  /** What it is expected to tell, bits. */
  bits: number
  outcomes: Outcome[]
  /** Other looks that tell something in the same state, those in the same place first: what the way and the waiting are used for. */
  alongside: { see: WrittenLook; place?: string; live: boolean; bits: number }[]
}

/** An answer that a look may have. */
export interface Outcome {
  answer: string
  /** What is then written down. */
  found: Found
  probability: number
  /** How many suspects then have more than one part in a hundred. */
  remaining: number
  /** Of the suspects with more than one part in a hundred now, the ids of those who would most likely show this. */
  shownBy: string[]
}

export interface Advice {
  next: NextLook[]
  /** Suspects that no look tells apart any more, as ids, each group with more than one of them; those with little weight left out. */
  groups: string[][]
  decision: {
    /** Looking any further costs more than it saves. */
    stop: boolean
    /** The remedy to go for where it is time to stop, none where nothing is worth doing; else the one that is likeliest so far. */
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

/** What is thought of for the next look. */
interface Considered {
  looks?: readonly WrittenLook[]
  /** Nothing but the controls of the services is set for it, and it is made once everything has come to rest. */
  controlsOnly?: boolean
  /** In every state, however many suspects are left: all there is to choose from. */
  everyState?: boolean
}

/** What to look at next, in the order of the strategy; and whether to look any more at all. */
export function advice(
  hunt: Hunt,
  log: readonly HuntEntry[],
  most = 5,
  {
    looks = [...looksAt(hunt.circuit), ...deadLooksAt(hunt.circuit)],
    controlsOnly = false,
    everyState = false,
  }: Considered = {},
): Advice {
  const likeliest = likely(hunt)
  const { shares } = likeliest
  const { circuit, options } = hunt
  const states = [
    ...statesAhead(circuit, log, controlsOnly),
    ...(controlsOnly ? [] : offPlateStates(hunt, log, likeliest.ahead)),
  ].filter(({ acts }) => !options.asWired || !acts.some(actDisturbs))
  const scouted = everyState ? undefined : scoutedAhead(hunt, log, likeliest, looks, states)
  let found = scouted ? weighedUp(hunt, likeliest, scouted, false) : undefined
  // Before it is said that enough is known, every state has been thought of.
  if (!found || found.decision.stop) {
    const seen = aheadOf(hunt, log, likeliest.ahead, looks, states.filter(mayBeOffered))
    found = weighedUp(hunt, likeliest, seen, true)
    // And before any are said not to be told apart, what is lifted for that alone.
    const apart = controlsOnly || options.asWired || !found.decision.stop ? [] : apartStates(hunt, log, found.groups)
    if (apart.length > 0)
      found = weighedUp(hunt, likeliest, [...seen, ...aheadOf(hunt, log, likeliest.ahead, [], apart)], true)
  }
  const { rated, groups, decision } = found
  const ordered =
    options.strategy === 'most-information'
      ? deadFirst(twoAhead(circuit, log, options, shares, rated))
      : inOrder(circuit, log, options.strategy, rated)
  const next = ordered.slice(0, most)
  const rests = new Map<string, Pick<NextLook, 'restsAfter'>>()
  const restsAfterOnce = (acts: readonly string[]) => {
    const key = acts.join()
    const known = rests.get(key) ?? restsAfter(hunt, likeliest, acts)
    rests.set(key, known)
    return known
  }
  return {
    next: next.map((told, i) => {
      const { candidate, answers, state, ...look } = told
      return {
        ...look,
        ...(state.changed && { asking: state.asking }),
        ...(state.isolated && { isolated: true as const }),
        ...restsAfterOnce(look.acts),
        outcomes: outcomesOf(shares, candidate).map(({ answer, probability, shares: left }) => ({
          answer,
          found: answers.get(answer)!,
          probability,
          remaining: left.filter((share) => share > toldFrom).length,
          shownBy: shownBy(hunt, likeliest, candidate, answer),
        })),
        alongside: i === 0 ? alongside(told, rated) : [],
      }
    }),
    groups,
    decision,
  }
}

/** Conductors lifted to read each of the devices by itself between which it lies, where no look tells. */
function apartStates(hunt: Hunt, log: readonly HuntEntry[], groups: Advice['groups']): StateAhead[] {
  const { circuit, suspects, mended } = hunt
  const devices = groups.flatMap((ids) => {
    const left = suspects
      .filter(({ id }) => ids.includes(id))
      .map((suspect) => causesOf(suspect).filter(({ id }) => !mended.has(id)))
    // What the same remedy cures need not be told apart.
    if (new Set(left.map((causes) => causes.map(remedyKey).sort().join())).size < 2) return []
    return left.flat().flatMap((cause) => devicesOf(circuit, cause))
  })
  return liftedStates(circuit, log, liftsApart(circuit, log, [...new Set(devices)]))
}

const mayBeOffered = ({ isHarmless }: StateAhead): boolean => isHarmless?.() ?? true

/** How long the likeliest suspects take to come to rest after some acts, where that is waited for: the longest of a few. */
function restsAfter(hunt: Hunt, { ahead }: Likeliest, acts: readonly string[]): Pick<NextLook, 'restsAfter'> {
  if (acts.at(-1) !== settle) return {}
  const waits = ahead.slice(0, 3).map((suspect) => {
    const course = hunt.courseOf(suspect).fork()
    acts.slice(0, -1).forEach((act) => course.act(act))
    const from = course.sim.time
    course.act(settle)
    return course.sim.time - from
  })
  return { restsAfter: Math.max(0, ...waits) }
}

function shownBy(hunt: Hunt, { ahead, shares }: Likeliest, { answers }: Candidate, answer: string): string[] {
  const own = answers.get(answer)
  if (!own) return []
  return ahead.flatMap((suspect, i) => {
    const best = Math.max(...[...answers.values()].map((likelihood) => nth(likelihood, i)))
    return nth(shares, i) > toldFrom && nth(own, i) === best ? [nth(hunt.suspects, suspect).id] : []
  })
}

/** A look worth making beside another tells at least so much, bits. */
const [besideBits, mostBeside] = [0.1, 4]
function alongside(first: LookAhead, rated: readonly (LookAhead & { bits: number })[]): NextLook['alongside'] {
  const here = first.places.at(-1)
  const state = (acts: readonly string[]) => acts.filter((act) => !passes(act)).join()
  const found = new Map<string, NextLook['alongside'][number]>()
  const seen = rated
    .filter((other) => other.see !== first.see && state(other.acts) === state(first.acts) && other.bits >= besideBits)
    .sort((x, y) => y.bits - x.bits)
  for (const { see, places, live, bits } of seen) {
    const key = JSON.stringify(see)
    if (!found.has(key)) found.set(key, { see, place: places.at(-1), live, bits })
  }
  const isAway = ({ place }: { place?: string }) => Number(place !== here)
  return [...found.values()].sort((x, y) => isAway(x) - isAway(y)).slice(0, mostBeside)
}

/**
 * Nobody works live for what a look at nothing live tells nearly as well, for nearly the same time: that comes first. A line that
 * somebody wants to go along is gone along.
 */
export function deadFirst<L extends { live: boolean; bits: number; minutes: number }>(looks: readonly L[]): L[] {
  const [first] = looks
  if (!first?.live) return [...looks]
  const instead = looks.find(
    ({ live, bits, minutes }) => !live && bits >= (1 - nearly) * first.bits && minutes <= (1 + nearly) * first.minutes,
  )
  return instead ? [instead, ...looks.filter((look) => look !== instead)] : [...looks]
}

/** Suspects worth looking ahead for, and their shares among each other. */
interface Likeliest {
  ahead: readonly number[]
  shares: Float64Array
}

const ratedBy = (shares: Float64Array, seen: readonly LookAhead[]) =>
  seen.map((told) => ({ ...told, bits: information(shares, told.candidate) })).filter(({ bits }) => bits >= leastBits)

/** What some looks would tell, and whether they pay. Only of looks in every state can be said which suspects none tells apart. */
function weighedUp(hunt: Hunt, { ahead, shares }: Likeliest, seen: readonly LookAhead[], everyState: boolean) {
  const rated = ratedBy(shares, seen)
  const apart = [...ahead.keys()]
  const alikeBy = (tells: (see: WrittenLook) => boolean) =>
    everyState
      ? alikeTo(
          seen.filter(({ see }) => tells(see)).map((told) => told.candidate),
          ahead.length,
        )
      : apart
  // What is only seen to lie otherwise, and does what it should, is no cause of a call.
  const remedies = remediesOf(
    hunt,
    ahead,
    alikeBy((see) => !isByEye(see)),
  )
  const byRate = [...rated].sort((x, y) => y.bits / y.minutes - x.bits / x.minutes)
  const { stop, remedy = -1 } = decided(
    shares,
    { remedies: remedies.map((r) => r.remedy), unmended: unmendedMinutes },
    byRate.slice(0, mostWeighed).map((r) => r.candidate),
  )
  const told = stop ? remedies[remedy]?.told : likeliestOf(remedies.map((r) => r.told))
  // Marks that may as well not be there tell nobody apart.
  const alike = alikeBy(({ at }) => at !== 'eyes')
  return { rated, groups: groupsOf(hunt, ahead, alike), decision: { stop, remedy: told } }
}

/**
 * Where many suspects are left, looks in those states only that come first by what they tell of the likeliest of them; undefined where
 * few are left.
 */
function scoutedAhead(
  hunt: Hunt,
  log: readonly HuntEntry[],
  { ahead, shares }: Likeliest,
  looks: readonly WrittenLook[],
  among: readonly StateAhead[],
): LookAhead[] | undefined {
  if (ahead.length <= 1.5 * scouts) return undefined
  const first = shares.slice(0, scouts)
  const sum = first.reduce((all, share) => all + share, 0)
  const scoutShares = first.map((share) => share / sum)
  const rated = ratedBy(scoutShares, aheadOf(hunt, log, ahead.slice(0, scouts), looks, among))
  const kept: StateAhead[] = []
  for (const state of new Set(inOrder(hunt.circuit, log, hunt.options.strategy, rated).map((look) => look.state))) {
    if (kept.length === statesKept) break
    if (mayBeOffered(state)) kept.push(state)
  }
  return aheadOf(hunt, log, ahead, looks, kept)
}
const [scouts, statesKept] = [20, 5]

/** Of those worth telling, the suspects that share a number; not the one that is on no list. */
function groupsOf(hunt: Hunt, ahead: readonly number[], alike: readonly number[]): string[][] {
  const { shares } = hunt.ranking()
  const groups = new Map<number, string[]>()
  ahead.forEach((suspect, i) => {
    const { id, hypothesis } = nth(hunt.suspects, suspect)
    if (!hypothesis || nth(shares, suspect) < toldFrom) return
    const number = nth(alike, i)
    groups.set(number, [...(groups.get(number) ?? []), id])
  })
  return [...groups.values()].filter((ids) => ids.length > 1)
}
const toldFrom = 0.01

/** While more is looked at, the cheapest thing to try says little: what is likeliest is told instead. */
const likeliestOf = (remedies: readonly HuntRemedy[]): HuntRemedy | undefined =>
  remedies.reduce<HuntRemedy | undefined>((x, y) => (x && x.share >= y.share ? x : y), undefined)

function likely(hunt: Hunt): Likeliest {
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
