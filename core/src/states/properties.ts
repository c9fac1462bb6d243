import {
  LINE,
  emptyNets,
  mergeNets,
  type Circuit,
  type CircuitState,
  type ElectricalAnswer,
  type Nets,
} from '../circuit'
import type { Demand } from '../installation'
import { feltFlow } from '../water'
import {
  callLoad,
  callsUnasked,
  circuitKnown,
  circuitOpen,
  deadHeads,
  goesFirst,
  wanted,
  warmEmitters,
  type DemandView,
  type WaterView,
} from '../trace'

/** What is asked of every reachable state. Settled ones, unless it says otherwise. */
export const properties = [
  /** Always: no line joined to neutral or earth, no secondary joined in itself. */
  'no-short',
  /** Always: no extra-low-voltage terminal at mains potential, nothing under more volts than it withstands. */
  'extra-low-stays-low',
  'no-call-without-demand',
  'all-off-ends-calls',
  'water-moves',
  'isolates',
  'demand-served',
  'no-heat-without-demand',
  'valves-rest',
  'runs-when-wanted',
  'settles',
] as const
export type PropertyId = (typeof properties)[number]

/**
 * What exactly is wrong: of a demand, its circuit, its call, or both; of water, whether none moves at all, or some does and goes
 * elsewhere; of a circuit that warms, that it has to wait for another; of a short, that it is behind a transformer; of an input,
 * that it is under more volts than it withstands.
 */
export type BreachDetail =
  | 'circuit-shut'
  | 'not-called'
  | 'shut-and-not-called'
  | 'water-still'
  | 'water-elsewhere'
  | 'has-to-wait'
  | 'secondary-short'
  | 'over-volts'

/** One thing broken in one state: what, and of whom. */
export interface Breach {
  property: PropertyId
  demands: string[]
  devices: string[]
  terminals: string[]
  detail?: BreachDetail
}

/** Told of every property that something was there to judge by. What was never told was not looked at. */
export type Looked = (property: PropertyId) => void

const breach = (property: PropertyId, of: Partial<Breach> = {}): Breach => ({
  property,
  demands: [],
  devices: [],
  terminals: [],
  ...of,
})

/** What names a breach: two of one name are the same defect. */
export const breachKey = (b: Breach): string => [b.property, ...b.demands, ...b.devices, ...b.terminals].join(' ')

/** A moment that can be judged: one of the machine, or of the simulation. */
export type Judgeable = DemandView & WaterView & { phase(behaviour: number): { phase: string } }

/** What a demand lacks to be served; undefined while its circuit is open and its boiler input called. */
export function lackOf(at: DemandView, demand: Demand): BreachDetail | undefined {
  const open = circuitOpen(at, demand)
  const called = at.loadEnergised(callLoad(at.circuit, demand.call))
  if (open) return called ? undefined : 'not-called'
  return called ? 'circuit-shut' : 'shut-and-not-called'
}

/** Does the scheme let this demand run just now? Under priority it waits for the one that goes first. */
const mayRun = (at: DemandView, demand: Demand): boolean => wanted(at, demand) && !goesFirst(at, demand)

/**
 * What is broken while everything rests. `judgeService` false where something beside the demands keeps them from running:
 * a limit that has tripped.
 */
export function settledBreaches(at: Judgeable, judgeService: boolean, looked: Looked = () => undefined): Breach[] {
  const { circuit } = at
  const { demands } = circuit.installation.intent
  const found: Breach[] = []
  const asked = demands.filter((d) => wanted(at, d))
  if (judgeService)
    for (const demand of asked.filter((d) => mayRun(at, d))) {
      if (!circuitKnown(circuit, demand)) continue
      looked('demand-served')
      const lack = lackOf(at, demand)
      const of = { demands: [demand.id], devices: [demand.call.boiler] }
      if (lack) found.push(breach('demand-served', { ...of, detail: lack }))
      else if (waterJudged(at, demand)) {
        looked('water-moves')
        const detail = waterMissing(at, demand)
        if (detail) found.push(breach('water-moves', { ...of, detail }))
      }
    }
  if (circuit.devices.some(({ type }) => type.inputs.length > 0))
    looked(asked.length === 0 ? 'all-off-ends-calls' : 'no-call-without-demand')
  for (const call of callsUnasked(at)) {
    const property = asked.length === 0 ? 'all-off-ends-calls' : 'no-call-without-demand'
    found.push(breach(property, { devices: [call.boiler], terminals: [inputTerminal(circuit, call)] }))
  }
  found.push(
    ...uncalledHeat(at, asked, judgeService, looked),
    ...uncalledOpen(at, asked, looked),
    ...uncalledRuns(at, asked, looked),
  )
  for (const load of deadHeads(at)) {
    const { device } = circuit.loads[load]
    found.push(breach('water-moves', { devices: [circuit.devices[device].device.id] }))
  }
  return found
}

/** Phases in which a boiler has found flow, or has given up waiting for it. */
const heated: ReadonlySet<string> = new Set(['firing', 'circulating', 'no-flow', 'lockout'])

const emittersOf = ({ water, devices }: Circuit, demand: Demand) =>
  water.emitters.filter((e) => demand.circuit.emitters?.includes(devices[e.device].device.id))

/** Has its boiler begun, and is there something known that water should go through? */
function waterJudged(at: Judgeable, demand: Demand): boolean {
  const { circuit } = at
  const boiler = circuit.deviceIndex.get(demand.call.boiler)!
  const begun = circuit.behaviours.some((b, i) => b.device === boiler && heated.has(at.phase(i).phase))
  return begun && emittersOf(circuit, demand).length > 0
}

/** Where no water goes through anything the demand warms: does none move, or does it go elsewhere? */
function waterMissing(at: Judgeable, demand: Demand): BreachDetail | undefined {
  const { circuit, flows } = at
  const flowing = (way: number) => Math.abs(flows[way]) >= feltFlow
  if (emittersOf(circuit, demand).some(({ way }) => flowing(way))) return undefined
  const elsewhere = circuit.water.sources.some(
    ({ way, device }) => way !== undefined && device === circuit.deviceIndex.get(demand.call.boiler) && flowing(way),
  )
  return elsewhere ? 'water-elsewhere' : 'water-still'
}

function inputTerminal(circuit: Circuit, call: { boiler: string; input: string }): string {
  const { type } = circuit.devices[circuit.deviceIndex.get(call.boiler)!]
  return `${call.boiler}.${type.inputs.find((i) => i.id === call.input)!.terminal}`
}

/** These demands, and those that may run with them. */
const withCompanions = (demands: readonly Demand[]) => new Set(demands.flatMap((d) => [d.id, ...d.companions]))

/** Circuits that warm although nobody who may warm them is wanted, or while their demand has to wait for another. */
function uncalledHeat(at: Judgeable, asked: readonly Demand[], judgeService: boolean, looked: Looked): Breach[] {
  const { circuit } = at
  const { demands } = circuit.installation.intent
  if (circuit.water.sources.length > 0 && demands.some((d) => emittersOf(circuit, d).length > 0))
    looked('no-heat-without-demand')
  const warm = warmEmitters(at)
  if (warm.length === 0) return []
  // While a limit keeps the one that goes first from running, the other need not wait for it.
  const runs = judgeService ? asked.filter((d) => !goesFirst(at, d)) : asked
  const allowed = withCompanions(runs)
  return warm.flatMap((e): Breach[] => {
    const { id } = circuit.devices[circuit.water.emitters[e].device].device
    const owners = demands.filter((d) => d.circuit.emitters?.includes(id))
    if (owners.length === 0 || owners.some((d) => allowed.has(d.id))) return []
    const waits = owners.some((d) => asked.includes(d))
    const of = { demands: [owners[0].id], devices: [id] }
    return [breach('no-heat-without-demand', waits ? { ...of, detail: 'has-to-wait' } : of)]
  })
}

/** Fans and pumps of a circuit that run although nobody they serve is wanted. */
function uncalledRuns(at: Judgeable, asked: readonly Demand[], looked: Looked): Breach[] {
  const { circuit } = at
  const { demands } = circuit.installation.intent
  const allowed = withCompanions(asked)
  const runsOf = (of: readonly Demand[]) => new Set(of.flatMap((d) => d.circuit.runs ?? []))
  const wanted = runsOf(demands.filter((d) => allowed.has(d.id)))
  const own = runsOf(demands)
  if (own.size > 0) looked('runs-when-wanted')
  return [...own].flatMap((id): Breach[] => {
    if (wanted.has(id)) return []
    const device = circuit.deviceIndex.get(id)!
    const runs = circuit.loads.some((l, i) => l.device === device && l.part.work === 'runs' && at.loadWorking(i))
    return runs ? [breach('runs-when-wanted', { devices: [id] })] : []
  })
}

/** Circuits behind normally closed valves that stand open although nobody they serve is wanted. */
function uncalledOpen(at: Judgeable, asked: readonly Demand[], looked: Looked): Breach[] {
  const { circuit } = at
  const { demands } = circuit.installation.intent
  const allowed = withCompanions(asked)
  const opened = new Set(demands.filter((d) => allowed.has(d.id)).flatMap((d) => d.circuit.valves.map((v) => v.device)))
  return demands.flatMap((demand): Breach[] => {
    const valves = demand.circuit.valves.map((v) => v.device)
    if (allowed.has(demand.id) || valves.every((v) => opened.has(v))) return []
    const restsShut = valves.some((v) => {
      const ports = portsAt(circuit, v)
      return ports.length > 0 && ports.every((p) => p.part.openFrom > 0)
    })
    if (!restsShut || !circuitKnown(circuit, demand)) return []
    looked('valves-rest')
    if (!circuitOpen(at, demand)) return []
    return [breach('valves-rest', { devices: valves.slice(0, 1) })]
  })
}

function portsAt(circuit: Circuit, valve: string): Circuit['ports'] {
  const index = circuit.deviceIndex.get(valve)!
  return circuit.ports.filter((p) => p.device === index)
}

/** Isolators by source: the contacts of its own device. */
const isolators = (circuit: Circuit, source: number): number[] => {
  const { device } = circuit.sources[source]
  return circuit.contacts.flatMap((c, i) => (c.device === device ? [i] : []))
}

/**
 * Terminals that one supply feeds and that stay live when its own isolator is opened: another supply passes it. What boiler
 * outputs give hangs on the boiler's supply and goes with it.
 */
export function isolationBreaches(circuit: Circuit, state: CircuitState, looked: Looked = () => undefined): Breach[] {
  const before = mergeNets(circuit, state, emptyNets(circuit))
  return circuit.sources.flatMap(({ line, device }, source): Breach[] => {
    const opened = isolators(circuit, source)
    // What has no switch of its own is isolated elsewhere: there is nothing here to judge.
    if (opened.length === 0) return []
    looked('isolates')
    const closed = state.closed.slice()
    for (const contact of opened) closed[contact] = 0
    const after = mergeNets(circuit, { ...state, closed }, emptyNets(circuit))
    const live = circuit.atoms.flatMap((atom, i) => {
      const own = circuit.deviceIndex.get(atom.owner) === device && atom.kind === 'internal'
      return !own && joined(before, i, line) && after.poles[after.netOf[i]] & LINE ? [atom.ref] : []
    })
    if (live.length === 0) return []
    return [breach('isolates', { devices: [circuit.devices[device].device.id], terminals: live.slice(0, 1) })]
  })
}

const joined = ({ netOf }: Nets, a: number, b: number): boolean => netOf[a] === netOf[b]

/** What must never be, in a state on the way as well. */
export function transientBreaches(
  at: { circuit: Circuit; electrical: ElectricalAnswer; short: boolean; burnt: number },
  looked: Looked = () => undefined,
): Breach[] {
  const { circuit, electrical, burnt } = at
  const found: Breach[] = []
  if (circuit.sources.length > 0) looked('no-short')
  if (hasExtraLow(circuit)) looked('extra-low-stays-low')
  if (at.short) found.push(breach('no-short', electrical.mainsShort ? {} : { detail: 'secondary-short' }))
  if (electrical.mainsAt >= 0) {
    const { ref, owner } = circuit.atoms[electrical.mainsAt]
    found.push(breach('extra-low-stays-low', { devices: [owner], terminals: [ref] }))
  } else if (burnt >= 0) {
    const { device, a } = circuit.loads[burnt]
    const { id } = circuit.devices[device].device
    found.push(
      breach('extra-low-stays-low', { devices: [id], terminals: [circuit.atoms[a].ref], detail: 'over-volts' }),
    )
  }
  return found
}

/** Is there a terminal that must stay at extra-low voltage, or a load that more volts would burn? */
const hasExtraLow = (circuit: Circuit): boolean =>
  circuit.devices.some(({ type }) => type.terminals.some((t) => t.extraLow)) ||
  circuit.loads.some((l) => l.withstands < Infinity)
