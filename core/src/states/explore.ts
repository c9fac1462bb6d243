import type { Circuit } from '../circuit'
import type { PartFlags } from '../simulation'
import { circuitKnown, circuitOpen, wanted } from '../trace'
import { alikeZones, type Alike } from './alike'
import { inputsApart } from './apart'
import { inEveryZone } from './exchange'
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

/** What was found in the settled states in which just these demands are wanted. */
export interface Settled {
  wanted: string[]
  /** Boiler inputs that are called, circuits that stand open, and what runs or heats; one entry per outcome. */
  outcomes: { calls: string[]; open: string[]; runs: string[] }[]
  /** Devices of inputs beside the demands that do not stand as they did to begin with. */
  beside: string[]
  /** Was everything as it should be in all of them? */
  right: boolean
}

type Outcome = Settled['outcomes'][number]

export interface Exploration {
  states: number
  /** Of them, those in which nothing moves. */
  settled: number
  /** Everything reachable was looked at; false where it was left before its end, or stopped at its bound. */
  complete: boolean
  broken: Broken[]
  /** How often each property had something to judge by; one that is not in it was not looked at. */
  looked: ReadonlyMap<PropertyId, number>
  table: Settled[]
  /** Zones counted together: demands, and for each its own devices in one order. */
  alike: { demands: string[]; devices: string[][] }[]
  inputs: UntimedPlant['inputs']
}

export interface ExploreOptions {
  /** States after which it is left; the answer then says that it is not complete. */
  most?: number
  /** What is broken in the installation while it is explored. */
  flags?: PartFlags
  /** Whether zones that are alike are counted together; left out, they are. */
  together?: boolean
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
    const most = Math.max(1, (options.most ?? defaultMost) - before)
    const run = exploreGroup(circuit, { ...options, most }, new Set(group))
    let step = run.next()
    for (; !step.done; step = run.next()) yield before + step.value
    found.push(step.value)
    before += step.value.states
    if (options.until && step.value.broken.some(({ breach }) => options.until!(breach))) break
  }
  return summedUp(found, found.length === groups.length)
}

/** What was found of circuits that share nothing, as of one installation. */
function summedUp(found: readonly Exploration[], all: boolean): Exploration {
  const sum = (of: (e: Exploration) => number) => found.reduce((n, e) => n + of(e), 0)
  const looked = new Map<PropertyId, number>()
  for (const e of found) for (const [property, n] of e.looked) looked.set(property, (looked.get(property) ?? 0) + n)
  const broken = new Map(found.flatMap((e) => e.broken).map((b) => [breachKey(b.breach), b]))
  const rows = new Map<string, Settled>()
  for (const row of found.flatMap((e) => e.table)) {
    const key = `${row.wanted.join(' ')}|${row.beside.join(' ')}`
    const known = rows.get(key)
    const outcomes = new Map([...(known?.outcomes ?? []), ...row.outcomes].map((o) => [JSON.stringify(o), o]))
    rows.set(key, { ...row, right: row.right && (known?.right ?? true), outcomes: [...outcomes.values()] })
  }
  return {
    states: sum((e) => e.states),
    settled: sum((e) => e.settled),
    complete: all && found.every((e) => e.complete),
    broken: [...broken.values()],
    looked,
    table: [...rows.values()],
    alike: found[0].alike,
    inputs: found[0].inputs,
  }
}

/** As {@link explore}; where `only` is given, with just these inputs free and the others at rest. */
function* exploreGroup(
  circuit: Circuit,
  options: ExploreOptions,
  only?: ReadonlySet<number>,
): Generator<number, Exploration> {
  const plant = new UntimedPlant(circuit, options.flags)
  const most = Math.min(options.most ?? defaultMost, Math.floor(mostBytes / (plant.slots.length + bytesBeside)))
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
  const judgeSettled = (state: number) => {
    const astray = plant.inputs.filter(({ beside }, i) => beside && plant.asks(i) !== beside.asks)
    const service = astray.length === 0
    const breaches = settledBreaches(plant, service, looked)
    note(state, breaches)
    const contacts = plant.contactsText
    let isolation = isolated.get(contacts)
    if (!isolation) isolated.set(contacts, (isolation = isolationBreaches(circuit, plant.joins, looked)))
    note(state, isolation)
    const row = outcomeOf(plant)
    const beside = astray.map((input) => input.device)
    const key = `${row.wanted.join(' ')}|${beside.join(' ')}`
    let rows = table.get(key)
    if (!rows) table.set(key, (rows = { wanted: row.wanted, beside, outcomes: new Map(), right: true }))
    if (breaches.length > 0) rows.right = false
    rows.outcomes.set(JSON.stringify(row.outcome), row.outcome)
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
  let settled = 0
  let at = 0
  for (; at < states.length && states.length < most && !enough; at++) {
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
      judgeSettled(at)
      for (const behaviour of plant.pending()) step({ what: 'phase', behaviour }, () => plant.expire(behaviour))
    } else if (plant.changed) continue
    plant.load(state)
    const asks = plant.inputs.map((_, i) => plant.asks(i))
    for (let input = 0; input < asks.length; input++) {
      if (only && !only.has(input)) continue
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

/** Puts the places of zones that are alike into one order, so that states which differ by an exchange become one. */
type Sorter = (text: Uint8Array) => void

function sortersOf(plant: UntimedPlant, alike: readonly Alike[]): Sorter[] {
  return alike.map(({ devices }) => {
    const columns = devices.map((list) =>
      list.flatMap((device) =>
        plant.slots
          .map((slot, at) => ({ slot, at }))
          .filter(({ slot }) => slot.device === device)
          .sort((x, y) => (x.slot.part < y.slot.part ? -1 : 1))
          .map(({ at }) => at),
      ),
    )
    const height = columns[0].length
    const rows = columns.map(() => new Uint8Array(height))
    const less = (a: Uint8Array, b: Uint8Array) => {
      for (let i = 0; i < height; i++) if (a[i] !== b[i]) return a[i] < b[i]
      return false
    }
    return (text) => {
      for (let c = 0; c < columns.length; c++) for (let i = 0; i < height; i++) rows[c][i] = text[columns[c][i]]
      for (let c = 1; c < rows.length; c++)
        for (let k = c; k > 0 && less(rows[k - 1], rows[k]); k--) [rows[k - 1], rows[k]] = [rows[k], rows[k - 1]]
      for (let c = 0; c < columns.length; c++) for (let i = 0; i < height; i++) text[columns[c][i]] = rows[c][i]
    }
  })
}

/** A state from which steps that nobody makes lead back to itself; undefined where there is none. */
function roundIn(onward: readonly (readonly number[])[]): number | undefined {
  const UNSEEN = 0
  const OPEN = 1
  const DONE = 2
  const mark = new Uint8Array(onward.length)
  for (let start = 0; start < onward.length; start++) {
    if (mark[start] !== UNSEEN) continue
    const stack = [{ state: start, next: 0 }]
    mark[start] = OPEN
    while (stack.length > 0) {
      const top = stack[stack.length - 1]
      const to = onward[top.state][top.next++]
      if (to === undefined) {
        mark[top.state] = DONE
        stack.pop()
      } else if (mark[to] === OPEN) return to
      else if (mark[to] === UNSEEN) {
        mark[to] = OPEN
        stack.push({ state: to, next: 0 })
      }
    }
  }
  return undefined
}

/**
 * The way from rest to a state, told in this very installation: where states stand for others that are alike, each step is
 * taken again and the one followed that comes to the state in the list.
 */
class Walk {
  constructor(
    private readonly plant: UntimedPlant,
    private readonly sorts: readonly Sorter[],
    private readonly states: readonly string[],
    private readonly cameFrom: readonly number[],
    private readonly cameBy: readonly Happening[],
  ) {}

  /** To a state, and one step beyond where `last` is given. */
  to(state: number, last?: Happening): Happening[] {
    const steps: { from: number; by: Happening }[] = last ? [{ from: state, by: last }] : []
    let at = state
    for (; this.cameFrom[at] >= 0; at = this.cameFrom[at]) steps.push({ from: this.cameFrom[at], by: this.cameBy[at] })
    steps.sort((x, y) => x.from - y.from)
    if (this.sorts.length === 0) return steps.map(({ by }) => by)
    const path: Happening[] = []
    let here = this.states[at]
    for (const { from, by } of steps) {
      const wanted = this.sorted(this.after(this.states[from], by)!)
      for (const happening of this.fellows(by)) {
        const text = this.after(here, happening)
        if (text === undefined || this.sorted(text) !== wanted) continue
        path.push(happening)
        here = text
        break
      }
    }
    return path
  }

  /** Everything of the same kind that could have happened instead. */
  private fellows(of: Happening): Happening[] {
    const { circuit, inputs } = this.plant
    const numbers = (n: number) => Array.from({ length: n }, (_, i) => i)
    switch (of.what) {
      case 'input':
        return numbers(inputs.length).map((input) => ({ ...of, input }))
      case 'contact':
      case 'miss':
        return numbers(circuit.contacts.length).map((contact) => ({ what: of.what, contact }))
      case 'travel':
        return numbers(circuit.actuators.length).map((actuator) => ({ what: 'travel', actuator }))
      default:
        return [of]
    }
  }

  private after(state: string, h: Happening): string | undefined {
    const { plant } = this
    plant.load(state)
    if (h.what === 'input') {
      if (plant.asks(h.input) === h.asks) return undefined
      plant.change(h.input)
      plant.changed = h.midTravel
    } else if (h.what === 'contact') {
      if (!plant.dueContacts().includes(h.contact)) return undefined
      plant.switchContact(h.contact)
    } else if (h.what === 'miss') {
      if (!plant.dueContacts().includes(h.contact) || !plant.mayMiss(h.contact)) return undefined
      plant.missContact(h.contact)
    } else if (h.what === 'travel') {
      if (!plant.movers().includes(h.actuator)) return undefined
      plant.advance(h.actuator)
    } else if (h.what === 'message') plant.deliver(h.port)
    else plant.expire(h.behaviour)
    plant.follow(() => undefined)
    return String.fromCharCode.apply(null, plant.save() as unknown as number[])
  }

  private sorted(state: string): string {
    const text = Uint8Array.from(state, (c) => c.charCodeAt(0))
    for (const sort of this.sorts) sort(text)
    return String.fromCharCode.apply(null, text as unknown as number[])
  }
}
