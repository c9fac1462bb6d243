import type { Circuit } from '../circuit'
import { nth } from '../lists'
import type { Demand, Installation } from '../installation'
import { lookAt, wordOf, type Look, type WrittenLook } from '../looks'
import { Simulation, type Action } from '../simulation'
import type { HandCheck } from './row'

/** What tells at the plant what has come of a demand. */
export interface Things {
  boilers: Extract<Look, { at: 'boiler' }>[]
  valves: Extract<Look, { at: 'valve' }>[]
  pumps: Extract<Look, { at: 'pump' }>[]
  warmth: Extract<Look, { at: 'warmth' }>[]
}

export function thingsToLookAt(circuit: Circuit): Things {
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

export const valvesOf = ({ circuit }: Demand, valves: Things['valves']): Things['valves'] =>
  valves.filter(({ device }) => circuit.valves.some((valve) => valve.device === device))

type Points = Extract<WrittenLook, { at: 'points' }>

/** Each terminal of a device that is an earth, measured back to the supply's. */
export const earthsOf = (circuit: Circuit): Points[] =>
  circuit.devices.flatMap(({ device, type }) =>
    type.terminals.flatMap(({ id, role, internal }): Points[] =>
      role === 'earth' && !internal ? [{ at: 'points', with: 'earth', red: `${device.id}.${id}` }] : [],
    ),
  )

interface Supplied {
  /** The terminals that the supply feeds the installation from, those that are live once it is on and those that are not. */
  line: string[]
  neutral: string[]
  /** Its own earth terminal, where it has one; it is not switched. */
  earth?: string
}
const known = new WeakMap<Circuit, Supplied>()

function suppliedAt(circuit: Circuit): Supplied {
  const before = known.get(circuit)
  if (before) return before
  const sim = new Simulation(circuit)
  const { netOf } = sim.electrics.nets
  const earths = new Set(circuit.sources.map(({ earth }) => netOf[earth]))
  const supplied: Supplied = { line: [], neutral: [] }
  for (const { device, type } of circuit.devices)
    for (const { id, role, internal } of type.family === 'supply' ? type.terminals : []) {
      const ref = `${device.id}.${id}`
      if (internal) continue
      if (earths.has(netOf[circuit.atomIndex.get(ref)!])) supplied.earth ??= ref
      else if (role === 'output') {
        const word = wordOf(lookAt(sim, { at: 'points', with: 'tester', red: ref }))
        if (word === 'live') supplied.line.push(ref)
        else if (word === 'dead') supplied.neutral.push(ref)
      }
    }
  known.set(circuit, supplied)
  return supplied
}

/** Line and neutral of each device that has both at its own terminals, each rung out to what the supply gives out. */
export function polarityOf(circuit: Circuit): Points[] {
  const from = suppliedAt(circuit)
  return circuit.devices.flatMap(({ device, type }): Points[] => {
    if (type.family === 'supply') return []
    const at = (role: string) =>
      type.terminals.find((terminal) => terminal.role === role && !terminal.internal && !terminal.extraLow)?.id
    const [line, neutral] = [at('permanent-live'), at('neutral')]
    if (line === undefined || neutral === undefined) return []
    const rung = (terminal: string, reds: readonly string[]) =>
      reds.map((red): Points => ({ at: 'points', with: 'continuity', red, black: `${device.id}.${terminal}` }))
    return [...rung(line, from.line), ...rung(neutral, from.neutral)]
  })
}

/** Both poles behind the supply's switch against its earth. */
export function insulationOf(circuit: Circuit): Points[] {
  const { line, neutral, earth } = suppliedAt(circuit)
  if (earth === undefined) return []
  return [...line, ...neutral].map((red) => ({ at: 'points', with: 'insulation', red, black: earth }))
}

/**
 * Isolated: what the supply gives out is dead, to earth, since a neutral that is switched is no point to measure against; and every boiler
 * is dark. With covers on only the latter is seen.
 */
export function deadOf(circuit: Circuit, { boilers }: Things, coversOn: boolean): WrittenLook[] {
  const { line, neutral, earth } = suppliedAt(circuit)
  const points = [...line, ...neutral].map((red): Points => ({
    at: 'points',
    with: 'tester',
    red,
    ...(earth !== undefined && { black: earth }),
  }))
  return [...(coversOn ? [] : points), ...boilers.map(({ device }): WrittenLook => ({ at: 'display', device }))]
}

/** What is counted in an open wiring centre. */
export const boxChecks = ({ wiringCentres, links, cables }: Installation): HandCheck[] =>
  wiringCentres.flatMap(({ id }): HandCheck[] => {
    const number = (ref: string) => (ref.startsWith(`${id}.`) ? [ref.slice(id.length + 1)] : [])
    const own = links.flatMap(({ kind, between: [a, b] }): [string, string][] => {
      if (kind === 'cut') return []
      const [one, other] = [number(a), number(b)]
      return one.length > 0 && other.length > 0 ? [[one[0], other[0]]] : []
    })
    const held = cables.filter(({ cores }) =>
      cores.some(({ ends }) => ends.some((end) => 'terminal' in end && number(end.terminal).length > 0)),
    )
    return [
      { check: 'links', centre: id, links: own },
      ...(held.length > 0
        ? [{ check: 'clamped' as const, centre: id, cables: held.map(({ label, id: cable }) => label || cable) }]
        : []),
    ]
  })

/** Covers that came off for these measurements, and those of the wiring centres. */
export const coverChecks = (circuit: Circuit, measured: readonly Points[]): HandCheck[] => {
  const owners = new Set(circuit.installation.wiringCentres.map(({ id }) => id))
  for (const { red, black } of measured)
    for (const ref of [red, black]) if (ref !== undefined) owners.add(ref.slice(0, ref.indexOf('.')))
  return [...owners].map((owner) => ({ check: 'cover', owner }))
}

/** Controls that the demands are worked by: those that a run turns. */
export function controlsTurned(acts: readonly Action[]): { device: string; control: string }[] {
  const turned = new Map<string, { device: string; control: string }>()
  for (const act of acts)
    if (act.do === 'set') turned.set(`${act.device}.${act.control}`, { device: act.device, control: act.control })
  return [...turned.values()]
}
