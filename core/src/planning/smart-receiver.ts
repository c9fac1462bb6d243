import type { Installation } from '../installation'
import type { PlanBrief } from './brief'
import { circuitsOf, PlannedSystem } from './system'

/**
 * Plans a two-port system on a two-channel smart receiver: both its commons are fed from line; heating goes straight to the
 * heating valve, hot water to the cylinder thermostat's common. The pump lies beside the boiler's call. Takes a brief for one
 * heating and one hot water circuit.
 */
export function planSmartReceiver(brief: PlanBrief, id: string, name: string): Installation {
  const system = new PlannedSystem(brief)
  const { layout } = system
  const { heating, hotWater } = circuitsOf(brief)
  system.mains()
  layout.function('valve-1', `${heating[0]} valve`)
  layout.function('HW-ON', 'Hot water ON')
  layout.function('valve-hw', `${hotWater} valve`)
  layout.function('call', 'Boiler call')

  system.spur()
  system.device('receiver', 'Receiver', 'smart-receiver-two-channel')
  system.powered('receiver', 'Receiver', { 'H-NO': 'valve-1', 'W-NO': 'HW-ON' }, 3)
  layout.link('receiver.L', 'receiver.H-COM')
  layout.link('receiver.H-COM', 'receiver.W-COM')
  system.twoPortValve('zv-1', `${heating[0]} valve`, 'valve-1', 'call')
  system.cylinderThermostat({ C: 'HW-ON', DEMAND: 'valve-hw' })
  system.twoPortValve('zv-hw', `${hotWater} valve`, 'valve-hw', 'call')
  system.boiler('boiler-pump-beside', 'Boiler', { SL: 'call' })
  system.pumpOn('call')

  const call = { boiler: 'boiler', input: 'SL' }
  system.demand({
    id: 'heating-1',
    name: heating[0],
    kind: 'heating',
    channel: null,
    thermostat: { device: 'receiver', contact: 'heating' },
    circuit: { valves: [{ device: 'zv-1' }] },
    call,
  })
  system.hotWater(hotWater, {
    channel: { device: 'receiver', contact: 'water' },
    circuit: { valves: [{ device: 'zv-hw' }] },
    call,
  })
  return system.installation(id, name, 'Two-port, smart receiver')
}
