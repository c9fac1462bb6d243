import type { Cable, Colour, Core, End, Link, WiringCentreTerminal } from '../installation'
import { nth } from '../lists'
import { allocated, type Spare } from './allocate'
import type { PlanBrief } from './brief'
import { coloursOf, type ColourSet, type Use } from '../catalogue'

export interface Wire {
  /** The device's terminal; null where the device has none for it (an earth parked at a plastic back plate). */
  terminal: string | null
  use: Use
  /** Where the near end is, when not at a terminal: in a connector behind the backplate. */
  connector?: string
  /** The wiring centre's function the other end goes to. */
  to: string
}

interface Waiting {
  core: Core
  end: 0 | 1
  /** The cable it comes in. */
  from: string
}

/** Lays out one wiring centre: collects conductors by function, then allocates them to the terminals of its kind. */
export class Layout {
  readonly cables: Cable[] = []
  readonly links: Link[] = []
  readonly terminals: WiringCentreTerminal[] = []
  private readonly functions = new Map<string, { legend: string; waiting: Waiting[] }>()
  private readonly spares: (Waiting & Spare)[] = []

  constructor(
    private readonly centre: string,
    private readonly brief: Pick<PlanBrief, 'cable' | 'terminals' | 'supply'>,
  ) {}

  /** Names a function; functions take their terminals in the order in which they are named. */
  function(id: string, legend: string): void {
    this.functions.set(id, { legend, waiting: [] })
  }

  /** Runs a cable from a device to the wiring centre. The size follows the brief unless given; spare cores are parked. */
  cable(
    id: string,
    label: string,
    device: string,
    wires: readonly Wire[],
    lengthM: number,
    { cores: given, colours = coloursOf(this.brief.supply) }: { cores?: number; colours?: ColourSet } = {},
  ): void {
    const needed = wires.length
    const size = given ?? (this.brief.cable === 'five-core' ? 5 : Math.max(3, needed))
    const free = [...colours.bySize[size]]
    const used: { wire: Wire; colour: Colour }[] = wires.map((wire) => {
      const colour = colours.wanted[wire.use].find((c) => free.includes(c))
      if (!colour) throw new Error(`cable ${id}: ${size} cores do not serve ${needed} conductors`)
      free.splice(free.indexOf(colour), 1)
      return { wire, colour }
    })
    const cores: Core[] = []
    for (const colour of colours.bySize[size]) {
      const taken = used.find((u) => u.colour === colour)
      const near: End = taken?.wire.connector
        ? { at: 'connector', connector: taken.wire.connector }
        : taken?.wire.terminal
          ? at(`${device}.${taken.wire.terminal}`)
          : { at: 'cut-back' }
      const core: Core = { id: colour, colour, areaMm2: 0.75, ends: [near, { at: 'loose' }] }
      const sleeve = taken && colours.sleeveFor(taken.wire.use, colour)
      if (sleeve) core.sleeve = sleeve
      cores.push(core)
      if (taken) this.bring(taken.wire.to, core, id)
      else this.spares.push({ core, end: 1, legend: 'Spare', from: id })
    }
    this.cables.push({ id, label, lengthM, ratedForMains: true, cores })
  }

  /** A device's own fixed lead: its colours are given. One that goes nowhere is cut back, or parked in a terminal of its own. */
  lead(
    id: string,
    label: string,
    device: string,
    cores: readonly { terminal: string; colour: Colour; to: string | { parked: string } | null }[],
  ): void {
    const made = cores.map(({ terminal, colour, to }, i): Core => {
      // Two cores of one lead may have one colour.
      const before = cores.slice(0, i).filter((c) => c.colour === colour).length
      const own = before > 0 ? `${colour}-${before + 1}` : colour
      const core: Core = { id: own, colour, areaMm2: 0.75, ends: [at(`${device}.${terminal}`), { at: 'cut-back' }] }
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
   * Allocates terminals and links. Call once, when every cable is in.
   *
   * @throws CentreTooSmall
   */
  finish(): void {
    const functions = [...this.functions].filter(([, { waiting }]) => waiting.length > 0)
    const joined = functions.map(([id, { legend, waiting }]) => ({ id, legend, from: waiting.map(({ from }) => from) }))
    const { terminals, places, spares, links } = allocated(joined, this.spares, this.brief.terminals)
    this.terminals.push(...terminals)
    const ref = (at: number) => `${this.centre}.${nth(terminals, at).id}`
    functions.forEach(([, { waiting }], f) =>
      waiting.forEach(({ core, end }, i) => (core.ends[end] = at(ref(nth(nth(places, f), i))))),
    )
    for (const { between, kind } of links) this.link(ref(between[0]), ref(between[1]), kind)
    this.spares.forEach(({ core, end }, i) => {
      const own = nth(spares, i)
      core.ends[end] = own === undefined ? { at: 'cut-back' } : { at: 'parked', terminal: ref(own) }
    })
  }

  private bring(to: string, core: Core, from: string): void {
    const target = this.functions.get(to)
    if (!target) throw new Error(`no function "${to}" in the wiring centre`)
    target.waiting.push({ core, end: 1, from })
  }
}

const at = (terminal: string): End => ({ at: 'terminal', terminal })
const endAt = (end: string | End): End => (typeof end === 'string' ? at(end) : end)
