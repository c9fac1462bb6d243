import type { Demand, Installation } from '../installation'
import type { PlanBrief } from './brief'
import { mains, PlannedSystem } from './system'

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

  system.place('controls', 'Programmer position')
  system.device('spur', 'Fused spur', 'fused-spur')
  system.device('programmer', 'Programmer', 'programmer-two-channel', 'controls')

  layout.function('L', 'Line')
  layout.function('N', 'Neutral')
  layout.function('E', 'Earth')
  if (heating.length > 0) layout.function('HTG-ON', 'Heating ON')
  heating.forEach((c, i) => layout.function(`valve-${i + 1}`, `${c.name} valve`))
  if (hotWater) {
    layout.function('HW-ON', 'Hot water ON')
    layout.function('valve-hw', `${hotWater.name} valve`)
  }
  layout.function('call', 'Boiler call')

  layout.cable('supply', 'Supply cable', 'spur', mains, 1, { cores: 3 })
  layout.cable(
    'programmer-cable',
    'Programmer cable',
    'programmer',
    [
      { terminal: 'L', use: 'line', to: 'L' },
      { terminal: 'N', use: 'neutral', to: 'N' },
      { terminal: null, use: 'earth', to: 'E' },
      ...(heating.length > 0 ? [{ terminal: 'HTG-ON', use: 'switched' as const, to: 'HTG-ON' }] : []),
      ...(hotWater ? [{ terminal: 'HW-ON', use: 'switched' as const, to: 'HW-ON' }] : []),
    ],
    8,
  )

  heating.forEach((circuit, i) => {
    const n = i + 1
    system.place(`zone-${n}`, circuit.name)
    system.device(`stat-${n}`, `${circuit.name} thermostat`, 'room-thermostat-neutral', `zone-${n}`)
    system.device(`zv-${n}`, `${circuit.name} valve`, 'two-port-valve')
    layout.cable(
      `stat-${n}-cable`,
      `${circuit.name} thermostat cable`,
      `stat-${n}`,
      [
        { terminal: 'L', use: 'line', to: 'HTG-ON' },
        { terminal: 'N', use: 'neutral', to: 'N' },
        { terminal: 'E', use: 'earth', to: 'E' },
        { terminal: 'SL', use: 'switched', to: `valve-${n}` },
      ],
      12,
    )
    system.lead(`zv-${n}`, `${circuit.name} valve`, valveEnds(`valve-${n}`))
    system.demand(demand(`heating-${n}`, circuit.name, 'heating', `stat-${n}`, `zv-${n}`))
  })

  if (hotWater) {
    system.place('cylinder', 'Cylinder')
    system.device('cyl-stat', 'Cylinder thermostat', 'cylinder-thermostat', 'cylinder')
    system.device('zv-hw', `${hotWater.name} valve`, 'two-port-valve')
    layout.cable(
      'cyl-stat-cable',
      'Cylinder thermostat cable',
      'cyl-stat',
      [
        { terminal: 'C', use: 'line', to: 'HW-ON' },
        { terminal: 'DEMAND', use: 'switched', to: 'valve-hw' },
        { terminal: 'E', use: 'earth', to: 'E' },
      ],
      4,
    )
    system.lead('zv-hw', `${hotWater.name} valve`, valveEnds('valve-hw'))
    system.demand(demand('hot-water', hotWater.name, 'hot-water', 'cyl-stat', 'zv-hw'))
  }

  system.device('boiler', 'Boiler', 'boiler-switched-live')
  layout.cable('boiler-cable', 'Boiler cable', 'boiler', [...mains, { terminal: 'SL', use: 'switched', to: 'call' }], 3)
  system.pump()
  return system.installation(id, name, 'Two-port')
}

/** Where the ends of a two-port valve's lead go. */
const valveEnds = (motor: string) => ({ M: motor, N: 'N', E: 'E', SF: 'L', SO: 'call' })

function demand(
  id: string,
  name: string,
  kind: Demand['kind'],
  thermostat: string,
  valve: string,
): Omit<Demand, 'companions' | 'priority'> {
  return {
    id,
    name,
    kind,
    channel: { device: 'programmer', contact: kind },
    thermostat: { device: thermostat, contact: 'contact' },
    circuit: { valves: [{ device: valve }] },
    call: { boiler: 'boiler', input: 'SL' },
  }
}
