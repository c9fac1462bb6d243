import type { Cable, Colour, Core, End, Link, WiringCentreTerminal } from '../installation'
import { nth } from '../lists'
import { allocated, type Spare } from './allocate'
import type { PlanBrief } from './brief'
import { coloursFound, coloursOf, thermostatWire, type ColourSet } from '../catalogue'
import { NoSuchCable, wiresToCores, type Wire } from './cores'

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
  /** Cables to the wiring centre, each of which may be in the wall already. */
  private readonly runs: string[] = []

  constructor(
    private readonly centre: string,
    private readonly brief: Pick<PlanBrief, 'cable' | 'terminals' | 'supply' | 'inWall'>,
  ) {}

  /** Names a function; functions take their terminals in the order in which they are named. */
  function(id: string, legend: string): void {
    this.functions.set(id, { legend, waiting: [] })
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
    const size = given ?? (this.brief.cable === 'five-core' ? 5 : Math.max(3, wires.length))
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
      if (wire) this.bring(wire.to, core, id)
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
   * Allocates terminals and links. Call once, when every cable is in.
   *
   * @throws CentreTooSmall, NoSuchCable
   */
  finish(): void {
    for (const id of Object.keys(this.brief.inWall ?? {}))
      if (!this.runs.includes(id)) throw new NoSuchCable(id, this.runs)
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

/** Two cores of one cable may have one colour: the second has a number behind it. */
function coreId(colours: readonly Colour[], index: number): string {
  const before = colours.slice(0, index).filter((colour) => colour === colours[index]).length
  return before > 0 ? `${colours[index]}-${before + 1}` : colours[index]
}

const at = (terminal: string): End => ({ at: 'terminal', terminal })
const endAt = (end: string | End): End => (typeof end === 'string' ? at(end) : end)
