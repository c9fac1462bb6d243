import type { ContactRef, Demand } from '../installation'
import { firingPhases, type Simulation } from '../simulation'
import { feltFlow } from '../water'
import type { Background } from './asker'
import { failedIn, once, type Cause } from './claims'
import {
  callLoad,
  circuitOpen,
  demandOpenPoints,
  demandStates,
  portOpen,
  portsOf,
  runningLoads,
  wanted,
  type DemandView,
} from './demands'
import { Inquiry, round } from './inquiry'
import { signsOf, warmUnasked } from './signs'
import { shutPorts, standstillCauses } from './standstill'
import type { Branches } from './stops'
import { departuresBehind } from './trials'

/** Why a terminal is live, or not: the contacts and conductors that make it so, and behind each the reason it stands as it does. */
export function whyTerminal(sim: Simulation, ref: string, known?: Background): Cause {
  const atom = sim.circuit.atomIndex.get(ref)
  if (atom === undefined) throw new Error(`no terminal "${ref}"`)
  return firstNamed(sim, known, ['wanted', 'all'], (inquiry) => [inquiry.terminal(atom, 'line')])[0]
}

/** Why a load is energised, or not. */
export const whyLoad = (sim: Simulation, load: number, known?: Background): Cause =>
  firstNamed(sim, known, ['wanted', 'all'], (inquiry) => [inquiry.load(load)])[0]

/**
 * Asks along the fewest branches first: what nobody wants is left out, unless what is wrong lies there. Where nothing is wrong
 * anywhere, the fewest branches tell why it is as it is.
 */
function firstNamed(
  sim: Simulation,
  known: Background | undefined,
  tries: readonly Branches[],
  ask: (inquiry: Inquiry) => Cause[],
): Cause[] {
  let first: Cause[] | undefined
  for (const branches of tries) {
    const inquiry = new Inquiry(sim, known, branches)
    for (const moment of momentsOf(inquiry)) {
      const asked = ask(moment).filter((cause) => cause !== round)
      // What leads only back to itself tells nothing beside what has a reason.
      const told = asked.filter((cause) => cause.failed || cause.because.length > 0)
      const found = told.length > 0 ? told : asked
      if (found.some((cause) => failedIn(cause).length > 0)) return found
      first ??= found
    }
  }
  return first!
}

/** Moments of its round that what goes round and round is asked about; far enough back for a round of any device shipped. */
const mostMoments = 12

/** Now; and of what goes round and round the moments before, since no single one tells why. */
function* momentsOf(inquiry: Inquiry): Generator<Inquiry> {
  yield inquiry
  const { sim } = inquiry
  if (!sim.hunting) return
  const times = [...new Set(sim.history.map((event) => event.time))].slice(-mostMoments).reverse()
  for (const time of times) {
    const then = inquiry.at(time)
    if (then) yield then
  }
}

/** Why a boiler does what it does. */
export const whyPhase = (sim: Simulation, behaviour: number, known?: Background): Cause =>
  firstNamed(sim, known, ['wanted', 'all'], (inquiry) => [inquiry.phase(behaviour)])[0]

/** Why a contact that a demand is asked by stands as it does. */
export function whyContact(sim: Simulation, { device, contact }: ContactRef, known?: Background): Cause {
  const { circuit } = sim
  const at = circuit.deviceIndex.get(device)
  const index = circuit.contacts.findIndex((c) => c.device === at && c.part.id === contact)
  return new Inquiry(sim, known).contact(index)
}

/** Something that is not as the demands would have it. */
export type Effect =
  | { is: 'unmet'; demand: string }
  | { is: 'called-unasked'; boiler: string; input: string }
  | { is: 'warm-unasked'; demand: string }

export interface Explanation {
  effect: Effect
  because: Cause[]
}

/** Everything that is not as the demands would have it once all is at rest, each with the chain of what makes it so. */
export function explained(sim: Simulation, known?: Background): Explanation[] {
  return effects(sim, known).map(({ effect, because }) => {
    if (!known || because.some((cause) => failedIn(cause).length > 0)) return { effect, because }
    return { effect, because: [...triedBehind(sim, effect, known), ...because] }
  })
}

/** What departs from the plan behind an effect that no way shows: put right by itself, the effect is gone. */
export function triedBehind(sim: Simulation, effect: Effect, known: Background): Cause[] {
  const is = JSON.stringify(effect)
  return departuresBehind(sim, known, (other) => effectsOf(other).some((e) => JSON.stringify(e) === is))
}

/** What is not as the demands would have it, by name. */
export const effectsOf = (sim: Simulation): Effect[] => [
  ...unmetDemands(sim).map(({ id }): Effect => ({ is: 'unmet', demand: id })),
  ...callsUnasked(sim).map(({ boiler, input }): Effect => ({ is: 'called-unasked', boiler, input })),
  ...warmUnasked(sim).map(({ id }): Effect => ({ is: 'warm-unasked', demand: id })),
]

function effects(sim: Simulation, known?: Background): Explanation[] {
  return [
    ...unmetDemands(sim).map((demand): Explanation => ({
      effect: { is: 'unmet', demand: demand.id },
      because: whyDemand(sim, demand, known),
    })),
    ...unaskedCalls(sim, known).map(({ boiler, input, cause }): Explanation => ({
      effect: { is: 'called-unasked', boiler, input },
      because: [cause],
    })),
    ...warmUnasked(sim).map((demand): Explanation => ({
      effect: { is: 'warm-unasked', demand: demand.id },
      because: whyWarm(sim, demand, known),
    })),
  ]
}

/** Demands that are wanted, wait for no other, and are held up, or called for and yet not warm. */
export function unmetDemands(sim: Simulation): Demand[] {
  const { warm } = signsOf(sim)
  return demandStates(sim).flatMap(({ demand, word, openPoints, travelling }) => {
    if (word === 'held-up') return openPoints.every((p) => p.at === 'priority') ? [] : [demand]
    const knows = sim.circuit.water.emitters.length > 0 && (demand.circuit.emitters?.length ?? 0) > 0
    return word === 'calling' && !travelling && knows && !warm.includes(demand.id) ? [demand] : []
  })
}

/** Why a demand that is wanted is not served: its valves, its call, its boiler, its water, the first of them that stands in the way. */
export const whyDemand = (sim: Simulation, demand: Demand, known?: Background): Cause[] =>
  firstNamed(sim, known, [demand, 'wanted', 'all'], (inquiry) => standsInTheWay(inquiry, demand))

function standsInTheWay(inquiry: Inquiry, demand: Demand): Cause[] {
  const { sim } = inquiry
  const { circuit } = sim
  const valves = new Set(demand.circuit.valves.map((v) => v.device))
  if (!circuitOpen(sim, demand)) {
    const ports = demand.circuit.valves.flatMap((valve) => portsOf(circuit, valve))
    const shut = ports.filter((port) => !portOpen(sim, port))
    const runs = runningLoads(circuit, demand).filter((load) => !sim.loadEnergised(load))
    const causes = [
      ...[...new Set(shut.map((p) => p.actuator))].map((actuator) => inquiry.travel(actuator)),
      ...runs.map((load) => inquiry.load(load)),
    ]
    if (causes.length > 0) return once(causes)
  }
  const call = callLoad(circuit, demand.call)
  if (sim.loadEnergised(call) && demandOpenPoints(sim, demand).length > 0) return inquiry.ownStops(call)
  if (!sim.loadEnergised(call)) return [inquiry.load(call)]
  const boiler = circuit.deviceIndex.get(demand.call.boiler)!
  const idle = circuit.behaviours.flatMap((b, i) =>
    b.device === boiler && !firingPhases.has(sim.phase(i).phase) ? [inquiry.phase(i)] : [],
  )
  if (idle.length > 0) return idle
  const flowing = circuit.water.emitters.some(
    ({ device, way }) =>
      demand.circuit.emitters?.includes(circuit.devices[device].device.id) && Math.abs(sim.flows[way]) >= feltFlow,
  )
  if (flowing) return [...sourcesCold(inquiry), ...emittersNotGiving(inquiry, demand)]
  const still = standstillCauses(inquiry)
  return still.length > 0 ? still : shutPorts(inquiry, (device) => valves.has(device))
}

/** What should heat the water and does not. */
function sourcesCold(inquiry: Inquiry): Cause[] {
  const { sim } = inquiry
  return sim.circuit.water.sources.flatMap(({ device, part, way }, i) =>
    way === undefined || sim.sourceHot(i) ? [] : inquiry.condition(part.when, device, false),
  )
}

/** Emitters with water in them that give off no heat: their fans. */
function emittersNotGiving(inquiry: Inquiry, demand: Demand): Cause[] {
  const { sim } = inquiry
  const { circuit } = sim
  return circuit.water.emitters.flatMap(({ device, part }, i) =>
    demand.circuit.emitters?.includes(circuit.devices[device].device.id) && !sim.emitterGives(i) && part.when
      ? inquiry.condition(part.when, device, false)
      : [],
  )
}

/** Why a circuit warms though nobody asks for it: its valves that let hot water through. */
export const whyWarm = (sim: Simulation, demand: Demand, known?: Background): Cause[] =>
  firstNamed(sim, known, ['all'], (inquiry) => letsThrough(inquiry, demand))

function letsThrough(inquiry: Inquiry, demand: Demand): Cause[] {
  const { sim } = inquiry
  const { circuit } = sim
  return once([
    ...unaskedCalls(sim, inquiry.known).map(({ cause }) => cause),
    ...demand.circuit.valves
      .flatMap((valve) => portsOf(circuit, valve))
      .map((port): Cause => {
        const index = circuit.ports.indexOf(port)
        if (!portOpen(sim, port) && sim.portPasses(index))
          return {
            claim: { is: 'port', device: circuit.devices[port.device].device.id, part: port.part.id },
            failed: true,
            because: [],
          }
        return inquiry.travel(port.actuator)
      }),
  ])
}

/** Calls that stand with no demand that owns them. */
export function callsUnasked(sim: DemandView): { boiler: string; input: string; load: number }[] {
  const { circuit } = sim
  const calls = circuit.devices.flatMap(({ device, type }) =>
    type.inputs.map((i) => ({ boiler: device.id, input: i.id })),
  )
  return calls.flatMap((call) => {
    const load = callLoad(circuit, call)
    if (!sim.loadEnergised(load)) return []
    const owners = circuit.installation.intent.demands.filter(
      (d) => d.call.boiler === call.boiler && d.call.input === call.input,
    )
    return owners.some((d) => wanted(sim, d)) ? [] : [{ ...call, load }]
  })
}

/** Calls that stand with no demand that owns them: input and chain of causes. */
export const unaskedCalls = (sim: Simulation, known?: Background): { boiler: string; input: string; cause: Cause }[] =>
  callsUnasked(sim).map(({ load, ...call }) => ({ ...call, cause: whyLoad(sim, load, known) }))
