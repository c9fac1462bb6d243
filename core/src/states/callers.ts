import type { Circuit } from '../circuit'
import { inputOf, type Input } from '../inputs'
import type { ContactRef } from '../installation'
import type { PartFlags } from '../simulation'
import { solveFlows, OPEN, SHUT } from '../water'
import { union, WATER, type Influence } from './influence'
import { isolationBreaches } from './properties'

/**
 * Circuits that act on each other only through what any of them calls: a boiler's input, a relay, a pump. What one of them does
 * depends on its own inputs and the common ones; what is called, on whether any of them calls.
 */
export interface Callers {
  /** Per input, the number of its circuit; −1 for one that is common to all. */
  groupOf: readonly number[]
  groups: number
  /** So many circuits at once show everything that more of them could, where one of them is such as can stand for the rest. */
  atOnce: number
  /** Circuits that together work every signal: one of them can stand for all that are not looked at. */
  standIns: ReadonlySet<number>
}

/** Would a change of this input set more circuits going, away from how they stood `atRest`, than are looked at together? */
export function tooManyAway(
  { groupOf, atOnce, standIns }: Callers,
  atRest: readonly boolean[],
  asks: readonly boolean[],
  input: number,
): boolean {
  if (groupOf[input] < 0) return false
  const away = new Set<number>()
  asks.forEach((asking, i) => {
    const now = i === input ? !asking : asking
    if (now !== atRest[i] && groupOf[i] >= 0) away.add(groupOf[i])
  })
  if (away.size < atOnce) return false
  return away.size > atOnce || ![...away].some((group) => standIns.has(group))
}

/** Inputs that many circuits share: a channel for all heating, a frost thermostat. */
const mostCommon = 4

/**
 * Whether circuits come apart so, and into which; undefined where they do not, or where there are too few of them for it to
 * matter.
 *
 * Why it is enough to look at a few at a time. Let every circuit depend on its own inputs and the common ones alone, and let
 * what they call be called just when any of them calls. Inputs change one at a time, and once more on the way, so that no more
 * than two circuits are made to move otherwise than the common inputs move them all. To a third circuit, and to what is called,
 * all others show only whether any of them calls: a line that goes up when the first of them calls and down when the last
 * ceases. One that stands calling, and the two that move, give every course that this line can take; every signal that
 * something looks at jointly with another wants one more. Since only the line is seen, the same circuit can always give it: of
 * as many as are looked at, one may be a stand-in. Held by property against every state of small systems.
 */
export function callersOf(
  circuit: Circuit,
  flags: PartFlags,
  inputs: readonly Input[],
  influence: Influence,
): Callers | undefined {
  const joint = [...influence.joint, ...judgedTogether(circuit, influence, inputs)]
  const parts = comeApart(joint, influence, inputs.length)
  const atOnce = 2 + Math.max(1, ...joint.map((set) => courses(set, influence, parts)))
  if (parts.groups <= atOnce) return undefined
  if (!wateredAlone(circuit, influence, parts) || !staysIsolated(circuit, flags)) return undefined
  return { ...parts, atOnce, standIns: standInsOf(influence, parts) }
}

interface Parts {
  groupOf: number[]
  groups: number
}

/** Takes out as common what most depends on jointly, one input after the other, and keeps what then falls into most parts. */
function comeApart(joint: readonly ReadonlySet<string>[], influence: Influence, inputs: number): Parts {
  const common = new Set<string>()
  let best = partsOf(joint, influence, inputs, common)
  const sets = [...new Map(joint.map((set) => [[...set].sort().join(), set])).values()]
  const uses = Array.from({ length: inputs }, (_, i) => `input ${i}`)
    .map((input) => ({ input, times: sets.filter((set) => set.has(input)).length }))
    .sort((x, y) => y.times - x.times)
  for (const { input } of uses.slice(0, mostCommon)) {
    common.add(input)
    const parts = partsOf(joint, influence, inputs, common)
    if (parts.groups > best.groups) best = parts
  }
  return best
}

/** Inputs drawn together that something depends on jointly, the common ones left out. */
function partsOf(
  joint: readonly ReadonlySet<string>[],
  { signals }: Influence,
  inputs: number,
  common: ReadonlySet<string>,
): Parts {
  const up = new Map<string, string>()
  const root = (x: string): string => {
    const next = up.get(x)
    return next === undefined || next === x ? x : root(next)
  }
  /** The inputs behind what something depends on. */
  const behind = (set: ReadonlySet<string>, seen = new Set<string>()): string[] =>
    [...set].flatMap((x) => {
      if (!signals.has(x)) return common.has(x) ? [] : [x]
      if (seen.has(x)) return []
      seen.add(x)
      return behind(union(signals.get(x)!), seen)
    })
  for (const set of joint) {
    const own = [...set].filter((x) => !signals.has(x) && !common.has(x))
    if (own.length === 0) continue
    // A circuit that answers to a signal answers to all that work it.
    const all = own.length === set.size - [...set].filter((x) => common.has(x)).length ? own : behind(set)
    for (const x of all) up.set(root(x), root(all[0]))
  }
  const numbers = new Map<string, number>()
  const groupOf = Array.from({ length: inputs }, (_, i) => {
    const input = `input ${i}`
    if (common.has(input)) return -1
    const at = root(input)
    if (!numbers.has(at)) numbers.set(at, numbers.size)
    return numbers.get(at)!
  })
  return { groupOf, groups: numbers.size }
}

/**
 * How many signals of different circuits something looks at jointly. Those that the same circuits work, such as a call and the
 * water that moves for it, run one course: whoever is first or last for the one is so for the other.
 */
function courses(set: ReadonlySet<string>, { signals }: Influence, { groupOf }: Parts): number {
  const text = (signal: string) => workedBy(signal, signals, groupOf).join()
  return new Set([...set].filter((x) => signals.has(x)).map(text)).size
}

/** The circuits that work a signal, in order. */
function workedBy(signal: string, signals: Influence['signals'], groupOf: readonly number[]): number[] {
  const seen = new Set<string>()
  const behind = (at: string): number[] => {
    if (seen.has(at)) return []
    seen.add(at)
    return [...union(signals.get(at)!)].flatMap((x) =>
      signals.has(x) ? behind(x) : inputOfName(x) === undefined ? [] : [groupOf[inputOfName(x)!]],
    )
  }
  return [...new Set(behind(signal))].filter((group) => group >= 0).sort((x, y) => x - y)
}

/** The number in `input 3`; undefined where it is a signal, or what a contact does of its own accord. */
const inputOfName = (name: string): number | undefined =>
  name.startsWith('input ') ? Number(name.slice('input '.length)) : undefined

/** As few circuits as work every signal between them. */
function standInsOf({ signals }: Influence, { groupOf }: Parts): Set<number> {
  const open = new Map([...signals.keys()].map((signal) => [signal, workedBy(signal, signals, groupOf)]))
  const chosen = new Set<number>()
  while (open.size > 0) {
    const times = new Map<number, number>()
    for (const groups of open.values()) for (const group of groups) times.set(group, (times.get(group) ?? 0) + 1)
    const [best] = [...times].sort(([g, n], [h, m]) => m - n || g - h)
    if (!best) break
    chosen.add(best[0])
    for (const [signal, groups] of open) if (groups.length === 0 || groups.includes(best[0])) open.delete(signal)
  }
  return chosen
}

/** What is judged together: of a demand, its inputs with its valves and pumps; of demands that share or wait, both. */
function judgedTogether(circuit: Circuit, influence: Influence, inputs: readonly Input[]): ReadonlySet<string>[] {
  const { demands } = circuit.installation.intent
  const inputsAt = (at: ContactRef | null): string[] => {
    if (!at) return []
    const keys = new Set(inputOf(circuit, at).leaves.map(leafText))
    return inputs.flatMap(({ leaves }, i) => (leaves.some((l) => keys.has(leafText(l))) ? [`input ${i}`] : []))
  }
  const moves = (device: string) => {
    const index = circuit.deviceIndex.get(device)!
    return circuit.actuators.flatMap((a, i) => (a.device === index ? [influence.of(`actuator ${i}`)] : []))
  }
  const of = new Map(
    demands.map((d) => {
      const own = [...inputsAt(d.channel), ...inputsAt(d.thermostat)]
      return [d.id, union([new Set(own), ...d.circuit.valves.flatMap((v) => moves(v.device))])]
    }),
  )
  const sets: ReadonlySet<string>[] = [...of.values()]
  demands.forEach((d, i) => {
    for (const other of d.companions) sets.push(union([of.get(d.id)!, of.get(other) ?? new Set()]))
    for (const other of demands.slice(i + 1)) {
      const names = (x: typeof d) => [...x.circuit.valves.map((v) => v.device), ...(x.circuit.emitters ?? [])]
      const shares = names(d).some((id) => names(other).includes(id))
      if (shares || d.priority !== other.priority) sets.push(union([of.get(d.id)!, of.get(other.id)!]))
    }
  })
  return sets
}

const leafText = (leaf: Input['leaves'][number]): string =>
  leaf.kind === 'sensor' ? `sensor ${leaf.sensor}` : `control ${leaf.control}`

/**
 * Where something looks at the flow of water: does every circuit alone, with its valves open and the pumps on, give as much as
 * it looks for? More circuits then only give more, where one pump drives them.
 */
function wateredAlone(circuit: Circuit, influence: Influence, { groupOf, groups }: Parts): boolean {
  const looks = circuit.behaviours.flatMap(({ device, watches }) =>
    Object.values(watches).flatMap((c) => {
      if (!('flows' in c)) return []
      const own = circuit.devices[device]
      return [{ way: own.wayIndex.get(c.flows)!, from: own.amount(c.from) }]
    }),
  )
  if (looks.length === 0 || !influence.signals.has(WATER)) return true
  const { ways, emitters } = circuit.water
  const pumps = Uint8Array.from(ways, ({ pump }) => (pump ? 1 : 0))
  if (pumps.filter((p) => p === 1).length > 1) return false
  const rising = new Uint8Array(emitters.length)
  for (let group = 0; group < groups; group++) {
    const moves = (actuator: number) =>
      [...influence.of(`actuator ${actuator}`)].some(
        (x) => inputOfName(x) !== undefined && groupOf[inputOfName(x)!] === group,
      )
    const gates = Uint8Array.from(ways, ({ port }) =>
      port === undefined || moves(circuit.ports[port].actuator) ? OPEN : SHUT,
    )
    if (!ways.some(({ port }) => port !== undefined && moves(circuit.ports[port].actuator))) continue
    const flows = solveFlows(circuit.water, { gates, pumps, rising })
    if (looks.some(({ way, from }) => flows[way] < from)) return false
  }
  return true
}

/** With every contact closed, does opening a supply's isolator still take its volts away? Then it does whatever else is closed. */
function staysIsolated(circuit: Circuit, flags: PartFlags): boolean {
  const closed = new Uint8Array(circuit.contacts.length).fill(1)
  return isolationBreaches(circuit, { ...flags, closed }).length === 0
}
