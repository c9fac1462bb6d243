import { circuitOf, rigAfter } from '../../testing'

/**
 * What each fault of a mid-position valve shows, from how the valve works: where it settles (B, mid, A, or hunts) and,
 * behind it, * where the boiler is called. From rest, with hot water OFF live on grey.
 */
const states = {
  rest: [],
  heating: ['programmer.heating=on', 'stat-1.set=25'],
  water: ['programmer.hot-water=on', 'cyl-stat.set=75'],
  both: ['programmer.heating=on', 'stat-1.set=25', 'programmer.hot-water=on', 'cyl-stat.set=75'],
} as const

const table: Record<string, [rest: string, heating: string, water: string, both: string]> = {
  healthy: ['B', 'A*', 'B*', 'mid*'],
  // Heating lasts only while hot water is also calling.
  's2.never-operates': ['B', 'A', 'B*', 'mid*'],
  // Hot water demand back-feeds white: radiators heat uncalled, the valve hunts, the boiler starts before it moves.
  's2.stuck-operated': ['B', 'A*', 'hunts*', 'hunts*'],
  // Overshoots to A: the cylinder starves when both call.
  's1.never-operates': ['B', 'A*', 'B*', 'A*'],
  // Grey alone drives to A; white alone never leaves B.
  's1.stuck-operated': ['A', 'A*', 'B*', 'B*'],
  // Never past mid.
  's1.made-contact-open': ['B', 'mid', 'B*', 'mid*'],
  // Never leaves B.
  's1.rest-contact-open': ['B', 'B', 'B*', 'B*'],
  'hold-path.open': ['B', 'A*', 'B*', 'hunts*'],
  'motor.open': ['B', 'B', 'B*', 'B*'],
  'motor.jammed': ['B', 'B', 'B*', 'B*'],
  'travel.seized-shut': ['B', 'B', 'B*', 'B*'],
  'travel.seized-open': ['A', 'A*', 'A*', 'A*'],
  'travel.seized-part-way': ['mid', 'mid', 'mid*', 'mid*'],
}

const circuit = circuitOf('mid-position')

function shown(fault: string, actions: readonly string[]): string {
  const put = fault === 'healthy' ? [] : [`fault=valve.${fault}`]
  const { simulation } = rigAfter(circuit, ...put, ...actions, 'wait=90s')
  const p = simulation.actuatorPosition(0)
  const place = p === 0 ? 'B' : p === 1 ? 'A' : 'mid'
  return `${simulation.hunting ? 'hunts' : place}${simulation.phase(0).phase === 'firing' ? '*' : ''}`
}

describe('a mid-position valve, at rest, heating, hot water, both', () => {
  it.each(Object.entries(table))('%s', (fault, expected) => {
    expect(Object.values(states).map((actions) => shown(fault, actions))).toEqual(expected)
  })

  it('with its spring broken never comes back from A', () => {
    const back = ['programmer.heating=off', ...states.water, 'wait=60s']
    const after = (...faults: string[]) =>
      rigAfter(circuit, ...faults, ...states.heating, 'wait=60s', ...back).simulation.actuatorPosition(0)
    expect(after()).toBe(0)
    expect(after('fault=valve.travel.no-return')).toBe(1)
  })

  it('passes through the middle on its way: the other circuit is warmed for seconds, by design', () => {
    const at = (wait: string) => rigAfter(circuit, ...states.heating, `wait=${wait}`).simulation.actuatorPosition(0)
    expect(at('8s')).toBeGreaterThan(0.35)
    expect(at('8s')).toBeLessThan(0.65)
    expect(at('60s')).toBe(1)
  })

  it('at A with heating alone leaves DEMAND, and through the thermostat hot water ON, live: harmless', () => {
    const rig = rigAfter(circuit, 'cyl-stat.set=75', ...states.heating, 'wait=60s')
    // The cylinder asks and its channel is off: grey is live from hot water OFF, orange from white.
    expect(rig.simulation.actuatorPosition(0)).toBe(1)
    expect(rig.simulation.potentialAt('cyl-stat.DEMAND').state).toBe('live')
    expect(rig.simulation.potentialAt('programmer.HW-ON').state).toBe('live')
  })
})
