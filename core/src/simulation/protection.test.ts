import { circuitOf, installationOf, loosenCore, moveCore, rigAfter, wired } from '../../testing'
import { compile } from '../circuit'
import type { Installation } from '../installation'
import { Simulation } from '.'

const heatingOn = ['programmer.heating=on', 'stat-1.set=21']
const opened = (sim: Simulation) =>
  sim.history.flatMap((e) => (e.kind === 'fuse' || e.kind === 'trip' ? [`${e.device}.${e.part}`] : []))
const link = (doc: Installation, a: string, b: string) =>
  doc.links.push({ id: `stray-${doc.links.length}`, kind: 'fitted', between: [a, b] })
const behindRcd = () => {
  const doc = installationOf('two-port-heating')
  doc.devices.find((d) => d.id === 'spur')!.type = 'fused-spur-rcd'
  doc.types.push({ id: 'fused-spur-rcd', version: 2 })
  return doc
}
/** A fuse of so many amperes in the box, before the boiler. */
const withBoxFuse = (amps: number) =>
  compile(
    wired({
      devices: {
        spur: 'fused-spur',
        fuse: ['box-fuse', { fuse: amps }],
        programmer: 'programmer-two-channel',
        boiler: 'boiler-switched-live',
      },
      wires: [
        ['spur.L', 'fuse.IN'],
        ['fuse.OUT', 'boiler.L'],
        ['spur.N', 'boiler.N'],
        ['spur.E', 'boiler.E'],
        ['spur.L', 'programmer.L'],
        ['spur.N', 'programmer.N'],
        ['programmer.HTG-ON', 'spur.N'],
        ['programmer.HW-ON', 'boiler.E'],
      ],
    }),
  )

describe('a short circuit', () => {
  it('opens the fuse of the lowest rating in its path, and nothing upstream of it', () => {
    const doc = installationOf('two-port-heating')
    link(doc, 'wc.17', 'wc.9')
    const { simulation } = rigAfter(compile(doc), ...heatingOn, 'wait=1s')
    expect(simulation.history.some((e) => e.kind === 'short')).toBe(true)
    expect(opened(simulation)).toEqual(['spur.fuse'])
  })

  it('opens a fuse only where the fault current passes through it', () => {
    const { simulation } = rigAfter(withBoxFuse(1), 'programmer.heating=on', 'wait=1s')
    // The short lies before the box's fuse: that one is as good as new.
    expect(opened(simulation)).toEqual(['spur.fuse'])
  })

  it('behind the box’s fuse opens that one first, and leaves the rest under supply', () => {
    const { simulation } = rigAfter(withBoxFuse(1), 'fault=boiler.casing.leak', 'wait=1s')
    expect(opened(simulation)).toEqual(['fuse.fuse'])
    expect(simulation.potentialAt('programmer.L').state).toBe('live')
  })
})

describe('a short behind a transformer', () => {
  it('opens the transformer’s own fuse, and leaves the mains as they were', () => {
    const doc = installationOf('low-voltage')
    link(doc, 'wc.1', 'wc.4')
    const { simulation } = rigAfter(compile(doc), 'wait=5s')
    expect(opened(simulation)).toEqual(['transformer.fuse'])
    expect(simulation.potentialAt('boiler.L').state).toBe('live')
  })
})

describe('an earth fault', () => {
  it('of low resistance blows the spur’s fuse where no RCD is fitted', () => {
    const { simulation } = rigAfter(
      circuitOf('two-port-heating'),
      'fault=pump.terminals.leak',
      ...heatingOn,
      'wait=60s',
    )
    expect(opened(simulation)).toEqual(['spur.fuse'])
  })

  it('trips the RCD first where one is fitted, and leaves the fuse whole', () => {
    const rig = rigAfter(compile(behindRcd()), 'fault=pump.terminals.leak', ...heatingOn, 'wait=60s')
    expect(opened(rig.simulation)).toEqual(['spur.rcd'])
    expect(rig.simulation.control('spur', 'rcd')).toBe('off')
    expect(rig.simulation.potentialAt('boiler.N').state).not.toBe('neutral')
    // Switched on again with the leak still there it trips again; with the leak gone it stays.
    rig.perform({ do: 'set', device: 'spur', control: 'rcd', value: 'on' })
    rig.perform({ do: 'wait', ms: 60_000 })
    expect(opened(rig.simulation)).toEqual(['spur.rcd', 'spur.rcd'])
    rig.perform({ do: 'mend', fault: 'pump.terminals.leak' })
    rig.perform({ do: 'set', device: 'spur', control: 'rcd', value: 'on' })
    rig.perform({ do: 'wait', ms: 60_000 })
    expect(rig.simulation.phase(0).phase).toBe('firing')
  })

  it('too small for any fuse still trips the RCD; below its rating nothing does', () => {
    const leaking = (ohms: number) => {
      const doc = behindRcd()
      doc.devices.find((d) => d.id === 'pump')!.settings = { leak: ohms }
      return rigAfter(compile(doc), 'fault=pump.terminals.leak', ...heatingOn, 'wait=60s').simulation
    }
    expect(opened(leaking(5000))).toEqual(['spur.rcd'])
    expect(opened(leaking(10_000))).toEqual([])
  })

  it('a neutral that touches earth trips the RCD', () => {
    const doc = behindRcd()
    link(doc, 'wc.5', 'wc.10')
    // Even at rest the boiler's own draw is shared between neutral and earth: it trips as the supply comes on.
    const sim = new Simulation(compile(doc))
    expect(opened(sim)).toEqual(['spur.rcd'])
    expect(sim.control('spur', 'rcd')).toBe('off')
  })

  it('bolted, blows the fuse within a millisecond and takes the RCD with it', () => {
    const doc = behindRcd()
    link(doc, 'wc.17', 'wc.10')
    const { simulation } = rigAfter(compile(doc), ...heatingOn, 'wait=1s')
    expect(opened(simulation)).toEqual(['spur.fuse', 'spur.rcd'])
  })
})

describe('mains on extra-low-voltage terminals', () => {
  const mainsOn = (terminal: string) => {
    const doc = installationOf('low-voltage')
    const call = doc.cables.find((c) => c.id === 'call-cable')!
    call.cores[terminal === 'boiler.T1' ? 0 : 1].ends[1] = { at: 'terminal', terminal: 'spur.L' }
    return rigAfter(compile(doc), 'wait=5s')
  }

  it.each(['boiler.T1', 'boiler.T2'])('at %s burns the board out, and it stays burnt out', (terminal) => {
    const rig = mainsOn(terminal)
    expect(rig.simulation.history).toContainEqual(expect.objectContaining({ kind: 'burnt', device: 'boiler' }))
    rig.perform({ do: 'set', device: 'spur', control: 'switch', value: 'off' })
    rig.perform({ do: 'wait', ms: 1000 })
    const { circuit } = rig.simulation
    const burnt = circuit.loads.filter(
      (l, i) => circuit.devices[l.device].device.id === 'boiler' && rig.simulation.loadOpen(i),
    )
    expect(burnt.length).toBeGreaterThan(0)
  })

  it('burns out a 24 V motor that is put on the mains', () => {
    const doc = installationOf('low-voltage')
    moveCore(doc, 'zv-1-lead', 'yellow', 1, 'spur.L')
    moveCore(doc, 'zv-1-lead', 'yellow-2', 1, 'spur.N')
    const { history } = rigAfter(compile(doc), 'wait=1s').simulation
    expect(history).toContainEqual(expect.objectContaining({ kind: 'burnt', device: 'zv-1', part: 'motor' }))
  })
})

describe('a call input that acts on little', () => {
  const sensitive = (lengthM: number, suppressed: boolean) => {
    const doc = installationOf('two-port-heating')
    doc.devices.find((d) => d.id === 'boiler')!.settings = { input: 1_000_000, 'acts-on': 20 }
    doc.cables.find((c) => c.id === 'boiler-cable')!.lengthM = lengthM
    if (suppressed) {
      doc.devices.push({ id: 'suppressor', name: 'Suppressor', type: 'suppressor', place: 'plant', settings: {} })
      doc.types.push({ id: 'suppressor', version: 1 })
      for (const [terminal, to] of [
        ['A', 'SL'],
        ['B', 'N'],
      ])
        doc.cables.push({
          id: `suppressor-${terminal}`,
          label: 'Suppressor lead',
          ratedForMains: true,
          cores: [
            {
              id: 'core',
              colour: 'black',
              areaMm2: 0.75,
              ends: [
                { at: 'terminal', terminal: `suppressor.${terminal}` },
                { at: 'terminal', terminal: `boiler.${to}` },
              ],
            },
          ],
        })
    }
    return compile(doc)
  }
  const phase = (circuit: ReturnType<typeof compile>, ...actions: string[]) =>
    rigAfter(circuit, ...actions, 'wait=60s').simulation.phase(0).phase

  it('fires on what a long open conductor picks up, with no demand', () => {
    expect(phase(sensitive(20, false))).toBe('firing')
    expect(phase(sensitive(1, false))).toBe('idle')
  })

  it('is cured by a suppressor, and still answers a real call', () => {
    expect(phase(sensitive(20, true))).toBe('idle')
    expect(phase(sensitive(20, true), ...heatingOn)).toBe('firing')
  })
})

describe('a second supply', () => {
  it('keeps live what the first spur’s switch should make dead', () => {
    const doc = installationOf('two-port-heating')
    doc.devices.push({ id: 'immersion', name: 'Immersion spur', type: 'fused-spur', place: 'plant', settings: {} })
    doc.cables.find((c) => c.id === 'boiler-cable')!.cores[0].ends[1] = { at: 'terminal', terminal: 'immersion.L' }
    link(doc, 'boiler.L', 'boiler.SL')
    const { simulation } = rigAfter(compile(doc), 'spur.switch=off', 'wait=1s')
    expect(simulation.potentialAt('wc.1').state).not.toBe('live')
    expect(simulation.potentialAt('wc.19').state).toBe('live')
  })
})

describe('a lost neutral', () => {
  it('leaves both valves of the joint it fed without enough volts, one motor in series with the other', () => {
    const doc = installationOf('two-port-two-heating')
    for (const zone of ['zv-1', 'zv-2']) loosenCore(doc, `${zone}-lead`, 'blue', 1)
    link(doc, 'zv-1.N', 'zv-2.N')
    const { simulation } = rigAfter(compile(doc), ...heatingOn, 'wait=30s')
    expect(simulation.actuatorPosition(0)).toBe(0)
    expect(simulation.potentialAt('zv-1.N').state).toBe('partial')
    expect(simulation.potentialAt('zv-2.M').state).toBe('partial')
  })
})
