import type { Circuit } from '../circuit'
import type { Alike } from './alike'
import type { FoundBreach, Happening } from './happenings'
import type { Input } from '../inputs'
import { breachKey, type Breach } from './properties'

/** Two zones that are alike, exchanged: every name and number of the one for that of the other. */
class Exchange {
  private readonly devices = new Map<number, number>()
  private readonly ids = new Map<string, string>()
  private readonly demands = new Map<string, string>()
  private readonly inputs: number[]

  constructor(
    private readonly circuit: Circuit,
    inputs: readonly Input[],
    { demands, devices }: Alike,
    a: number,
    b: number,
  ) {
    devices[a].forEach((device, i) => {
      for (const [x, y] of [
        [device, devices[b][i]],
        [devices[b][i], device],
      ]) {
        this.devices.set(x, y)
        this.ids.set(circuit.devices[x].device.id, circuit.devices[y].device.id)
      }
    })
    this.demands.set(demands[a], demands[b]).set(demands[b], demands[a])
    const leafText = (of: (device: number) => number, { leaves }: Input) =>
      leaves
        .map((leaf) => {
          const part = leaf.kind === 'sensor' ? circuit.sensors[leaf.sensor] : circuit.controls[leaf.control]
          return `${of(part.device)} ${'part' in part ? part.part.id : part.id}`
        })
        .sort()
        .join()
    const before = inputs.map((input) => leafText((d) => d, input))
    this.inputs = inputs.map((input) => before.indexOf(leafText((d) => this.device(d), input)))
  }

  breach(b: Breach): Breach {
    return {
      ...b,
      demands: b.demands.map((d) => this.demands.get(d) ?? d),
      devices: b.devices.map((d) => this.ids.get(d) ?? d),
      terminals: b.terminals.map((t) => {
        const [owner, terminal] = t.split('.')
        return `${this.ids.get(owner) ?? owner}.${terminal}`
      }),
    }
  }

  happening(h: Happening): Happening {
    const { circuit } = this
    switch (h.what) {
      case 'input':
        return { ...h, input: this.inputs[h.input] }
      case 'contact':
      case 'miss':
        return { ...h, contact: this.part(circuit.contacts, h.contact, (x, y) => x.throw === y.throw) }
      case 'travel':
        return { ...h, actuator: this.part(circuit.actuators, h.actuator) }
      case 'message':
        return { ...h, port: this.part(circuit.buses, h.port) }
      case 'phase':
        return { ...h, behaviour: this.part(circuit.behaviours, h.behaviour) }
    }
  }

  private device(of: number): number {
    return this.devices.get(of) ?? of
  }

  private part<P extends { device: number; part: { id: string } }>(
    parts: readonly P[],
    at: number,
    alike: (x: P, y: P) => boolean = () => true,
  ): number {
    const from = parts[at]
    const to = this.device(from.device)
    return parts.findIndex((p) => p.device === to && p.part.id === from.part.id && alike(p, from))
  }
}

/**
 * What is broken, in every zone it is broken in: a breach that was seen in one of several zones that are counted together
 * stands in each of them.
 */
export function inEveryZone(
  circuit: Circuit,
  inputs: readonly Input[],
  alike: readonly Alike[],
  broken: readonly FoundBreach[],
): FoundBreach[] {
  const exchanges = alike.flatMap((group) =>
    group.demands.flatMap((_, a) =>
      group.demands.slice(a + 1).map((__, k) => new Exchange(circuit, inputs, group, a, a + 1 + k)),
    ),
  )
  const all = [...broken]
  const keys = new Set(all.map((b) => breachKey(b.breach)))
  // What an exchange adds is exchanged in its turn, until nothing new comes of it.
  for (let i = 0; i < all.length; i++)
    for (const exchange of exchanges) {
      const breach = exchange.breach(all[i].breach)
      const key = breachKey(breach)
      if (keys.has(key)) continue
      keys.add(key)
      all.push({ breach, path: all[i].path.map((h) => exchange.happening(h)) })
    }
  return all
}
