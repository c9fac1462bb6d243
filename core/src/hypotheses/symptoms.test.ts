import { circuitOf, installationOf } from '../../testing'
import { signStatements, standIns, statementsOf, symptomSections, type SymptomSection } from '../../testing/symptoms'
import { deviceType, deviceTypes } from '../catalogue'
import { demandActions } from '../inputs'
import { compile, type Circuit } from '../circuit'
import { examples } from '../examples'
import { signsOf } from '../trace'
import { faultsOf, Rig } from '.'

/** docs/symptoms.md, written before the model was run on it. */
const sections = symptomSections()
const sectionOf = (example: string): SymptomSection => sections.find((s) => s.example === example)!

/** The rig at rest with the fault in, then with the demands of a column made. */
function shown(circuit: Circuit, fault: string, column: string): string[] {
  const rig = new Rig(circuit)
  if (fault !== 'healthy') rig.perform({ do: 'fault', fault })
  rig.simulation.settle()
  const wanted = column === 'nothing' ? [] : column.split(' + ')
  if (wanted.length > 0) demandActions(circuit, wanted).forEach((action) => rig.perform(action))
  rig.simulation.settle()
  return signStatements(circuit, signsOf(rig.simulation))
}
const expectRow = (circuit: Circuit, { columns }: SymptomSection, fault: string, cells: string[]) =>
  expect(columns.map((column) => shown(circuit, fault, column))).toEqual(cells.map(statementsOf))

describe.each(sections.map((s) => [s.example, s] as const))('symptoms on %s', (example, section) => {
  const circuit = circuitOf(example)
  it.each(section.rows)('%s', (fault, cells) => expectRow(circuit, section, fault, cells))
})

describe.each(standIns().map((s) => [`${s.type} for ${s.device} of ${s.example}`, s] as const))(
  'symptoms of %s',
  (_, { type, example, device }) => {
    const doc = installationOf(example)
    doc.devices.find((d) => d.id === device)!.type = type
    doc.types.push({ id: type, version: deviceType(type).version })
    const circuit = compile(doc)
    const known = new Set(faultsOf(circuit).map((f) => f.name))
    const rows = sectionOf(example).rows.filter(([fault]) => fault.startsWith(`${device}.`) && known.has(fault))
    it.each(rows)('%s', (fault, cells) => expectRow(circuit, sectionOf(example), fault, cells))
  },
)

describe('the table of symptoms', () => {
  it('has a row for every fault of every device type', () => {
    const covered = new Set<string>()
    // Rooms of one manifold controller are alike: the first stands for all.
    const alike = (key: string) => (key.startsWith('manifold-controller ') ? key.replace(/-\d\./, '-1.') : key)
    for (const { example, rows } of sections) {
      const typeOf = new Map(installationOf(example).devices.map((d) => [d.id, d.type]))
      const exchanged = standIns().filter((s) => s.example === example)
      for (const [fault] of rows) {
        const device = fault.split('.')[0]
        const failure = fault.slice(device.length + 1)
        for (const type of [typeOf.get(device), ...exchanged.filter((s) => s.device === device).map((s) => s.type)])
          if (type) covered.add(alike(`${type} ${failure}`))
      }
    }
    const all = deviceTypes.flatMap((type) =>
      type.primitives.flatMap((p) => (p.failures ?? []).map((f) => `${type.id} ${p.id}.${f.id}`)),
    )
    const missing = all.filter((key) => !covered.has(alike(key)))
    expect(missing).toEqual([])
  })

  it('on the first system, and every conductor of it in use but the earths, which show nothing', () => {
    const circuit = circuitOf('two-port-heating-hot-water')
    const section = sectionOf('two-port-heating-hot-water')
    const named = new Set(section.rows.map(([fault]) => fault))
    const unnamed = faultsOf(circuit).filter((f) => !named.has(f.name))
    expect(unnamed.length).toBeGreaterThan(0)
    const healthy = section.rows.find(([fault]) => fault === 'healthy')![1]
    for (const { name } of unnamed) {
      expect(name).toMatch(/\.green-yellow\.open$/)
      expectRow(circuit, section, name, healthy)
    }
  })

  it('at its second call, a switch that makes at times only has made', () => {
    const circuit = circuitOf('two-port-heating-hot-water')
    const rig = new Rig(circuit)
    rig.perform({ do: 'fault', fault: 'zv-1.end-switch.makes-sometimes' })
    const want = (...demands: string[]) => {
      demandActions(circuit, demands).forEach((action) => rig.perform(action))
      rig.simulation.settle()
      return rig.simulation.phase(0).phase
    }
    const calls = [0, 1, 2].map(() => {
      const phase = want('heating-1')
      want()
      return phase
    })
    expect(calls).toEqual(['idle', 'firing', 'idle'])
  })
})

describe('every fault of every example', () => {
  it.each(examples.map((e) => e.id))('of %s can be put in, and taken out again leaves the system as it was', (id) => {
    const circuit = circuitOf(id)
    const rest = signStatements(circuit, signsOf(new Rig(circuit).simulation))
    for (const { name } of faultsOf(circuit)) {
      const rig = new Rig(circuit)
      rig.perform({ do: 'fault', fault: name })
      rig.simulation.settle()
      rig.perform({ do: 'mend', fault: name })
      // What it blew is replaced; a middle valve that was driven off its rest by the fault stays where grey holds it.
      rig.simulation.circuit.fuses.forEach(({ device, part }, i) => {
        const blown = `${circuit.devices[device].device.id}.${part.id}.blown`
        if (rig.simulation.fuseBlown(i)) rig.perform({ do: 'mend', fault: blown })
      })
      // What locked itself out is reset.
      for (const { device, type } of circuit.devices) {
        const reset = type.controls.find((c) => c.id === 'reset')
        if (reset) rig.simulation.set(device.id, reset.id, String(reset.initial))
      }
      expect(rig.simulation.settle()).toBe('settled')
      const after = signStatements(circuit, signsOf(rig.simulation)).filter((s) => !/^valve: (A|mid), hums/.test(s))
      expect([name, after]).toEqual([name, rest])
    }
  })
})

describe('faults', () => {
  const circuit = circuitOf('two-port-heating-hot-water')

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
