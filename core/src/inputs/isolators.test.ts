import { installationOf, wired } from '../../testing'
import { deviceType, typeDirectory, type DeviceType } from '../catalogue'
import { compile, LINE } from '../circuit'
import { parseInstallation, type Installation } from '../installation'
import { Simulation, formatAction } from '../simulation'
import { isolatorsOf, isSetByHand, supplyActions, unpartedSupplies } from '.'

const acts = (doc: Installation, on: boolean) => supplyActions(compile(doc), on).map(formatAction)

/** An installation on a supply of one's own making. */
function suppliedBy(change: (spur: DeviceType) => Partial<DeviceType>): Installation {
  const spur = deviceType('fused-spur')
  const doc = wired({ devices: { spur: 'fused-spur', lamp: 'pump' }, wires: [['spur.L', 'lamp.L']] })
  const definition = { ...spur, id: 'own-spur', version: 1, ...change(spur) }
  return parseInstallation(
    {
      ...doc,
      types: [...doc.types.filter(({ id }) => id !== 'fused-spur'), { id: 'own-spur', version: 1, definition }],
      devices: doc.devices.map((device) => (device.id === 'spur' ? { ...device, type: 'own-spur' } : device)),
    },
    typeDirectory,
  )
}

describe('what isolates an installation', () => {
  it('is the switch of its spur', () => {
    expect(acts(installationOf('two-port-heating-hot-water'), false)).toEqual(['spur.switch=off'])
    expect(acts(installationOf('two-port-heating-hot-water'), true)).toEqual(['spur.switch=on'])
  })

  it('behind an RCD is the switch alone: what trips by itself is not thrown for it', () => {
    expect(acts(wired({ devices: { spur: 'fused-spur-rcd' }, wires: [] }), false)).toEqual(['spur.switch=off'])
  })

  it('is the switch of each supply, where there is more than one', () => {
    expect(acts(installationOf('single-zone-electric'), false)).toEqual(['spur.switch=off', 'own-circuit.switch=off'])
    expect(acts(installationOf('unvented'), false)).toEqual(['spur.switch=off', 'own-circuit.switch=off'])
  })

  it('is a switch however its type calls it: in a document of a time when it was taken for how things stand', () => {
    const doc = installationOf('single-zone-electric')
    const types = doc.types.map((type) => (type.id === 'own-circuit' ? { ...type, version: 1 } : type))
    const circuit = compile(parseInstallation({ ...doc, types }, typeDirectory))
    expect(supplyActions(circuit, false).map(formatAction)).toContain('own-circuit.switch=off')
    expect(isSetByHand(circuit, 'own-circuit', 'switch')).toBe(true)
    expect(isSetByHand(circuit, 'stat-1', 'link')).toBe(false)
    expect(isSetByHand(circuit, 'nobody', 'switch')).toBe(false)
  })

  it('is two switches, where each opens one pole', () => {
    const doc = suppliedBy(({ controls, primitives }) => ({
      controls: [...controls, { ...controls[0], id: 'second' }],
      primitives: primitives.map((part) =>
        part.kind === 'contact' && part.id === 'pole-N'
          ? { ...part, closedWhen: { control: 'second', is: ['on'] } }
          : part,
      ),
    }))
    expect(acts(doc, false)).toEqual(['spur.switch=off', 'spur.second=off'])
  })

  it('is the setting that opens both poles, of one that has another for one pole alone', () => {
    const doc = suppliedBy(({ controls, primitives }) => ({
      controls: controls.map((control) =>
        control.kind === 'choice'
          ? { ...control, values: [{ id: 'half', label: 'Line off' }, ...control.values] }
          : control,
      ),
      primitives: primitives.map((part) =>
        part.kind === 'contact' && part.id === 'pole-N'
          ? { ...part, closedWhen: { control: 'switch', is: ['on', 'half'] } }
          : part,
      ),
    }))
    expect(acts(doc, false)).toEqual(['spur.switch=off'])
    expect(acts(doc, true)).toEqual(['spur.switch=on'])
  })

  it('is nothing, where a pole is not opened, or only past a lamp: then nothing may be called isolated', () => {
    const straight = suppliedBy(({ primitives }) => ({
      primitives: primitives.map((part) =>
        part.kind === 'contact' && part.id === 'pole-N'
          ? { kind: 'strap', id: part.id, label: 'neutral', a: part.a, b: part.b }
          : part,
      ),
    }))
    const lamp = suppliedBy(({ primitives }) => ({
      primitives: [
        ...primitives,
        { kind: 'load', id: 'neon', label: 'neon across the switch', from: 'feed-L', to: 'L', watts: 1 },
      ],
    }))
    for (const doc of [straight, lamp]) {
      expect(isolatorsOf(compile(doc))).toEqual([])
      expect(unpartedSupplies(compile(doc))).toEqual(['spur'])
    }
  })

  it('with a second supply that has no switch is nothing, though the first has one', () => {
    const doc = suppliedBy(({ primitives }) => ({
      primitives: primitives.map((part) =>
        part.kind === 'contact' ? { kind: 'strap', id: part.id, label: part.label, a: part.a, b: part.b } : part,
      ),
      controls: [],
    }))
    const types = [...doc.types, { id: 'fused-spur', version: deviceType('fused-spur').version }]
    const second = { id: 'second', name: 'Second', type: 'fused-spur', place: 'here', settings: {} }
    const both = parseInstallation({ ...doc, types, devices: [...doc.devices, second] }, typeDirectory)
    expect(isolatorsOf(compile(both))).toEqual([])
    expect(unpartedSupplies(compile(both))).toEqual(['spur'])
  })

  it('leaves nothing live, and feeds again when it is undone', () => {
    const circuit = compile(installationOf('single-zone-electric'))
    const sim = new Simulation(circuit)
    const live = () =>
      circuit.atoms.filter(
        (atom, i) => atom.kind !== 'internal' && sim.electrics.nets.poles[sim.electrics.nets.netOf[i]] & LINE,
      ).length
    const before = live()
    expect(before).toBeGreaterThan(0)
    for (const [on, left] of [
      [false, 0],
      [true, before],
    ] as const) {
      for (const action of supplyActions(circuit, on))
        if (action.do === 'set') sim.set(action.device, action.control, action.value)
      sim.settle()
      expect(live()).toBe(left)
    }
  })
})
