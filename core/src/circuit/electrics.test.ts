import type { AtomId, NetId } from './ids'
import fc from 'fast-check'
import { circuitOf, installationOf, rigAfter, wired } from '../../testing'
import { demandActions } from '../inputs'
import { examples } from '../examples'
import { Rig } from '../hypotheses'
import { measure, terminalVolts, voltsBetween } from '../instruments'
import type { Colour, Installation } from '../installation'
import { Simulation } from '../simulation'
import { compile, currentsWithin, edgesAt, Electrics, leakConductance, magnitude, type Circuit } from '.'

/** The cases worked by hand in docs/model.md. */
describe('worked by hand', () => {
  const load = (circuit: Circuit, device: string, part: string) =>
    circuit.devices[circuit.deviceIndex.get(device)!].loadIndex.get(part)!

  it('two loads in series after a lost neutral share the volts by their impedances', () => {
    const circuit = compile(
      wired({
        devices: { spur: 'fused-spur', boiler: 'boiler-switched-live', pump: 'pump' },
        // The boiler's neutral has come off and lies on the pump's line.
        wires: [
          ['spur.L', 'boiler.L'],
          ['boiler.N', 'pump.L'],
          ['pump.N', 'spur.N'],
        ],
      }),
    )
    const sim = new Simulation(circuit)
    // 230 / |1322.5 + 952.2 + j 461.2| = 0.0991 A
    expect(sim.electrics.loadVolts[load(circuit, 'boiler', 'board')]).toBeCloseTo(131.06, 1)
    expect(sim.electrics.loadVolts[load(circuit, 'pump', 'motor')]).toBeCloseTo(104.84, 1)
    expect(sim.loadEnergised(load(circuit, 'boiler', 'board'))).toBe(false)
    expect(sim.loadWorking(load(circuit, 'pump', 'motor'))).toBe(false)
  })

  const ends = (a: string, b: string) => [a, b].map((terminal) => ({ at: 'terminal' as const, terminal })) as never
  const loose = [{ at: 'loose' }, { at: 'loose' }] as never
  const openCore = (others: Record<string, unknown>[]) =>
    wired({
      devices: { spur: 'fused-spur', boiler: 'boiler-switched-live' },
      wires: [],
      cables: [
        {
          id: 'run',
          label: 'Run',
          lengthM: 20,
          cores: [
            { id: 'brown', colour: 'brown', ends: ends('spur.L', 'boiler.L') },
            { id: 'blue', colour: 'blue', ends: ends('spur.N', 'boiler.N') },
            ...others,
          ] as never,
        },
      ],
    })

  it('20 m of open core beside a live and a neutral one: volts on a meter, next to none on a tester', () => {
    const { electrics, circuit } = new Simulation(compile(openCore([{ id: 'black', colour: 'black', ends: loose }])))
    const atom = circuit.atomIndex.get('run.black.1')!
    expect(magnitude(electrics.potential(electrics.nets.netOf[atom]))).toBeCloseTo(115, 3)
    // 115 · 10 / |10 − j 0.796| and 115 · 0.1 / |0.1 − j 0.796|
    expect(terminalVolts(electrics, atom, 'meter')!.volts).toBeCloseTo(114.64, 1)
    expect(terminalVolts(electrics, atom, 'tester')!.volts).toBeCloseTo(14.34, 1)
  })

  it('a broken core keeps half of its neighbours on either side', () => {
    const doc = openCore([{ id: 'black', colour: 'black', ends: [{ at: 'loose' }, { at: 'loose' }] as never }])
    const circuit = compile(doc)
    const edge = circuit.edges.findIndex((e) => e.kind === 'core' && e.core.id === 'black')
    const sim = new Simulation(circuit)
    sim.putIn('break', [{ part: 'edge', index: edge }])
    const atom = circuit.atomIndex.get('run.black.1')!
    // Half the capacitance: the same open volts, twice the impedance.
    expect(sim.electrics.impedance(sim.electrics.nets.netOf[atom]).im).toBeCloseTo(-1_591_549, -3)
  })

  it('a 40 VA transformer with fourteen valves sags to 20 V, and its own fuse opens after twelve seconds', () => {
    const valves = Array.from({ length: 14 }, (_, i) => `valve-${i + 1}`)
    const circuit = compile(
      wired({
        supply: { volts: 120, frequency: 60 },
        devices: {
          spur: 'fused-spur',
          transformer: 'transformer-24',
          bus: 'room-thermostat-volt-free',
          ...Object.fromEntries(valves.map((v) => [v, 'zone-valve-24'])),
        },
        wires: [
          ['spur.L', 'transformer.L'],
          ['spur.N', 'transformer.N'],
          ['transformer.V', 'bus.R'],
          // From valve to valve, as a terminal takes four conductors.
          ...valves.flatMap((v, i): [string, string][] => [
            [i === 0 ? 'bus.W' : `valve-${i}.M1`, `${v}.M1`],
            [i === 0 ? 'transformer.C' : `valve-${i}.M2`, `${v}.M2`],
          ]),
        ],
      }),
    )
    const sim = new Simulation(circuit)
    sim.set('bus', 'set', '30')
    sim.run(1000)
    expect(sim.potentialAt('transformer.V')).toMatchObject({ state: 'live', against: 'transformer' })
    expect(sim.potentialAt('transformer.V').volts).toBeCloseTo(20.24, 1)
    sim.run(11_000)
    expect(sim.history.filter((e) => e.kind === 'fuse')).toEqual([])
    sim.run(2000)
    expect(sim.history).toContainEqual(expect.objectContaining({ kind: 'fuse', device: 'transformer' }))
    expect(sim.potentialAt('bus.W').state).toBe('dead')
  })

  it('the holding supply: mean and fundamental on the motor’s node and on grey', () => {
    const both = ['programmer.heating=on', 'stat-1.set=25', 'programmer.hot-water=on', 'cyl-stat.set=75']
    const { simulation } = rigAfter(circuitOf('mid-position'), ...both, 'wait=60s')
    const { circuit, electrics } = simulation
    const motor = load(circuit, 'valve', 'motor')
    // 7 W at 0.75: |Z| = 230² · 0.75 / 7 = 5668 Ω, DC resistance 40 % of it, 2267 Ω. Saturated, the winding is that alone:
    // half-waves of 230 V over 6750 + 2267 Ω, mean √2 · 230/π, fundamental half of 230 V.
    const share = 2267.1 / (6750 + 2267.1)
    expect(simulation.actuatorMotion(0)).toBe('held')
    expect(electrics.loadMeans[motor]).toBeCloseTo(((230 * Math.SQRT2) / Math.PI) * share, 0)
    expect(electrics.loadVolts[motor]).toBeCloseTo(115 * share, 0)
    expect(simulation.potentialAt('valve.G')).toMatchObject({ state: 'partial' })
    expect(simulation.potentialAt('valve.G').mean).toBeCloseTo(((230 * Math.SQRT2) / Math.PI) * share, 0)
  })

  it('the mid-position valve takes the 7 W and the 3 W that were measured, the holding resistor included', () => {
    const rig = rigAfter(circuitOf('mid-position'), 'programmer.heating=on', 'stat-1.set=25', 'wait=5s')
    const watts = () => {
      const reading = measure(rig.simulation, 'power', 'valve.W', 'valve.N')
      return reading.kind === 'power' ? reading.watts : NaN
    }
    const spur = () => {
      const reading = measure(rig.simulation, 'power', 'spur.L', 'spur.N')
      return reading.kind === 'power' ? reading.watts : NaN
    }
    expect(watts()).toBeCloseTo(7, 1)
    rig.perform({ do: 'wait', ms: 60_000 })
    expect(rig.simulation.actuatorMotion(0)).toBe('open')
    expect(watts()).toBeCloseTo(7, 1)
    rig.simulation.set('programmer', 'hot-water', 'on')
    rig.simulation.set('cyl-stat', 'set', '75')
    const before = spur()
    rig.perform({ do: 'wait', ms: 60_000 })
    expect(rig.simulation.actuatorMotion(0)).toBe('held')
    // 230² / 2 / (6750 + 2267): half of the time a resistor.
    expect(watts()).toBeCloseTo(2.93, 1)
    expect(spur()).toBeLessThan(before)
  })
})

/** An example with demands wanted and dropped, some time let pass: a state of its contacts. */
const settled = fc.constantFrom(...examples.map((e) => e.id)).chain((id) => {
  const ids = installationOf(id).intent.demands.map((d) => d.id)
  return fc.record({
    id: fc.constant(id),
    wanted: fc.array(fc.subarray(ids), { minLength: 1, maxLength: 3 }),
    ms: fc.integer({ min: 1, max: 40_000 }),
  })
})
type Settled = typeof settled extends fc.Arbitrary<infer T> ? T : never
const play = (circuit: Circuit, { wanted, ms }: Settled): Simulation => {
  const rig = new Rig(circuit)
  for (const demands of wanted) {
    for (const action of demandActions(circuit, demands)) rig.perform(action)
    rig.perform({ do: 'wait', ms })
  }
  return rig.simulation
}

describe('in every state', () => {
  it('complex power balances: what the sources give, everything else takes', () => {
    fc.assert(
      fc.property(settled, (given) => {
        const { electrics, circuit } = play(circuitOf(given.id), given)
        fc.pre(electrics.halfWave === undefined)
        const { network, nets } = electrics
        let [takenRe, takenIm] = [0, 0]
        for (const branch of network.branches) {
          const v = electrics.between(branch.a, branch.b)
          const i = electrics.branchCurrent(branch)
          takenRe += v.re * i.re + v.im * i.im
          takenIm += v.im * i.re - v.re * i.im
        }
        for (const index of network.transformers)
          takenRe += magnitude(electrics.secondaryCurrent(index)) ** 2 * circuit.transformers[index].seriesOhms
        for (const net of network.unknown)
          takenRe += leakConductance * network.atoms[net] * magnitude(electrics.potential(net as NetId)) ** 2
        let [givenRe, givenIm] = [0, 0]
        for (const { line } of circuit.sources) {
          const currents = currentsWithin(electrics, nets.netOf[line])
          for (const edge of edgesAt(circuit, line)) {
            const { re, im } = currents.get(edge)!
            givenRe += circuit.installation.supply.volts * re
            givenIm -= circuit.installation.supply.volts * im
          }
        }
        expect(givenRe).toBeCloseTo(takenRe, 6)
        expect(givenIm).toBeCloseTo(takenIm, 6)
      }),
      { numRuns: 60 },
    )
  })

  it('no point of a resistive network stands above the supply or below neutral', () => {
    fc.assert(
      fc.property(settled, (given) => {
        const circuit = circuitOf(given.id)
        const { state } = play(circuit, given).electrics
        const resistive: Circuit = {
          ...circuit,
          diodes: [],
          transformers: [],
          branches: circuit.branches
            .filter((b) => b.of.kind !== 'capacitance')
            .map((b) => {
              const ohms = 1 / Math.hypot(b.y.re, b.y.im)
              return { ...b, element: { kind: 'resistance', ohms }, y: { re: 1 / ohms, im: 0 } }
            }),
        }
        const electrics = new Electrics(resistive, { ...state, closed: state.closed })
        for (const net of electrics.nets.netOf) {
          const { re, im } = electrics.potential(net as NetId)
          expect(re).toBeGreaterThanOrEqual(-1e-9)
          expect(re).toBeLessThanOrEqual(circuit.installation.supply.volts + 1e-9)
          expect(Math.abs(im)).toBeLessThan(1e-9)
        }
      }),
      { numRuns: 60 },
    )
  })

  it('exchanging the leads negates the phasor', () => {
    fc.assert(
      fc.property(settled, fc.nat(), fc.nat(), fc.constantFrom(1e4, 1e5, 1e7), (given, x, y, ohms) => {
        const { electrics, circuit } = play(circuitOf(given.id), given)
        const [red, black] = [x, y].map((n) => (n % circuit.atoms.length) as AtomId)
        const [one, other] = [voltsBetween(electrics, red, black, ohms), voltsBetween(electrics, black, red, ohms)]
        expect(one.re).toBeCloseTo(-other.re, 6)
        expect(one.im).toBeCloseTo(-other.im, 6)
        expect(one.mean).toBeCloseTo(-other.mean, 6)
      }),
      { numRuns: 80 },
    )
  })

  it('the order of terminals and parts, the ids of cables and the colours change no result', () => {
    const colours: Colour[] = ['red', 'yellow', 'white', 'grey', 'brown']
    const disguised = (doc: Installation): Installation => {
      doc.devices.reverse()
      doc.cables.reverse()
      doc.links.reverse()
      for (const centre of doc.wiringCentres) centre.terminals.reverse()
      doc.cables.forEach((cable, i) => {
        cable.id = `x${i}`
        cable.cores.reverse()
        cable.cores.forEach((core, k) => {
          core.id = `y${k}`
          core.colour = colours[(i + k) % colours.length]
        })
      })
      doc.links.forEach((link, i) => (link.id = `z${i}`))
      return doc
    }
    fc.assert(
      fc.property(settled, (given) => {
        const plain = play(circuitOf(given.id), given)
        const other = play(compile(disguised(installationOf(given.id))), given)
        for (const { ref, kind } of plain.circuit.atoms) {
          if (kind === 'free-end') continue
          const [p, q] = [plain.potentialAt(ref), other.potentialAt(ref)]
          expect([ref, q.state]).toEqual([ref, p.state])
          expect(Math.abs((q.volts ?? 0) - (p.volts ?? 0))).toBeLessThan(0.001)
        }
      }),
      { numRuns: 40 },
    )
  })
})

describe('cables that lead nowhere', () => {
  it('are not solved for, read open to everything, and leave the rest as it was', () => {
    const doc = installationOf('two-port-heating')
    const whole = new Simulation(compile(doc))
    for (let i = 0; i < 150; i++)
      doc.cables.push({
        id: `loose-${i}`,
        label: `Loose ${i}`,
        ratedForMains: true,
        cores: (['brown', 'blue', 'black', 'grey'] as Colour[]).map((colour) => ({
          id: colour,
          colour,
          areaMm2: 0.75,
          ends: [{ at: 'loose' }, { at: 'cut-back' }],
        })),
      })
    const circuit = compile(doc)
    const sim = new Simulation(circuit)
    sim.set('programmer', 'heating', 'on')
    whole.set('programmer', 'heating', 'on')
    sim.settle()
    whole.settle()
    expect(sim.electrics.network.unknown.length).toBe(whole.electrics.network.unknown.length)
    for (const { ref } of whole.circuit.atoms) expect(sim.potentialAt(ref)).toEqual(whole.potentialAt(ref))
    const [a, b] = ['loose-3.brown.1', 'loose-3.blue.1'].map((ref) => circuit.atomIndex.get(ref)!)
    expect(sim.potentialAt('loose-3.brown.1').state).toBe('floating')
    const { netOf } = sim.electrics.nets
    expect(sim.electrics.dcOhms(netOf[a], netOf[b])).toBeGreaterThan(1e9)
  })
})
