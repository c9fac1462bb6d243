import { circuitOf, rigAfter } from '../../testing'

/** What its table in docs/symptoms.md does not tell: ways back, the way through the middle, what is live at A. */
const heating = ['programmer.heating=on', 'stat-1.set=25']
const water = ['programmer.hot-water=on', 'cyl-stat.set=75']

const circuit = circuitOf('mid-position')

describe('a mid-position valve', () => {
  it('with its spring broken never comes back from A', () => {
    const back = ['programmer.heating=off', ...water, 'wait=60s']
    const after = (...faults: string[]) =>
      rigAfter(circuit, ...faults, ...heating, 'wait=60s', ...back).simulation.actuatorPosition(0)
    expect(after()).toBe(0)
    expect(after('fault=valve.travel.no-return')).toBe(1)
  })

  it('passes through the middle on its way: the other circuit is warmed for seconds, by design', () => {
    const at = (wait: string) => rigAfter(circuit, ...heating, `wait=${wait}`).simulation.actuatorPosition(0)
    expect(at('8s')).toBeGreaterThan(0.35)
    expect(at('8s')).toBeLessThan(0.65)
    expect(at('60s')).toBe(1)
  })

  it('at A with heating alone leaves DEMAND, and through the thermostat hot water ON, live: harmless', () => {
    const rig = rigAfter(circuit, 'cyl-stat.set=75', ...heating, 'wait=60s')
    // The cylinder asks and its channel is off: grey is live from hot water OFF, orange from white.
    expect(rig.simulation.actuatorPosition(0)).toBe(1)
    expect(rig.simulation.potentialAt('cyl-stat.DEMAND').state).toBe('live')
    expect(rig.simulation.potentialAt('programmer.HW-ON').state).toBe('live')
  })
})
