import {
  typeIn,
  leavesOf,
  type Amount,
  type Changeover,
  type Condition,
  type ConditionLeaf,
  type Control,
  type Contact,
  type Load,
  type Primitive,
} from '../catalogue'
import type { Device } from '../installation'
import type { Circuit, CompiledDevice, CompiledLoad, Edge } from './circuit'
import type { AtomId, EdgeId } from './ids'
import { admittance, winding, type Element } from './impedance'

type Addition<T> = T extends unknown ? Omit<T, 'a' | 'b'> : never
export type AddEdge = (a: AtomId, b: AtomId, rest: Addition<Edge>) => EdgeId

/** Per cent of nominal volts from which a load works, and the share of that below which it lets go. Usual values. */
const usualPullIn = 75
const usualDropOut = 0.8

/** Where a control stands to begin with: as the document says, where that is a value it can have. */
function initialOf({ positions }: Device, control: Control): string | number {
  const said = positions?.[control.id]
  if (control.kind === 'number')
    return typeof said === 'number' && said >= control.min && said <= control.max ? said : control.initial
  return control.values.some((v) => v.id === said) ? String(said) : control.initial
}

/** Adds a device's parts to the circuit; its terminals stand in it already. */
export function compileDevice(circuit: Circuit, id: string, addEdge: AddEdge, atomAt: (ref: string) => AtomId): void {
  const device = circuit.installation.devices.find((d) => d.id === id)!
  const type = typeIn(circuit.installation, device.type)
  const index = circuit.devices.length
  const amount = (a: Amount): number => {
    if (typeof a === 'number') return a
    const given = device.settings[a.setting]
    if (typeof given === 'number') return given
    return type.settings.find((s) => s.id === a.setting)!.default
  }
  const compiled: CompiledDevice = {
    device,
    type,
    controlIndex: new Map(),
    loadIndex: new Map(),
    actuatorIndex: new Map(),
    sensorIndex: new Map(),
    behaviourIndex: new Map(),
    busIndex: new Map(),
    wayIndex: new Map(),
    camIndex: new Map(),
    amount,
  }
  circuit.devices.push(compiled)
  circuit.deviceIndex.set(id, index)
  const atom = (terminal: string) => atomAt(`${id}.${terminal}`)
  for (const control of type.controls)
    compiled.controlIndex.set(
      control.id,
      circuit.controls.push({ device: index, id: control.id, initial: initialOf(device, control) }) - 1,
    )

  // Loads first: actuators, sensors, transformers and behaviours refer to them.
  for (const p of type.primitives)
    if (p.kind === 'load') {
      const load = compileLoad(circuit, index, p, atom(p.from), atom(p.to), amount)
      compiled.loadIndex.set(p.id, circuit.loads.push(load) - 1)
      addBranch(circuit, load.a, load.b, load.element, { kind: 'load', load: circuit.loads.length - 1 })
    }
  const load = (part: string) => compiled.loadIndex.get(part)!

  const addThrow = (part: Contact | Changeover, name: 'made' | 'no' | 'nc', a: string, b: string, when: Condition) => {
    const contact = circuit.contacts.length
    const edge = addEdge(atom(a), atom(b), { kind: 'contact', contact })
    circuit.contacts.push({ device: index, part, throw: name, edge, closedWhen: when, inverted: name === 'nc' })
  }

  for (const p of type.primitives) {
    switch (p.kind) {
      case 'contact':
        addThrow(p, 'made', p.a, p.b, p.closedWhen)
        break
      case 'changeover':
        addThrow(p, 'no', p.common, p.no, p.operatedWhen)
        addThrow(p, 'nc', p.common, p.nc, p.operatedWhen)
        break
      case 'strap':
        addEdge(atom(p.a), atom(p.b), { kind: 'strap', device: index, part: p.id, label: p.label })
        break
      case 'fuse': {
        const fuse = circuit.fuses.length
        const edge = addEdge(atom(p.a), atom(p.b), { kind: 'fuse', fuse })
        circuit.fuses.push({ device: index, part: p, edge, amps: amount(p.amps) })
        break
      }
      case 'insulation': {
        const insulation = circuit.insulations.push({ device: index, part: p }) - 1
        const element = { kind: 'resistance', ohms: amount(p.ohms) } as const
        addBranch(circuit, atom(p.a), atom(p.b), element, { kind: 'insulation', insulation })
        break
      }
      case 'suppressor': {
        const element = { kind: 'capacitance', farads: amount(p.microfarads) * 1e-6, ohms: amount(p.ohms) } as const
        addBranch(circuit, atom(p.a), atom(p.b), element, { kind: 'suppressor', device: index, part: p.id })
        break
      }
      case 'diode':
        circuit.diodes.push({
          device: index,
          part: p,
          anode: atom(p.anode),
          cathode: atom(p.cathode),
          ohms: amount(p.ohms),
        })
        break
      case 'transformer': {
        const [volts, rise] = [amount(p.volts), amount(p.regulation) / 100]
        circuit.transformers.push({
          device: index,
          part: p,
          primary: load(p.primary),
          fed: atom(p.fed),
          common: atom(p.common),
          ratio: (volts * (1 + rise)) / circuit.loads[load(p.primary)].nominal,
          nominal: volts,
          seriesOhms: (rise * volts * volts) / amount(p.va),
        })
        break
      }
      case 'residual-trip': {
        const line = circuit.contacts.findIndex((c) => c.device === index && c.part.id === p.contacts[0])
        const neutral = circuit.contacts.findIndex((c) => c.device === index && c.part.id === p.contacts[1])
        circuit.trips.push({
          device: index,
          part: p,
          contacts: [line, neutral],
          amps: amount(p.milliamps) / 1000,
        })
        break
      }
      case 'source': {
        const { line, neutral, earth } = p
        const loopOhms = amount(p.loopOhms)
        circuit.sources.push({
          device: index,
          part: p,
          line: atom(line),
          neutral: atom(neutral),
          earth: atom(earth),
          loopOhms,
        })
        break
      }
      case 'actuator': {
        const spoken = travelLeaves(type.primitives, p.id)
        const actuator = circuit.actuators.length
        for (const leaf of spoken)
          if (leaf.releasedAt !== undefined && !compiled.camIndex.has(leaf)) {
            const cam = { actuator, reached: amount(leaf.reached), releasedAt: amount(leaf.releasedAt) }
            compiled.camIndex.set(leaf, circuit.cams.push(cam) - 1)
          }
        const ascending = (x: number, y: number) => x - y
        const gates = type.primitives.flatMap((q) =>
          q.kind === 'port' && q.actuator === p.id ? [q.openFrom, q.openTo] : [],
        )
        const edges = gates.filter((edge) => edge > 0 && edge < 1)
        const makesAt = spoken.map((leaf) => amount(leaf.reached))
        const letsGoAt = spoken.flatMap((l) => (l.releasedAt === undefined ? [] : [amount(l.releasedAt)]))
        circuit.actuators.push({
          device: index,
          part: p,
          drivenBy: load(p.drivenBy),
          movedBy: p.movedBy === undefined ? undefined : load(p.movedBy),
          reversed: p.reversed !== undefined && amount(p.reversed) === 1,
          openMs: amount(p.openSeconds) * 1000,
          returnMs: amount(p.returnSeconds) * 1000,
          latchedAt: p.latch ? amount(p.latch.at) : 0,
          makesAt,
          letsGoAt,
          thresholds: [...makesAt, ...edges].sort(ascending),
          releases: [...letsGoAt, ...edges].sort(ascending),
        })
        compiled.actuatorIndex.set(p.id, actuator)
        break
      }
      case 'port':
        circuit.ports.push({ device: index, part: p, actuator: compiled.actuatorIndex.get(p.actuator)! })
        break
      case 'sensor':
        compiled.sensorIndex.set(
          p.id,
          circuit.sensors.push({
            device: index,
            part: p,
            reads: compiled.controlIndex.get(p.reads)!,
            setPoint: compiled.controlIndex.get(p.setPoint)!,
            differential: amount(p.differential),
            accelerator: p.accelerator && {
              load: load(p.accelerator.load),
              differential: amount(p.accelerator.differential),
            },
            throws: p.throws && { control: compiled.controlIndex.get(p.throws.control)!, to: p.throws.to },
          }) - 1,
        )
        break
      case 'bus':
        compiled.busIndex.set(
          p.id,
          circuit.buses.push({
            device: index,
            part: p,
            a: atom(p.a),
            b: atom(p.b),
            powered: load(p.powered),
            heard: p.heard === undefined ? undefined : load(p.heard),
            answerMs: amount(p.answerSeconds ?? 0) * 1000,
          }) - 1,
        )
        break
      case 'behaviour':
        compiled.behaviourIndex.set(
          p.id,
          circuit.behaviours.push({
            device: index,
            part: p,
            watches: p.watches,
            figures: Object.fromEntries(Object.entries(p.figures).map(([role, figure]) => [role, amount(figure)])),
            throws: p.throws && { control: compiled.controlIndex.get(p.throws.control)!, to: p.throws.to },
          }) - 1,
        )
        break
    }
  }
}

function addBranch(
  circuit: Circuit,
  a: AtomId,
  b: AtomId,
  element: Element,
  of: Circuit['branches'][number]['of'],
): void {
  circuit.branches.push({ a, b, element, y: admittance(element, 1, circuit.omega, { re: 0, im: 0 }), of })
}

function compileLoad(
  circuit: Circuit,
  device: number,
  part: Load,
  a: AtomId,
  b: AtomId,
  amount: (a: Amount) => number,
): CompiledLoad {
  const nominal = part.volts === undefined ? circuit.installation.supply.volts : amount(part.volts)
  const share = (percent: Amount | undefined) => (percent === undefined ? undefined : (amount(percent) / 100) * nominal)
  const pullsIn = share(part.pullsIn ?? usualPullIn)!
  const element = ((): Element => {
    if (part.ohms !== undefined) return { kind: 'resistance', ohms: amount(part.ohms) }
    const watts = amount(part.watts!)
    if (part.dcPercent === undefined) return { kind: 'resistance', ohms: (nominal * nominal) / watts }
    return winding(nominal, watts, amount(part.powerFactor ?? 1), amount(part.dcPercent), circuit.omega)
  })()
  return {
    device,
    part,
    a,
    b,
    element,
    nominal,
    pullsIn,
    dropsOut: share(part.dropsOut) ?? pullsIn * usualDropOut,
    holdsOn: share(part.holdsOn) ?? Infinity,
    ownSupply: part.lights === true || circuit.atoms[a].kind === 'internal',
    ratedMs: (part.ratedMinutes === undefined ? 0 : amount(part.ratedMinutes)) * 60_000 || Infinity,
    withstands: part.withstands === undefined ? Infinity : amount(part.withstands),
  }
}

type TravelLeaf = Extract<ConditionLeaf, { actuator: string }>

/** Every condition among a device's contacts that speaks of one actuator's travel. */
const travelLeaves = (primitives: readonly Primitive[], actuator: string): TravelLeaf[] =>
  primitives
    .flatMap((q) => (q.kind === 'contact' ? [q.closedWhen] : q.kind === 'changeover' ? [q.operatedWhen] : []))
    .flatMap(leavesOf)
    .filter((leaf): leaf is TravelLeaf => 'actuator' in leaf && leaf.actuator === actuator)
