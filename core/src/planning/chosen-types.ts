import { deviceType, isShipped } from '../catalogue'
import type { Cable, Demand, Device, Link } from '../installation'

/** A brief chooses a type for a device that its plan does not have. */
export class NoSuchDevice extends Error {
  constructor(
    readonly device: string,
    has: readonly string[],
  ) {
    super(`the plan has no device "${device}": it has ${has.join(', ')}`)
    this.name = 'NoSuchDevice'
  }
}

/** A chosen type lacks what the plan needs of the device. */
export class TypeDoesNotFit extends Error {
  constructor(
    readonly device: string,
    type: string,
    why: string,
  ) {
    super(`"${type}" cannot stand in the place of ${device}: ${why}`)
    this.name = 'TypeDoesNotFit'
  }
}

/** The device types that a brief wants in the place of the usual ones. */
export class ChosenTypes {
  constructor(private readonly types: Readonly<Record<string, string>>) {}

  typeOf(id: string, usual: string): string {
    if (!Object.hasOwn(this.types, id)) return usual
    const type = this.types[id]
    if (!isShipped(type)) throw new TypeDoesNotFit(id, type, 'there is no such type')
    const [is, was] = [deviceType(type), deviceType(usual)]
    if (is.family !== was.family) throw new TypeDoesNotFit(id, type, `it is none of the ${was.family}`)
    const lead = was.terminals.find((t) => t.lead && !is.terminals.some((one) => one.id === t.id && one.lead))
    if (lead) throw new TypeDoesNotFit(id, type, `its lead has no conductor for ${lead.legend.toLowerCase()}`)
    return type
  }

  /** Whether every device that is chosen is there, with the terminals and contacts that the plan uses of it. */
  lookOver(
    devices: readonly Device[],
    { cables, links }: { cables: readonly Cable[]; links: readonly Link[] },
    demands: readonly Demand[],
  ): void {
    const refs = [
      ...cables.flatMap(({ cores }) =>
        cores.flatMap(({ ends }) => ends.flatMap((e) => ('terminal' in e ? [e.terminal] : []))),
      ),
      ...links.flatMap(({ between }) => between),
    ]
    for (const id of Object.keys(this.types)) {
      const device = devices.find((one) => one.id === id)
      if (!device)
        throw new NoSuchDevice(
          id,
          devices.map((one) => one.id),
        )
      const type = deviceType(device.type)
      const missing = refs.find(
        (ref) => ref.startsWith(`${id}.`) && !type.terminals.some((t) => `${id}.${t.id}` === ref && !t.internal),
      )
      if (missing) throw new TypeDoesNotFit(id, device.type, `it has no terminal ${missing.slice(id.length + 1)}`)
      const contacts = demands.flatMap(({ channel, thermostat }) => [channel, thermostat])
      const lost = contacts.find((at) => at?.device === id && !type.primitives.some((p) => p.id === at.contact))
      if (lost) throw new TypeDoesNotFit(id, device.type, `it has no contact “${lost.contact}”`)
    }
  }
}
