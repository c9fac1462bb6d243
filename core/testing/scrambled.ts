import type { Colour, Installation } from '../src/installation'
import { numbers } from './numbers'

function shuffled<T>(all: readonly T[], next: () => number): T[] {
  const out = [...all]
  for (let i = out.length - 1; i > 0; i--) {
    const k = Math.floor(next() * (i + 1))
    ;[out[i], out[k]] = [out[k], out[i]]
  }
  return out
}

/** The same installation drawn by somebody else: other ids, terminals and lists in another order, other colours but for earth. */
export function scrambled(doc: Installation, seed: number): Installation {
  const next = numbers(seed)
  const names = new Map<string, string>()
  const owners = [
    ...doc.devices,
    ...doc.wiringCentres,
    ...doc.connectors,
    ...doc.cables,
    ...doc.links,
    ...doc.tees,
  ].map((x) => x.id)
  shuffled(owners, next).forEach((id, i) => names.set(id, `x${i + 1}`))
  const id = (of: string) => names.get(of) ?? of
  const numbering = new Map(
    doc.wiringCentres.map((c) => [c.id, new Map(shuffled(c.terminals, next).map((t, i) => [t.id, String(i + 1)]))]),
  )
  const ref = (of: string) => {
    const [owner, terminal] = of.split('.')
    return `${id(owner)}.${numbering.get(owner)?.get(terminal) ?? terminal}`
  }
  const colours: Colour[] = ['brown', 'black', 'grey', 'orange', 'red']
  const end = (e: Installation['cables'][number]['cores'][number]['ends'][number]) =>
    e.at === 'terminal' || e.at === 'parked'
      ? { ...e, terminal: ref(e.terminal) }
      : e.at === 'connector'
        ? { ...e, connector: id(e.connector) }
        : e
  return {
    ...doc,
    devices: shuffled(
      doc.devices.map((d) => ({ ...d, id: id(d.id) })),
      next,
    ),
    wiringCentres: doc.wiringCentres.map((c) => ({
      ...c,
      id: id(c.id),
      terminals: shuffled(
        c.terminals.map((t) => ({ ...t, id: numbering.get(c.id)!.get(t.id)! })),
        next,
      ),
    })),
    connectors: doc.connectors.map((c) => ({ ...c, id: id(c.id) })),
    cables: shuffled(
      doc.cables.map((c) => ({
        ...c,
        id: id(c.id),
        ...(c.leadOf && { leadOf: id(c.leadOf) }),
        cores: c.cores.map((k) => ({
          ...k,
          colour:
            k.colour === 'green-yellow' || k.colour === 'bare'
              ? k.colour
              : colours[Math.floor(next() * colours.length)],
          ends: [end(k.ends[0]), end(k.ends[1])] as typeof k.ends,
        })),
      })),
      next,
    ),
    links: shuffled(
      doc.links.map((l) => ({ ...l, id: id(l.id), between: l.between.map(ref) as typeof l.between })),
      next,
    ),
    tees: doc.tees.map((t) => ({ ...t, id: id(t.id) })),
    pipes: doc.pipes.map((p) => ({ ...p, from: ref(p.from), to: ref(p.to) })),
    intent: {
      demands: doc.intent.demands.map((d) => ({
        ...d,
        channel: d.channel && { ...d.channel, device: id(d.channel.device) },
        thermostat: d.thermostat && { ...d.thermostat, device: id(d.thermostat.device) },
        circuit: {
          ...d.circuit,
          valves: d.circuit.valves.map((v) => ({ ...v, device: id(v.device) })),
          ...(d.circuit.runs && { runs: d.circuit.runs.map(id) }),
          ...(d.circuit.emitters && { emitters: d.circuit.emitters.map(id) }),
        },
        call: { ...d.call, boiler: id(d.call.boiler) },
      })),
    },
  }
}
