import { deviceType, typeIn, type DeviceType } from '../catalogue'
import type { Demand, Device, Installation, Place } from '../installation'

/**
 * Pipework laid from what an installation is for: from the boiler's flow through its pump to a tee for every circuit, through
 * the valves that a demand names to what it warms, and back by the tees of the return. A bypass is laid in where every
 * circuit can shut.
 */
export interface PipeworkOptions {
  /** What a demand warms, where it is not radiators or a cylinder: a device type by the demand's id. */
  emitters?: Readonly<Record<string, string>>
}

/** The document with pipes, as it is where it has them. What is laid in is assumed: nobody has said so. */
export function withPipework(installation: Installation, options: PipeworkOptions = {}): Installation {
  const { boiler } = installation.intent.demands[0]?.call ?? {}
  if (installation.pipes.length > 0 || boiler === undefined) return installation
  const device = installation.devices.find((d) => d.id === boiler)!
  // Without a way for water in its boiler there is nothing to lay pipes to.
  if (!wayOf(typeIn(installation, device.type))) return installation
  return new Pipefitter(installation, options).laid()
}

/** Metres above its boiler at which a cylinder stands that warms by gravity: the floor above; a usual value. */
const gravityRise = 3

type Valve = Demand['circuit']['valves'][number]

/** A piece of the flow: a gate to pass, and what lies behind it. */
interface Branch {
  gate?: Valve
  children: Branch[]
  /** Where it ends: the demands that are served here. */
  serves: Demand[]
}

/** The way through a pump, a boiler, or what gives off heat: the first a type has. */
const wayOf = (type: DeviceType) => type.primitives.find((p) => p.kind === 'waterway')
const pumps = (type: DeviceType) => type.primitives.some((p) => p.kind === 'waterway' && p.pump !== undefined)
const emits = (type: DeviceType) => type.primitives.some((p) => p.kind === 'emitter')

class Pipefitter {
  private readonly devices: Device[]
  private readonly places: Place[]
  private readonly pipes: Installation['pipes'] = []
  private readonly tees: Installation['tees'] = []
  private readonly warmed = new Map<string, string[]>()
  private readonly boiler: string
  /** A pump serves every circuit; without one, and without one of its own, water moves by its warmth alone. */
  private pumped = false

  constructor(
    private readonly doc: Installation,
    private readonly options: PipeworkOptions,
  ) {
    this.devices = [...doc.devices]
    this.places = [...doc.places]
    this.boiler = doc.intent.demands[0].call.boiler
  }

  laid(): Installation {
    const { doc } = this
    const root = this.branches()
    const own = new Set(doc.intent.demands.flatMap((d) => d.circuit.runs ?? []))
    const start = this.outOf(this.boiler)
    let flow = start
    for (const pump of doc.devices.filter((d) => this.isPump(d.id) && !own.has(d.id))) {
      this.pipe(flow, this.into(pump.id))
      flow = this.outOf(pump.id)
    }
    this.pumped = flow !== start
    const back: string[] = []
    if (this.pumped && this.canShut(root)) {
      this.device({
        id: this.free('bypass'),
        name: 'Bypass',
        type: 'automatic-bypass',
        place: this.home(),
        settings: {},
      })
      const { id } = this.devices[this.devices.length - 1]
      flow = this.tee('flow', flow, this.into(id))
      back.push(this.outOf(id))
    }
    this.run(root, flow, back)
    this.gather(back)
    const demands = doc.intent.demands.map((d) => ({
      ...d,
      circuit: { ...d.circuit, emitters: this.warmed.get(d.id) ?? [] },
    }))
    const used = new Set(this.devices.map((d) => d.type))
    const types = [
      ...doc.types,
      ...[...used]
        .filter((id) => !doc.types.some((t) => t.id === id))
        .map((id) => ({ id, version: deviceType(id).version })),
    ]
    const { devices, places, pipes, tees } = this
    return { ...doc, devices, places, pipes, tees, types, intent: { demands } }
  }

  /** The circuits as a tree: what several demands pass lies nearer the boiler. */
  private branches(): Branch {
    const { demands } = this.doc.intent
    const users = (v: Valve) => demands.filter((d) => d.circuit.valves.some((w) => w.device === v.device)).length
    const root: Branch = { children: [], serves: [] }
    for (const demand of demands) {
      // What has no port for water cannot be piped, whatever the intent calls it.
      const gates = demand.circuit.valves.filter((v) => this.ports(v).length > 0).sort((x, y) => users(y) - users(x))
      let at = root
      for (const gate of gates) {
        let next = at.children.find((c) => c.gate?.device === gate.device && c.gate.port === gate.port)
        if (!next) at.children.push((next = { gate, children: [], serves: [] }))
        at = next
      }
      // What is open all the time, or has a pump of its own, is a branch of its own.
      if (at === root) root.children.push({ children: [], serves: [demand] })
      else at.serves.push(demand)
    }
    return root
  }

  /** Can all that lies behind this be shut at once? */
  private canShut(branch: Branch): boolean {
    if (branch.serves.length > 0) return false
    const byDevice = new Map<string | undefined, Branch[]>()
    for (const c of branch.children) byDevice.set(c.gate?.device, [...(byDevice.get(c.gate?.device) ?? []), c])
    return [...byDevice].every(([device, children]) => {
      if (children.some((c) => this.canShut(c))) return true
      return device !== undefined && !this.alwaysOpen(children.map((c) => c.gate!))
    })
  }

  /** Do these ports of one valve together leave no place of its travel shut? */
  private alwaysOpen(gates: Valve[]): boolean {
    const ports = gates.flatMap((g) => this.ports(g)).sort((x, y) => x.openFrom - y.openFrom)
    let reached = 0
    for (const { openFrom, openTo } of ports) if (openFrom <= reached) reached = Math.max(reached, openTo)
    return reached >= 1
  }

  private ports({ device, port }: Valve) {
    const type = this.typeOf(device)
    return type.primitives.flatMap((p) => (p.kind === 'port' && (port === undefined || p.id === port) ? [p] : []))
  }

  /** Lays a branch from `flow`; what comes back is added to `back`. */
  private run(branch: Branch, flow: string, back: string[]): void {
    const ends: (string | { branch: Branch })[] = []
    // Ports of one valve have one inlet.
    const inlets = new Set<string>()
    for (const child of branch.children) {
      if (!child.gate) {
        ends.push({ branch: child })
        continue
      }
      const inlet = `${child.gate.device}.${this.ports(child.gate)[0].from}`
      if (!inlets.has(inlet)) ends.push(inlet)
      inlets.add(inlet)
    }
    const emitter = branch.serves.length > 0 ? this.emitter(branch.serves) : undefined
    let at = flow
    const all = emitter === undefined ? ends : [...ends, this.throughOwnPumps(branch.serves, this.into(emitter))]
    all.forEach((end, i) => {
      const last = i === all.length - 1
      if (typeof end === 'string') {
        if (last) this.pipe(at, end)
        else at = this.tee('flow', at, end)
      } else {
        const from = last ? at : this.tee('flow', at)
        this.run(end.branch, last ? from : `${from.split('.')[0]}.branch`, back)
        if (!last) at = from
      }
    })
    if (emitter !== undefined) back.push(this.outOf(emitter))
    for (const child of branch.children) {
      if (child.gate) this.run(child, `${child.gate.device}.${this.ports(child.gate)[0].to}`, back)
    }
  }

  /** Lays the pumps that are these demands' own before `into`; returns where the flow then has to go. */
  private throughOwnPumps(demands: Demand[], into: string): string {
    let end = into
    for (const id of demands.flatMap((d) => d.circuit.runs ?? []).filter((run) => this.isPump(run))) {
      if (!this.pumped) {
        // What another circuit's warmth drives must not come back through this one.
        const { name } = this.devices.find((d) => d.id === id)!
        const flap = this.free(`${id.slice(0, 30)}-check`)
        this.device({ id: flap, name: `${name} check valve`, type: 'check-valve', place: this.home(), settings: {} })
        this.pipe(this.outOf(flap), end)
        end = this.into(flap)
      }
      this.pipe(this.outOf(id), end)
      end = this.into(id)
    }
    return end
  }

  /** What the demands that end here warm: a device of theirs that gives off heat, else one laid in. */
  private emitter(demands: Demand[]): string {
    const [demand] = demands
    const own = (demand.circuit.runs ?? []).find((id) => this.emits(id))
    const id = own ?? this.fit(demand)
    for (const d of demands) this.warmed.set(d.id, [id])
    return id
  }

  private fit(demand: Demand): string {
    const water = demand.kind === 'hot-water'
    const type = this.options.emitters?.[demand.id] ?? (water ? 'cylinder' : 'radiators')
    const id = this.free(
      water ? 'hot-water-cylinder' : `${type === 'radiators' ? 'radiators' : 'heat'}-${demand.id}`.slice(0, 40),
    )
    const name = water ? 'Cylinder' : `${demand.name} ${deviceType(type).name.toLowerCase().replace(' of a zone', '')}`
    const place = this.placeOf(demand, water)
    const driven = this.pumped || (demand.circuit.runs ?? []).some((id) => this.isPump(id))
    this.device({ id, name, type, place, settings: driven ? {} : { rise: gravityRise } })
    return id
  }

  /** The room of its thermostat; a receiver stands with the plant, so the room then gets a place of its own. */
  private placeOf(demand: Demand, water: boolean): string {
    const at = (id?: string) => this.doc.devices.find((d) => d.id === id)?.place
    const stands = at(demand.thermostat?.device)
    const taken = new Set(this.devices.filter((d) => this.emits(d.id)).map((d) => d.place))
    if (stands !== undefined && stands !== at(this.boiler) && !taken.has(stands)) return stands
    const id = water ? 'cylinder' : `room-${demand.id}`
    if (!this.places.some((p) => p.id === id)) this.places.push({ id, name: water ? 'Cylinder' : demand.name })
    return id
  }

  private typeOf(device: string): DeviceType {
    return typeIn(this.doc, this.devices.find((d) => d.id === device)!.type)
  }
  private isPump(device: string): boolean {
    return pumps(this.typeOf(device))
  }
  private emits(device: string): boolean {
    return emits(this.typeOf(device))
  }

  private home(): string {
    return this.doc.devices.find((d) => d.id === this.boiler)!.place
  }

  private gather(back: string[]): void {
    let at = this.into(this.boiler)
    back.forEach((end, i) => {
      if (i === back.length - 1) this.pipe(end, at)
      else at = this.tee('return', at, end)
    })
  }

  private into(id: string): string {
    return `${id}.${wayOf(this.typeOf(id))!.from}`
  }
  private outOf(id: string): string {
    return `${id}.${wayOf(this.typeOf(id))!.to}`
  }

  /** A tee behind `at`, its branch to `branch` where given; returns where the main goes on. */
  private tee(side: 'flow' | 'return', at: string, branch?: string): string {
    const n = this.tees.filter((t) => t.id.startsWith(side)).length + 1
    const id = this.free(`${side}-tee-${n}`)
    this.tees.push({ id, place: this.home() })
    if (side === 'flow') {
      this.pipe(at, `${id}.in`)
      if (branch) this.pipe(`${id}.branch`, branch)
      return `${id}.out`
    }
    this.pipe(`${id}.out`, at)
    if (branch) this.pipe(branch, `${id}.branch`)
    return `${id}.in`
  }

  private pipe(from: string, to: string): void {
    this.pipes.push({ id: `pipe-${this.pipes.length + 1}`, from, to })
  }

  private device(device: Device): void {
    this.devices.push({ ...device, provenance: this.doc.provenance === 'planned' ? undefined : 'assumed' })
  }

  /** An id that nothing has yet. */
  private free(wish: string): string {
    const { doc, devices, tees } = this
    const taken = new Set(
      [devices, tees, doc.wiringCentres, doc.connectors, doc.cables, doc.links].flatMap((all) => all.map((x) => x.id)),
    )
    let id = wish
    for (let n = 2; taken.has(id); n++) id = `${wish.slice(0, 36)}-${n}`
    return id
  }
}
