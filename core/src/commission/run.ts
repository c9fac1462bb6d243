import { nth } from '../lists'
import type { Circuit } from '../circuit'
import { actionsFor, demandActions } from '../inputs'
import type { Demand } from '../installation'
import { lookAt, type Look } from '../looks'
import { calledPhases, Simulation, type Action } from '../simulation'
import type { RowKind, RowLook, RunRow } from './row'
import { runMinutes } from './run-minutes'

export interface RunOptions {
  /** Which of both goes first. */
  first: 'heating' | 'hot-water'
  /** Only each demand alone: what has stood still all summer is moved. */
  short: boolean
  /** Somebody else is at the controls. */
  helper: boolean
}
export const usualRun: RunOptions = { first: 'heating', short: false, helper: false }

/** Valves have come to their end by then, and contacts have followed. */
const settledMs = 30_000
/** A call that comes sooner waits for no valve. */
const atOnceMs = 3000
/** The longest overrun of the catalogue's boilers, and a little. */
const overrunMs = 900_000

/**
 * The run of an installation, made of its own model: from everything off, each demand alone, dropped by its thermostat, raised, dropped by its
 * channel; all together, and each dropped from that; what runs on after all are off; isolation. What is expected at each row is what
 * the healthy installation shows then. Nothing is looked at that could not be known there.
 */
export function commissioningRun(circuit: Circuit, options: RunOptions = usualRun): RunRow[] {
  const sim = new Simulation(circuit)
  const rows: RunRow[] = []
  const { demands } = circuit.installation.intent
  const ordered = [...demands].sort(
    (a, b) =>
      Number(b.kind === options.first) - Number(a.kind === options.first) || demands.indexOf(a) - demands.indexOf(b),
  )
  const add = (
    kind: RowKind,
    about: Demand | undefined,
    wanted: readonly Demand[],
    acts: readonly Action[],
    waitMs: number,
    looks: readonly Look[],
  ) => {
    perform(sim, acts)
    sim.run(waitMs)
    const seen = looks.flatMap((see): RowLook[] => {
      const expect = lookAt(sim, see)
      return 'unknown' in expect ? [] : [{ see, expect }]
    })
    const row = {
      id: [kind, about?.id].filter(Boolean).join(' '),
      kind,
      ...(about && { demand: about.id }),
      wanted: wanted.map(({ id }) => id),
      acts: [...acts],
      waitMs,
      looks: seen,
    }
    rows.push({ ...row, minutes: runMinutes(circuit, rows.at(-1), row, options.helper) })
  }
  const things = thingsToLookAt(circuit)
  const off = demandActions(circuit, [])
  const isolate = supplySwitches(circuit, 'off')
  const power = supplySwitches(circuit, 'on')
  if (!options.short && isolate.length > 0) {
    add('earths', undefined, [], isolate, 1000, earthsOf(circuit))
    add('polarity', undefined, [], [...power, ...off], 1000, polarityOf(circuit))
  }
  add('rest', undefined, [], changed(sim, off), settledMs, [...things.boilers, ...things.valves, ...things.pumps])
  for (const demand of ordered) {
    const acts = changed(sim, demandActions(circuit, [demand.id]))
    const calls = callAfter(sim, acts)
    const sooner = calls !== undefined && calls > atOnceMs ? Math.round(calls / 2000) * 1000 : 0
    if (sooner > 0) add('before-travel-ends', demand, [demand], acts, sooner, things.boilers)
    add('alone', demand, [demand], sooner > 0 ? [] : acts, settledMs - sooner, [
      ...things.boilers,
      ...things.valves,
      ...things.pumps,
      ...things.warmth,
    ])
    if (options.short) continue
    const own = [...things.boilers, ...valvesOf(demand, things.valves), ...things.pumps]
    const { channel, thermostat } = demand
    if (thermostat) {
      add('thermostat-down', demand, [], actionsFor(circuit, thermostat, false), settledMs, own)
      if (channel) {
        add('thermostat-up', demand, [demand], actionsFor(circuit, thermostat, true), settledMs, things.boilers)
        add('channel-off', demand, [], actionsFor(circuit, channel, false), settledMs, own)
      }
    } else if (channel) add('channel-off', demand, [], actionsFor(circuit, channel, false), settledMs, own)
  }
  if (ordered.length > 1 && !options.short) {
    const all = demandActions(
      circuit,
      ordered.map(({ id }) => id),
    )
    const whole = [...things.boilers, ...things.valves, ...things.pumps, ...things.warmth]
    add('together', undefined, ordered, changed(sim, all), settledMs, whole)
    for (const demand of ordered) {
      const others = ordered.filter((one) => one !== demand)
      // From together: all of them first, then this one dropped.
      const again = changed(sim, all)
      const before: Action[] = again.length > 0 ? [...again, { do: 'wait', ms: settledMs }] : []
      const then = sim.fork()
      perform(then, before)
      const drop = changed(
        then,
        demandActions(
          circuit,
          others.map(({ id }) => id),
        ),
      )
      if (drop.length > 0) add('dropped-from-together', demand, others, [...before, ...drop], settledMs, whole)
    }
  }
  add('all-off', undefined, [], changed(sim, off), settledMs, [...things.boilers, ...things.valves, ...things.pumps])
  add('overrun-over', undefined, [], [], overrunMs, things.pumps)
  if (isolate.length > 0) add('isolated', undefined, [], isolate, 1000, deadOf(circuit, things))
  return rows
}

function perform(sim: Simulation, acts: readonly Action[]): void {
  for (const act of acts)
    if (act.do === 'set') sim.set(act.device, act.control, act.value)
    else if (act.do === 'wait') sim.run(act.ms)
}

/** Of some settings those that stand otherwise: nobody goes to a control that stands as it should. */
const changed = (sim: Simulation, acts: readonly Action[]): Action[] =>
  acts.filter((act) => act.do !== 'set' || String(sim.control(act.device, act.control)) !== act.value)

/** How long after some acts a boiler is called, ms; undefined where none is within a minute and a half. */
function callAfter(sim: Simulation, acts: readonly Action[]): number | undefined {
  const then = sim.fork()
  perform(then, acts)
  const isCalled = () => then.circuit.behaviours.some((_, i) => calledPhases.has(then.phase(i).phase))
  for (let ms = 0; ms <= 90_000; ms += 500) {
    if (isCalled()) return ms
    then.run(500)
  }
  return undefined
}

interface Things {
  boilers: Extract<Look, { at: 'boiler' }>[]
  valves: Extract<Look, { at: 'valve' }>[]
  pumps: Extract<Look, { at: 'pump' }>[]
  warmth: Extract<Look, { at: 'warmth' }>[]
}

/** What tells at the plant what has come of a demand. */
function thingsToLookAt(circuit: Circuit): Things {
  const ids = (devices: Iterable<number>) =>
    [...new Set(devices)].map((device) => nth(circuit.devices, device).device.id)
  const { loads, behaviours, actuators, water } = circuit
  return {
    boilers: ids(behaviours.map(({ device }) => device)).map((device) => ({ at: 'boiler', device })),
    valves: ids(actuators.map(({ device }) => device)).map((device) => ({ at: 'valve', device })),
    pumps: ids(loads.flatMap(({ device, part }) => (part.work === 'runs' ? [device] : []))).map((device) => ({
      at: 'pump',
      device,
    })),
    warmth: ids(water.emitters.map(({ device }) => device)).map((device) => ({ at: 'warmth', device })),
  }
}

const valvesOf = ({ circuit }: Demand, valves: Things['valves']): Things['valves'] =>
  valves.filter(({ device }) => circuit.valves.some((valve) => valve.device === device))

/** Every switch of what feeds the installation: the one point of isolation. */
const supplySwitches = (circuit: Circuit, value: 'on' | 'off'): Action[] =>
  circuit.devices.flatMap(({ device, type }) =>
    type.family === 'supply'
      ? type.controls.flatMap((control): Action[] =>
          control.kind === 'choice' && control.id === 'switch'
            ? [{ do: 'set', device: device.id, control: control.id, value }]
            : [],
        )
      : [],
  )

type Points = Extract<Look, { at: 'points' }>

/** Each terminal of a device that is an earth, measured back to the supply's. */
const earthsOf = (circuit: Circuit): Points[] =>
  circuit.devices.flatMap(({ device, type }) =>
    type.terminals.flatMap(({ id, role, internal }): Points[] =>
      role === 'earth' && !internal ? [{ at: 'points', with: 'earth', red: `${device.id}.${id}` }] : [],
    ),
  )

/** Line and neutral of each device that has both at its own terminals. */
const polarityOf = (circuit: Circuit): Points[] =>
  circuit.devices.flatMap(({ device, type }): Points[] => {
    const at = (wanted: string) =>
      type.terminals.find(({ role, internal, extraLow }) => role === wanted && !internal && !extraLow)?.id
    const [line, neutral] = [at('permanent-live'), at('neutral')]
    return line === undefined || neutral === undefined
      ? []
      : [{ at: 'points', with: 'polarity', red: `${device.id}.${line}`, black: `${device.id}.${neutral}` }]
  })

/** Isolated: what the supply gives out is dead, and every boiler is dark. */
const deadOf = (circuit: Circuit, { boilers }: Things): Look[] => [
  ...circuit.devices.flatMap(({ device, type }) =>
    type.family === 'supply'
      ? type.terminals.flatMap(({ id, role, internal }): Points[] =>
          role === 'output' && !internal ? [{ at: 'points', with: 'tester', red: `${device.id}.${id}` }] : [],
        )
      : [],
  ),
  ...boilers.map(({ device }): Look => ({ at: 'display', device })),
]
