import type { Circuit } from '../circuit'
import type { Candidate, Evidence } from '../inference'
import { actionsFor, isolatorsOf } from '../inputs'
import { nth } from '../lists'
import type { Found, WrittenLook } from '../looks'
import { formatAction, parseAction } from '../simulation'
import { answersAhead } from './answers'
import { deviceSetOf, settle, waitOf } from './acts'
import {
  askableContacts,
  needsIsolation,
  statesFrom,
  isDeadTest,
  otherActs,
  supplyActs,
  type ControlState,
} from './candidates'
import type { HuntEntry } from './case'
import type { Course, Shows } from './course'
import type { Expected } from './likelihood'
import type { Foresight, NamedLook } from './foresight'
import { lookIn, type Hunt } from './hunt'
import { liftsFor, type Lift } from './lifts'
import { disturbedBy, linksThoughtOf } from './link-outs'
import { minutesFor } from './minutes'
import { offPlatesOf } from './off-plates'
import { actPartsConductors, backText, doneText, mayBeLive } from './rewiring'
import { sourceOfLook } from './sources'
import { asEntries, complainedOf, controlsAfter, disturbedIn, standsSo, stateAfter } from './standing'
import { askingFor } from './strategies'

/** A state worth looking in, with the acts that bring the controls there. */
export interface StateAhead {
  asking: ControlState
  /** Not as the log has left it. */
  changed: boolean
  isolated: boolean
  acts: string[]
  /** What is waited for after them, one after the other, each a moment to look at; undefined: as it stands. */
  moments: (string | undefined)[]
  /** What is looked at in it; undefined: whatever there is. */
  only?: readonly WrittenLook[]
  /** Is what is disturbed for it harmless? Undefined where nothing is. All states are gone through for it: asked of the best only. */
  isHarmless?: () => boolean
}

/** A look in a state, with what every suspect of those looked ahead for would show. */
export interface LookAhead {
  state: StateAhead
  acts: string[]
  see: WrittenLook
  minutes: number
  live: boolean
  isolateFirst?: string
  /** The way to it, by places. */
  places: string[]
  /** What is written down for each answer. */
  answers: ReadonlyMap<string, Found>
  candidate: Candidate
}

/**
 * Looked at while things are under way, beside once they have come to rest: a valve has travelled then, a boiler called and looking
 * for flow, which it gives up soon after.
 */
const underWay = 'wait=30s'
/** So long is the supply off until springs have taken everything back. */
const untilBack = 'wait=20s'

/** Every look that can be had, in every one of these states, on which the suspects `ahead` do not all agree. */
export function aheadOf(
  hunt: Hunt,
  log: readonly HuntEntry[],
  ahead: readonly number[],
  looks: readonly WrittenLook[],
  inStates: readonly StateAhead[] = statesAhead(hunt.circuit, log),
): LookAhead[] {
  const { circuit, options, looked } = hunt
  const columns = columnsOf(hunt, ahead)
  const untold = untoldIn(log)
  const findings = new Map<string, Evidence[]>()
  const before = (see: WrittenLook): Evidence[] => {
    const key = JSON.stringify(see)
    let found = findings.get(key)
    if (!found) {
      found = hunt.weighing.evidence
        .filter(({ source }) => source === sourceOfLook(see))
        .map((one) => ({ ...one, likelihood: Float64Array.from(columns, ({ at }) => nth(one.likelihood, at)) }))
      findings.set(key, found)
    }
    return found
  }
  return inStates.flatMap((state) => {
    if (setsNothing(columns, state)) return []
    const here = (state.only ?? looks).filter((see) => {
      if (needsIsolation(see) !== state.isolated || untold.has(sourceOfLook(see))) return false
      if (isLive(see) && options.deadOnly) return false
      return see.at !== 'points' || options.instruments.includes(see.with)
    })
    return shownAhead(columns, state, here).flatMap(({ acts, shown }) => {
      const name = stateAfter(circuit, [...log, ...asEntries(acts)])
      return here.flatMap((see, i): LookAhead[] => {
        // Asked in this state before: answered or not, asked again it tells little.
        if (looked.has(lookIn(see, name))) return []
        const { walks, onTheWay, ...effort } = minutesFor(circuit, log, acts, see, options)
        if ((options.stay && walks) || effort.places.some((place) => options.outOfReach.includes(place))) return []
        if (isOverBy(onTheWay, acts.at(-1))) return []
        const told = answersAhead(see, nth(shown, i), options.errors)
        if (!told) return []
        const { answers, candidate } = told(effort.minutes, before(see))
        return [{ state, acts, ...effort, see, live: isLive(see), answers, candidate: together(columns, candidate) }]
      })
    })
  })
}

/** Has the moment that is waited for passed by the time somebody comes there? At rest it does not pass. */
const isOverBy = (minutes: number, waited = ''): boolean => minutes * 60_000 > (waitOf(waited) ?? Infinity)

/** It sets one control, which stands so in all of them: nothing follows. */
function setsNothing(columns: readonly Column[], { acts, changed }: StateAhead): boolean {
  const [act] = acts
  if (changed || act === undefined || acts.length > 1 || deviceSetOf(act) === undefined) return false
  const action = parseAction(act)
  if (action.do !== 'set') return false
  const { device, control, value } = action
  return columns.every(({ course: { sim } }) => String(sim.control(device, control)) === value)
}

/** What somebody could not tell twice, and never told, is not asked a third time: in another state it is no easier. */
function untoldIn(log: readonly HuntEntry[]): ReadonlySet<string> {
  const times = new Map<string, number>()
  for (const entry of log) {
    if (!('see' in entry)) continue
    const key = sourceOfLook(entry.see)
    times.set(key, typeof entry.found === 'string' ? (times.get(key) ?? 0) + 1 : -Infinity)
  }
  return new Set([...times].filter(([, count]) => count >= mostUntold).map(([key]) => key))
}
const mostUntold = 2

const isLive = (see: WrittenLook): boolean => see.at === 'points' && !isDeadTest(see)

/** What is taken along to see what would be shown: a suspect; or something that what is on no list is like, with its part of that. */
interface Column {
  /** By its place among those looked ahead for. */
  of: number
  share: number
  /** Its place in the evidence. */
  at: number
  kind: number
  course: Course
  /** What is seen of its wiring beside the drawing. */
  wiringAt: (thing: string) => Expected
  /** As it is once conductors are taken from each other. */
  apart: () => Course
  like: boolean
}
const mostLikenesses = 3

function columnsOf(hunt: Hunt, ahead: readonly number[]): Column[] {
  const { suspects } = hunt
  return ahead.flatMap((suspect, of): Column[] => {
    if (nth(suspects, suspect).hypothesis)
      return [
        {
          of,
          share: 1,
          at: suspect,
          kind: hunt.kindOf(suspect),
          course: hunt.courseOf(suspect),
          wiringAt: (thing) => hunt.wiringShown(suspect, thing),
          apart: () => hunt.courseApart(suspect),
          like: false,
        },
      ]
    return hunt.likenesses(mostLikenesses).map(({ suspect: one, share }) => ({
      of,
      share,
      at: suspects.length + one,
      ...hunt.likeOf(one),
      wiringAt: (thing) => hunt.wiringLike(one, thing),
      like: true,
    }))
  })
}

/** A look with what each of those looked ahead for makes of it, whatever they are like. */
function together(columns: readonly Column[], { minutes, answers }: Candidate): Candidate {
  const summed = ([answer, likelihood]: [string, Float64Array]): [string, Float64Array] => {
    const sums = new Float64Array((columns.at(-1)?.of ?? -1) + 1)
    columns.forEach(({ of, share }, i) => (sums[of] = nth(sums, of) + share * nth(likelihood, i)))
    return [answer, sums]
  }
  return { minutes, answers: new Map([...answers].map(summed)) }
}

/**
 * Per moment after the acts of a state, and look, what each of some suspects would show. Those that behave alike are asked once.
 * The moment under way is left out where all of them are at rest by then.
 */
function shownAhead(
  columns: readonly Column[],
  { acts, moments }: StateAhead,
  looks: readonly WrittenLook[],
): { acts: string[]; shown: Shows[][] }[] {
  const ahead = new Map<number, Foresight<Shows>>()
  const parts = acts.some(actPartsConductors)
  const keyOf = ({ kind, at }: Column): number => (parts ? at : kind)
  for (const column of columns) {
    if (ahead.has(keyOf(column))) continue
    ahead.set(keyOf(column), (parts ? column.apart() : column.course).foresee(acts, moments))
  }
  const all = [...ahead.values()]
  const named = looks.map((see): NamedLook => ({ see, key: JSON.stringify(see) }))
  const done = [...acts]
  const told = moments.flatMap((moment, m) => {
    if (moment === underWay && all.every((one) => one.isAtRest(m))) return []
    const byKey = new Map([...ahead].map(([key, one]) => [key, named.map((look) => one.shows(m, look))]))
    const shown = looks.map((see, i) =>
      columns.map((column): Shows =>
        see.at === 'wiring'
          ? { expected: column.wiringAt(see.thing), beside: [], like: column.like }
          : { ...nth(byKey.get(keyOf(column))!, i), like: column.like },
      ),
    )
    return [{ acts: moment === undefined ? done : [...done, moment], shown }]
  })
  all.forEach((one) => one.rest())
  return told
}

/**
 * States worth looking in: first the one the controls stand in, as they do; every other that asks something else of them; each
 * control that is no service's own, set otherwise; and, where the supplies can be switched off, that.
 */
export function statesAhead(circuit: Circuit, log: readonly HuntEntry[], controlsOnly = false): StateAhead[] {
  const last = log.findLast((entry) => 'do' in entry)
  const moving = last !== undefined && 'do' in last && last.do !== settle
  const off = actsThat(log, circuit, supplyActs(circuit, false))
  const canIsolate = isolatorsOf(circuit).length > 0
  const isolated = canIsolate && off.length === 0
  const asking = askingNow(circuit, log)
  const standing: StateAhead = { asking, changed: false, isolated, acts: [], moments: [moving ? settle : undefined] }
  const others = statesFrom(circuit, asking)
    .map((wanted) => ({ asking: wanted, acts: actsTo(circuit, wanted, log) }))
    .filter(({ acts }) => acts.length > 0)
    .map((state): StateAhead => ({
      ...state,
      changed: true,
      isolated: false,
      moments: controlsOnly ? [settle] : [underWay, settle],
    }))
  if (controlsOnly) return [standing, ...others]
  // Nothing is live again while a conductor hangs loose.
  const back = disturbedIn(log).every(mayBeLive) ? [] : puttingBack(circuit, log)
  const on = [...back, ...actsThat([...log, ...asEntries(back)], circuit, supplyActs(circuit, true))]
  const set = otherActs(circuit)
    .filter((act) => !wasDone(log, act) || throwsItself(circuit, act))
    .map((act): StateAhead => ({
      asking,
      changed: false,
      isolated: false,
      acts: [...on, act],
      moments: [underWay, settle],
    }))
  // Where a supply cannot be switched off here, nothing is opened.
  if (!canIsolate) return [standing, ...others, ...set]
  const again: StateAhead[] = isolated || back.length > 0 ? [] : [begunAnew(circuit, log, asking)]
  const toDead = back.length > 0 ? back : off
  const dead: StateAhead[] =
    toDead.length > 0 ? [{ asking, changed: false, isolated: true, acts: toDead, moments: [settle] }] : []
  return [
    standing,
    ...others,
    ...set,
    ...again,
    ...dead,
    ...liftedStates(circuit, log, liftsFor(circuit, log)),
    ...linked(circuit, log),
  ]
}

/** All that is asked for begun anew, where somebody can watch it: the supplies off until everything is back, and on again. */
function begunAnew(circuit: Circuit, log: readonly HuntEntry[], asking: ControlState): StateAhead {
  const off = [...actsThat(log, circuit, supplyActs(circuit, false)), untilBack]
  const on = actsThat([...log, ...asEntries(off)], circuit, supplyActs(circuit, true))
  return { asking, changed: false, isolated: false, acts: [...off, ...on], moments: [underWay, settle] }
}

/** A conductor lifted with the supplies off, for one dead test each; none where they cannot be switched off. */
export function liftedStates(circuit: Circuit, log: readonly HuntEntry[], lifts: readonly Lift[]): StateAhead[] {
  if (isolatorsOf(circuit).length === 0) return []
  const off = actsThat(log, circuit, supplyActs(circuit, false))
  return lifts.map(({ act, see }): StateAhead => ({
    asking: askingNow(circuit, log),
    changed: false,
    isolated: true,
    acts: [...off, act],
    moments: [settle],
    only: [see],
  }))
}

/** Has this control been set, and was it so the last time? Where nobody has touched it, nobody knows how it stands. */
function wasDone(log: readonly HuntEntry[], act: string): boolean {
  const control = act.slice(0, act.indexOf('=') + 1)
  const last = log.findLast((entry) => 'do' in entry && entry.do.startsWith(control))
  return last !== undefined && 'do' in last && last.do === act
}

/** A control that its device throws by itself, like a lockout's, can be put back as often as it does. */
function throwsItself({ devices, deviceIndex }: Circuit, act: string): boolean {
  const action = parseAction(act)
  if (action.do !== 'set') return false
  const owner = devices[deviceIndex.get(action.device) ?? -1]
  return (owner?.type.primitives ?? []).some((part) => 'throws' in part && part.throws?.control === action.control)
}

/** A link past a contact of a service that was complained of, the service asked for: as if only that contact had closed. */
function linked(circuit: Circuit, log: readonly HuntEntry[]): StateAhead[] {
  if (disturbedIn(log).length > 0) return []
  return linksThoughtOf(circuit, complainedOf(log)).map((link): StateAhead => {
    const asking = askingFor(circuit, link.demand)
    const off = actsThat(log, circuit, supplyActs(circuit, false))
    const acts = [...off, ...disturbedBy(link).map(doneText), ...actsTo(circuit, asking, [...log, ...asEntries(off)])]
    return { asking, changed: true, isolated: false, acts, moments: [underWay, settle], isHarmless: link.isOffered }
  })
}

/**
 * A control taken off its plate, the supply off meanwhile, where something may run that it does not ask for: only then is it told whether
 * that comes of it. `ahead`: suspects that are looked ahead for, the likeliest first.
 */
export function offPlateStates(hunt: Hunt, log: readonly HuntEntry[], ahead: readonly number[]): StateAhead[] {
  const { circuit } = hunt
  if (disturbedIn(log).length > 0 || isolatorsOf(circuit).length === 0) return []
  const courses = ahead.slice(0, mostTried).map((suspect) => hunt.courseOf(suspect))
  return offPlatesOf(circuit, courses, (asking) => actsTo(circuit, asking, log)).map(
    ({ device, asking, isHarmless }) => {
      const set = actsTo(circuit, asking, log)
      const off = actsThat([...log, ...asEntries(set)], circuit, supplyActs(circuit, false))
      const on = actsThat([...log, ...asEntries([...set, ...off])], circuit, supplyActs(circuit, true))
      const acts = [...set, ...off, doneText({ what: 'off-plate', of: device }), ...on]
      return { asking, changed: true, isolated: false, acts, moments: [settle], isHarmless }
    },
  )
}
const mostTried = 8

/** Everything that is disturbed put back, the supply off meanwhile. */
function puttingBack(circuit: Circuit, log: readonly HuntEntry[]): string[] {
  const disturbed = disturbedIn(log)
  if (disturbed.length === 0) return []
  return [...actsThat(log, circuit, supplyActs(circuit, false)), ...disturbed.map(backText)]
}

/** What brings the controls to a state, and the supply back, wherever the log has left them: only what stands otherwise has to be set. */
export function actsTo(circuit: Circuit, asking: ControlState, log: readonly HuntEntry[]): string[] {
  const back = puttingBack(circuit, log)
  const wanted = askableContacts(circuit)
    .flatMap((contact) => actionsFor(circuit, contact, asking.includes(`${contact.device}.${contact.contact}`)))
    .map(formatAction)
  return [...back, ...actsThat([...log, ...asEntries(back)], circuit, [...supplyActs(circuit, true), ...wanted])]
}

/** Of some acts those that change how a control stands. */
function actsThat(log: readonly HuntEntry[], circuit: Circuit, acts: readonly string[]): string[] {
  const stands = controlsAfter(circuit, log)
  return acts.filter((text) => !standsSo(stands, text))
}

/** The contacts that ask as the log has left the controls. */
export function askingNow(circuit: Circuit, log: readonly HuntEntry[]): ControlState {
  const stands = controlsAfter(circuit, log)
  return askableContacts(circuit).flatMap((contact) => {
    const asks = actionsFor(circuit, contact, true).every((action) => standsSo(stands, formatAction(action)))
    return asks ? [`${contact.device}.${contact.contact}`] : []
  })
}
