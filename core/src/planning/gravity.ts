import type { Installation } from '../installation'
import type { PlanBrief } from './brief'
import { circuitsOf, PlannedSystem } from './system'

/**
 * Plans gravity hot water with pumped heating: hot water ON switches the boiler's line, heating ON runs the pump through the
 * room thermostat. The programmer is set so that heating cannot run without hot water. Takes a brief for one heating and one
 * hot water circuit.
 */
export function planGravity(brief: PlanBrief, id: string, name: string): Installation {
  const system = new PlannedSystem(brief)
  const { layout } = system
  const { heating, hotWater } = circuitsOf(brief)
  system.mains()
  layout.function('HTG-ON', 'Heating ON')
  layout.function('pump', `${heating[0]} pump`)
  layout.function('HW-ON', 'Boiler line')

  system.spur()
  system.programmer({ heating: 'HTG-ON', hotWater: 'HW-ON' }, undefined, { slider: 1 })
  system.roomThermostat(1, heating[0], 'HTG-ON', 'pump')
  system.device('boiler', 'Boiler', 'boiler-switched-line')
  layout.cable(
    'boiler-cable',
    'Boiler cable',
    'boiler',
    [
      { terminal: 'L', use: 'switched', to: 'HW-ON' },
      { terminal: 'N', use: 'neutral', to: 'N' },
      { terminal: 'E', use: 'earth', to: 'E' },
    ],
    3,
    { cores: 3 },
  )
  system.pumpOn('pump')

  const call = { boiler: 'boiler', input: 'L' }
  system.heating(1, heating[0], { circuit: { valves: [], runs: ['pump'] }, call, companions: ['hot-water'] })
  system.hotWater(hotWater, { circuit: { valves: [] }, call, thermostat: null })
  return system.installation(id, name, 'Gravity hot water, pumped heating')
}
