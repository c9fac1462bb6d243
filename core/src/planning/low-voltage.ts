import type { Installation } from '../installation'
import type { PlanBrief } from './brief'
import { circuitsOf, PlannedSystem } from './system'

/**
 * Plans a low-voltage system with end-switch call: a 24 V transformer feeds each zone's thermostat and, through it, its
 * valve; the end switches, in parallel, close the boiler's volt-free call. Only extra-low voltage enters the
 * wiring centre. Takes a brief for heating circuits only.
 */
export function planLowVoltage(brief: PlanBrief, id: string, name: string): Installation {
  const system = new PlannedSystem(brief)
  const { layout } = system
  const zones = circuitsOf(brief).heating
  layout.function('V', '24 V fed')
  layout.function('C', '24 V common')
  zones.forEach((zone, i) => layout.function(`valve-${i + 1}`, `${zone} valve`))
  layout.function('T1', 'Boiler call feed')
  layout.function('T2', 'Boiler call return')

  system.device('spur', 'Fused spur', 'fused-spur')
  system.transformer(zones.length)
  zones.forEach((zone, i) => {
    const n = i + 1
    system.voltFreeThermostat(n, zone, 'V', `valve-${n}`)
    system.device(`zv-${n}`, `${zone} valve`, 'zone-valve-24')
    system.lead(`zv-${n}`, `${zone} valve`, { M1: `valve-${n}`, M2: 'C', S1: 'T1', S2: 'T2' })
    system.heating(n, zone, {
      circuit: { valves: [{ device: `zv-${n}` }] },
      call: { boiler: 'boiler', input: 'T' },
      channel: null,
    })
  })
  system.voltFreeBoiler()
  system.pump()
  return system.installation(id, name, 'Low voltage, end-switch call')
}
