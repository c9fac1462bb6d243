import { deviceType, leavesOf, type Amount, type Condition } from '../catalogue'
import type { End, Installation } from '../installation'
import type { Atom, Circuit, CompiledDevice, Edge } from './circuit'

type Addition<T> = T extends unknown ? Omit<T, 'a' | 'b'> : never

/**
 * Compiles a parsed installation to atoms and edges. Pure; takes a document that {@link parseInstallation} accepted,
 * so a reference that does not resolve is a programming error and throws.
 */
export function compile(installation: Installation): Circuit {
  const circuit: Circuit = {
    installation,
    atoms: [],
    atomIndex: new Map(),
    edges: [],
    edgesAt: [],
    devices: [],
    deviceIndex: new Map(),
    contacts: [],
    loads: [],
    fuses: [],
    actuators: [],
    sensors: [],
    behaviours: [],
    sources: [],
    controls: [],
  }
  const addAtom = (atom: Omit<Atom, 'uncertain'>): number => {
    const index = circuit.atoms.push({ ...atom, uncertain: false }) - 1
    circuit.atomIndex.set(atom.ref, index)
    circuit.edgesAt.push([])
    return index
  }
  const addEdge = (a: number, b: number, rest: Addition<Edge>): number => {
    const index = circuit.edges.push({ ...rest, a, b } as Edge) - 1
    circuit.edgesAt[a].push(index)
    if (b !== a) circuit.edgesAt[b].push(index)
    return index
  }
  const atomAt = (ref: string): number => {
    const index = circuit.atomIndex.get(ref)
    if (index === undefined) throw new Error(`no terminal "${ref}"`)
    return index
  }

  for (const device of installation.devices) {
    for (const t of deviceType(device.type).terminals) {
      addAtom({
        ref: `${device.id}.${t.id}`,
        owner: device.id,
        legend: t.legend,
        kind: t.internal ? 'internal' : 'device',
        role: t.role,
      })
    }
  }
  for (const centre of installation.wiringCentres)
    for (const t of centre.terminals)
      addAtom({ ref: `${centre.id}.${t.id}`, owner: centre.id, legend: t.legend, kind: 'centre' })
  for (const c of installation.connectors) addAtom({ ref: c.id, owner: c.id, legend: c.name, kind: 'connector' })

  for (const device of installation.devices) compileDevice(circuit, device.id, addEdge, atomAt)

  for (const cable of installation.cables) {
    for (const core of cable.cores) {
      const [a, b] = core.ends.map((end: End, i) => {
        if (end.at === 'terminal' || end.at === 'parked') return atomAt(end.terminal)
        if (end.at === 'connector') return atomAt(end.connector)
        const ref = `${cable.id}.${core.id}.${i + 1}`
        return addAtom({
          ref,
          owner: cable.id,
          legend: `${core.colour} of ${cable.label}, ${end.at}`,
          kind: 'free-end',
        })
      })
      if (core.ends.some((end) => end.at === 'unknown')) circuit.atoms[a].uncertain = circuit.atoms[b].uncertain = true
      addEdge(a, b, { kind: 'core', cable, core })
    }
  }
  for (const link of installation.links)
    if (link.kind !== 'cut') addEdge(atomAt(link.between[0]), atomAt(link.between[1]), { kind: 'link', link })
  return circuit
}

function compileDevice(
  circuit: Circuit,
  id: string,
  addEdge: (a: number, b: number, rest: Addition<Edge>) => number,
  atomAt: (ref: string) => number,
): void {
  const device = circuit.installation.devices.find((d) => d.id === id)!
  const type = deviceType(device.type)
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
    amount,
  }
  circuit.devices.push(compiled)
  circuit.deviceIndex.set(id, index)
  const atom = (terminal: string) => atomAt(`${id}.${terminal}`)
  for (const control of type.controls)
    compiled.controlIndex.set(
      control.id,
      circuit.controls.push({ device: index, id: control.id, initial: control.initial }) - 1,
    )

  // Loads first: actuators, sensors and behaviours refer to them.
  for (const p of type.primitives)
    if (p.kind === 'load')
      compiled.loadIndex.set(
        p.id,
        circuit.loads.push({ device: index, part: p, a: atom(p.from), b: atom(p.to), watts: amount(p.watts) }) - 1,
      )
  const load = (part: string) => compiled.loadIndex.get(part)!

  for (const p of type.primitives) {
    switch (p.kind) {
      case 'contact': {
        const contact = circuit.contacts.length
        const edge = addEdge(atom(p.a), atom(p.b), { kind: 'contact', contact })
        circuit.contacts.push({
          device: index,
          part: p,
          throw: 'made',
          edge,
          closedWhen: p.closedWhen,
          inverted: false,
        })
        break
      }
      case 'changeover':
        for (const throwName of ['no', 'nc'] as const) {
          const contact = circuit.contacts.length
          const edge = addEdge(atom(p.common), atom(p[throwName]), { kind: 'contact', contact })
          circuit.contacts.push({
            device: index,
            part: p,
            throw: throwName,
            edge,
            closedWhen: p.operatedWhen,
            inverted: throwName === 'nc',
          })
        }
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
      case 'source':
        circuit.sources.push({ device: index, line: atom(p.line), neutral: atom(p.neutral), earth: atom(p.earth) })
        break
      case 'actuator': {
        const thresholds = type.primitives
          .flatMap((q) => (q.kind === 'contact' ? [q.closedWhen] : q.kind === 'changeover' ? [q.operatedWhen] : []))
          .flatMap((condition) => reachedBy(condition, p.id))
          .map(amount)
          .sort((x, y) => x - y)
        compiled.actuatorIndex.set(
          p.id,
          circuit.actuators.push({
            device: index,
            part: p,
            drivenBy: load(p.drivenBy),
            openMs: amount(p.openSeconds) * 1000,
            returnMs: amount(p.returnSeconds) * 1000,
            thresholds,
          }) - 1,
        )
        break
      }
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
          }) - 1,
        )
        break
      case 'behaviour':
        compiled.behaviourIndex.set(
          p.id,
          circuit.behaviours.push({
            device: index,
            part: p,
            watches: Object.fromEntries(Object.entries(p.watches).map(([role, part]) => [role, load(part)])),
            figures: Object.fromEntries(Object.entries(p.figures).map(([role, figure]) => [role, amount(figure)])),
          }) - 1,
        )
        break
    }
  }
}

/** Every travel fraction of one actuator that a condition asks about. */
const reachedBy = (condition: Condition, actuator: string): Amount[] =>
  leavesOf(condition).flatMap((leaf) => ('actuator' in leaf && leaf.actuator === actuator ? [leaf.reached] : []))
