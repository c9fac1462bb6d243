import type { Installation } from '../installation'
import type { PlanBrief } from './brief'
import { circuitsOf, PlannedSystem } from './system'

/**
 * Plans a single zone on a boiler with a volt-free call: a battery thermostat closes the call, and times it itself. The
 * wiring centre holds extra-low voltage only. Takes a brief for one heating circuit.
 */
export function planSingleZone(brief: PlanBrief, id: string, name: string): Installation {
  const system = new PlannedSystem(brief)
  const { layout } = system
  const [zone] = circuitsOf(brief).heating
  layout.function('T1', 'Call feed')
  layout.function('T2', 'Call return')
  system.device('spur', 'Fused spur', 'fused-spur')
  system.voltFreeBoiler()
  system.voltFreeThermostat(1, zone, 'T1', 'T2')
  system.pump()
  system.heating(1, zone, { circuit: { valves: [] }, call: { boiler: 'boiler', input: 'T' }, channel: null })
  return system.installation(id, name, 'Single zone, volt-free call')
}
