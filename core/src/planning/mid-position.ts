import type { Installation } from '../installation'
import type { PlanBrief } from './brief'
import { mains, PlannedSystem } from './system'

/**
 * Plans a mid-position system: one three-port valve for heating and hot water. Heating ON → room thermostat → white;
 * hot water ON → cylinder thermostat; DEMAND, orange and the boiler's call joined; SATISFIED, grey and hot water OFF
 * joined. Takes a brief for one heating and one hot water circuit.
 */
export function planMidPosition(brief: PlanBrief, id: string, name: string): Installation {
  const system = new PlannedSystem(brief)
  const { layout } = system
  const heating = brief.circuits.find((c) => c.kind === 'heating')!.name
  const hotWater = brief.circuits.find((c) => c.kind === 'hot-water')!.name
  system.place('controls', 'Programmer position')
  system.place('zone-1', heating)
  system.place('cylinder', 'Cylinder')

  for (const [id, legend] of [
    ['L', 'Line'],
    ['N', 'Neutral'],
    ['E', 'Earth'],
    ['HTG-ON', 'Heating ON'],
    ['heating', 'Heating to valve'],
    ['HW-ON', 'Hot water ON'],
    ['call', 'Boiler call'],
    ['off', 'Hot water satisfied'],
  ])
    layout.function(id, legend)

  system.device('spur', 'Fused spur', 'fused-spur')
  layout.cable('supply', 'Supply cable', 'spur', mains, 1, { cores: 3 })
  system.device('programmer', 'Programmer', 'programmer-two-channel', 'controls')
  // Line, neutral, two ON and one OFF: five conductors; the plastic plate needs no earth and its core serves nothing else.
  layout.cable(
    'programmer-cable',
    'Programmer cable',
    'programmer',
    [
      { terminal: 'L', use: 'line', to: 'L' },
      { terminal: 'N', use: 'neutral', to: 'N' },
      { terminal: null, use: 'earth', to: 'E' },
      { terminal: 'HTG-ON', use: 'switched', to: 'HTG-ON' },
      { terminal: 'HW-ON', use: 'switched', to: 'HW-ON' },
    ],
    8,
    { cores: 5 },
  )
  layout.cable(
    'programmer-cable-2',
    'Programmer second cable',
    'programmer',
    [
      { terminal: 'HW-OFF', use: 'switched', to: 'off' },
      { terminal: null, use: 'earth', to: 'E' },
    ],
    8,
    { cores: 3 },
  )
  system.device('stat-1', `${heating} thermostat`, 'room-thermostat-neutral', 'zone-1')
  layout.cable(
    'stat-1-cable',
    `${heating} thermostat cable`,
    'stat-1',
    [
      { terminal: 'L', use: 'line', to: 'HTG-ON' },
      { terminal: 'N', use: 'neutral', to: 'N' },
      { terminal: 'E', use: 'earth', to: 'E' },
      { terminal: 'SL', use: 'switched', to: 'heating' },
    ],
    12,
  )
  system.device('cyl-stat', 'Cylinder thermostat', 'cylinder-thermostat', 'cylinder')
  layout.cable(
    'cyl-stat-cable',
    'Cylinder thermostat cable',
    'cyl-stat',
    [
      { terminal: 'C', use: 'line', to: 'HW-ON' },
      { terminal: 'DEMAND', use: 'switched', to: 'call' },
      { terminal: 'SATISFIED', use: 'switched', to: 'off' },
      { terminal: 'E', use: 'earth', to: 'E' },
    ],
    4,
  )
  system.device('valve', 'Mid-position valve', 'mid-position-valve')
  system.lead('valve', 'Mid-position valve', { W: 'heating', G: 'off', O: 'call', N: 'N', E: 'E' })

  system.device('boiler', 'Boiler', 'boiler-switched-live')
  layout.cable('boiler-cable', 'Boiler cable', 'boiler', [...mains, { terminal: 'SL', use: 'switched', to: 'call' }], 3)
  system.pump()

  const call = { boiler: 'boiler', input: 'SL' }
  system.demand({
    id: 'heating-1',
    name: heating,
    kind: 'heating',
    channel: { device: 'programmer', contact: 'heating' },
    thermostat: { device: 'stat-1', contact: 'contact' },
    circuit: { valves: [{ device: 'valve', port: 'A' }] },
    call,
  })
  system.demand({
    id: 'hot-water',
    name: hotWater,
    kind: 'hot-water',
    channel: { device: 'programmer', contact: 'hot-water' },
    thermostat: { device: 'cyl-stat', contact: 'contact' },
    circuit: { valves: [{ device: 'valve', port: 'B' }] },
    call,
  })
  return system.installation(id, name, 'Mid-position')
}
