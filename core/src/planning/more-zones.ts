import type { Installation } from '../installation'
import type { PlanBrief } from './brief'
import { circuitsOf, namesOf, PlannedSystem } from './system'

/**
 * Plans a two-port system with more zones: towel rails timed by a third channel; underfloor rooms on a manifold controller
 * whose contact drives the underfloor valve; zones prepared for a thermostat that comes later, whose feed and switched live
 * meet in a connector until then. Takes a brief for one or more heating circuits and any of the others.
 */
export function planMoreZones(brief: PlanBrief, id: string, name: string): Installation {
  const system = new PlannedSystem(brief)
  const { layout } = system
  const { heating, hotWater } = circuitsOf(brief)
  const hasHotWater = namesOf(brief, 'hot-water').length > 0
  const [towels] = namesOf(brief, 'towel-rails')
  const rooms = namesOf(brief, 'underfloor')
  const later = namesOf(brief, 'later')
  system.mains()
  layout.function('HTG-ON', 'Heating ON')
  heating.forEach((zone, i) => layout.function(`valve-${i + 1}`, `${zone} valve`))
  later.forEach((zone, i) => layout.function(`later-${i + 1}`, `${zone} valve`))
  if (rooms.length > 0) layout.function('valve-u', 'Underfloor valve')
  if (towels) layout.function('valve-t', `${towels} valve`)
  if (hasHotWater) {
    layout.function('HW-ON', 'Hot water ON')
    layout.function('valve-hw', `${hotWater} valve`)
  }
  layout.function('call', 'Boiler call')

  system.spur()
  system.programmer({ heating: 'HTG-ON', hotWater: hasHotWater ? 'HW-ON' : undefined }, 'programmer-three-channel')
  if (towels)
    system.secondCable('programmer-cable-2', 'Programmer second cable', 'programmer', { 'X-ON': 'valve-t' }, 8)
  const call = { boiler: 'boiler', input: 'SL' }
  heating.forEach((zone, i) => {
    const n = i + 1
    system.roomThermostat(n, zone, 'HTG-ON', `valve-${n}`, i % 2 === 0 ? undefined : 'room-thermostat-two-wire')
    system.twoPortValve(`zv-${n}`, `${zone} valve`, `valve-${n}`, 'call')
    system.heating(n, zone, { circuit: { valves: [{ device: `zv-${n}` }] }, call })
  })
  later.forEach((zone, i) => {
    const n = i + 1
    system.place(`later-${n}`, zone)
    system.connector(`later-${n}-joint`, `${zone} connector`, `later-${n}`)
    const joined = { terminal: null, use: 'switched' as const, connector: `later-${n}-joint` }
    layout.cable(
      `later-${n}-cable`,
      `${zone} thermostat cable`,
      `later-${n}`,
      [
        { ...joined, use: 'line', to: 'HTG-ON' },
        { terminal: null, use: 'neutral', to: 'N' },
        { terminal: null, use: 'earth', to: 'E' },
        { ...joined, to: `later-${n}` },
      ],
      12,
    )
    system.twoPortValve(`zv-l${n}`, `${zone} valve`, `later-${n}`, 'call')
    system.demand({
      id: `later-${n}`,
      name: zone,
      kind: 'heating',
      channel: { device: 'programmer', contact: 'heating' },
      thermostat: null,
      circuit: { valves: [{ device: `zv-l${n}` }] },
      call,
    })
  })
  if (rooms.length > 0) {
    system.twoPortValve('zv-u', 'Underfloor valve', 'valve-u', 'call')
    system.manifold(rooms, { from: 'HTG-ON', to: 'valve-u' })
    rooms.forEach((room, i) =>
      system.demand({
        id: `underfloor-${i + 1}`,
        name: room,
        kind: 'heating',
        channel: { device: 'programmer', contact: 'heating' },
        thermostat: { device: `stat-u${i + 1}`, contact: 'contact' },
        circuit: { valves: [{ device: 'zv-u' }, { device: `head-${i + 1}` }] },
        call,
      }),
    )
  }
  if (towels) {
    system.device('zv-t', `${towels} valve`, 'two-port-valve-six-wire')
    // White is live while the valve is shut: it is parked in a terminal of its own.
    system.lead('zv-t', `${towels} valve`, {
      M: 'valve-t',
      N: 'N',
      E: 'E',
      SF: 'L',
      SO: 'call',
      SC: { parked: 'White, live while shut' },
    })
    system.demand({
      id: 'towel-rails',
      name: towels,
      kind: 'heating',
      channel: { device: 'programmer', contact: 'third' },
      thermostat: null,
      circuit: { valves: [{ device: 'zv-t' }] },
      call,
    })
  }
  if (hasHotWater) {
    system.cylinderThermostat({ C: 'HW-ON', DEMAND: 'valve-hw' })
    system.twoPortValve('zv-hw', `${hotWater} valve`, 'valve-hw', 'call')
    system.hotWater(hotWater, { circuit: { valves: [{ device: 'zv-hw' }] }, call })
  }
  system.boiler('boiler-switched-live', 'Boiler', { SL: 'call' })
  system.pump()
  return system.installation(id, name, 'Two-port with more zones', {
    emitters: {
      'towel-rails': 'towel-rails',
      ...Object.fromEntries(rooms.map((_, i) => [`underfloor-${i + 1}`, 'underfloor-loop'])),
    },
  })
}
