import { deviceTypes, typeEntry, typeIn, type DeviceType } from '../catalogue'
import type { Device, Installation } from '../installation'

/** Everything a device's type must offer for what the installation has on it: terminals, contacts, inputs, connections. */
function needs(installation: Installation, id: string) {
  const terminals = new Set<string>()
  const add = (ref: string) => {
    const [owner, terminal] = ref.split('.')
    if (owner === id) terminals.add(terminal)
  }
  for (const cable of installation.cables)
    for (const core of cable.cores)
      for (const end of core.ends) if (end.at === 'terminal' || end.at === 'parked') add(end.terminal)
  for (const link of installation.links) link.between.forEach(add)
  const { demands } = installation.intent
  const contacts = demands.flatMap((d) =>
    [d.channel, d.thermostat].flatMap((at) => (at?.device === id ? [at.contact] : [])),
  )
  const inputs = demands.flatMap((d) => (d.call.boiler === id ? [d.call.input] : []))
  const ports = demands.flatMap((d) =>
    d.circuit.valves.flatMap((v) => (v.device === id && v.port !== undefined ? [v.port] : [])),
  )
  const connections = installation.pipes.flatMap(({ from, to }) =>
    [from, to].flatMap((ref) => (ref.startsWith(`${id}.`) ? [ref.slice(id.length + 1)] : [])),
  )
  return { terminals, contacts, inputs, ports, connections }
}

/**
 * Device types that could stand where this device stands: of its family, with every terminal that a conductor is on and
 * everything that pipes and demands name. Its own first; of one id the newest. `kit` are the types that users have made.
 */
export function fittingTypes(installation: Installation, id: string, kit: readonly DeviceType[] = []): DeviceType[] {
  const device = installation.devices.find((d) => d.id === id)!
  const own = typeIn(installation, device.type)
  const need = needs(installation, id)
  const fits = (type: DeviceType) => {
    const outside = new Set(type.terminals.filter((t) => !t.internal).map((t) => t.id))
    const parts = new Map(type.primitives.map((p) => [p.id, p.kind]))
    const water = new Set(
      type.primitives.flatMap((p) => (p.kind === 'waterway' || p.kind === 'port' ? [p.from, p.to] : [])),
    )
    return (
      type.family === own.family &&
      [...need.terminals].every((t) => outside.has(t)) &&
      need.contacts.every((c) => parts.get(c) === 'contact' || parts.get(c) === 'changeover') &&
      need.inputs.every((i) => type.inputs.some((x) => x.id === i)) &&
      need.ports.every((p) => parts.get(p) === 'port') &&
      need.connections.every((c) => water.has(c))
    )
  }
  const others = [...kit, ...deviceTypes].filter((t) => t.id !== own.id && fits(t))
  return [own, ...others]
}

/** The installation with a device of another type: settings, knobs and weeks that the new type does not know are dropped. */
export function withType(installation: Installation, id: string, type: DeviceType): Installation {
  const keep = <T>(all: Record<string, T> | undefined, known: (key: string) => boolean) =>
    all && Object.fromEntries(Object.entries(all).filter(([key]) => known(key)))
  const control = (key: string) => type.controls.some((c) => c.id === key)
  const devices = installation.devices.map((d): Device => {
    if (d.id !== id) return d
    const setting = (key: string) => type.settings.some((s) => s.id === key)
    const { positions, programme, ...rest } = d
    const [stands, weeks] = [keep(positions, control), keep(programme, control)]
    return {
      ...rest,
      type: type.id,
      settings: keep(d.settings, setting)!,
      ...(stands ? { positions: stands } : {}),
      ...(weeks ? { programme: weeks } : {}),
    }
  })
  const used = new Set(devices.map((d) => d.type))
  const types = [...installation.types.filter((t) => t.id !== type.id && used.has(t.id)), typeEntry(type)]
  return { ...installation, devices, types }
}

/** A type that Kit has newer than the installation keeps. */
export interface NewerType {
  type: DeviceType
  /** The version the installation was made with. */
  has: number
  /** Devices of it by name. */
  devices: string[]
}

/** Types the installation brings of which Kit has a newer version, and devices of which it would still serve. */
export function newerTypes(installation: Installation, kit: readonly DeviceType[]): NewerType[] {
  return kit.flatMap((type) => {
    const entry = installation.types.find((t) => t.id === type.id && t.definition)
    if (!entry || entry.version >= type.version) return []
    const devices = installation.devices.filter((d) => d.type === type.id)
    return [{ type, has: entry.version, devices: devices.map((d) => d.name) }]
  })
}

/** The installation with the newer version of a type, for all its devices. */
export const withNewer = (installation: Installation, type: DeviceType): Installation =>
  installation.devices.filter((d) => d.type === type.id).reduce((doc, { id }) => withType(doc, id, type), installation)
