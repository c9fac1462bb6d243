import type { Circuit } from './circuit'
import type { CompiledWay, WaterCircuit } from './water-nets'

/** Compiles pipes, tees and the water parts of all devices. Ports and loads stand in the circuit already. */
export function compileWater(circuit: Circuit): WaterCircuit {
  const { pipes, tees } = circuit.installation
  const parent = new Map<string, string>()
  const root = (ref: string): string => {
    let at = ref
    while ((parent.get(at) ?? at) !== at) at = parent.get(at)!
    return at
  }
  const join = (a: string, b: string) => parent.set(root(a), root(b))
  for (const tee of tees) for (const end of ['out', 'branch']) join(`${tee.id}.${end}`, `${tee.id}.in`)
  for (const { from, to } of pipes) join(from, to)
  const nets = new Map<string, number>()
  const netOf = new Map<string, number>()
  const net = (ref: string): number => {
    const at = root(ref)
    if (!nets.has(at)) nets.set(at, nets.size)
    netOf.set(ref, nets.get(at)!)
    return nets.get(at)!
  }
  for (const tee of tees) for (const end of ['in', 'out', 'branch']) net(`${tee.id}.${end}`)
  const water: WaterCircuit = { nets: 0, netOf, ways: [], sources: [], emitters: [], stores: [] }
  circuit.devices.forEach(({ device, type, amount, loadIndex, wayIndex: wayOf }, index) => {
    for (const p of type.primitives) {
      if (p.kind === 'waterway' || p.kind === 'port') {
        const way = p.kind === 'waterway' ? p : undefined
        const port = circuit.ports.findIndex((q) => q.device === index && q.part === p)
        const compiled: CompiledWay = {
          device: index,
          part: p,
          from: net(`${device.id}.${p.from}`),
          to: net(`${device.id}.${p.to}`),
          kpa: amount(p.kpa),
          oneWay: way?.oneWay ?? false,
          opensAt: way?.opensAt === undefined ? 0 : amount(way.opensAt),
        }
        if (port >= 0) compiled.port = port
        if (way?.pump)
          compiled.pump = {
            load: loadIndex.get(way.pump.load)!,
            head: amount(way.pump.head),
            most: amount(way.pump.most),
          }
        wayOf.set(p.id, water.ways.push(compiled) - 1)
      }
    }
    for (const p of type.primitives) {
      if (p.kind === 'heat-source')
        water.sources.push({
          device: index,
          part: p,
          way: p.way === undefined ? undefined : wayOf.get(p.way)!,
          when: p.when,
          most: amount(p.most),
          least: amount(p.least),
          capacity: amount(p.capacity ?? 0),
          limit: p.limit === undefined ? Infinity : amount(p.limit),
          aims: p.aims ?? [],
        })
      if (p.kind === 'emitter')
        water.emitters.push({
          device: index,
          part: p,
          way: wayOf.get(p.way)!,
          perKelvin: amount(p.watts) / p.kelvin,
          capacity: amount(p.capacity),
          rise: amount(p.rise),
        })
      if (p.kind === 'store')
        water.stores.push({ device: index, part: p, litres: amount(p.litres), loses: amount(p.loses) })
    }
  })
  water.nets = nets.size
  return water
}
