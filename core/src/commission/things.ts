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

/** Every switch of what feeds the installation: the one point of isolation. */
export const supplySwitches = (circuit: Circuit, value: 'on' | 'off'): Action[] =>
  circuit.devices.flatMap(({ device, type }) =>
    type.family === 'supply'
      ? type.controls.flatMap((control): Action[] =>
          control.kind === 'choice' && control.id === 'switch'
            ? [{ do: 'set', device: device.id, control: control.id, value }]
            : [],
        )
      : [],
  )

type Points = Extract<WrittenLook, { at: 'points' }>

/** Each terminal of a device that is an earth, measured back to the supply's. */
export const earthsOf = (circuit: Circuit): Points[] =>
  circuit.devices.flatMap(({ device, type }) =>
    type.terminals.flatMap(({ id, role, internal }): Points[] =>
      role === 'earth' && !internal ? [{ at: 'points', with: 'earth', red: `${device.id}.${id}` }] : [],
    ),
  )

/** What the supply gives out behind its switch: the terminals that are live once it is on, and those that are not. */
function outputs(circuit: Circuit): { line: string[]; neutral: string[] } {
  const sim = new Simulation(circuit)
  const given: { line: string[]; neutral: string[] } = { line: [], neutral: [] }
  for (const red of suppliedAt(circuit)) {
    const word = wordOf(lookAt(sim, { at: 'points', with: 'tester', red }))
    if (word === 'live') given.line.push(red)
    else if (word === 'dead') given.neutral.push(red)
  }
  return given
}

/** The terminals that the supply feeds the installation from; its earth is not switched. */
function suppliedAt(circuit: Circuit): string[] {
  const { netOf } = new Simulation(circuit).electrics.nets
  const earths = new Set(circuit.sources.map(({ earth }) => netOf[earth]))
  return circuit.devices.flatMap(({ device, type }) =>
    type.family === 'supply'
      ? type.terminals.flatMap(({ id, role, internal }) => {
          const ref = `${device.id}.${id}`
          return role === 'output' && !internal && !earths.has(netOf[circuit.atomIndex.get(ref)!]) ? [ref] : []
        })
      : [],
  )
}

/** Line and neutral of each device that has both at its own terminals, each rung out to what the supply gives out. */
export function polarityOf(circuit: Circuit): Points[] {
  const from = outputs(circuit)
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

/** The supply's own earth terminal, where it has one. */
const earthOfSupply = (circuit: Circuit): string | undefined =>
  circuit.devices
    .filter(({ type }) => type.family === 'supply')
    .flatMap(({ device, type }) =>
      type.terminals.flatMap(({ id, internal }) => (internal ? [] : [`${device.id}.${id}`])),
    )
    .find((ref) => !suppliedAt(circuit).includes(ref) && isEarth(circuit, ref))

function isEarth(circuit: Circuit, ref: string): boolean {
  const { netOf } = new Simulation(circuit).electrics.nets
  return circuit.sources.some(({ earth }) => netOf[earth] === netOf[circuit.atomIndex.get(ref)!])
}

/** Both poles behind the supply's switch against its earth. */
export function insulationOf(circuit: Circuit): Points[] {
  const black = earthOfSupply(circuit)
  if (black === undefined) return []
  const { line, neutral } = outputs(circuit)
  return [...line, ...neutral].map((red) => ({ at: 'points', with: 'insulation', red, black }))
}

/**
 * Isolated: what the supply gives out is dead, to earth, since a neutral that is switched is no point to measure against; and every boiler
 * is dark. With covers on only the latter is seen.
 */
export function deadOf(circuit: Circuit, { boilers }: Things, coversOn: boolean): WrittenLook[] {
  const black = earthOfSupply(circuit)
  const points = suppliedAt(circuit).map((red): Points => ({
    at: 'points',
    with: 'tester',
    red,
    ...(black !== undefined && { black }),
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
