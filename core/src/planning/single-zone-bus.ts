import type { Installation } from '../installation'
import type { PlanBrief } from './brief'
import { thermostatWire } from '../catalogue'
import { circuitsOf, PlannedSystem } from './system'

/**
 * Plans a single zone over a digital bus: receiver and boiler are joined by two extra-low-voltage wires that do not pass the
 * wiring centre, which holds mains. Takes a brief for one heating circuit.
 */
export function planSingleZoneBus(brief: PlanBrief, id: string, name: string): Installation {
  const system = new PlannedSystem(brief)
  const [zone] = circuitsOf(brief).heating
  system.mains()
  system.spur()
  system.device('receiver', `${zone} receiver`, 'bus-receiver')
  system.powered('receiver', `${zone} receiver`, {}, 2)
  system.boiler('boiler-bus', 'Boiler', {})
  const [one, other] = thermostatWire.bySize[2]
  system.layout.direct(
    'bus-cable',
    'Bus cable',
    [
      { colour: one, from: 'receiver.B1', to: 'boiler.B1' },
      { colour: other, from: 'receiver.B2', to: 'boiler.B2' },
    ],
    3,
  )
  system.pump()
  system.demand({
    id: 'heating-1',
    name: zone,
    kind: 'heating',
    channel: null,
    thermostat: { device: 'receiver', contact: 'heating' },
    circuit: { valves: [] },
    call: { boiler: 'boiler', input: 'bus' },
  })
  return system.installation(id, name, 'Single zone, digital bus')
}
