import type { Installation } from '../installation'
import type { PlanBrief } from './brief'
import { circuitsOf, PlannedSystem } from './system'

/**
 * Plans a single zone on an electric boiler: a time switch feeds a programmable thermostat, which calls; the boiler heats
 * from a circuit of its own, so that two supplies meet in it. Takes a brief for one heating circuit.
 */
export function planSingleZoneElectric(brief: PlanBrief, id: string, name: string): Installation {
  const system = new PlannedSystem(brief)
  const { layout } = system
  const [zone] = circuitsOf(brief).heating
  system.mains()
  layout.function('HTG-ON', 'Heating ON')
  layout.function('call', 'Boiler call')
  system.spur()
  system.programmer({ heating: 'HTG-ON' }, 'programmer-one-channel')
  system.poweredThermostat(1, zone, 'HTG-ON', 'call', 'room-thermostat-programmable')
  system.device('own-circuit', 'Boiler circuit', 'own-circuit')
  // On a single 120 V circuit of 32 A there is room for half the elements.
  const elements: Record<string, number> = brief.supply === '120-60' ? { element: 3000 } : {}
  system.device('boiler', 'Electric boiler', 'boiler-electric', 'plant', elements)
  system.direct(
    'boiler-feed',
    'Boiler feed',
    { L: 'own-circuit.L', N: 'own-circuit.N', E: 'own-circuit.E' },
    'boiler',
    4,
    // Behind a breaker of 32 A.
    4,
  )
  layout.cable(
    'call-cable',
    'Boiler call cable',
    'boiler',
    [
      { terminal: 'SL', use: 'switched', to: 'call' },
      { terminal: 'SN', use: 'neutral', to: 'N' },
      { terminal: null, use: 'earth', to: 'E' },
    ],
    3,
    { cores: 3 },
  )
  system.pump()
  system.heating(1, zone, { circuit: { valves: [] }, call: { boiler: 'boiler', input: 'SL' } })
  return system.installation(id, name, 'Single zone, electric boiler')
}
