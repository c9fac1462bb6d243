import type { Circuit } from '../circuit'
import type { PartFlags } from '../simulation'
import { alikeZones, type Alike } from './alike'
import { inputsApart } from './apart'
import { callersOf, tooManyAway } from './callers'
import { influenceOf } from './influence'
import { inEveryZone } from './exchange'
import { summedUp, type Exploration } from './exploration'
import type { FoundBreach, Happening } from './happenings'
import { inputsOf } from './free-inputs'
import { UntimedPlant } from './untimed-plant'
import { Judgement, unsettled } from './judgement'
import { breachKey, type Breach } from './properties'
import { roundIn } from './round'
import { StatesMet } from './states-met'
import { sortersOf, Walk } from './walk'

export interface ExploreOptions {
  /** States after which it is left; the answer then says that it is not complete. */
  mostStates?: number
  /** What is broken in the installation while it is explored. */
  flags?: PartFlags
  /** Whether zones that are alike are counted together; left out, they are. */
  together?: boolean
  /** Whether circuits that act on each other only through what they call are looked at a few at a time; left out, they are. */
  fewAtOnce?: boolean
  /** Left at the first breach for which this is true; the answer is then not complete. */
  until?: (breach: Breach) => boolean
}

const defaultMost = 400_000
/** Memory that states may take: what a browser's worker and a small server both have. */
const mostBytes = 400e6
/** What is kept of a state besides its text, measured: its place in the map, how it was come to, where it leads. */
const bytesBeside = 400
/** States between two pauses of the generator. */
const stride = 500

/**
 * Every state the installation can get into, breadth first from rest. A generator, so that whoever drives it can tell how far
 * it is and leave: each pause gives the number of states seen so far.
 *
 * The abstraction: inputs ({@link UntimedPlant.inputs}) are free; contacts are done before valves and bus messages move on, those
 * before sequences' times (self-check, proving, overrun) run out, in every order within each; inputs change when nothing
 * moves, one at a time, and once more on the way.
 */
export function* explore(circuit: Circuit, options: ExploreOptions = {}): Generator<number, Exploration> {
  const groups = inputsApart(circuit, inputsOf(circuit))
  if (groups.length < 2) return yield* exploreGroup(circuit, options)
  const found: Exploration[] = []
  let before = 0
  for (const group of groups) {
    const mostStates = Math.max(1, (options.mostStates ?? defaultMost) - before)
    const run = exploreGroup(circuit, { ...options, mostStates }, new Set(group))
    let step = run.next()
    for (; !step.done; step = run.next()) yield before + step.value
    found.push(step.value)
    before += step.value.states
    if (options.until && step.value.breaches.some(({ breach }) => options.until!(breach))) break
  }
  return summedUp(found, found.length === groups.length)
}

/** As {@link explore}; where `only` is given, with just these inputs free and the others at rest. */
function* exploreGroup(
  circuit: Circuit,
  options: ExploreOptions,
  only?: ReadonlySet<number>,
): Generator<number, Exploration> {
  const plant = new UntimedPlant(circuit, options.flags)
  const alike = options.together === false ? [] : alikeAmong(plant, options.flags, only)
  const sorts = sortersOf(plant, alike)
  const met = new StatesMet(plant, sorts)
  const judged = new Judgement(plant, options.until)

  if (!plant.rest()) judged.note(0, [unsettled])
  met.enter(-1, null)
  // What makes at times only may make or miss as the supply comes on.
  if (plant.makesAtTimes) {
    plant.restart()
    plant.rest(true)
    met.enter(-1, null)
    plant.load(met.texts[0])
  }
  judged.note(0, judged.transient())
  const influence = influenceOf(circuit, plant.flags, plant.inputs, (contact) => plant.contactClosed(contact))
  if (influence) plant.watched = circuit.contacts.flatMap((_, i) => (influence.of(`contact ${i}`).size > 0 ? [i] : []))
  const callers =
    influence && options.fewAtOnce !== false ? callersOf(circuit, plant.flags, plant.inputs, influence) : undefined
  const asksAtRest = plant.inputs.map((_, i) => plant.asks(i))
  const mayChange = (asks: readonly boolean[], input: number): boolean =>
    (!only || only.has(input)) && !(callers && tooManyAway(callers, asksAtRest, asks, input))
  const mostStates = Math.min(
    options.mostStates ?? defaultMost,
    Math.floor(mostBytes / (plant.slots.length + bytesBeside)),
  )
  let settled = 0
  let at = 0
  for (; at < met.texts.length && met.texts.length < mostStates && !judged.enough; at++) {
    if (at % stride === stride - 1) yield met.texts.length
    if (goOn(plant, met, judged, at, mayChange)) settled++
  }
  const complete = at >= met.texts.length
  const round = roundIn(met.onward)
  if (round !== undefined) judged.note(round, [unsettled])

  const walk = new Walk(plant, sorts, met.texts, met.cameFrom, met.cameBy)
  const seen = [...judged.first.values()].map(({ breach, state, by }) => ({ breach, path: walk.to(state, by) }))
  const breaches = inEveryZone(circuit, plant.inputs, alike, seen)
  if (callers) {
    plant.load(met.texts[0])
    breaches.push(...allTogether(plant, judged, only))
  }
  return {
    states: met.texts.length,
    settled,
    complete,
    breaches,
    looked: judged.looked.set('settles', met.texts.length),
    table: judged.table(),
    alike: alike.map(({ demands, devices }) => ({
      demands,
      devices: devices.map((list) => list.map((d) => circuit.devices[d].device.id)),
    })),
    inputs: plant.inputs,
    ...(callers && { fewAtOnce: { circuits: callers.groups, atOnce: callers.atOnce } }),
  }
}

/** Zones that are alike. Those of two circuits are not exchanged while one of them rests. */
function alikeAmong(plant: UntimedPlant, flags?: PartFlags, only?: ReadonlySet<number>): Alike[] {
  const { circuit, inputs } = plant
  const resting = new Set(
    inputs.flatMap(({ device }, i) => (only && !only.has(i) ? [circuit.deviceIndex.get(device)!] : [])),
  )
  return alikeZones(circuit, flags).filter(({ devices }) => !devices.flat().some((device) => resting.has(device)))
}

/** Every step from the state of that number. True where nothing moves there: it was judged as a settled one. */
function goOn(
  plant: UntimedPlant,
  met: StatesMet,
  judged: Judgement,
  at: number,
  mayChange: (asks: readonly boolean[], input: number) => boolean,
): boolean {
  const state = met.texts[at]
  plant.load(state)
  // Behind a short or a burnt board the installation is another one.
  if (plant.short || plant.burnt >= 0) return false
  const step = (happening: Happening, act: () => void) => {
    plant.load(state)
    act()
    const passed = () => judged.note(at, judged.transient(), happening)
    if (!plant.follow(passed)) judged.note(at, [unsettled], happening)
    const next = met.enter(at, happening)
    if (happening.what !== 'input' && happening.what !== 'phase') met.onward[at].push(next)
  }
  const due = plant.dueContacts()
  for (const contact of due) {
    step({ what: 'contact', contact }, () => plant.switchContact(contact))
    plant.load(state)
    if (plant.mayMiss(contact)) step({ what: 'miss', contact }, () => plant.missContact(contact))
  }
  if (due.length > 0) return false
  const movers = plant.movers()
  const messages = plant.messages()
  const moving = movers.length > 0 || messages.length > 0
  for (const actuator of movers) step({ what: 'travel', actuator }, () => plant.advance(actuator))
  for (const port of messages) step({ what: 'message', port }, () => plant.deliver(port))
  if (!moving) {
    judged.note(at, judged.settled())
    for (const behaviour of plant.pending()) step({ what: 'phase', behaviour }, () => plant.expire(behaviour))
  } else if (plant.changed) return false
  plant.load(state)
  const asks = plant.inputs.map((_, i) => plant.asks(i))
  asks.forEach((asking, input) => {
    if (!mayChange(asks, input)) return
    step({ what: 'input', input, asks: !asking, midTravel: moving }, () => {
      plant.change(input)
      plant.changed = moving
    })
  })
  return !moving
}

/** One input after the other asks, each once all rests: what only many circuits together do shows here. */
function allTogether(plant: UntimedPlant, judged: Judgement, only?: ReadonlySet<number>): FoundBreach[] {
  const path: Happening[] = []
  const found: FoundBreach[] = []
  const ended = () => plant.short || plant.burnt >= 0
  plant.inputs.forEach(({ ofNoDemand }, input) => {
    // Behind a short or a burnt board the installation is another one.
    if (ofNoDemand || ended() || (only && !only.has(input)) || plant.asks(input)) return
    path.push({ what: 'input', input, asks: true, midTravel: false })
    plant.change(input)
    const rests = plant.rest()
    const breaches = ended() ? [] : rests ? judged.settled() : [unsettled]
    for (const breach of [...judged.transient(), ...breaches]) {
      if (!judged.first.has(breachKey(breach))) found.push({ breach, path: [...path] })
      judged.note(0, [breach])
    }
  })
  return found
}

/** An exploration driven to its end at once. */
export function explored(circuit: Circuit, options: ExploreOptions = {}): Exploration {
  const run = explore(circuit, options)
  for (;;) {
    const { done, value } = run.next()
    if (done) return value
  }
}
