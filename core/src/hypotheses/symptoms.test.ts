import { circuitOf, installationOf, rigAfter } from '../../testing'
import { compile } from '../circuit'
import { faultsOf, Rig } from '.'

/**
 * What an engineer would see of each fault on a heating and hot water system, written down from how the parts behave.
 * Per state, settled: which valves are open (h, w), B where the boiler is called, P where the pump runs; - for nothing.
 */
const states = {
  rest: [],
  heating: ['programmer.heating=on', 'stat-1.set=25'],
  water: ['programmer.hot-water=on', 'cyl-stat.set=75'],
  both: ['programmer.heating=on', 'stat-1.set=25', 'programmer.hot-water=on', 'cyl-stat.set=75'],
} as const

const symptoms: Record<string, [rest: string, heating: string, water: string, both: string]> = {
  healthy: ['-', 'hBP', 'wBP', 'hwBP'],
  'spur.fuse.blown': ['-', '-', '-', '-'],
  'spur.pole-L.never-makes': ['-', '-', '-', '-'],
  'spur.pole-N.never-makes': ['-', '-', '-', '-'],
  'boiler.casing.leak': ['-', '-', '-', '-'],
  'pump.terminals.leak': ['-', '-', '-', '-'],
  'programmer.clock.open': ['-', '-', '-', '-'],
  'programmer.heating.never-operates': ['-', '-', 'wBP', 'wBP'],
  'programmer.heating.stuck-operated': ['-', 'hBP', 'wBP', 'hwBP'],
  'programmer.hot-water.never-operates': ['-', 'hBP', '-', 'hBP'],
  'programmer.hot-water.stuck-operated': ['-', 'hBP', 'wBP', 'hwBP'],
  'stat-1.contact.never-makes': ['-', '-', 'wBP', 'wBP'],
  'stat-1.contact.stuck-made': ['-', 'hBP', 'wBP', 'hwBP'],
  'stat-1.accelerator.open': ['-', 'hBP', 'wBP', 'hwBP'],
  'cyl-stat.contact.never-operates': ['-', 'hBP', '-', 'hBP'],
  'cyl-stat.contact.stuck-operated': ['-', 'hBP', 'wBP', 'hwBP'],
  'zv-1.motor.open': ['-', '-', 'wBP', 'wBP'],
  'zv-1.motor.jammed': ['-', '-', 'wBP', 'wBP'],
  'zv-1.travel.seized-part-way': ['h', 'h', 'hwBP', 'hwBP'],
  'zv-1.travel.no-return': ['-', 'hBP', 'wBP', 'hwBP'],
  'zv-1.travel.seized-shut': ['-', '-', 'wBP', 'wBP'],
  'zv-1.travel.seized-open': ['hBP', 'hBP', 'hwBP', 'hwBP'],
  'zv-1.end-switch.never-makes': ['-', 'h', 'wBP', 'hwBP'],
  'zv-1.end-switch.stuck-made': ['BP', 'hBP', 'wBP', 'hwBP'],
  'zv-hw.motor.open': ['-', 'hBP', '-', 'hBP'],
  'zv-hw.motor.jammed': ['-', 'hBP', '-', 'hBP'],
  'zv-hw.travel.seized-part-way': ['w', 'hwBP', 'w', 'hwBP'],
  'zv-hw.travel.no-return': ['-', 'hBP', 'wBP', 'hwBP'],
  'zv-hw.travel.seized-shut': ['-', 'hBP', '-', 'hBP'],
  'zv-hw.travel.seized-open': ['wBP', 'hwBP', 'wBP', 'hwBP'],
  'zv-hw.end-switch.never-makes': ['-', 'hBP', 'w', 'hwBP'],
  'zv-hw.end-switch.stuck-made': ['BP', 'hBP', 'wBP', 'hwBP'],
  'boiler.board.open': ['-', 'h', 'w', 'hw'],
  'boiler.call.open': ['-', 'h', 'w', 'hw'],
  'boiler.pump-relay.never-makes': ['-', 'hB', 'wB', 'hwB'],
  'boiler.pump-relay.stuck-made': ['P', 'hBP', 'wBP', 'hwBP'],
  'pump.motor.open': ['-', 'hB', 'wB', 'hwB'],
  'pump.motor.jammed': ['-', 'hB', 'wB', 'hwB'],
  'supply.brown.open': ['-', '-', '-', '-'],
  'supply.blue.open': ['-', '-', '-', '-'],
  'programmer-cable.brown.open': ['-', '-', '-', '-'],
  'programmer-cable.blue.open': ['-', '-', '-', '-'],
  'programmer-cable.black.open': ['-', '-', 'wBP', 'wBP'],
  'programmer-cable.grey.open': ['-', 'hBP', '-', 'hBP'],
  'stat-1-cable.brown.open': ['-', '-', 'wBP', 'wBP'],
  'stat-1-cable.blue.open': ['-', 'hBP', 'wBP', 'hwBP'],
  'stat-1-cable.black.open': ['-', '-', 'wBP', 'wBP'],
  'zv-1-lead.brown.open': ['-', '-', 'wBP', 'wBP'],
  'zv-1-lead.blue.open': ['-', '-', 'wBP', 'wBP'],
  'zv-1-lead.grey.open': ['-', 'h', 'wBP', 'hwBP'],
  'zv-1-lead.orange.open': ['-', 'h', 'wBP', 'hwBP'],
  'zv-hw-lead.brown.open': ['-', 'hBP', '-', 'hBP'],
  'zv-hw-lead.blue.open': ['-', 'hBP', '-', 'hBP'],
  'zv-hw-lead.grey.open': ['-', 'hBP', 'w', 'hwBP'],
  'zv-hw-lead.orange.open': ['-', 'hBP', 'w', 'hwBP'],
  'cyl-stat-cable.brown.open': ['-', 'hBP', '-', 'hBP'],
  'cyl-stat-cable.black.open': ['-', 'hBP', '-', 'hBP'],
  'boiler-cable.brown.open': ['-', 'h', 'w', 'hw'],
  'boiler-cable.blue.open': ['-', 'h', 'w', 'hw'],
  'boiler-cable.black.open': ['-', 'h', 'w', 'hw'],
  'pump-cable.brown.open': ['-', 'hB', 'wB', 'hwB'],
  'pump-cable.blue.open': ['-', 'hB', 'wB', 'hwB'],
}

const circuit = circuitOf('two-port-heating-hot-water')

function seen(fault: string, actions: readonly string[]): string {
  const put = fault === 'healthy' ? [] : [`fault=${fault}`]
  const { simulation } = rigAfter(circuit, ...put, ...actions)
  expect(simulation.settle()).toBe('settled')
  const phase = simulation.phase(0).phase
  const shown = [
    simulation.actuatorPosition(0) > 0 && 'h',
    simulation.actuatorPosition(1) > 0 && 'w',
    phase === 'firing' && 'B',
    simulation.loadWorking(circuit.loads.findIndex((l) => l.part.work === 'runs')) && 'P',
  ]
  return shown.filter(Boolean).join('') || '-'
}

describe('symptoms of each fault, at rest, heating, hot water, both', () => {
  it.each(Object.entries(symptoms))('%s', (fault, expected) => {
    expect(Object.values(states).map((actions) => seen(fault, actions))).toEqual(expected)
  })

  it('the table leaves out no fault but open earths, which show nothing', () => {
    const missing = faultsOf(circuit)
      .map((f) => f.name)
      .filter((name) => !(name in symptoms))
    expect(missing.length).toBeGreaterThan(0)
    expect(missing.filter((name) => !name.endsWith('.green-yellow.open'))).toEqual([])
    for (const earth of missing)
      expect(Object.values(states).map((actions) => seen(earth, actions))).toEqual(symptoms.healthy)
  })
})

describe('faults', () => {
  it('have names of their own, and a label that says device and failure', () => {
    const faults = faultsOf(circuit)
    expect(new Set(faults.map((f) => f.name)).size).toBe(faults.length)
    for (const fault of faults) expect(fault.label).toMatch(/^.+: .+$/)
  })

  it('are not made of conductors that serve nothing', () => {
    expect(faultsOf(circuit).map((f) => f.name)).not.toContain('stat-1-cable.grey.open')
    const doc = installationOf('two-port-heating-hot-water')
    doc.cables.find((c) => c.id === 'supply')!.cores[0].ends[0] = { at: 'unknown' }
    expect(faultsOf(compile(doc)).map((f) => f.name)).not.toContain('supply.brown.open')
  })

  it('hold a changeover the other way on its other throw', () => {
    const rig = new Rig(circuit)
    rig.perform({ do: 'fault', fault: 'cyl-stat.contact.stuck-operated' })
    const throws = circuit.contacts.flatMap((c, i) =>
      c.part.id === 'contact' && circuit.devices[c.device].device.id === 'cyl-stat'
        ? [rig.simulation.contactClosed(i)]
        : [],
    )
    expect(throws).toEqual([true, false])
    expect(rig.faultsIn.map((f) => f.name)).toEqual(['cyl-stat.contact.stuck-operated'])
  })
})
