import { circuitOf, installationOf, loosenCore, moveCore, rigAfter, wired } from '../../testing'
import { compile } from '../circuit'
import { examples } from '../examples'
import { faultsOf } from '../hypotheses'
import { claimText, demandDetailText, terminalName } from '../wording'
import { demandStates, failedIn, unaskedCalls, whyTerminal, type Cause } from '.'

const details = (rig: ReturnType<typeof rigAfter>) =>
  demandStates(rig.simulation).map((s) => [s.word, demandDetailText(rig.simulation, s)])

describe('a demand on its way', () => {
  const house = ['programmer.heating=on', 'stat-1.set=21']
  it('is calling while its valve travels, and the valve is named; held up only where nothing is about to close', () => {
    const circuit = circuitOf('two-port-heating')
    expect(details(rigAfter(circuit, ...house, 'wait=6s'))).toEqual([
      ['calling', 'House valve opening, 40\u00a0% open'],
    ])
    expect(details(rigAfter(circuit, ...house, 'wait=60s'))).toEqual([['calling', '']])
    const seized = rigAfter(circuit, 'fault=zv-1.travel.seized-shut', ...house, 'wait=6s')
    expect(details(seized)).toEqual([['held-up', 'at House valve end switch']])
    const never = rigAfter(circuit, 'fault=zv-1.end-switch.never-makes', ...house, 'wait=6s')
    expect(details(never)).toEqual([['held-up', 'at House valve end switch']])
  })
})

describe('a hygiene run', () => {
  const cold = ['cyl-stat.cylinder=62', 'programmer.hot-water=on']
  const words = (...actions: string[]) => {
    const { simulation } = rigAfter(circuitOf('unvented'), ...cold, ...actions)
    const state = demandStates(simulation).find((s) => s.demand.id === 'hot-water')!
    return [state.word, demandDetailText(simulation, state)]
  }
  it('is told as what it is, until its clock ends it', () => {
    expect(words('wait=10s')).toEqual(['satisfied', ''])
    expect(words('cyl-stat.hygiene=running', 'wait=60s')).toEqual(['calling', 'hygiene run of Cylinder thermostat'])
    expect(words('clock=sun-01:58', 'wait=5min')).toEqual([
      'calling',
      'hygiene run of Cylinder thermostat, until about 03:00',
    ])
  })
  it('is not told of a cylinder that is cold anyway', () => {
    const { simulation } = rigAfter(
      circuitOf('unvented'),
      'cyl-stat.cylinder=30',
      'programmer.hot-water=on',
      'cyl-stat.hygiene=running',
      'wait=60s',
    )
    expect(demandStates(simulation).find((s) => s.demand.id === 'hot-water')!.run).toBeUndefined()
  })
})

describe('an input that acts on what nobody feeds it', () => {
  it('is told with the volts it picks up, and from which cable', () => {
    const doc = installationOf('two-port-heating')
    doc.cables.find((c) => c.id === 'boiler-cable')!.lengthM = 60
    loosenCore(doc, 'boiler-cable', 'black', 1)
    const circuit = compile(doc)
    // A board whose input acts on little: 400 kΩ, from 40 V.
    const call = circuit.loads.find((l) => l.part.id === 'call')!
    Object.assign(call, { pullsIn: 40, dropsOut: 30 })
    const branch = circuit.branches.find((b) => b.of.kind === 'load' && circuit.loads[b.of.load] === call)!
    branch.element = call.element = { kind: 'resistance', ohms: 400_000 }
    branch.y = { re: 1 / 400_000, im: 0 }
    const { simulation } = rigAfter(circuit, 'wait=10s')
    const [stray] = unaskedCalls(simulation)
    const said = failedIn(stray.cause).map((c) => claimText(circuit, c.claim, true))
    expect(said).toEqual([
      expect.stringMatching(
        /^Boiler SL picks up \d+ V from live conductors beside it in Boiler cable, and acts from 40 V$/,
      ),
    ])
  })
})

describe('a net that only capacitance holds', () => {
  it('floats, whatever it reads', () => {
    const circuit = compile(
      wired({
        devices: { spur: 'fused-spur', sup: 'suppressor', valve: 'two-port-valve' },
        wires: [['spur.N', 'sup.B']],
        cables: [
          {
            id: 'long',
            label: 'Long',
            lengthM: 400,
            cores: [
              {
                id: 'l',
                colour: 'brown',
                areaMm2: 0.75,
                ends: [{ at: 'terminal', terminal: 'spur.L' }, { at: 'cut-back' }],
              },
              {
                id: 's',
                colour: 'black',
                areaMm2: 0.75,
                ends: [{ at: 'terminal', terminal: 'sup.A' }, { at: 'loose' }],
              },
            ],
          },
        ],
      }),
    )
    const { simulation } = rigAfter(circuit, 'wait=1s')
    const potential = simulation.potentialAt('sup.A')
    expect(potential.volts).toBeGreaterThan(20)
    expect(potential.state).toBe('floating')
  })
})

describe('why', () => {
  it('tells each thing once', () => {
    const doc = installationOf('two-port-heating-hot-water')
    doc.devices.find((d) => d.id === 'programmer')!.settings.slider = 1
    const { simulation } = rigAfter(compile(doc), 'wait=1s')
    const check = (cause: Cause): void => {
      const texts = cause.because.map((c) => claimText(simulation.circuit, c.claim, c.failed))
      expect(texts).toEqual([...new Set(texts)])
      cause.because.forEach(check)
    }
    check(whyTerminal(simulation, 'zv-hw.M'))
  })
})

describe('names', () => {
  it.each(examples.map((e) => e.id))('of the faults of %s are each their own', (id) => {
    const labels = faultsOf(circuitOf(id)).map((f) => f.label)
    expect(labels.filter((label, i) => labels.indexOf(label) !== i)).toEqual([])
  })
  it('of terminals are whole', () => {
    const doc = installationOf('two-port-heating')
    moveCore(doc, 'boiler-cable', 'black', 1, 'wc.5')
    expect(terminalName(compile(doc), 'zv-1.SF')).toBe('House valve grey')
  })
})

describe('a boiler with a bus and a switched live', () => {
  it('is called by either, and says which', () => {
    const doc = installationOf('single-zone-bus')
    const boiler = doc.devices.find((d) => d.id === 'boiler')!
    boiler.type = 'boiler-bus-and-live'
    doc.types.push({ id: boiler.type, version: 1 })
    const overBus = rigAfter(compile(doc), 'receiver.set=25', 'wait=60s').simulation
    expect(overBus.phase(0).phase).toBe('firing')
    doc.cables.push({
      id: 'call',
      label: 'Call cable',
      ratedForMains: true,
      cores: [
        {
          id: 'sl',
          colour: 'black',
          areaMm2: 0.75,
          ends: [
            { at: 'terminal', terminal: 'spur.L' },
            { at: 'terminal', terminal: 'boiler.SL' },
          ],
        },
      ],
    })
    const circuit = compile(doc)
    const { simulation } = rigAfter(circuit, 'wait=60s')
    expect(simulation.phase(0).phase).toBe('firing')
    expect(unaskedCalls(simulation).map((c) => c.input)).toEqual(['SL'])
  })
})
