import {
  ownerOf,
  type Cable,
  type Colour,
  type Core,
  type End,
  type Link,
  type WiringCentre,
  type WiringCentreTerminal,
} from '../installation'
import { nth } from '../lists'
import { allocated, type Spare } from './allocate'
import { cascaded, type Joint } from './cascade'
import { centreKind } from './centres'
import type { PlanBrief } from './brief'
import { coloursFound, coloursOf, thermostatWire, type ColourSet, type Use } from '../catalogue'
import { NoSuchCable, wiresToCores, type Wire } from './cores'

interface Waiting {
  core: Core
  end: 0 | 1
  /** The cable it comes in. */
  from: string
}

interface FunctionHere {
  legend: string
  waiting: Waiting[]
  extraLow: boolean
}

const ordinals = ['', 'Second', 'Third', 'Fourth', 'Fifth', 'Sixth', 'Seventh', 'Eighth'] as const

/** Lays out a wiring centre: collects conductors by function, then allocates them to the terminals of its kind, in one box or several. */
export class Layout {
  readonly cables: Cable[] = []
  readonly links: Link[] = []
  readonly centres: Omit<WiringCentre, 'place'>[] = []
  private readonly functions = new Map<string, FunctionHere>()
  private readonly spares: (Waiting & Spare)[] = []
  /** Cables to the wiring centre, each of which may be in the wall already. */
  private readonly runs: string[] = []

  constructor(
    private readonly centre: string,
    private readonly brief: Pick<PlanBrief, 'cable' | 'terminals' | 'supply' | 'inWall' | 'lengths'>,
  ) {}

  /** Names a function; functions take their terminals in the order in which they are named. */
  function(id: string, legend: string): void {
    this.functions.set(id, { legend, waiting: [], extraLow: false })
  }

  /**
   * Runs a cable from a device to the wiring centre: the one that is in the wall, else one of a size that follows the brief unless
   * given. Spare cores are parked.
   *
   * @throws TooFewCores
   */
  cable(
    id: string,
    label: string,
    device: string,
    wires: readonly Wire[],
    lengthM: number,
    { cores: given, colours = coloursOf(this.brief.supply) }: { cores?: number; colours?: ColourSet } = {},
  ): void {
    this.runs.push(id)
    const size = given ?? this.sizeFor(wires.length)
    const inWall = this.brief.inWall?.[id]
    const own = inWall ?? colours.bySize[size]
    const set = inWall && colours !== thermostatWire ? coloursFound(this.brief.supply, inWall) : colours
    const used = wiresToCores(id, label, wires, own, set, inWall !== undefined)
    const cores = own.map((colour, i): Core => {
      const wire = used[i]
      const near: End = wire?.connector
        ? { at: 'connector', connector: wire.connector }
        : wire?.terminal
          ? at(`${device}.${wire.terminal}`)
          : { at: 'cut-back' }
      const core: Core = { id: coreId(own, i), colour, areaMm2: 0.75, ends: [near, { at: 'loose' }] }
      const sleeve = wire && set.sleeveFor(wire.use, colour)
      if (sleeve) core.sleeve = sleeve
      if (wire) this.bring(wire.to, core, id, colours === thermostatWire)
      else this.spares.push({ core, end: 1, legend: 'Spare', from: id })
      return core
    })
    this.cables.push({ id, label, lengthM, ratedForMains: true, cores })
  }

  /** A device's own fixed lead: its colours are given. One that goes nowhere is cut back, or parked in a terminal of its own. */
  lead(
    id: string,
    label: string,
    device: string,
    cores: readonly { terminal: string; colour: Colour; to: string | { parked: string } | null }[],
  ): void {
    const colours = cores.map(({ colour }) => colour)
    const made = cores.map(({ terminal, colour, to }, i): Core => {
      const core: Core = {
        id: coreId(colours, i),
        colour,
        areaMm2: 0.75,
        ends: [at(`${device}.${terminal}`), { at: 'cut-back' }],
      }
      if (typeof to === 'string') this.bring(to, core, id)
      else if (to) this.spares.push({ core, end: 1, legend: to.parked, from: id, live: true })
      return core
    })
    this.cables.push({ id, label, lengthM: 1, ratedForMains: true, leadOf: device, cores: made })
  }

  /** A cable between two devices that does not pass the wiring centre. */
  direct(
    id: string,
    label: string,
    cores: readonly { colour: Colour; from: string | End; to: string | End }[],
    lengthM: number,
    areaMm2 = 0.75,
  ): void {
    this.cables.push({
      id,
      label,
      lengthM,
      ratedForMains: true,
      cores: cores.map(({ colour, from, to }) => ({ id: colour, colour, areaMm2, ends: [endAt(from), endAt(to)] })),
    })
  }

  /** A link between two terminals of one device: fitted, or a factory link that has been cut. */
  link(a: string, b: string, kind: Link['kind'] = 'fitted'): void {
    this.links.push({ id: `link-${this.links.length + 1}`, kind, between: [a, b] })
  }

  /**
   * Allocates terminals and links; devices of one type are alike. Call once, when every cable is in.
   *
   * @throws CentreTooSmall, NoSuchCable
   */
  finish(typeOf: (device: string) => string): void {
    for (const id of Object.keys(this.brief.inWall ?? {}))
      if (!this.runs.includes(id)) throw new NoSuchCable(id, this.runs)
    const functions = [...this.functions].filter(([, { waiting }]) => waiting.length > 0)
    const joined = functions.map(([id, { legend, waiting, extraLow }]) => ({
      id,
      legend,
      extraLow,
      from: waiting.map(({ from }) => from),
      pins: waiting.map(({ core: { ends }, end }) => pinOf(nth(ends, 1 - end), typeOf)),
    }))
    const { terminals: kind } = this.brief
    const { boxes, joints } = centreKind(kind).cascade
      ? cascaded(joined, this.spares, kind, this.byDevice())
      : { boxes: [allocated(joined, this.spares, kind)], joints: [] }
    for (const { core, end } of this.spares) core.ends[end] = { at: 'cut-back' }
    boxes.forEach(({ terminals, places, spares, links }, box) => {
      const ref = this.box(box, terminals)
      functions.forEach(([, { waiting }], f) =>
        waiting.forEach(({ core, end }, i) => {
          const own = nth(places, f)[i]
          if (own !== undefined) core.ends[end] = at(ref(own))
        }),
      )
      for (const { between, kind } of links) this.link(ref(between[0]), ref(between[1]), kind)
      this.spares.forEach(({ core, end }, i) => {
        const own = spares[i]
        if (own !== undefined) core.ends[end] = { at: 'parked', terminal: ref(own) }
      })
    })
    joints.forEach((joint, n) =>
      this.joint(
        joint,
        n + 1,
        functions.map(([id]) => id),
      ),
    )
    this.measured()
  }

  /** Per device the cables that come from it, in the order in which devices are named. */
  private byDevice(): string[][] {
    const devices = new Map<string, string[]>()
    for (const { id, cores } of this.cables) {
      const [device = id] = cores.flatMap(({ ends: [near] }) => ('terminal' in near ? [ownerOf(near.terminal)] : []))
      devices.set(device, [...(devices.get(device) ?? []), id])
    }
    return [...devices.values()]
  }

  /** A box with its terminals; gives what each of these is called. */
  private box(n: number, terminals: WiringCentreTerminal[]): (terminal: number) => string {
    const id = n === 0 ? this.centre : `${this.centre}-${n + 1}`
    const name = n === 0 ? 'Wiring centre' : `${ordinals[n] ?? `No. ${n + 1}`} wiring centre`
    this.centres.push({ id, name, terminals })
    return (terminal) => `${id}.${nth(terminals, terminal).id}`
  }

  /** A cable from one box to the next. */
  private joint({ from, extraLow, conductors }: Joint, n: number, ids: readonly string[]): void {
    const set = extraLow ? thermostatWire : coloursOf(this.brief.supply)
    const uses = conductors.map(({ function: f }, i) => (extraLow ? nth(lowUses, i) : useOf(nth(ids, f))))
    const size = extraLow ? (conductors.length > 2 ? 4 : 2) : this.sizeFor(conductors.length)
    const colours = set.bySize[size] ?? []
    const wires = uses.map((use, i): Wire => ({ terminal: String(i), use, to: '' }))
    const id = `joint-${n}`
    const label = extraLow ? 'Cable between the boxes, extra-low voltage' : 'Cable between the boxes'
    const used = wiresToCores(id, label, wires, colours, set, false)
    const [one, other] = [nth(this.centres, from), nth(this.centres, from + 1)]
    const cores = colours.map((colour, i): Core => {
      const wire = used[i]
      const sleeve = wire && set.sleeveFor(wire.use, colour)
      const [a, b] = wire ? nth(conductors, Number(wire.terminal)).between : []
      const ends: Core['ends'] =
        a === undefined || b === undefined
          ? [{ at: 'cut-back' }, { at: 'cut-back' }]
          : [at(`${one.id}.${nth(one.terminals, a).id}`), at(`${other.id}.${nth(other.terminals, b).id}`)]
      return { id: coreId(colours, i), colour, areaMm2: 0.75, ends, ...(sleeve && { sleeve }) }
    })
    this.cables.push({ id, label: n > 1 ? `${label}, ${n}` : label, lengthM: 1, ratedForMains: true, cores })
  }

  private sizeFor(conductors: number): number {
    return this.brief.cable === 'five-core' ? 5 : Math.max(3, conductors)
  }

  /** Cables as long as they are said to be. */
  private measured(): void {
    for (const cable of this.cables) cable.lengthM = this.brief.lengths?.[cable.id] ?? cable.lengthM
  }

  private bring(to: string, core: Core, from: string, extraLow = false): void {
    const target = this.functions.get(to)
    if (!target) throw new Error(`no function "${to}" in the wiring centre`)
    target.extraLow ||= extraLow
    target.waiting.push({ core, end: 1, from })
  }
}

const useOf = (id: string): Use => (id === 'L' ? 'line' : id === 'N' ? 'neutral' : id === 'E' ? 'earth' : 'switched')
/** So that the colours of thermostat wire serve as many as it has. */
const lowUses: readonly Use[] = ['line', 'switched', 'neutral', 'switched']

/** Two cores of one cable may have one colour: the second has a number behind it. */
function coreId(colours: readonly Colour[], index: number): string {
  const before = colours.slice(0, index).filter((colour) => colour === colours[index]).length
  return before > 0 ? `${colours[index]}-${before + 1}` : colours[index]
}

/** A device's terminal, as every device of its type has it. */
function pinOf(end: End, typeOf: (device: string) => string): string {
  if (!('terminal' in end)) return ''
  const owner = ownerOf(end.terminal)
  return typeOf(owner) + end.terminal.slice(owner.length)
}

const at = (terminal: string): End => ({ at: 'terminal', terminal })
const endAt = (end: string | End): End => (typeof end === 'string' ? at(end) : end)
