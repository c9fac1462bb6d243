import type { Installation } from '../installation'
import type { PlanBrief } from './brief'
import { circuitsOf, mains, PlannedSystem } from './system'

/**
 * Plans a single zone whose mains controls call a boiler without volts: a volt-free time switch feeds a mains-powered
 * thermostat, which pulls in a relay; its contact closes the boiler's call. A fuse in the wiring centre guards the controls.
 * Takes a brief for one heating circuit.
 */
export function planSingleZoneRelay(brief: PlanBrief, id: string, name: string): Installation {
  const system = new PlannedSystem(brief)
  const { layout } = system
  const [zone] = circuitsOf(brief).heating
  layout.function('in', 'Supply, before the fuse')
  system.mains()
  layout.function('HTG-ON', 'Heating ON')
  layout.function('coil', `${zone} relay`)
  layout.function('T1', 'Call feed')
  layout.function('T2', 'Call return')

  system.device('spur', 'Fused spur', 'fused-spur')
  layout.cable('supply', 'Supply cable', 'spur', [{ ...mains[0], to: 'in' }, ...mains.slice(1)], 1, { cores: 3 })
  system.device('fuse', 'Controls fuse', 'box-fuse')
  layout.lead('fuse-wires', 'Controls fuse wires', 'fuse', [
    { terminal: 'IN', colour: 'brown', to: 'in' },
    { terminal: 'OUT', colour: 'brown', to: 'L' },
  ])
  system.place('controls', 'Time switch position')
  system.device('programmer', 'Time switch', 'programmer-volt-free', 'controls')
  system.powered('programmer', 'Time switch', { COM: 'L', NO: 'HTG-ON' }, 8)
  system.place('zone-1', zone)
  system.device('stat-1', `${zone} thermostat`, 'room-thermostat-powered', 'zone-1')
  system.powered('stat-1', `${zone} thermostat`, { COM: 'HTG-ON', NO: 'coil' }, 12)
  system.device('relay', `${zone} relay`, 'relay-mains')
  layout.lead('relay-wires', `${zone} relay wires`, 'relay', [
    { terminal: 'A1', colour: 'brown', to: 'coil' },
    { terminal: 'A2', colour: 'blue', to: 'N' },
    { terminal: '11', colour: 'red', to: 'T1' },
    { terminal: '14', colour: 'white', to: 'T2' },
  ])
  system.voltFreeBoiler()
  system.pump()
  system.heating(1, zone, { circuit: { valves: [] }, call: { boiler: 'boiler', input: 'T' } })
  return system.installation(id, name, 'Single zone, relay call')
}
