import type { Installation } from '../installation'
import type { PlanBrief } from './brief'
import { circuitsOf, PlannedSystem } from './system'

/**
 * Plans a diverter system, spring return, hot water first: the cylinder thermostat drives the valve over, whose switch at
 * the hot water end calls the boiler; the room thermostat calls it separately. The valve's drive and the boiler's call are
 * never joined: a heating call would send the valve over. Takes a brief for one heating and one hot water circuit.
 */
export function planDiverter(brief: PlanBrief, id: string, name: string): Installation {
  const system = new PlannedSystem(brief)
  const { layout } = system
  const { heating, hotWater } = circuitsOf(brief)
  system.mains()
  layout.function('HTG-ON', 'Heating ON')
  layout.function('HW-ON', 'Hot water ON')
  layout.function('valve', `${hotWater} to valve`)
  layout.function('call', 'Boiler call')

  system.spur()
  system.programmer({ heating: 'HTG-ON', hotWater: 'HW-ON' })
  system.roomThermostat(1, heating[0], 'HTG-ON', 'call')
  system.cylinderThermostat({ C: 'HW-ON', DEMAND: 'valve' })
  system.device('valve', 'Diverter valve', 'diverter-valve')
  system.lead('valve', 'Diverter valve', { M: 'valve', N: 'N', E: 'E', SF: 'L', SO: 'call' })
  system.boiler('boiler-switched-live', 'Boiler', { SL: 'call' })
  system.pump()

  const call = { boiler: 'boiler', input: 'SL' }
  system.heating(1, heating[0], { circuit: { valves: [{ device: 'valve', port: 'heating' }] }, call, priority: 1 })
  system.hotWater(hotWater, { circuit: { valves: [{ device: 'valve', port: 'hot-water' }] }, call })
  return system.installation(id, name, 'Diverter, spring return')
}
