import { circuitOf, installationOf, loosenCore, moveCore, rigAfter } from '../../testing'
import { compile } from '../circuit'
import { examples } from '../examples'
import { ActionError } from '../simulation'
import { Rig } from '../hypotheses'
import { measure, type Instrument } from '.'

const circuit = circuitOf('two-port-heating-hot-water')
const heatingOn = ['programmer.heating=on', 'stat-1.set=21', 'wait=30s']
const isolated = ['spur.switch=off', 'wait=10s']
const read = (instrument: Instrument, red: string, black: string, ...actions: string[]) =>
  measure(rigAfter(circuit, ...actions).simulation, instrument, red, black)

describe('volts', () => {
  it('between any two points: 230 V across a driven motor, none between two live terminals', () => {
    expect(read('tester', 'zv-1.M', 'zv-1.N', ...heatingOn)).toMatchObject({ kind: 'volts', volts: 230 })
    expect(read('tester', 'wc.1', 'zv-1.M', ...heatingOn)).toMatchObject({ volts: 0 })
    expect(read('meter', 'boiler.SL', 'boiler.N')).toMatchObject({ kind: 'volts' })
  })

  it('of an open core are read by a meter and not by a tester', () => {
    const on = ['programmer.heating=on', 'wait=1s']
    const [meter, tester] = (['meter', 'tester'] as const).map((i) =>
      read(i, 'programmer.HTG-OFF', 'programmer.N', ...on),
    )
    if (meter.kind !== 'volts' || tester.kind !== 'volts') throw new Error('no volts')
    // Nothing is on that terminal, not even a core: not even a meter reads anything.
    expect(meter.volts).toBeLessThan(0.1)
    const spare = (i: Instrument) => {
      const reading = read(i, 'stat-1-cable.grey.1', 'stat-1.N', ...on)
      return reading.kind === 'volts' ? reading.volts : NaN
    }
    expect(spare('meter')).toBeGreaterThan(30)
    expect(spare('tester')).toBeLessThan(15)
  })
})

describe('polarity', () => {
  const at = (spoil: (doc: ReturnType<typeof installationOf>) => void) => {
    const doc = installationOf('two-port-heating')
    spoil(doc)
    const reading = measure(new Rig(compile(doc)).simulation, 'polarity', 'boiler.L', 'boiler.N')
    return reading.kind === 'polarity' ? reading.verdict : reading.kind
  }

  it('is told at a device from three readings', () => {
    expect(at(() => {})).toBe('correct')
    expect(
      at((doc) => {
        moveCore(doc, 'supply', 'brown', 0, 'spur.N')
        moveCore(doc, 'supply', 'blue', 0, 'spur.L')
      }),
    ).toBe('reversed')
    expect(at((doc) => loosenCore(doc, 'boiler-cable', 'blue', 1))).toBe('no-neutral')
    expect(at((doc) => loosenCore(doc, 'boiler-cable', 'green-yellow', 1))).toBe('no-earth')
    expect(at((doc) => loosenCore(doc, 'supply', 'brown', 1))).toBe('dead')
  })
})

describe('power', () => {
  it('at the spur is what everything draws: two watts and forty at rest, one more a relay, six a valve, forty-five the pump', () => {
    const watts = (...actions: string[]) => {
      const reading = read('power', 'spur.L', 'spur.N', ...actions)
      return reading.kind === 'power' ? reading.watts : NaN
    }
    expect(watts()).toBeCloseTo(42, 0)
    expect(watts('programmer.heating=on', 'stat-1.set=21', 'wait=5s')).toBeCloseTo(49.3, 0)
    expect(watts(...heatingOn)).toBeCloseTo(95.3, 0)
    expect(read('power', 'zv-1.M', 'zv-1.N', ...heatingOn)).toMatchObject({ watts: expect.closeTo(6, 2) })
  })
})

describe('dead tests', () => {
  it('refuse a live circuit and say what keeps it live', () => {
    for (const instrument of ['continuity', 'resistance', 'insulation', 'earth'] as const)
      expect(read(instrument, 'wc.22', 'wc.8')).toMatchObject({ kind: 'refused' })
    expect(read('resistance', 'wc.1', 'wc.8')).toEqual({
      kind: 'refused',
      refusal: { reason: 'live', sources: ['spur'] },
    })
  })

  it('refuse a circuit whose neutral alone is still joined to the supply', () => {
    const reading = read('resistance', 'zv-1.M', 'zv-1.N', 'fault=spur.fuse.blown')
    expect(reading).toEqual({ kind: 'refused', refusal: { reason: 'neutral-joined', sources: ['spur'] } })
  })

  it('refuse where a terminal beside the leads is live', () => {
    expect(read('continuity', 'programmer.HTG-OFF', 'programmer.HTG-OFF', 'programmer.heating=on', 'wait=1s')).toEqual({
      kind: 'refused',
      refusal: { reason: 'live-beside', owner: 'programmer', terminal: 'programmer.L' },
    })
  })

  it('read a motor winding at two to three kilohms, and an open one as open', () => {
    const lifted = installationOf('two-port-heating')
    loosenCore(lifted, 'zv-1-lead', 'brown', 1)
    const winding = (...actions: string[]) =>
      measure(rigAfter(compile(lifted), ...actions, ...isolated).simulation, 'resistance', 'zv-1.M', 'zv-1.N')
    const reading = winding()
    if (reading.kind !== 'ohms') throw new Error(reading.kind)
    expect(reading.ohms).toBeGreaterThan(2000)
    expect(reading.ohms).toBeLessThan(3000)
    expect(winding('fault=zv-1.motor.open')).toEqual({ kind: 'ohms', ohms: null, closed: false })
  })

  it('tell a whole conductor from an open one', () => {
    expect(read('continuity', 'stat-1.L', 'wc.20', ...isolated)).toMatchObject({ closed: true })
    expect(read('continuity', 'stat-1.L', 'wc.20', 'fault=stat-1-cable.brown.open', ...isolated)).toMatchObject({
      closed: false,
    })
  })

  it('find wet terminals by insulation to earth, and nothing on a sound installation', () => {
    expect(read('insulation', 'wc.1', 'wc.14', ...isolated)).toEqual({ kind: 'insulation', megohms: null })
    const wet = read('insulation', 'pump.L', 'pump.E', ...isolated, 'fault=pump.terminals.leak')
    expect(wet).toMatchObject({ kind: 'insulation', megohms: expect.closeTo(10e-6, 5) })
  })

  it('send no insulation voltage into extra-low-voltage terminals', () => {
    const { simulation } = rigAfter(circuitOf('low-voltage'), ...isolated)
    expect(measure(simulation, 'insulation', 'boiler.T1', 'boiler.E')).toEqual({
      kind: 'refused',
      refusal: { reason: 'extra-low', terminal: 'boiler.T1' },
    })
  })

  it('measure an earth back to the supply, open where it has come off', () => {
    expect(read('earth', 'zv-1.E', 'zv-1.E', ...isolated)).toMatchObject({ closed: true })
    const off = [...isolated, 'fault=zv-1-lead.green-yellow.open']
    expect(read('earth', 'zv-1.E', 'zv-1.E', ...off)).toMatchObject({ ohms: null })
  })
})

describe('leads', () => {
  it('go on no terminal that is not there, nor inside a device', () => {
    expect(() => read('meter', 'wc.99', 'wc.1')).toThrow(ActionError)
    expect(() => read('meter', 'spur.origin-L', 'wc.1')).toThrow('no terminal "spur.origin-L"')
    expect(() => read('power', 'wc.1', 'wc.1')).toThrow('power is read at a device')
  })

  it('read nothing where a conductor has an end nobody has found', () => {
    const doc = installationOf('two-port-heating')
    loosenCore(doc, 'stat-1-cable', 'grey', 0, 'unknown')
    expect(measure(new Rig(compile(doc)).simulation, 'meter', 'wc.22', 'wc.9')).toEqual({ kind: 'unknown' })
  })

  it('every dead test is refused at every device of every example while its supply is on', () => {
    for (const { id } of examples) {
      const { simulation } = new Rig(circuitOf(id))
      const motor = simulation.circuit.loads.find((l) => l.part.id === 'primary' || l.part.id === 'board')!
      const [red, black] = [motor.a, motor.b].map((atom) => simulation.circuit.atoms[atom].ref)
      expect(measure(simulation, 'resistance', red, black)).toMatchObject({ kind: 'refused' })
    }
  })
})
