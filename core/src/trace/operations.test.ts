import { circuitOf, numbers, rigAfter } from '../../testing'
import { examples } from '../examples'
import { formatAction } from '../simulation'
import type { Simulation } from '../simulation'
import { operationsFor, signsOf, unmetDemands, wanted, type Goal, type Operation } from '.'

const texts = (sets: readonly Operation[][]) => sets.map((set) => set.map(formatAction).join(' + '))
const served = (sim: Simulation, id: string) => {
  const demand = sim.circuit.installation.intent.demands.find((d) => d.id === id)!
  return wanted(sim, demand) && !unmetDemands(sim).includes(demand) && signsOf(sim).warm.includes(id)
}
function after(sim: Simulation, ops: readonly Operation[]): Simulation {
  const then = sim.fork()
  for (const op of ops) then.set(op.device, op.control, op.value)
  then.settle()
  return then
}

describe('what would have to change', () => {
  const boiler: Goal = { is: 'fires', boiler: 'boiler' }

  it('for the boiler to fire: the channel and the thermostat of a zone', () => {
    const { simulation } = rigAfter(circuitOf('two-port-heating'), 'stat-1.room=18', 'wait=1s')
    expect(texts(operationsFor(simulation, boiler))).toContain('programmer.heating=on + stat-1.set=23')
  })

  it('is only what is not so already', () => {
    const circuit = circuitOf('two-port-heating')
    const on = rigAfter(circuit, 'programmer.heating=on', 'wait=1s').simulation
    expect(texts(operationsFor(on, boiler))).toEqual(['stat-1.set=23'])
    const firing = rigAfter(circuit, 'programmer.heating=on', 'stat-1.set=21', 'wait=60s').simulation
    expect(operationsFor(firing, boiler)).toEqual([])
  })

  it('is nothing a control can do while a part has failed', () => {
    const { simulation } = rigAfter(
      circuitOf('two-port-heating'),
      'fault=zv-1.motor.open',
      'programmer.heating=on',
      'wait=1s',
    )
    expect(operationsFor(simulation, boiler)).toEqual([])
  })

  it('asks for the other service to be turned off where it goes first', () => {
    const { simulation } = rigAfter(
      circuitOf('hot-water-priority'),
      'programmer.hot-water=on',
      'cyl-stat.set=75',
      'programmer.heating=on',
      'stat-1.set=25',
      'wait=5min',
    )
    const sets = operationsFor(simulation, { is: 'served', demand: 'heating-1' })
    expect(texts(sets)).toContain('programmer.hot-water=off')
  })

  it('is tried: each set serves the demand, has three operations at most, and none to spare; from any state of the controls', () => {
    const random = numbers(22)
    let sets = 0
    for (const { id } of examples) {
      const circuit = circuitOf(id)
      for (let n = 0; n < 4; n++) {
        const { simulation } = rigAfter(circuit, 'wait=1s')
        for (const { device, type } of circuit.devices)
          for (const control of type.controls)
            if (control.kind === 'choice' && !control.ambient && random() < 0.3)
              simulation.set(device.id, control.id, control.values[Math.floor(random() * control.values.length)].id)
        simulation.settle()
        for (const { id: demand } of circuit.installation.intent.demands)
          for (const ops of operationsFor(simulation, { is: 'served', demand })) {
            sets++
            expect(ops.length).toBeLessThanOrEqual(3)
            expect([id, demand, texts([ops]), served(after(simulation, ops), demand)]).toEqual([
              id,
              demand,
              texts([ops]),
              true,
            ])
            for (const op of ops)
              expect(
                served(
                  after(
                    simulation,
                    ops.filter((o) => o !== op),
                  ),
                  demand,
                ),
              ).toBe(false)
          }
      }
    }
    expect(sets).toBeGreaterThan(100)
  })
})
