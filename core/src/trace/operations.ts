import type { Demand } from '../installation'
import { firingPhases, type Action, type Simulation } from '../simulation'
import { unmetDemands, whyContact, whyDemand, whyPhase } from './causes'
import { endsOf, type Cause } from './claims'
import { asked, wanted } from './demands'
import { signsOf } from './signs'

/** What somebody wants to come about. */
export type Goal = { is: 'served'; demand: string } | { is: 'fires'; boiler: string }

/** A control set by somebody who has no tool: a switch, a dial, a reset. */
export type Operation = Extract<Action, { do: 'set' }>

/** More at once nobody tries by hand. */
const mostOperations = 3
/** Sets of operations tried before it is given up. */
const mostTries = 400
/** A dial is turned so far past what its thermostat senses, in its own unit; its differential besides. */
const clearBy = 2

/**
 * The least sets of operations after which a goal is reached once all has come to rest: each of three at most, none superfluous, each
 * tried out. Empty where it is reached already, or where no such set reaches it: then something is wrong that no control puts
 * right. With temperatures that go their own way, these stand as they are.
 */
export function operationsFor(sim: Simulation, goal: Goal): Operation[][] {
  const start = sim.fork()
  if (start.heat) start.letWarm(undefined)
  if (reaches(start, goal)) return []
  const found: Operation[][] = []
  const seen = new Set<string>()
  let open: { ops: Operation[]; at: Simulation }[] = [{ ops: [], at: start }]
  let tries = 0
  for (let size = 1; size <= mostOperations; size++) {
    const next: typeof open = []
    for (const { ops, at } of open)
      for (const op of worthTrying(at, goal)) {
        if (ops.some((other) => other.device === op.device && other.control === op.control)) continue
        const all = [...ops, op]
        const name = keyOf(all)
        // What holds a set that does already holds too much.
        if (seen.has(name) || found.some((less) => less.every((l) => all.some((o) => keyOf([o]) === keyOf([l])))))
          continue
        seen.add(name)
        if (++tries > mostTries) return found
        const then = after(at, [op])
        if (!reaches(then, goal)) next.push({ ops: all, at: then })
        else if (
          all.every(
            (left) =>
              all.length === 1 ||
              !reaches(
                after(
                  start,
                  all.filter((o) => o !== left),
                ),
                goal,
              ),
          )
        )
          found.push(all)
      }
    open = next
  }
  return found
}

const keyOf = (ops: readonly Operation[]): string =>
  ops
    .map((op) => `${op.device}.${op.control}=${op.value}`)
    .sort()
    .join(' ')

/** Once everything has come to rest after some operations. */
function after(sim: Simulation, ops: readonly Operation[]): Simulation {
  const then = sim.fork()
  for (const { device, control, value } of ops) then.set(device, control, value)
  then.settle()
  return then
}

function reaches(sim: Simulation, goal: Goal): boolean {
  const { circuit } = sim
  if (goal.is === 'fires') {
    const boiler = circuit.deviceIndex.get(goal.boiler)
    return circuit.behaviours.some(({ device }, i) => device === boiler && firingPhases.has(sim.phase(i).phase))
  }
  const demand = circuit.installation.intent.demands.find((d) => d.id === goal.demand)
  return demand !== undefined && isServed(sim, demand)
}

/** Is it asked for, and does it get what it asks for? */
function isServed(sim: Simulation, demand: Demand): boolean {
  if (sim.hunting || !wanted(sim, demand) || unmetDemands(sim).includes(demand)) return false
  const emitters = demand.circuit.emitters?.length ?? 0
  return emitters === 0 || sim.circuit.water.emitters.length === 0 || signsOf(sim).warm.includes(demand.id)
}

/** Operations on what the explanation ends at: the controls and dials that keep the goal from being reached as things stand. */
function worthTrying(sim: Simulation, goal: Goal): Operation[] {
  const { circuit } = sim
  const { demands } = circuit.installation.intent
  const causes =
    goal.is === 'served'
      ? demands.filter((d) => d.id === goal.demand).flatMap((d) => [...contactsOf(sim, d), ...whyDemand(sim, d)])
      : circuit.behaviours.flatMap(({ device }, i) =>
          circuit.devices[device].device.id === goal.boiler ? [whyPhase(sim, i)] : [],
        )
  const all = causes.flatMap(endsOf).flatMap((cause) => operationsOn(sim, cause))
  return all.filter((op, i) => all.findIndex((other) => keyOf([other]) === keyOf([op])) === i)
}

/** The contacts by which a demand is asked for, as far as they do not ask. */
const contactsOf = (sim: Simulation, { channel, thermostat }: Demand): Cause[] =>
  [channel, thermostat].flatMap((at) => (at && !asked(sim, at) ? [whyContact(sim, at)] : []))

/** What can be done by hand about the end of a chain: a choice made otherwise, a dial turned past what is sensed. */
function operationsOn({ circuit }: Simulation, { claim }: Cause): Operation[] {
  if (claim.is !== 'control' && claim.is !== 'thrown' && claim.is !== 'sensor') return []
  const compiled = circuit.devices[circuit.deviceIndex.get(claim.device)!]
  const controlOf = (id: string) => compiled.type.controls.find((c) => c.id === id)
  const set = (control: string, value: string): Operation => ({ do: 'set', device: claim.device, control, value })
  if (claim.is === 'sensor') {
    const { part, differential } = circuit.sensors[compiled.sensorIndex.get(claim.part)!]
    const dial = controlOf(part.setPoint)
    if (dial?.kind !== 'number' || dial.ambient) return []
    const past = differential + clearBy
    const within = (value: number) => Math.min(dial.max, Math.max(dial.min, Math.round(value)))
    return [claim.temperature + past, claim.temperature - past]
      .map((value) => within(value))
      .filter((value) => value !== claim.set)
      .map((value) => set(part.setPoint, String(value)))
  }
  const control = controlOf(claim.control)
  if (control?.kind !== 'choice' || control.ambient) return []
  return control.values.filter(({ id }) => id !== claim.value).map(({ id }) => set(claim.control, id))
}
