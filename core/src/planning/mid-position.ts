import type { Installation } from '../installation'
import type { PlanBrief } from './brief'
import { circuitsOf, PlannedSystem } from './system'

/**
 * Plans a mid-position system: one three-port valve for heating and hot water. Heating ON → room thermostat → white;
 * hot water ON → cylinder thermostat; DEMAND, orange and the boiler's call joined; SATISFIED, grey and hot water OFF
 * joined. Takes a brief for one heating and one hot water circuit.
 */
export function planMidPosition(brief: PlanBrief, id: string, name: string): Installation {
  const system = new PlannedSystem(brief)
  const { layout } = system
  const {
    heating: [heating],
    hotWater,
  } = circuitsOf(brief)
  system.mains()
  for (const [id, legend] of [
    ['HTG-ON', 'Heating ON'],
    ['heating', 'Heating to valve'],
    ['HW-ON', 'Hot water ON'],
    ['call', 'Boiler call'],
    ['off', 'Hot water satisfied'],
  ])
    layout.function(id, legend)

  system.spur()
  system.programmer({ heating: 'HTG-ON', hotWater: 'HW-ON' })
  // Line, neutral, earth and two ON fill five cores: hot water OFF needs a second cable.
  system.furtherCable('programmer', 'Programmer', { 'HW-OFF': 'off' }, 8)
  system.roomThermostat(1, heating, 'HTG-ON', 'heating')
  system.cylinderThermostat({ C: 'HW-ON', DEMAND: 'call', SATISFIED: 'off' })
  // At 120 V the same watts need a resistor smaller by the square of the volts.
  const settings: Record<string, number> = brief.supply === '120-60' ? { hold: 1840 } : {}
  system.device('valve', 'Mid-position valve', 'mid-position-valve', undefined, settings)
  system.lead('valve', 'Mid-position valve', { W: 'heating', G: 'off', O: 'call', N: 'N', E: 'E' })

  system.boiler('boiler-switched-live', 'Boiler', { SL: 'call' })
  system.pump()

  const call = { boiler: 'boiler', input: 'SL' }
  system.heating(1, heating, { circuit: { valves: [{ device: 'valve', port: 'A' }] }, call })
  system.hotWater(hotWater, { circuit: { valves: [{ device: 'valve', port: 'B' }] }, call })
  return system.installation(id, name, 'Mid-position')
}
