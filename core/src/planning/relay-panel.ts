import type { Installation } from '../installation'
import type { PlanBrief } from './brief'
import { thermostatWire } from '../catalogue'
import { circuitsOf, PlannedSystem } from './system'

/**
 * Plans a low-voltage system with a relay panel: each thermostat pulls a relay of its zone, one pole of which feeds the
 * valve and the other calls the boiler; all calls lie in parallel. Takes a brief for one or more heating circuits.
 */
export function planRelayPanel(brief: PlanBrief, id: string, name: string): Installation {
  const system = new PlannedSystem(brief)
  const { layout } = system
  const zones = circuitsOf(brief).heating
  layout.function('V', '24 V fed')
  layout.function('C', '24 V common')
  zones.forEach((zone, i) => {
    layout.function(`coil-${i + 1}`, `${zone} relay`)
    layout.function(`valve-${i + 1}`, `${zone} valve`)
  })
  layout.function('T1', 'Boiler call feed')
  layout.function('T2', 'Boiler call return')

  system.device('spur', 'Fused spur', 'fused-spur')
  system.transformer(zones.length)
  zones.forEach((zone, i) => {
    const n = i + 1
    system.voltFreeThermostat(n, zone, 'V', `coil-${n}`)
    const relay = `relay-${n}`
    system.device(relay, `${zone} relay`, 'zone-relay-24')
    layout.lead(`${relay}-wires`, `${zone} relay wires`, relay, [
      { terminal: 'A1', colour: 'white', to: `coil-${n}` },
      { terminal: 'A2', colour: 'green', to: 'C' },
      { terminal: '11', colour: 'red', to: 'V' },
      { terminal: '14', colour: 'yellow', to: `valve-${n}` },
      { terminal: '21', colour: 'blue', to: 'T1' },
      { terminal: '24', colour: 'orange', to: 'T2' },
    ])
    // Its end switch stays out of it: the relay's second pole calls.
    system.device(`zv-${n}`, `${zone} valve`, 'zone-valve-24-three-screw')
    layout.cable(
      `zv-${n}-cable`,
      `${zone} valve cable`,
      `zv-${n}`,
      [
        { terminal: 'F', use: 'line', to: `valve-${n}` },
        { terminal: 'M', use: 'switched', to: 'C' },
      ],
      5,
      { cores: 2, colours: thermostatWire },
    )
    system.heating(n, zone, {
      circuit: { valves: [{ device: `zv-${n}` }] },
      call: { boiler: 'boiler', input: 'T' },
      channel: null,
    })
  })
  system.voltFreeBoiler()
  system.pump()
  return system.installation(id, name, 'Low voltage, relay panel')
}
