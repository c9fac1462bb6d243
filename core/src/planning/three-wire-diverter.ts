import type { Installation } from '../installation'
import type { PlanBrief } from './brief'
import { circuitsOf, PlannedSystem } from './system'

/**
 * Plans a heat pump with a diverter driven both ways: the thermostats call the heat pump, and its own valve output sends
 * the diverter over while it makes hot water. Takes a brief for one heating and one hot water circuit.
 */
export function planThreeWireDiverter(brief: PlanBrief, id: string, name: string): Installation {
  const system = new PlannedSystem(brief)
  const { layout } = system
  const { heating, hotWater } = circuitsOf(brief)
  system.mains()
  layout.function('HTG-ON', 'Heating ON')
  layout.function('HW-ON', 'Hot water ON')
  layout.function('heating-call', 'Heating call')
  layout.function('hot-water-call', 'Hot water call')
  layout.function('valve', 'Valve output')

  system.spur()
  system.programmer({ heating: 'HTG-ON', hotWater: 'HW-ON' })
  system.roomThermostat(1, heating[0], 'HTG-ON', 'heating-call')
  // A heat pump makes no water that could satisfy 60 °C and its differential.
  system.cylinderThermostat({ C: 'HW-ON', DEMAND: 'hot-water-call' }, 50)
  system.boiler('heat-pump', 'Heat pump', { SH: 'heating-call', SW: 'hot-water-call' })
  layout.cable(
    'output-cable',
    'Valve output cable',
    'boiler',
    [
      { terminal: 'VL', use: 'switched', to: 'valve' },
      { terminal: null, use: 'earth', to: 'E' },
    ],
    3,
    { cores: 3 },
  )
  system.device('valve', 'Diverter valve', 'three-wire-valve')
  layout.cable(
    'valve-cable',
    'Diverter valve cable',
    'valve',
    [
      { terminal: 'L', use: 'line', to: 'L' },
      { terminal: 'N', use: 'neutral', to: 'N' },
      { terminal: null, use: 'earth', to: 'E' },
      { terminal: 'SL', use: 'switched', to: 'valve' },
    ],
    2,
  )
  system.pump()
  system.heating(1, heating[0], {
    circuit: { valves: [{ device: 'valve', port: 'heating' }] },
    call: { boiler: 'boiler', input: 'SH' },
    priority: 1,
  })
  system.hotWater(hotWater, {
    circuit: { valves: [{ device: 'valve', port: 'hot-water' }] },
    call: { boiler: 'boiler', input: 'SW' },
  })
  return system.installation(id, name, 'Heat pump, diverter driven both ways')
}
