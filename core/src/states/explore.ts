import type { Circuit } from '../circuit'
import type { PartFlags } from '../simulation'
import { circuitKnown, circuitOpen, wanted } from '../trace'
import { alikeZones } from './alike'
import { inputsApart } from './apart'
import { callersOf } from './callers'
import { influenceOf } from './influence'
import { inEveryZone } from './exchange'
import { summedUp, type Exploration, type Outcome, type Settled } from './exploration'
import type { Broken, Happening } from './happenings'
import { inputsOf } from './free-inputs'
import { UntimedPlant } from './untimed-plant'
import {
  breachKey,
  isolationBreaches,
  settledBreaches,
  transientBreaches,
  type Breach,
  type PropertyId,
} from './properties'
import { roundIn } from './round'
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

const unsettled: Breach = { property: 'settles', demands: [], devices: [], terminals: [] }
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
    if (options.until && step.value.broken.some(({ breach }) => options.until!(breach))) break
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
  const mostStates = Math.min(
    options.mostStates ?? defaultMost,
    Math.floor(mostBytes / (plant.slots.length + bytesBeside)),
  )
  // Zones of two circuits that are alike are not exchanged while one of them rests.
  const resting = new Set(
    plant.inputs.flatMap(({ device }, i) => (only && !only.has(i) ? [circuit.deviceIndex.get(device)!] : [])),
  )
  const alike = (options.together === false ? [] : alikeZones(circuit, options.flags)).filter(
    ({ devices }) => !devices.flat().some((device) => resting.has(device)),
  )
  const sorts = sortersOf(plant, alike)
  const seen = new Map<string, number>()
  const states: string[] = []
  const cameFrom: number[] = []
  const cameBy: Happening[] = []
  /** Steps that no input makes, for finding rounds: state by state, where they lead. */
  const onward: number[][] = []
  const firstSeen = new Map<string, { breach: Breach; state: number; by?: Happening }>()
  const table = new Map<string, Omit<Settled, 'outcomes'> & { outcomes: Map<string, Outcome> }>()
  const isolated = new Map<string, Breach[]>()
  let enough = false
  const judged = new Map<PropertyId, number>()
  const looked = (property: PropertyId) => judged.set(property, (judged.get(property) ?? 0) + 1)

  const enter = (from: number, by: Happening | null): number => {
    const text = plant.save()
    for (const sort of sorts) sort(text)
    const key = String.fromCharCode.apply(null, text as unknown as number[])
    let at = seen.get(key)
    if (at !== undefined) return at
    at = states.push(key) - 1
    seen.set(key, at)
    cameFrom.push(from)
    cameBy.push(by!)
    onward.push([])
    return at
  }
  const note = (state: number, breaches: Breach[], by?: Happening) => {
    for (const breach of breaches) {
      const key = breachKey(breach)
      if (firstSeen.has(key)) continue
      firstSeen.set(key, { breach, state, by })
      if (options.until?.(breach)) enough = true
    }
  }
  /** What is broken in the settled state that the plant is in; its row of the table is kept. */
  const judgeSettled = (): Breach[] => {
    const others = plant.inputs.filter(({ ofNoDemand }, i) => ofNoDemand && plant.asks(i) !== ofNoDemand.asks)
    const service = others.length === 0
    const breaches = settledBreaches(plant, service, looked)
    const contacts = plant.contactsText
    let isolation = isolated.get(contacts)
    if (!isolation) isolated.set(contacts, (isolation = isolationBreaches(circuit, plant.joins, looked)))
    const row = outcomeOf(plant)
    const disturbed = others.map((input) => input.device)
    const key = `${row.wanted.join(' ')}|${disturbed.join(' ')}`
    let rows = table.get(key)
    if (!rows) table.set(key, (rows = { wanted: row.wanted, disturbed, outcomes: new Map(), right: true }))
    if (breaches.length > 0) rows.right = false
    rows.outcomes.set(JSON.stringify(row.outcome), row.outcome)
    return [...breaches, ...isolation]
  }
  /** One input after the other asks, each once all rests: what only many circuits together do shows here. */
  const allTogether = (): Broken[] => {
    plant.load(states[0])
    const path: Happening[] = []
    const found: Broken[] = []
    const ended = () => plant.short || plant.burnt >= 0
    plant.inputs.forEach(({ ofNoDemand }, input) => {
      // Behind a short or a burnt board the installation is another one.
      if (ofNoDemand || ended() || (only && !only.has(input)) || plant.asks(input)) return
      path.push({ what: 'input', input, asks: true, midTravel: false })
      plant.change(input)
      const rests = plant.rest()
      const breaches = ended() ? [] : rests ? judgeSettled() : [unsettled]
      for (const breach of [...transientBreaches(plant, looked), ...breaches]) {
        const key = breachKey(breach)
        if (!firstSeen.has(key)) found.push({ breach, path: [...path] })
        firstSeen.set(key, { breach, state: 0 })
      }
    })
    return found
  }

  if (!plant.rest()) note(0, [unsettled])
  enter(-1, null)
  // What makes at times only may make or miss as the supply comes on.
  if (plant.makesAtTimes) {
    plant.restart()
    plant.rest(true)
    enter(-1, null)
    plant.load(states[0])
  }
  note(0, transientBreaches(plant, looked))
  const influence = influenceOf(circuit, plant.flags, plant.inputs, (contact) => plant.contactClosed(contact))
  if (influence) plant.watched = circuit.contacts.flatMap((_, i) => (influence.of(`contact ${i}`).size > 0 ? [i] : []))
  const callers =
    influence && options.fewAtOnce !== false ? callersOf(circuit, plant.flags, plant.inputs, influence) : undefined
  const asksAtRest = plant.inputs.map((_, i) => plant.asks(i))
  /** Would a change of this input set more circuits going than are looked at together? */
  const tooMany = (asks: readonly boolean[], input: number): boolean => {
    if (!callers || callers.groupOf[input] < 0) return false
    const away = new Set<number>()
    asks.forEach((asking, i) => {
      const now = i === input ? !asking : asking
      if (now !== asksAtRest[i] && callers.groupOf[i] >= 0) away.add(callers.groupOf[i])
    })
    if (away.size < callers.atOnce) return false
    return away.size > callers.atOnce || ![...away].some((group) => callers.standIns.has(group))
  }
  let settled = 0
  let at = 0
  for (; at < states.length && states.length < mostStates && !enough; at++) {
    if (at % stride === stride - 1) yield states.length
    const state = states[at]
    plant.load(state)
    // Behind a short or a burnt board the installation is another one.
    if (plant.short || plant.burnt >= 0) continue
    const step = (happening: Happening, act: () => void) => {
      plant.load(state)
      act()
      const passed = () => note(at, transientBreaches(plant, looked), happening)
      if (!plant.follow(passed)) note(at, [unsettled], happening)
      const next = enter(at, happening)
      if (happening.what !== 'input' && happening.what !== 'phase') onward[at].push(next)
    }
    const due = plant.dueContacts()
    if (due.length > 0) {
      for (const contact of due) {
        step({ what: 'contact', contact }, () => plant.switchContact(contact))
        plant.load(state)
        if (plant.mayMiss(contact)) step({ what: 'miss', contact }, () => plant.missContact(contact))
      }
      continue
    }
    const movers = plant.movers()
    const messages = plant.messages()
    const moving = movers.length > 0 || messages.length > 0
    for (const actuator of movers) step({ what: 'travel', actuator }, () => plant.advance(actuator))
    for (const port of messages) step({ what: 'message', port }, () => plant.deliver(port))
    if (!moving) {
      settled++
      note(at, judgeSettled())
      for (const behaviour of plant.pending()) step({ what: 'phase', behaviour }, () => plant.expire(behaviour))
    } else if (plant.changed) continue
    plant.load(state)
    const asks = plant.inputs.map((_, i) => plant.asks(i))
    for (let input = 0; input < asks.length; input++) {
      if ((only && !only.has(input)) || tooMany(asks, input)) continue
      step({ what: 'input', input, asks: !asks[input], midTravel: moving }, () => {
        plant.change(input)
        plant.changed = moving
      })
    }
  }
  const complete = at >= states.length
  const round = roundIn(onward)
  if (round !== undefined) note(round, [unsettled])

  const walk = new Walk(plant, sorts, states, cameFrom, cameBy)
  const seenBroken = [...firstSeen.values()].map(({ breach, state, by }) => ({ breach, path: walk.to(state, by) }))
  const broken = inEveryZone(circuit, plant.inputs, alike, seenBroken)
  if (callers) broken.push(...allTogether())
  return {
    states: states.length,
    settled,
    complete,
    broken,
    looked: judged.set('settles', states.length),
    table: [...table.values()].map((row) => ({ ...row, outcomes: [...row.outcomes.values()] })),
    alike: alike.map(({ demands, devices }) => ({
      demands,
      devices: devices.map((list) => list.map((d) => circuit.devices[d].device.id)),
    })),
    inputs: plant.inputs,
    ...(callers && { fewAtOnce: { circuits: callers.groups, atOnce: callers.atOnce } }),
  }
}

/** An exploration driven to its end at once. */
export function explored(circuit: Circuit, options: ExploreOptions = {}): Exploration {
  const run = explore(circuit, options)
  for (;;) {
    const { done, value } = run.next()
    if (done) return value
  }
}

function outcomeOf(plant: UntimedPlant): { wanted: string[]; outcome: Outcome } {
  const { circuit } = plant
  const { demands } = circuit.installation.intent
  const calls = circuit.devices.flatMap(({ device, type, loadIndex }) =>
    type.inputs
      .filter((input) => plant.loadEnergised(loadIndex.get(input.load)!))
      .map((input) => `${device.id}.${input.id}`),
  )
  const open = demands
    .filter((d) => d.circuit.valves.length > 0 && circuitKnown(circuit, d) && circuitOpen(plant, d))
    .map((d) => d.id)
  const runs = circuit.loads.flatMap((l, i) =>
    l.part.work && plant.loadWorking(i) ? [circuit.devices[l.device].device.id] : [],
  )
  return { wanted: demands.filter((d) => wanted(plant, d)).map((d) => d.id), outcome: { calls, open, runs } }
}
