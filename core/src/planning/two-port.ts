import type { Installation } from '../installation'
import type { PlanBrief } from './brief'
import { PlannedSystem } from './system'

/**
 * Plans a two-port system: one normally closed valve per circuit, programmer ON → thermostat → valve motor, end
 * switches in parallel from permanent live to the boiler's call. Heating circuits share the programmer's heating
 * channel. Takes a parsed brief; returns a parsed document.
 */
export function planTwoPort(brief: PlanBrief, id: string, name: string): Installation {
  const system = new PlannedSystem(brief)
  const { layout } = system
  const heating = brief.circuits.filter((c) => c.kind === 'heating')
  const hotWater = brief.circuits.find((c) => c.kind === 'hot-water')

  system.mains()
  if (heating.length > 0) layout.function('HTG-ON', 'Heating ON')
  heating.forEach((c, i) => layout.function(`valve-${i + 1}`, `${c.name} valve`))
  if (hotWater) {
    layout.function('HW-ON', 'Hot water ON')
    layout.function('valve-hw', `${hotWater.name} valve`)
  }
  layout.function('call', 'Boiler call')

  system.spur()
  system.programmer({ heating: heating.length > 0 ? 'HTG-ON' : undefined, hotWater: hotWater ? 'HW-ON' : undefined })
  const call = { boiler: 'boiler', input: 'SL' }
  heating.forEach((circuit, i) => {
    const n = i + 1
    system.roomThermostat(n, circuit.name, 'HTG-ON', `valve-${n}`)
    system.twoPortValve(`zv-${n}`, `${circuit.name} valve`, `valve-${n}`, 'call')
    system.heating(n, circuit.name, { circuit: { valves: [{ device: `zv-${n}` }] }, call })
  })
  if (hotWater) {
    system.cylinderThermostat({ C: 'HW-ON', DEMAND: 'valve-hw' })
    system.twoPortValve('zv-hw', `${hotWater.name} valve`, 'valve-hw', 'call')
    system.hotWater(hotWater.name, { circuit: { valves: [{ device: 'zv-hw' }] }, call })
  }
  system.boiler('boiler-switched-live', 'Boiler', { SL: 'call' })
  system.pump()
  return system.installation(id, name, 'Two-port')
}
