import type { Installation } from '../installation'
import type { PlanBrief } from './brief'
import { thermostatWire } from '../catalogue'
import { circuitsOf, PlannedSystem, spurLoad } from './system'

/**
 * Plans zones with fan convectors: each zone's 24 V thermostat pulls in a switching relay, which starts the fan, and opens a
 * 24 V zone valve beside it, whose end switch starts the circulator of a boiler that keeps its own temperature. Each relay
 * brings its own 24 V: the zones' supplies are never joined. Takes a brief for one or more heating circuits.
 */
export function planFanConvector(brief: PlanBrief, id: string, name: string): Installation {
  const system = new PlannedSystem(brief)
  const { layout } = system
  const zones = circuitsOf(brief).heating
  zones.forEach((zone, i) => {
    layout.function(`R-${i + 1}`, `${zone} 24 V`)
    layout.function(`W-${i + 1}`, `${zone} call`)
    layout.function(`C-${i + 1}`, `${zone} common`)
  })
  layout.function('T1', 'Circulator call feed')
  layout.function('T2', 'Circulator call return')

  system.device('spur', 'Fused spur', 'fused-spur')
  zones.forEach((zone, i) => {
    const n = i + 1
    const [relay, fan] = [`relay-${n}`, `fan-${n}`]
    system.voltFreeThermostat(n, zone, `R-${n}`, `W-${n}`)
    system.device(relay, `${zone} switching relay`, 'switching-relay')
    system.device(fan, `${zone} fan convector`, 'fan-convector', `zone-${n}`)
    system.direct(`${relay}-feed`, `${zone} relay feed`, spurLoad, relay, 2)
    layout.cable(
      `${relay}-cable`,
      `${zone} relay 24 V cable`,
      relay,
      [
        { terminal: 'R', use: 'line', to: `R-${n}` },
        { terminal: 'W', use: 'switched', to: `W-${n}` },
        { terminal: 'C', use: 'neutral', to: `C-${n}` },
      ],
      1,
      { cores: 4, colours: thermostatWire },
    )
    system.direct(`${fan}-cable`, `${zone} fan cable`, { L: `${relay}.SL`, N: `${relay}.SN`, E: `${relay}.SE` }, fan, 6)
    system.device(`zv-${n}`, `${zone} valve`, 'zone-valve-24')
    system.lead(`zv-${n}`, `${zone} valve`, { M1: `W-${n}`, M2: `C-${n}`, S1: 'T1', S2: 'T2' })
    system.heating(n, zone, {
      circuit: { valves: [{ device: `zv-${n}` }], runs: [fan] },
      call: { boiler: 'boiler', input: 'T' },
      channel: null,
    })
  })
  system.voltFreeBoiler('boiler-own-temperature')
  system.pump('Circulator')
  return system.installation(id, name, 'Switching relay with a fan convector')
}
