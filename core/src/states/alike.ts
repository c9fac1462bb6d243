import type { Circuit } from '../circuit'
import type { Demand } from '../installation'
import { deviceFlagsText, type PartFlags } from '../simulation'
import { gateGraph } from '../trace'

/**
 * Zones that are alike: exchanging all that is theirs leaves the compiled circuit as it is, wiring and pipes, part for part.
 * Then a state and the one with the two exchanged behave alike, and one of them stands for both. Lengths of cable do not
 * count: what they couple into an open core is not looked at here.
 */
export interface Alike {
  /** Demands that can stand for each other. */
  demands: string[]
  /** Per demand in the same order: its own devices, each at the same place in every list. */
  devices: number[][]
}

/**
 * Groups of zones that are alike, each of two or more, with what is broken in them: a zone with something broken is not like
 * one that is whole. While a conductor is broken, which belongs to no device, all are told apart.
 */
export function alikeZones(circuit: Circuit, flags?: PartFlags): Alike[] {
  if (flags?.brokenEdges.some((bit) => bit)) return []
  const { demands } = circuit.installation.intent
  const graph = new Joints(circuit)
  const taken = new Set<string>()
  const groups: Alike[] = []
  for (const first of demands) {
    if (taken.has(first.id)) continue
    const members = [first.id]
    let own: number[] | undefined
    const lists: number[][] = []
    for (const other of demands) {
      if (other === first || taken.has(other.id)) continue
      const exchange = exchangeOf(circuit, graph, first, other, flags)
      if (!exchange) continue
      const moved = [...exchange.keys()].filter((device) => exchange.get(device) !== device)
      // What is exchanged both ways stands in the map twice: what belongs to the first is what its demand reaches.
      const mine = own ?? moved.filter((device) => graph.nearer(device, first, other))
      if (own === undefined) own = mine
      if (mine.length * 2 !== moved.length || mine.some((device) => !moved.includes(device))) continue
      members.push(other.id)
      lists.push(mine.map((device) => exchange.get(device)!))
    }
    if (members.length < 2) continue
    members.forEach((id) => taken.add(id))
    groups.push({ demands: members, devices: [own!, ...lists] })
  }
  return groups
}

/** Where the terminals and water connections of every device are joined: nets of wiring, and of pipes behind them. */
class Joints {
  readonly jointsOf: { key: string; net: number }[][]
  readonly at = new Map<number, { device: number; key: string }[]>()

  constructor(private readonly circuit: Circuit) {
    const { netOf } = gateGraph(circuit)
    const pipes = circuit.atoms.length
    this.jointsOf = circuit.devices.map(({ device, type }) => {
      const joints: { key: string; net: number }[] = type.terminals.map((t) => ({
        key: t.id,
        net: netOf[circuit.atomIndex.get(`${device.id}.${t.id}`)!],
      }))
      for (const p of type.primitives)
        if (p.kind === 'waterway' || p.kind === 'port')
          for (const c of [p.from, p.to]) {
            const net = circuit.water.netOf.get(`${device.id}.${c}`)
            if (net !== undefined && !joints.some((j) => j.key === `water ${c}`))
              joints.push({ key: `water ${c}`, net: pipes + net })
          }
      return joints
    })
    this.jointsOf.forEach((joints, device) =>
      joints.forEach(({ key, net }) => this.at.set(net, [...(this.at.get(net) ?? []), { device, key }])),
    )
  }

  /** Does this device belong to the first of two demands: is it named there, or joined to more of what is? */
  nearer(device: number, first: Demand, other: Demand): boolean {
    const steps = (from: Demand) => {
      const ids = [
        from.thermostat?.device,
        ...from.circuit.valves.map((v) => v.device),
        ...(from.circuit.emitters ?? []),
      ]
      const start = new Set(ids.flatMap((id) => (id === undefined ? [] : [this.circuit.deviceIndex.get(id)!])))
      return this.distance(start, device)
    }
    return steps(first) < steps(other)
  }

  private distance(from: Set<number>, to: number): number {
    let front = from
    const seen = new Set(from)
    for (let n = 0; front.size > 0; n++) {
      if (front.has(to)) return n
      const next = new Set<number>()
      for (const device of front)
        for (const { net } of this.jointsOf[device]) {
          const there = this.at.get(net)!
          // Poles and headers join everything: what is near is joined by few.
          if (there.length > 4) continue
          for (const { device: d } of there) if (!seen.has(d)) next.add(d)
        }
      next.forEach((d) => seen.add(d))
      front = next
    }
    return Infinity
  }
}

/** The exchange of devices that swaps two demands and leaves everything else; undefined where there is none. */
function exchangeOf(
  circuit: Circuit,
  joints: Joints,
  a: Demand,
  b: Demand,
  flags: PartFlags | undefined,
): Map<number, number> | undefined {
  if (a.kind !== b.kind || a.priority !== b.priority) return undefined
  if (a.call.boiler !== b.call.boiler || a.call.input !== b.call.input) return undefined
  const devices = new Map<number, number>()
  const nets = new Map<number, number>()
  const queue: [number, number][] = []
  const pairNets = (m: number, n: number): boolean => {
    if ((nets.has(m) && nets.get(m) !== n) || (nets.has(n) && nets.get(n) !== m)) return false
    nets.set(m, n)
    nets.set(n, m)
    return true
  }
  const pair = (x: number, y: number): boolean => {
    if (devices.has(x) || devices.has(y)) return devices.get(x) === y && devices.get(y) === x
    if (!sameKind(circuit, x, y, flags)) return false
    devices.set(x, y)
    devices.set(y, x)
    queue.push([x, y])
    return true
  }
  const index = (id: string) => circuit.deviceIndex.get(id)!
  const named = (d: Demand) => [
    d.thermostat ? index(d.thermostat.device) : -1,
    d.channel ? index(d.channel.device) : -1,
    ...d.circuit.valves.map((v) => index(v.device)),
    ...(d.circuit.runs ?? []).map(index),
    ...(d.circuit.emitters ?? []).map(index),
  ]
  const [mine, theirs] = [named(a), named(b)]
  if (mine.length !== theirs.length || contacts(a) !== contacts(b)) return undefined
  for (let i = 0; i < mine.length; i++) {
    if (mine[i] < 0 !== theirs[i] < 0) return undefined
    if (mine[i] >= 0 && !pair(mine[i], theirs[i])) return undefined
  }
  while (queue.length > 0) {
    const [x, y] = queue.pop()!
    for (let j = 0; j < joints.jointsOf[x].length; j++) {
      const m = joints.jointsOf[x][j].net
      const n = joints.jointsOf[y][j].net
      if (!pairNets(m, n)) return undefined
      if (m === n) continue
      // What else is joined here must have its fellow there.
      for (const { device, key } of joints.at.get(m)!) {
        if (devices.has(device)) continue
        const fellows = joints.at
          .get(n)!
          .filter((f) => f.key === key && !devices.has(f.device) && sameKind(circuit, device, f.device, flags))
        if (fellows.length !== 1 || !pair(device, fellows[0].device)) return undefined
      }
    }
  }
  const whole = joints.jointsOf.every((list, x) => {
    const y = devices.get(x) ?? x
    return list.every(({ net }, j) => (nets.get(net) ?? net) === joints.jointsOf[y][j].net)
  })
  const free = [...nets].every(([m, n]) => joints.at.get(m)!.length === joints.at.get(n)!.length)
  return whole && free && demandsMap(circuit, devices) ? devices : undefined
}

const contacts = (d: Demand) =>
  [d.channel?.contact, d.thermostat?.contact, ...d.circuit.valves.map((v) => v.port)].join(' ')

function sameKind(circuit: Circuit, x: number, y: number, flags: PartFlags | undefined): boolean {
  const [p, q] = [circuit.devices[x], circuit.devices[y]]
  const same = (u: unknown, v: unknown) => JSON.stringify(u ?? {}) === JSON.stringify(v ?? {})
  // A latch control of one zone is a slot like any other; where knobs stand to begin with must agree.
  return (
    p.type === q.type &&
    p.type.settings.every((s) => p.amount({ setting: s.id }) === q.amount({ setting: s.id })) &&
    same(p.device.positions, q.device.positions) &&
    (!flags || deviceFlagsText(circuit, flags, x) === deviceFlagsText(circuit, flags, y))
  )
}

/** Does the exchange carry every demand into one that there is? */
function demandsMap(circuit: Circuit, devices: ReadonlyMap<number, number>): boolean {
  const { demands } = circuit.installation.intent
  const moved = (id: string) => {
    const x = circuit.deviceIndex.get(id)!
    return circuit.devices[devices.get(x) ?? x].device.id
  }
  const text = (d: Demand, map: (id: string) => string) =>
    JSON.stringify([
      d.kind,
      d.priority,
      d.channel && [map(d.channel.device), d.channel.contact],
      d.thermostat && [map(d.thermostat.device), d.thermostat.contact],
      d.circuit.valves.map((v) => [map(v.device), v.port]),
      (d.circuit.runs ?? []).map(map),
      (d.circuit.emitters ?? []).map(map),
      map(d.call.boiler),
      d.call.input,
      d.companions.length,
    ])
  const before = demands.map((d) => text(d, (id) => id)).sort()
  const after = demands.map((d) => text(d, moved)).sort()
  return JSON.stringify(before) === JSON.stringify(after)
}
