import { typeEntry, typeIn, type DeviceType, type Failure } from '../catalogue'
import { actionsFor, demandActions } from '../inputs'
import { compile, type Circuit } from '../circuit'
import { examples } from '../examples'
import { Rig } from '../hypotheses'
import type { Installation } from '../installation'
import type { Action } from '../simulation'
import { signsOf, type Signs } from '../trace'

/** A device of a type in a whole system on which its faults can be watched. */
export interface Stand {
  example: string
  device: string
  installation: Installation
  /** The device is of this type in the example as it ships; else its type was exchanged. */
  ships: boolean
}

/** What is asked of a system while it is watched. */
export type Asked =
  | { ask: 'demands'; demands: string[] }
  /** Every channel on and every thermostat satisfied, or the other way round. */
  | { ask: 'channels' }
  | { ask: 'thermostats' }
  /** Everything off again after everything was wanted. */
  | { ask: 'off-again' }

/** What a fault shows while something is asked, beside what the whole system shows then. */
export interface Shown {
  asked: Asked
  signs: Signs
  healthy: Signs
}

export interface Symptom {
  /** The name the fault has in that system. */
  fault: string
  failure: Failure
  shown: Shown[]
}

/** More demands than this and only the first few are tried alone. */
const mostDemands = 6

/** Terminals that conductors can be on, by id and whether they bear mains. */
const outside = (type: DeviceType) =>
  type.terminals.filter((t) => !t.internal).map((t) => `${t.id}${t.extraLow ? ' extra-low' : ''}`)

/**
 * A shipped example that holds such a device, rather one in which something else can be wanted too; else one whose
 * conductors all fit it.
 */
export function standOf(type: DeviceType): Stand | undefined {
  const holding = examples.flatMap(({ id, installation }) => {
    const device = installation.devices.find((d) => d.type === type.id)
    return device ? [{ example: id, device: device.id, installation, ships: true }] : []
  })
  const [first] = holding
  if (first) return holding.find((s) => s.installation.intent.demands.length > 1) ?? first
  const terminals = new Set(outside(type))
  for (const { id, installation } of examples)
    for (const device of installation.devices) {
      const other = typeIn(installation, device.type)
      if (other.family !== type.family || !outside(other).every((t) => terminals.has(t))) continue
      const devices = installation.devices.map((d) => (d.id === device.id ? { ...d, type: type.id } : d))
      const types = [...installation.types.filter((t) => t.id !== type.id), typeEntry(type)]
      return { example: id, device: device.id, installation: { ...installation, devices, types }, ships: false }
    }
  return undefined
}

/** What a person would try: nothing, each demand alone, all of them; half of what each needs; and all off again. */
function trials(circuit: Circuit): Asked[] {
  const { demands } = circuit.installation.intent
  const ids = demands.map((d) => d.id)
  const trial = (...wanted: string[]): Asked => ({ ask: 'demands', demands: wanted })
  return [
    trial(),
    ...ids.slice(0, mostDemands).map((id) => trial(id)),
    ...(ids.length > 1 ? [trial(...ids)] : []),
    ...(demands.some((d) => d.channel && d.thermostat) ? [{ ask: 'channels' } as const] : []),
    ...(demands.some((d) => d.channel && d.thermostat) ? [{ ask: 'thermostats' } as const] : []),
    { ask: 'off-again' },
  ]
}

/** Every channel, or every thermostat, set to ask or not. */
const actionsOf = (circuit: Circuit, role: 'channel' | 'thermostat', asking: boolean) =>
  circuit.installation.intent.demands.flatMap((d) => (d[role] ? actionsFor(circuit, d[role], asking) : []))

function signsWith(circuit: Circuit, fault: string | undefined, asked: Asked): Signs {
  const rig = new Rig(circuit)
  if (fault) rig.perform({ do: 'fault', fault })
  rig.simulation.settle()
  const want = (actions: readonly Action[]) => {
    actions.forEach((action) => rig.perform(action))
    rig.simulation.settle()
  }
  const all = circuit.installation.intent.demands.map((d) => d.id)
  switch (asked.ask) {
    case 'demands':
      if (asked.demands.length > 0) want(demandActions(circuit, asked.demands))
      break
    case 'channels':
    case 'thermostats':
      want([
        ...actionsOf(circuit, 'channel', asked.ask === 'channels'),
        ...actionsOf(circuit, 'thermostat', asked.ask === 'thermostats'),
      ])
      break
    case 'off-again':
      want(demandActions(circuit, all))
      want(demandActions(circuit, []))
  }
  return signsOf(rig.simulation)
}

/**
 * What each fault of a device type shows, found by putting it into a shipped system and trying what a person would.
 * Empty where no system holds such a device.
 */
export function symptomsOf(type: DeviceType): { stand?: Stand; circuit?: Circuit; symptoms: Symptom[] } {
  const stand = standOf(type)
  if (!stand) return { symptoms: [] }
  const circuit = compile(stand.installation)
  const tried = trials(circuit)
  const healthy = tried.map((asked) => signsWith(circuit, undefined, asked))
  const symptoms = type.primitives.flatMap((part) =>
    (part.failures ?? []).map((failure): Symptom => {
      const fault = `${stand.device}.${part.id}.${failure.id}`
      const shown = tried.map((asked, i) => ({ asked, signs: signsWith(circuit, fault, asked), healthy: healthy[i] }))
      return { fault, failure, shown }
    }),
  )
  return { stand, circuit, symptoms }
}
