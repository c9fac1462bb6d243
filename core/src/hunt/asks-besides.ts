import { leavesOf } from '../catalogue'
import { nth } from '../lists'
import { calledPhases, type Simulation } from '../simulation'
import { wanted } from '../trace'

/** A device that belongs to no service asks by itself. */
export interface AsksBesides {
  why: 'asks-besides'
  device: string
}

/**
 * What calls the boiler though no service is asked for: something that feels for itself and belongs to no service, like a frost
 * thermostat. Each is tried: with its contact open there is no call.
 */
export function asksBesides(sim: Simulation): AsksBesides[] {
  const { circuit } = sim
  const { demands } = circuit.installation.intent
  if (!isCalled(sim) || demands.some((demand) => wanted(sim, demand))) return []
  const own = new Set(demands.flatMap(({ channel, thermostat }) => [channel?.device, thermostat?.device]))
  const devices = circuit.contacts.flatMap(({ device, closedWhen }, index) => {
    const { id } = nth(circuit.devices, device).device
    const feels = leavesOf(closedWhen).some((leaf) => 'sensor' in leaf)
    if (!feels || own.has(id) || !sim.contactClosed(index)) return []
    const without = sim.fork()
    without.putIn('tried', [{ part: 'contact', index, held: 'open' }])
    without.settle()
    return isCalled(without) ? [] : [id]
  })
  return [...new Set(devices)].map((device) => ({ why: 'asks-besides', device }))
}

const isCalled = (sim: Simulation): boolean =>
  sim.circuit.behaviours.some((_, i) => calledPhases.has(sim.phase(i).phase))
