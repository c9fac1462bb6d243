import type { Installation } from '../installation'
import type { PlanBrief } from './brief'
import { circuitsOf, mains, PlannedSystem } from './system'

/**
 * Plans a two-port system with an unvented cylinder: a high limit in the line to the hot water valve, which closes without
 * power; a powered cylinder thermostat; a frost thermostat with a pipe thermostat in series, from line past the programmer to
 * the first heating valve; an immersion heater on a circuit of its own. The boiler's live output feeds the controls. Takes a
 * brief for one or more heating circuits and one hot water circuit.
 */
export function planUnvented(brief: PlanBrief, id: string, name: string): Installation {
  const system = new PlannedSystem(brief)
  const { layout } = system
  const { heating, hotWater } = circuitsOf(brief)
  system.mains()
  layout.function('HTG-ON', 'Heating ON')
  heating.forEach((zone, i) => layout.function(`valve-${i + 1}`, `${zone} valve`))
  layout.function('frost', 'Frost to pipe thermostat')
  layout.function('HW-ON', 'Hot water ON')
  layout.function('limit', 'Cylinder to high limit')
  layout.function('valve-hw', `${hotWater} valve`)
  layout.function('call', 'Boiler call')

  // The spur feeds the boiler, and the boiler the controls.
  system.device('spur', 'Fused spur', 'fused-spur')
  system.device('boiler', 'Boiler', 'boiler-live-output')
  system.direct('boiler-feed', 'Boiler feed', { L: 'spur.L', N: 'spur.N', E: 'spur.E' }, 'boiler', 3)
  layout.cable(
    'boiler-cable',
    'Boiler controls cable',
    'boiler',
    [
      { terminal: 'LO', use: 'line', to: 'L' },
      { terminal: 'N', use: 'neutral', to: 'N' },
      { terminal: 'E', use: 'earth', to: 'E' },
      { terminal: 'SL', use: 'switched', to: 'call' },
    ],
    3,
  )
  system.programmer({ heating: 'HTG-ON', hotWater: 'HW-ON' }, 'programmer-own-feed')
  system.secondCable('programmer-cable-2', 'Programmer second cable', 'programmer', { F: 'L' }, 8)
  const call = { boiler: 'boiler', input: 'SL' }
  heating.forEach((zone, i) => {
    const n = i + 1
    system.roomThermostat(n, zone, 'HTG-ON', `valve-${n}`)
    system.twoPortValve(`zv-${n}`, `${zone} valve`, `valve-${n}`, 'call')
    // The frost thermostat reaches every zone whose thermostat is closed, through the common heating ON.
    system.heating(n, zone, { circuit: { valves: [{ device: `zv-${n}` }] }, call, companions: ['frost'] })
  })
  system.twoWire('frost-stat', 'Frost thermostat', 'frost-thermostat', ['garage', 'Garage'], 'L', 'frost')
  system.twoWire('pipe-stat', 'Pipe thermostat', 'pipe-thermostat', ['garage', 'Garage'], 'frost', 'valve-1')
  system.demand({
    id: 'frost',
    name: 'Frost protection',
    kind: 'heating',
    channel: null,
    thermostat: { device: 'frost-stat', contact: 'contact' },
    circuit: { valves: [{ device: 'zv-1' }] },
    call,
    companions: heating.map((_, i) => `heating-${i + 1}`),
  })
  system.place('cylinder', 'Cylinder')
  system.device('cyl-stat', 'Cylinder thermostat', 'cylinder-thermostat-powered', 'cylinder')
  layout.cable(
    'cyl-stat-cable',
    'Cylinder thermostat cable',
    'cyl-stat',
    [...mains, { terminal: 'C', use: 'switched', to: 'HW-ON' }, { terminal: 'DEMAND', use: 'switched', to: 'limit' }],
    4,
    { cores: 5 },
  )
  system.twoWire('high-limit', 'High limit', 'cylinder-high-limit', ['cylinder', 'Cylinder'], 'limit', 'valve-hw')
  system.twoPortValve('zv-hw', `${hotWater} valve`, 'valve-hw', 'call')
  system.hotWater(hotWater, { circuit: { valves: [{ device: 'zv-hw' }] }, call })
  // 3 kW: 13 A at 230 V, 25 A at 120 V.
  const [breaker, flexMm2] = brief.supply === '120-60' ? [32, 4] : [16, 1.5]
  system.device('own-circuit', 'Immersion circuit', 'own-circuit', 'cylinder', { breaker })
  system.device('immersion', 'Immersion heater', 'immersion-heater', 'cylinder')
  system.direct(
    'immersion-flex',
    'Immersion heater flex',
    { L: 'own-circuit.L', N: 'own-circuit.N', E: 'own-circuit.E' },
    'immersion',
    1,
    flexMm2,
  )
  system.pump()
  return system.installation(id, name, 'Two-port, unvented cylinder')
}
