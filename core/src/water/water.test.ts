import fc from 'fast-check'
import { circuitOf, installationOf, rigAfter } from '../../testing'
import { compile, type Circuit } from '../circuit'
import { examples } from '../examples'
import type { Rig } from '../hypotheses'
import { signsOf } from '../trace'
import { OPEN, PASSING, SHUT, solveFlows } from '.'

const flowOf = ({ simulation }: Rig, device: string, part = 'water') => {
  const { circuit } = simulation
  return simulation.flows[circuit.devices[circuit.deviceIndex.get(device)!].wayIndex.get(part)!]
}
const heating = ['programmer.heating=on', 'stat-1.set=25', 'wait=40s']

describe('water', () => {
  it('goes round in a closed loop only, as far as its pump can drive it', () => {
    const rig = rigAfter(circuitOf('two-port-heating'), ...heating)
    // Boiler 8, valve 1.5, radiators 15, pump 2 kPa at 1 m³/h; pump 45·(1 − (q/3)²): q = √(45 / (26.5 + 5)) = 1.195 m³/h.
    const loop = 1000 * Math.sqrt(45 / (8 + 1.5 + 15 + 2 + 45 / 9))
    expect(flowOf(rig, 'pump')).toBeCloseTo(loop, 0)
    expect(flowOf(rig, 'zv-1', 'outlet')).toBeCloseTo(loop, 0)
    expect(flowOf(rig, 'bypass')).toBe(0)
    expect(flowOf(rigAfter(circuitOf('two-port-heating')), 'pump')).toBe(0)
  })

  it('goes round by the bypass while every valve is shut, and keeps the boiler from locking out', () => {
    const rig = rigAfter(circuitOf('two-port-heating'), 'fault=zv-1.end-switch.stuck-made', 'wait=120s')
    // 45·(1 − (q/3)²) − 32 over 8 + 10 + 2: q = √(13 / 25).
    expect(flowOf(rig, 'bypass')).toBeCloseTo(1000 * Math.sqrt(13 / 25), 0)
    expect(signsOf(rig.simulation)).toMatchObject({ roundOnly: true, warm: [], deadHeads: [] })
    expect(rig.simulation.phase(0).phase).toBe('firing')
  })

  it('that a pump cannot move is noticed, and the boiler waits for flow, then locks itself out', () => {
    const doc = installationOf('two-port-heating')
    doc.devices.find((d) => d.id === 'bypass')!.settings = { opens: 60 }
    const rig = rigAfter(compile(doc), 'fault=zv-1.end-switch.stuck-made', 'wait=12s')
    expect(rig.simulation.phase(0).phase).toBe('no-flow')
    expect(signsOf(rig.simulation).deadHeads).toHaveLength(1)
    rig.simulation.run(30_000)
    expect(rig.simulation.phase(0).phase).toBe('lockout')
    // A hand resets it once its cause is gone.
    rig.perform({ do: 'mend', fault: 'zv-1.end-switch.stuck-made' })
    rig.simulation.settle()
    expect(rig.simulation.phase(0).phase).toBe('lockout')
    rig.perform({ do: 'set', device: 'boiler', control: 'reset', value: 'clear' })
    expect(rig.simulation.phase(0).phase).toBe('idle')
  })

  it('takes a short cut from flow to return, past everything it should warm', () => {
    const doc = installationOf('two-port-heating')
    doc.pipes.push({ id: 'short-cut', from: 'pump.out', to: 'boiler.return' })
    const { simulation } = rigAfter(compile(doc), ...heating)
    expect(signsOf(simulation)).toMatchObject({ roundOnly: true, warm: [] })
    expect(simulation.phase(0).phase).toBe('firing')
  })

  it('of a diverter with the wrong sense heats the other circuit', () => {
    const wrong = (reversed: number) => {
      const doc = installationOf('three-wire-diverter')
      doc.devices.find((d) => d.id === 'valve')!.settings = { reversed }
      const circuit = compile(doc)
      return ['heating', 'hot-water'].map((channel) => {
        const knob = channel === 'heating' ? 'stat-1.set=25' : 'cyl-stat.set=75'
        return signsOf(rigAfter(circuit, `programmer.${channel}=on`, knob, 'wait=120s').simulation).warm
      })
    }
    expect(wrong(0)).toEqual([['heating-1'], ['hot-water']])
    expect(wrong(1)).toEqual([['hot-water'], ['heating-1']])
  })

  it('passes a priority valve that sits behind the wrong tee', () => {
    const both = ['programmer.heating=on', 'programmer.hot-water=on', 'stat-2.set=25', 'cyl-stat.set=75', 'wait=60s']
    const warm = (circuit: Circuit) => signsOf(rigAfter(circuit, ...both).simulation).warm
    expect(warm(circuitOf('hot-water-priority'))).toEqual(['hot-water'])
    // The second zone is teed off before the priority valve instead of behind it.
    const doc = installationOf('hot-water-priority')
    const before = doc.pipes.find((p) => p.to === 'priority-valve.in')!
    const zone = doc.pipes.find((p) => p.to === 'zv-2.in')!
    doc.tees.push({ id: 'wrong', place: 'plant' })
    doc.pipes = doc.pipes.filter((p) => p !== before && p !== zone)
    doc.pipes.push(
      { id: 'a', from: before.from, to: 'wrong.in' },
      { id: 'b', from: 'wrong.out', to: 'priority-valve.in' },
      { id: 'c', from: 'wrong.branch', to: 'zv-2.in' },
    )
    expect(warm(compile(doc))).toEqual(['heating-2', 'hot-water'])
  })

  it('rises by its warmth past a valve that passes, where radiators stand above a boiler kept hot', () => {
    const doc = installationOf('low-voltage')
    doc.devices.find((d) => d.id === 'boiler')!.type = 'boiler-own-temperature'
    for (const d of doc.devices) if (d.type === 'radiators') d.settings = { rise: 3 }
    doc.types.push({ id: 'boiler-own-temperature', version: 1 })
    const circuit = compile(doc)
    expect(signsOf(rigAfter(circuit).simulation).warm).toEqual([])
    expect(signsOf(rigAfter(circuit, 'fault=zv-1.outlet.passes').simulation).warm).toEqual(['heating-1'])
  })

  it('is not driven back through a circuit with a check valve', () => {
    const doc = installationOf('gravity')
    const hotWater = ['programmer.hot-water=on', 'wait=60s']
    expect(signsOf(rigAfter(compile(doc), ...hotWater).simulation).warm).toEqual(['hot-water'])
    const flap = doc.devices.find((d) => d.type === 'check-valve')!.id
    const [into, out] = [
      doc.pipes.find((p) => p.to === `${flap}.in`)!,
      doc.pipes.find((p) => p.from === `${flap}.out`)!,
    ]
    into.to = out.to
    doc.pipes = doc.pipes.filter((p) => p !== out)
    expect(signsOf(rigAfter(compile(doc), ...hotWater).simulation).warm).toEqual(['heating-1', 'hot-water'])
  })

  it('is laid in for a document without pipes as its intent says', () => {
    const doc = installationOf('two-port-heating-hot-water')
    const bare = { ...doc, pipes: [], tees: [], devices: doc.devices.filter((d) => d.type !== 'radiators') }
    const rig = rigAfter(compile(bare), ...heating)
    expect(signsOf(rig.simulation).warm).toEqual(['heating-1'])
    expect(rig.simulation.circuit.installation.devices.some((d) => d.type === 'radiators')).toBe(true)
  })

  it('is laid in past what has no port for it, and through a pump that is a circuit’s own', () => {
    const doc = installationOf('two-port-heating')
    const bare = (change: (d: typeof doc) => void) => {
      const copy = {
        ...doc,
        pipes: [],
        tees: [],
        devices: doc.devices.filter((d) => !['radiators', 'automatic-bypass'].includes(d.type)),
      }
      change(copy)
      return compile(JSON.parse(JSON.stringify(copy)))
    }
    const [demand] = doc.intent.demands
    const demands = (circuit: typeof demand.circuit) => ({ demands: [{ ...demand, circuit }] })
    // The intent calls the thermostat a valve: water takes no notice.
    const odd = bare((d) => (d.intent = demands({ valves: [{ device: 'zv-1' }, { device: 'stat-1' }] })))
    expect(signsOf(rigAfter(odd, ...heating).simulation).warm).toEqual(['heating-1'])
    const own = bare((d) => (d.intent = demands({ valves: [{ device: 'zv-1' }], runs: ['pump'] })))
    expect(signsOf(rigAfter(own, ...heating).simulation).warm).toEqual(['heating-1'])
    expect(own.installation.devices.map((d) => d.type)).toContain('check-valve')
  })

  it('is neither made nor lost, whatever stands open and runs', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...examples.map((e) => e.id)),
        fc.array(fc.constantFrom(SHUT, OPEN, PASSING), { minLength: 60, maxLength: 60 }),
        fc.array(fc.nat(1), { minLength: 80, maxLength: 80 }),
        (id, gates, bits) => {
          const { water } = circuitOf(id)
          const flows = solveFlows(water, {
            gates: Uint8Array.from(water.ways, (w, i) => (w.port === undefined ? OPEN : gates[i])),
            pumps: Uint8Array.from(water.ways, (_, i) => bits[i]),
            rising: Uint8Array.from(water.emitters, (_, i) => bits[60 + i]),
          })
          const balance = new Float64Array(water.nets)
          water.ways.forEach(({ from, to }, i) => {
            balance[from] -= flows[i]
            balance[to] += flows[i]
          })
          for (const b of balance) expect(Math.abs(b)).toBeLessThan(5)
          water.ways.forEach(({ oneWay }, i) => oneWay && expect(flows[i]).toBeGreaterThanOrEqual(0))
        },
      ),
      { numRuns: 150 },
    )
  })
})
