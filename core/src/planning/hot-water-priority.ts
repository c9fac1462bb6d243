import type { Installation } from '../installation'
import type { PlanBrief } from './brief'
import { circuitsOf, PlannedSystem } from './system'

/**
 * Plans hot-water priority with two calls: the heating valves' end switches call the boiler's heating input, the hot
 * water valve's end switch its hot water input; a normally open valve in the flow common to all heating is driven shut
 * together with the hot water valve. Takes a brief for one or more heating circuits and one hot water circuit.
 */
export function planHotWaterPriority(brief: PlanBrief, id: string, name: string): Installation {
  const system = new PlannedSystem(brief)
  const { layout } = system
  const { heating, hotWater } = circuitsOf(brief)
  system.mains()
  layout.function('HTG-ON', 'Heating ON')
  heating.forEach((zone, i) => layout.function(`valve-${i + 1}`, `${zone} valve`))
  layout.function('HW-ON', 'Hot water ON')
  layout.function('valve-hw', `${hotWater} valve`)
  layout.function('heating-call', 'Heating call')
  layout.function('hot-water-call', 'Hot water call')

  system.spur()
  system.programmer({ heating: 'HTG-ON', hotWater: 'HW-ON' })
  const priority = { device: 'priority-valve' }
  heating.forEach((zone, i) => {
    const n = i + 1
    system.roomThermostat(n, zone, 'HTG-ON', `valve-${n}`)
    system.twoPortValve(`zv-${n}`, `${zone} valve`, `valve-${n}`, 'heating-call')
    const call = { boiler: 'boiler', input: 'SH' }
    system.heating(n, zone, { circuit: { valves: [{ device: `zv-${n}` }, priority] }, call, priority: 1 })
  })
  system.cylinderThermostat({ C: 'HW-ON', DEMAND: 'valve-hw' })
  system.twoPortValve('zv-hw', `${hotWater} valve`, 'valve-hw', 'hot-water-call')
  system.device('priority-valve', 'Priority valve', 'two-port-valve-normally-open')
  system.lead('priority-valve', 'Priority valve', { M: 'valve-hw', N: 'N', E: 'E' })
  system.hotWater(hotWater, { circuit: { valves: [{ device: 'zv-hw' }] }, call: { boiler: 'boiler', input: 'SW' } })
  system.boiler('boiler-two-calls', 'Boiler', { SH: 'heating-call', SW: 'hot-water-call' })
  system.pump()
  return system.installation(id, name, 'Hot-water priority')
}
