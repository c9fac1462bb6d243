import { same } from '../changes'
import { coloursOf, endText, typeEntry, typeIn, isEarthColour } from '../catalogue'
import {
  freeLinkId,
  ownerOf,
  type Cable,
  type Core,
  type Device,
  type End,
  type Installation,
  type Link,
  type WiringCentre,
} from '../installation'
import { nth } from '../lists'
import { Box } from './box'
import { directCables, endAt } from './direct'
import { Joins } from './joins'
import type { Labelling } from './labelling'
import { free, staysIdle } from './serving'
import { freeOf, type Target } from './target'
import { loadOf, type Terminals } from './terminals'
import { boxSide, deviceLinks, supplyOf, type Strand, type Wire, type Work } from './work'

const cutBack: End = { at: 'cut-back' }

/** The installation that is found, made into what the plan joins: conductors, links, devices and what they are for. */
export function rewired(
  found: Installation,
  target: Target,
  work: Work,
  terminals: Terminals,
  by: Labelling,
): Installation {
  return new Rewiring(found, target, work, terminals, by).result()
}

class Rewiring {
  private readonly box: Box
  private readonly boxId: string
  private readonly taken: Set<string>
  private readonly joins: Joins
  private readonly labelOf: (ref: string) => string | undefined

  constructor(
    private readonly found: Installation,
    private readonly target: Target,
    private readonly work: Work,
    terminals: Terminals,
    private readonly by: Labelling,
  ) {
    const [centre] = found.wiringCentres
    this.boxId = centre.id
    this.labelOf = (ref) => by.labels.get(ref)
    const { stays } = loadOf(work, by.servings, (ref) => by.labels.get(ref) ?? 'free')
    this.box = new Box(centre, terminals, by.labels, stays)
    this.taken = new Set(found.cables.map(({ id }) => id))
    this.joins = new Joins(target.plan, 'apart')
  }

  result(): Installation {
    const { found, target } = this
    const { plan } = target
    const there = this.cablesThere()
    const laid = this.cablesLaid()
    const direct = directCables(found, target, this.joins, this.taken)
    const directly = new Map(direct.there.map((cable) => [cable.id, cable]))
    const cables = [...there.map((cable) => directly.get(cable.id) ?? cable), ...laid, ...direct.laid]
    const devices = this.devices()
    const types = [...new Set(devices.map(({ type }) => type))]
    const wired: Installation = {
      ...found,
      scheme: plan.scheme,
      types: types.map((type) => this.typeEntry(type)),
      places: this.places(devices),
      devices,
      connectors: [
        ...found.connectors.filter(({ id }) => target.stands.has(id)),
        ...plan.connectors.filter(({ id }) => !target.stands.has(id)),
      ],
      cables,
      links: this.links(),
      pipes: plan.pipes,
      tees: plan.tees.map((tee) => ({ ...tee, place: this.placeOf(tee.place) })),
      intent: plan.intent,
    }
    return asPlanned(found, { ...wired, wiringCentres: [this.centre(wired)] })
  }

  private placeOf(place: string): string {
    return this.found.places.some(({ id }) => id === place) || this.target.plan.places.some(({ id }) => id === place)
      ? place
      : this.found.wiringCentres[0].place
  }

  private places(devices: readonly Device[]): Installation['places'] {
    const { found, target } = this
    const more = target.plan.places.filter(({ id }) => !found.places.some((p) => p.id === id))
    const used = new Set([
      ...devices.map(({ place }) => place),
      ...target.plan.connectors.map(({ place }) => place),
      ...target.plan.tees.map(({ place }) => place),
    ])
    return [...found.places, ...more.filter(({ id }) => used.has(id))]
  }

  /** Those that stay where they stood in the list, what stands in another's place in its place, others behind them. */
  private devices(): Device[] {
    const { found, target } = this
    const placed = new Map(target.devices.flatMap((p) => (p.standing.is === 'new' ? [] : [[p.standing.found, p]])))
    const stay = found.devices.flatMap((device): Device[] => {
      const now = placed.get(device.id)
      if (!now) return []
      return [now.standing.is === 'kept' ? device : now.device]
    })
    return [...stay, ...target.devices.flatMap(({ device, standing }) => (standing.is === 'new' ? [device] : []))]
  }

  private typeEntry(type: string): Installation['types'][0] {
    const known = [this.found, this.target.plan].flatMap(({ types }) => types).find(({ id }) => id === type)
    return known ?? typeEntry(typeIn(this.target.plan, type))
  }

  /** Every cable that is found, but for the leads of devices that go. */
  private cablesThere(): Cable[] {
    const { kept } = this.target
    const ends = this.endsOfStrands()
    return this.found.cables
      .filter(({ leadOf }) => leadOf === undefined || kept.has(leadOf))
      .map((cable) => ({ ...cable, cores: cable.cores.map((core) => ends.get(core) ?? core) }))
  }

  /** The conductors to the wiring centre, as they will lie. */
  private endsOfStrands(): Map<Core, Core> {
    const result = new Map<Core, Core>()
    const later: (() => void)[] = []
    this.work.stations.forEach(({ wires, strands, fixed }, s) => {
      const { by } = this.by.servings[s]
      wires.forEach((wire, w) => {
        const strand = by[w]
        if (strand) later.push(() => result.set(strand.core, this.serving(strand, wire)))
      })
      for (const strand of strands)
        if (!by.includes(strand) && !(fixed && strand.near === undefined))
          later.push(() => result.set(strand.core, this.idle(strand)))
    })
    later.forEach((make) => make())
    return result
  }

  private serving(strand: Strand, wire: Wire): Core {
    const { core, box, at } = strand
    const near = strand.near !== undefined && wire.nodes.has(strand.near) ? core.ends[1 - box] : endAt(wire.node)
    const isThere = at !== undefined && this.labelOf(at) === wire.net
    const here: End = isThere
      ? strand.parked
        ? { at: 'terminal', terminal: at }
        : core.ends[box]
      : { at: 'terminal', terminal: this.box.land(wire.net) }
    const sleeve = this.work.colours(strand.cable).sleeveFor(wire.use, core.colour)
    const isMoved = near !== core.ends[1 - box] || !isThere
    return { ...withEnds(core, box, here, near), ...(isMoved && sleeve !== core.sleeve && { sleeve }) }
  }

  private idle(strand: Strand): Core {
    const { core, box } = strand
    const near = strand.freed ? cutBack : core.ends[1 - box]
    if (strand.at === undefined) return withEnds(core, box, core.ends[box], near)
    const stays = staysIdle(this.work, strand, this.labelOf)
    if (!stays)
      return withEnds(
        core,
        box,
        strand.near === undefined ? cutBack : { at: 'parked', terminal: this.box.park() },
        near,
      )
    // A conductor that is joined with nothing any more is parked where it is.
    const net = this.labelOf(strand.at)
    const isJoined = strand.near === undefined ? net !== undefined && net !== free : this.isJoined(strand.near)
    return withEnds(core, box, isJoined || strand.parked ? core.ends[box] : { at: 'parked', terminal: strand.at }, near)
  }

  /** Whether a terminal that stays is joined with anything at the wiring centre. */
  private isJoined(node: string): boolean {
    const net = this.work.netOf(node)
    const alike = this.work.stations.flatMap(({ strands }) =>
      strands.filter(({ near }) => near !== undefined && this.work.netOf(near) === net),
    )
    return alike.length > 1 || this.work.stations.some(({ wires }) => wires.some((wire) => wire.net === net))
  }

  /** Cables to the wiring centre that are not there: a device's own lead, a whole new cable, or one for what the old one lacks. */
  private cablesLaid(): Cable[] {
    const { plan } = this.target
    const planBox = plan.wiringCentres[0]?.id ?? ''
    const lacking = new Map<Core, Wire>()
    const served = new Set<string>()
    this.work.stations.forEach(({ wires }, s) =>
      wires.forEach((wire, w) => {
        if (this.by.servings[s].by[w]) served.add(wire.planned.cable.id)
        else lacking.set(wire.planned.core, wire)
      }),
    )
    return plan.cables.flatMap((cable): Cable[] => {
      const side = boxSide(cable, planBox)
      const own = cable.cores.flatMap((core) => lacking.get(core) ?? [])
      if (side === undefined || own.length === 0) return []
      return [served.has(cable.id) ? this.further(cable, own) : this.whole(cable, side, lacking)]
    })
  }

  /** A cable as the plan has it; what it parks, and an earth that ends at a plastic plate, is parked here as well. */
  private whole(cable: Cable, side: 0 | 1, lacking: ReadonlyMap<Core, Wire>): Cable {
    const id = freeOf(this.taken, cable.id)
    this.taken.add(id)
    const cores = cable.cores.map((core): Core => {
      const wire = lacking.get(core)
      const far = core.ends[1 - side]
      if (wire) return withEnds(core, side, { at: 'terminal', terminal: this.box.land(wire.net) }, far)
      const isAlive = cable.leadOf !== undefined && core.ends[side].at === 'parked'
      if (isAlive) return withEnds(core, side, { at: 'parked', terminal: this.box.park() }, far)
      const isEarth = isEarthColour(core.colour) && 'terminal' in core.ends[side] && this.work.earth !== undefined
      return withEnds(
        core,
        side,
        isEarth ? { at: 'terminal', terminal: this.box.land(this.work.earth!) } : cutBack,
        far,
      )
    })
    return { ...cable, id, cores }
  }

  /** A second cable for the conductors that the first has not. */
  private further(cable: Cable, wires: readonly Wire[]): Cable {
    const set = coloursOf(supplyOf(this.found))
    const id = freeOf(this.taken, `${cable.id.slice(0, 37)}-2`)
    this.taken.add(id)
    const size = nth(
      [3, 5, 7].filter((n) => n - 1 >= wires.length),
      0,
    )
    const own = wires.every(({ extraLow }) => extraLow)
      ? cable.cores.filter((core) => wires.some(({ planned }) => planned.core === core)).map(({ colour }) => colour)
      : (set.bySize[size] ?? [...set.bySize[5], 'red', 'white'])
    const left = [...wires]
    const wanted = own.map((colour): Wire | undefined => {
      const isEarth = isEarthColour(colour)
      const at = left.findIndex((wire) => isEarth === (wire.use === 'earth') && set.wanted[wire.use].includes(colour))
      const any = at >= 0 ? at : left.findIndex((wire) => !isEarth && wire.use !== 'earth')
      return isEarth && at < 0 ? undefined : left.splice(any, any < 0 ? 0 : 1)[0]
    })
    const cores = own.map((colour, i): Core => {
      const wire = wanted[i]
      const twin = own.slice(0, i).filter((one) => one === colour).length
      const base = { id: twin === 0 ? colour : `${colour}-${twin + 1}`, colour, areaMm2: 0.75 }
      if (!wire) return { ...base, ends: [cutBack, cutBack] }
      const sleeve = set.sleeveFor(wire.use, colour)
      const here: End = { at: 'terminal', terminal: this.box.land(wire.net) }
      return { ...base, ...(sleeve && { sleeve }), ends: [endAt(wire.node), here] }
    })
    const { label, lengthM, ratedForMains } = cable
    return { id, label: `${label}, second`, lengthM, ratedForMains, cores }
  }

  /** Links in devices as the plan and what is there have them; those of the wiring centre where both terminals stay of one net. */
  private links(): Link[] {
    const { found, target } = this
    const { kept } = target
    const owns = (ids: ReadonlySet<string>, { between }: Link) => between.every((ref) => ids.has(ownerOf(ref)))
    const wanted = deviceLinks(found, target)
    const isWanted = ({ between: [a, b] }: Link) => wanted.some((pair) => pair.includes(a) && pair.includes(b))
    const planned = (link: Link) =>
      target.plan.links.find((one) => one.between.every((ref) => link.between.includes(ref)))
    const made: Link[] = []
    const numbered = (link: Omit<Link, 'id'>): Link => {
      const one = { ...link, id: freeLinkId({ links: [...found.links, ...made] }) }
      made.push(one)
      return one
    }
    const ofDevices = found.links
      .filter((link) => owns(kept, link))
      .flatMap((link): Link[] => {
        const plan = planned(link)
        if (plan && (plan.kind === 'cut') !== (link.kind === 'cut')) return [{ ...link, kind: plan.kind }]
        return link.kind === 'cut' || isWanted(link) ? [link] : []
      })
    const newInDevices = target.plan.links
      .filter((link) => link.between.every((ref) => ownerOf(ref) !== this.planBox))
      .filter((link) => !ofDevices.some((one) => one.between.every((ref) => link.between.includes(ref))))
      .map(({ kind, between }) => numbered({ kind, between }))
    const ofBox = found.links.flatMap((link): Link[] => {
      if (!owns(new Set([this.boxId]), link)) return []
      const [a, b] = link.between.map((ref) => this.labelOf(ref) ?? 'free')
      if (link.kind === 'cut' || a === b) return [link]
      return link.kind === 'factory' ? [{ ...link, kind: 'cut' }] : []
    })
    const fitted = this.box.links.map((between) => numbered({ kind: 'fitted', between }))
    return [...ofDevices, ...ofBox, ...newInDevices, ...fitted]
  }

  private get planBox(): string {
    return this.target.plan.wiringCentres[0]?.id ?? ''
  }

  /** The wiring centre with the legends of what its terminals are now. */
  private centre(wired: Installation): WiringCentre {
    const [centre] = this.found.wiringCentres
    const { plan } = this.target
    const legends = new Map<string, string>()
    for (const { id, terminals } of plan.wiringCentres)
      for (const { id: terminal, legend } of terminals) {
        const net = this.joins.netOf(`${id}.${terminal}`)
        if (!legends.has(net)) legends.set(net, legend)
      }
    const before = nodesByTerminal(this.found, this.boxId)
    const now = nodesByTerminal(wired, this.boxId)
    const wiredTo = new Joins(wired)
    const named = (ref: string, legend: string): string => {
      const parked = parkedIn(wired, ref)
      if (parked) {
        const isJoined = parked.at === 'terminal' || parked.at === 'connector'
        return parkedIn(this.found, ref)
          ? legend
          : isJoined
            ? `${endText(wired, parked)}, parked`.slice(0, 60)
            : 'Spare'
      }
      const [was, is] = [before.get(ref) ?? [], now.get(ref) ?? []]
      // An empty terminal that is linked to one in use is part of it still.
      const isInUse = [...now.keys()].some((other) => wiredTo.netOf(other) === wiredTo.netOf(ref))
      if (is.length === 0) return isInUse || (was.length === 0 && !parkedIn(this.found, ref)) ? legend : 'Free'
      const stays = was.filter((node) => is.includes(node)).length
      if (was.length > 0 && stays * 2 >= was.length) return legend
      return legends.get(this.joins.netOf(is[0])) ?? legend
    }
    const all = [...centre.terminals, ...this.box.added]
    return { ...centre, terminals: all.map((t) => ({ ...t, legend: named(`${centre.id}.${t.id}`, t.legend) })) }
  }
}

/** What is otherwise than found is planned, however the rest of the document is known: nobody has seen it yet. */
function asPlanned(found: Installation, to: Installation): Installation {
  if (found.provenance === 'planned') return to
  const planned = { provenance: 'planned' as const }
  const fresh = <T extends { id: string }>(before: readonly T[], now: readonly T[]): T[] =>
    now.map((one) => (before.some((other) => same(other, one)) ? one : { ...one, ...planned }))
  return {
    ...to,
    devices: fresh(found.devices, to.devices),
    links: fresh(found.links, to.links),
    cables: to.cables.map((cable) => {
      const was = found.cables.find(({ id }) => id === cable.id)
      const cores = cable.cores.map((core): Core => {
        const ends = was?.cores.find(({ id }) => id === core.id)?.ends
        const end = (i: 0 | 1): End =>
          ends && same(ends[i], core.ends[i]) ? core.ends[i] : { ...core.ends[i], ...planned }
        return { ...core, ends: [end(0), end(1)] }
      })
      return { ...cable, cores }
    }),
  }
}

const withEnds = (core: Core, box: 0 | 1, here: End, near: End): Core => ({
  ...core,
  ends: box === 1 ? [near, here] : [here, near],
})

/** The other end of a conductor that is parked in a terminal. */
function parkedIn({ cables }: Installation, ref: string): End | undefined {
  for (const { cores } of cables)
    for (const { ends } of cores) {
      const side = ends.findIndex((end) => end.at === 'parked' && end.terminal === ref)
      if (side >= 0) return ends[1 - side]
    }
  return undefined
}

/** What each terminal of a wiring centre that holds a conductor is joined with, terminals of devices only. */
function nodesByTerminal(doc: Installation, box: string): Map<string, string[]> {
  const joins = new Joins(doc, 'apart')
  const nodes = new Map<string, Set<string>>()
  const held = new Set<string>()
  for (const { cores } of doc.cables)
    for (const { ends } of cores)
      for (const end of ends) {
        if (end.at !== 'terminal') continue
        if (ownerOf(end.terminal) === box) held.add(end.terminal)
        else {
          const net = joins.netOf(end.terminal)
          nodes.set(net, (nodes.get(net) ?? new Set()).add(end.terminal))
        }
      }
  return new Map([...held].map((ref) => [ref, [...(nodes.get(joins.netOf(ref)) ?? [])]]))
}
