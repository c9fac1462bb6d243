import { circuitOf } from '../../testing'
import { compile } from '../circuit'
import { changeDevice } from '../bench'
import { edited } from '../installation'
import { Simulation } from '.'

/** A system boiler whose burner stays off for so many minutes. */
function waiting(minutes: number): Simulation {
  const { installation } = circuitOf('two-port-heating-hot-water')
  const settings = { 'off-time': minutes }
  return new Simulation(compile(edited(installation, changeDevice(installation, 'boiler', { settings })!).doc))
}
const heating = (sim: Simulation, on: boolean) => sim.set('programmer', 'heating', on ? 'on' : 'off')
const phase = (sim: Simulation) => sim.phase(0).phase
const minutes = (n: number) => n * 60_000

/** Heating has been on, its valve open and the burner lit; then off, until the burner goes out. */
function afterARun(leastOff: number): Simulation {
  const sim = waiting(leastOff)
  sim.set('stat-1', 'set', '30')
  heating(sim, true)
  sim.settle()
  expect(phase(sim)).toBe('firing')
  heating(sim, false)
  sim.run(100)
  expect(phase(sim)).toBe('overrun')
  return sim
}

describe('the least time a burner stays off', () => {
  it('is waited for where heating calls again within it, called and with its pump running; then it fires', () => {
    const sim = afterARun(3)
    sim.run(minutes(1))
    heating(sim, true)
    sim.run(30_000)
    expect(phase(sim)).toBe('waits-off')
    expect(sim.potentialAt('boiler.PL').state).toBe('live')
    sim.run(minutes(3))
    expect(phase(sim)).toBe('firing')
  })

  it('does not begin anew where the call is lost meanwhile: the overrun goes on from when the burner went out', () => {
    const sim = afterARun(3)
    const out = sim.time
    sim.run(minutes(1))
    heating(sim, true)
    sim.run(30_000)
    heating(sim, false)
    sim.run(10_000)
    expect(phase(sim)).toBe('overrun')
    sim.settle()
    expect([phase(sim), Math.round((sim.time - out) / 1000)]).toEqual(['idle', 300])
  })

  it('goes on behind the overrun where it is longer: idle, and called it waits', () => {
    const sim = afterARun(8)
    sim.run(minutes(6))
    expect(phase(sim)).toBe('idle')
    heating(sim, true)
    sim.run(30_000)
    expect(phase(sim)).toBe('waits-off')
    sim.run(minutes(2))
    expect(phase(sim)).toBe('firing')
  })

  it('is none where it is over, or none is set: it fires at once', () => {
    for (const [leastOff, later] of [
      [3, 4],
      [0, 1],
    ]) {
      const sim = afterARun(leastOff)
      sim.run(minutes(later))
      heating(sim, true)
      sim.run(30_000)
      expect(phase(sim)).toBe('firing')
    }
  })

  it('holds up no hot water at a boiler that hears it by itself', () => {
    const { installation } = circuitOf('hot-water-priority')
    const settings = { 'off-time': 10 }
    const sim = new Simulation(compile(edited(installation, changeDevice(installation, 'boiler', { settings })!).doc))
    sim.set('stat-1', 'set', '30')
    heating(sim, true)
    sim.settle()
    heating(sim, false)
    sim.run(minutes(1))
    sim.set('programmer', 'hot-water', 'on')
    sim.set('cyl-stat', 'set', '75')
    sim.run(minutes(1))
    expect(phase(sim)).toBe('firing')
    sim.set('programmer', 'hot-water', 'off')
    sim.run(minutes(1))
    heating(sim, true)
    sim.run(minutes(1))
    expect(phase(sim)).toBe('waits-off')
  })
})
