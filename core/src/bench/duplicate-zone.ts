import { compile, type Circuit } from '../circuit'
import type { Cable, Change, Step, Core, Demand, Device, End, Installation, Link } from '../installation'
import { gateGraph, wiredTo } from '../trace'
import { freeId } from './verbs'

/** A zone's devices that serve no other demand, and their cables. */
function ownDevices(doc: Installation, demand: Demand): Device[] {
  const named = (d: Demand) => [
    d.thermostat?.device,
    ...d.circuit.valves.map((v) => v.device),
    ...(d.circuit.runs ?? []),
    ...(d.circuit.emitters ?? []),
  ]
  const others = new Set(
    doc.intent.demands
      .filter((d) => d.id !== demand.id)
      .flatMap((d) => [...named(d), d.channel?.device, d.call.boiler]),
  )
  const own = new Set(doc.devices.filter((d) => named(demand).includes(d.id) && !others.has(d.id)).map((d) => d.id))
  // A relay between the two is named by nobody: it hangs on a net that is the zone's alone.
  const circuit = compile(doc)
  const nets = netsOf(circuit)
  const fixed = new Set([...others, demand.channel?.device, demand.call.boiler])
  const feeds = new Set([...circuit.sources, ...circuit.transformers].map((s) => circuit.devices[s.device].device.id))
  for (let grown = true; grown;) {
    grown = false
    for (const owners of nets) {
      const rest = owners.filter((o) => !own.has(o))
      if (rest.length !== 1 || rest.length === owners.length || fixed.has(rest[0]) || feeds.has(rest[0])) continue
      own.add(rest[0])
      grown = true
    }
  }
  return doc.devices.filter((d) => own.has(d.id))
}

/** The devices on every net of wiring. */
function netsOf(circuit: Circuit): string[][] {
  const nets = new Map<number, Set<string>>()
  const { netOf } = gateGraph(circuit)
  circuit.atoms.forEach(({ owner, kind }, i) => {
    if (kind !== 'device' && kind !== 'internal') return
    nets.set(netOf[i], (nets.get(netOf[i]) ?? new Set()).add(owner))
  })
  return [...nets.values()].map((owners) => [...owners])
}

/**
 * A second zone like one that is there: its thermostat, valves and cables again under other names, its own terminals again,
 * and for every function it shares with others a terminal more, linked to that function. Undefined where the demand has no
 * device of its own.
 */
export function duplicateZone(doc: Installation, demandId: string, name: string): Step | undefined {
  const demand = doc.intent.demands.find((d) => d.id === demandId)
  if (!demand) return undefined
  const devices = ownDevices(doc, demand)
  if (devices.length === 0) return undefined
  return new Twin(doc, demand, devices, name).command()
}

class Twin {
  /** The document as far as it is made, for ids. */
  private doc: Installation
  private readonly names = new Map<string, string>()
  private readonly terminals = new Map<string, string>()
  private readonly changes: Change[] = []
  private readonly links: Link[] = []
  private readonly places = new Map<string, string>()
  private pipes = 0
  private readonly own: Set<string>
  private readonly shared: (ref: string) => boolean

  constructor(
    private readonly before: Installation,
    private readonly demand: Demand,
    private readonly devices: readonly Device[],
    private readonly name: string,
  ) {
    this.doc = before
    this.own = new Set(devices.map((d) => d.id))
    const circuit = compile(before)
    // A net is shared where something of the rest hangs on it.
    this.shared = (ref) =>
      [...wiredTo(circuit, circuit.atomIndex.get(ref)!, () => true).keys()].some((i) => {
        const { kind, owner } = circuit.atoms[i]
        return (kind === 'device' || kind === 'internal') && !this.own.has(owner)
      })
  }

  command(): Step {
    for (const device of this.devices) {
      const id = this.take(this.renamed(device.name))
      this.names.set(device.id, id)
      this.put({
        do: 'put',
        in: 'devices',
        value: { ...device, id, name: this.renamed(device.name), place: this.place(device.place) },
      })
    }
    const cables = this.before.cables.filter((c) =>
      c.cores.some((k) => k.ends.some((e) => 'terminal' in e && this.own.has(e.terminal.split('.')[0]))),
    )
    for (const cable of cables) this.cable(cable)
    for (const link of this.before.links) {
      const between = link.between.map((t) => this.elsewhere(t))
      if (between.some((t) => t === undefined)) continue
      this.links.push({
        ...link,
        id: this.take(`link-${this.before.links.length + this.links.length + 1}`),
        between: between as Link['between'],
      })
    }
    for (const value of this.links) this.put({ do: 'put', in: 'links', value })
    for (const pipe of this.before.pipes) {
      const [from, to] = [pipe.from, pipe.to].map((ref) => this.connection(ref))
      if (from === pipe.from && to === pipe.to) continue
      const id = `pipe-${this.before.pipes.length + ++this.pipes}`
      this.put({ do: 'put', in: 'pipes', value: { id, from, to } })
    }
    this.put({ do: 'put', in: 'demands', value: this.twinDemand() })
    return { deed: { do: 'duplicate', name: this.name, like: this.demand.name }, changes: this.changes }
  }

  private put(change: Change): void {
    this.changes.push(change)
  }

  /** A free id, from then on taken. */
  private take(wish: string): string {
    const id = freeId(this.doc, wish)
    this.doc = { ...this.doc, tees: [...this.doc.tees, { id, place: '' }] }
    return id
  }

  private connection(ref: string): string {
    const [owner, connection] = ref.split('.')
    const device = this.names.get(owner)
    return device ? `${device}.${connection}` : ref
  }

  /** A place of the zone alone is another one for the new zone. */
  private place(id: string): string {
    const known = this.places.get(id)
    if (known) return known
    const place = this.before.places.find((p) => p.id === id)!
    const ofZone = this.before.devices.every((d) => d.place !== id || this.own.has(d.id))
    const made = ofZone ? this.take(this.renamed(place.name)) : id
    if (ofZone) this.put({ do: 'put', in: 'places', value: { ...place, id: made, name: this.renamed(place.name) } })
    this.places.set(id, made)
    return made
  }

  private renamed(name: string): string {
    return name.includes(this.demand.name)
      ? name.replace(this.demand.name, this.name)
      : `${this.name} ${name.toLowerCase()}`
  }

  private cable(cable: Cable): void {
    const cores = cable.cores.map((core): Core => ({ ...core, ends: [this.end(core.ends[0]), this.end(core.ends[1])] }))
    const label = this.renamed(cable.label)
    const value: Cable = {
      ...cable,
      id: this.take(label),
      label,
      cores,
      ...(cable.leadOf && { leadOf: this.names.get(cable.leadOf) ?? cable.leadOf }),
    }
    this.put({ do: 'put', in: 'cables', value })
  }

  private end(end: End): End {
    if (end.at === 'connector') return { at: 'loose' }
    if (!('terminal' in end)) return { ...end }
    return { ...end, terminal: this.twin(end.terminal, end.at === 'parked') }
  }

  /** The terminal that stands for this one on the new zone. */
  private twin(ref: string, parked: boolean): string {
    const [owner, id] = ref.split('.')
    const device = this.names.get(owner)
    if (device) return `${device}.${id}`
    const known = this.terminals.get(ref)
    if (known && !parked) return known
    const centre = this.doc.wiringCentres.find((c) => c.id === owner)
    if (!centre) return ref
    const like = centre.terminals.find((t) => t.id === id)!
    const numbers = centre.terminals.map((t) => Number(t.id)).filter(Number.isInteger)
    const added = {
      id: String(Math.max(0, ...numbers) + 1),
      legend: like.legend.replace(this.demand.name, this.name),
      ways: like.ways,
    }
    const value = { ...centre, terminals: [...centre.terminals, added] }
    this.doc = { ...this.doc, wiringCentres: this.doc.wiringCentres.map((c) => (c.id === owner ? value : c)) }
    this.put({ do: 'put', in: 'wiringCentres', value })
    const made = `${owner}.${added.id}`
    if (!parked) this.terminals.set(ref, made)
    if (!parked && this.shared(ref))
      this.links.push({
        id: this.take(`link-${this.before.links.length + this.links.length + 1}`),
        kind: 'fitted',
        between: [ref, made],
      })
    return made
  }

  /** Where a link of the zone's own goes again: both its ends must be the zone's. */
  private elsewhere(ref: string): string | undefined {
    const [owner, id] = ref.split('.')
    const device = this.names.get(owner)
    if (device) return `${device}.${id}`
    const made = this.terminals.get(ref)
    return made && !this.shared(ref) ? made : undefined
  }

  private twinDemand(): Demand {
    const moved = (id: string) => this.names.get(id) ?? id
    const { circuit, thermostat } = this.demand
    return {
      ...this.demand,
      id: this.take(this.name),
      name: this.name,
      thermostat: thermostat && { ...thermostat, device: moved(thermostat.device) },
      circuit: {
        ...circuit,
        valves: circuit.valves.map((v) => ({ ...v, device: moved(v.device) })),
        ...(circuit.runs && { runs: circuit.runs.map(moved) }),
        ...(circuit.emitters && { emitters: circuit.emitters.map(moved) }),
      },
    }
  }
}
