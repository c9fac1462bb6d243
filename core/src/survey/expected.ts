import { typeIn, type TerminalRole } from '../catalogue'
import { ownerOf, type Installation } from '../installation'
import { Joins } from '../moves'

/** A terminal of a device, and what it would be joined with if all were as expected. */
export interface ExpectedTerminal {
  ref: string
  device: number
  id: string
  role: TerminalRole
  /** The colour of its own fixed lead. */
  lead?: string
  /** The net it would be in; -1 where it would be joined with nothing. */
  net: number
  /** A conductor would go from it into the wiring centre. */
  inBox: boolean
}

export interface ExpectedDevice {
  id: string
  name: string
  type: string
  place: string
  /** Its terminals, by their numbers. */
  terminals: number[]
  /** How many cables would come from it into the wiring centre. */
  cables: number
  isSupply: boolean
  /** It has a casing to be opened, not a plate. */
  isBoiler: boolean
}

/** The devices that are there and what the drawing, or the plan of such a system, would have joined. It may all be otherwise. */
export class Expected {
  readonly terminals: ExpectedTerminal[] = []
  readonly devices: ExpectedDevice[] = []
  private readonly byRef = new Map<string, number>()
  /** Is a net an earth, a neutral, by what is in it? */
  readonly roleOfNet: (TerminalRole | undefined)[] = []

  constructor(readonly installation: Installation) {
    const joins = new Joins(installation)
    const boxes = new Set(installation.wiringCentres.map(({ id }) => id))
    /** Terminals from which a conductor goes into a wiring centre. */
    const boxed = new Set<string>()
    const nets = new Map<string, number>()
    const joined = new Map<string, number>()
    for (const { cores } of installation.cables)
      for (const { ends } of cores)
        for (const [i, end] of ends.entries()) {
          if (end.at !== 'terminal') continue
          const net = joins.netOf(end.terminal)
          joined.set(net, (joined.get(net) ?? 0) + 1)
          const other = ends[1 - i]
          if ('terminal' in other && boxes.has(ownerOf(other.terminal))) boxed.add(end.terminal)
        }
    for (const device of installation.devices) {
      const type = typeIn(installation, device.type)
      const outside = type.terminals.filter(({ internal }) => !internal)
      if (outside.length === 0) continue
      const number = this.devices.length
      const own = outside.map(({ id, role, lead }) => {
        const ref = `${device.id}.${id}`
        const net = joins.netOf(ref)
        const isJoined = (joined.get(net) ?? 0) > 1
        if (isJoined && !nets.has(net)) nets.set(net, nets.size)
        const at = this.terminals.length
        const known = isJoined ? nets.get(net)! : -1
        this.terminals.push({
          ref,
          device: number,
          id,
          role,
          lead,
          net: known,
          inBox: isJoined && boxed.has(ref),
        })
        if (known >= 0 && (role === 'earth' || role === 'neutral')) this.roleOfNet[known] = role
        this.byRef.set(ref, at)
        return at
      })
      const cables = installation.cables.filter(({ cores }) => {
        const owners = cores.flatMap(({ ends }) =>
          ends.flatMap((end) => ('terminal' in end ? ownerOf(end.terminal) : [])),
        )
        return owners.includes(device.id) && owners.some((owner) => boxes.has(owner))
      })
      this.devices.push({
        id: device.id,
        name: device.name,
        type: device.type,
        place: device.place,
        terminals: own,
        cables: cables.length,
        isSupply: type.family === 'supply',
        isBoiler: type.inputs.length > 0,
      })
    }
    // What a spur gives out is an output to its type, and neutral or earth to what is joined with it.
    for (const terminal of this.terminals) terminal.role = this.roleOfNet[terminal.net] ?? terminal.role
  }

  /** How many nets the expected wiring has. */
  get nets(): number {
    return this.terminals.reduce((most, { net }) => Math.max(most, net + 1), 0)
  }

  /** A terminal's number, by its address; undefined where no device has it. */
  at = (ref: string): number | undefined => this.byRef.get(ref)

  /** A device's number, by its id; -1 where there is none. */
  deviceAt = (id: string): number => this.devices.findIndex((device) => device.id === id)

  isEarth = (net: number): boolean => net >= 0 && this.roleOfNet[net] === 'earth'
}
