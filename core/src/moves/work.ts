import { coloursFound, isEarthColour, supplies, typeIn, type ColourSet, type SupplyId, type Use } from '../catalogue'
import { ownerOf, placeOf, type Cable, type Core, type Installation } from '../installation'
import { Joins } from './joins'
import type { Target } from './target'

/** A conductor that the plan needs between a device, or a connector, and the wiring centre. */
export interface Wire {
  /** Where the plan lands it, and the other terminals there that are linked with that. */
  node: string
  nodes: ReadonlySet<string>
  net: string
  use: Use
  extraLow: boolean
  /** As it is laid out. */
  planned: { cable: Cable; core: Core }
}

/** A conductor that is there between the wiring centre and something else. */
export interface Strand {
  cable: Cable
  core: Core
  /** Which of its ends is at the wiring centre. */
  box: 0 | 1
  /** The terminal of the wiring centre that it is in, or parked in. */
  at: string | undefined
  parked: boolean
  /** The terminal of a device that stays, or the connector, that its other end is at. */
  near: string | undefined
  /** Whether its other end has to come off, since what it is on is taken away. */
  freed: boolean
  isEarth: boolean
}

/** What is needed and what is there at one place: devices, and the cables that run from them to the wiring centre. */
export interface Station {
  wires: Wire[]
  strands: Strand[]
  /** A device's own lead: each conductor is what its maker made it. */
  fixed: boolean
  /** Cables that carry extra-low voltage and nothing else, by id. */
  extraLow: ReadonlySet<string>
}

export interface Work {
  stations: Station[]
  /** The net that a terminal or connector belongs to. */
  netOf: (node: string) => string
  /** The net of the earths at the wiring centre, if there is one. */
  earth: string | undefined
  /** Nets in which the plan lands conductors whose other end is cut back: for a device that comes later. */
  deadEnds: ReadonlySet<string>
  colours: (cable: Cable) => ColourSet
}

/** The supply's colours. */
export const supplyOf = ({ supply }: Installation): SupplyId =>
  (Object.keys(supplies) as SupplyId[]).find((id) => supplies[id].frequency === supply.frequency) ?? '230-50'

/** Everything that has to be decided: which conductor serves what, and what each terminal of the wiring centre becomes. */
export function workOf(found: Installation, target: Target): Work {
  const { plan } = target
  const planBox = plan.wiringCentres[0]?.id
  // What meets in a connector at the far end is joined there, and need not be joined in the wiring centre.
  const joins = new Joins(plan, 'apart')
  const netOf = (node: string) => joins.netOf(node)
  const links = deviceLinks(found, target)
  const extraLowNets = extraLowIn(plan, netOf)
  const wires: (Wire & { owner: string; lead: boolean })[] = []
  const deadEnds = new Set<string>()
  for (const cable of plan.cables)
    for (const core of cable.cores) {
      const ends = core.ends.map((end) => (end.at === 'parked' ? undefined : placeOf(end)))
      const at = ends.findIndex((ref) => ref !== undefined && ownerOf(ref) === planBox)
      const node = at < 0 ? undefined : ends[1 - at]
      if (at >= 0 && node === undefined) deadEnds.add(netOf(ends[at]!))
      if (node === undefined) continue
      const net = netOf(ends[at]!)
      wires.push({
        node,
        nodes: linkedWith(node, links),
        net,
        use: useOf(plan, core, node, netOf),
        extraLow: extraLowNets.has(net),
        planned: { cable, core },
        owner: ownerOf(node),
        lead: cable.leadOf !== undefined,
      })
    }
  return {
    stations: stationsOf(found, target, wires),
    netOf,
    deadEnds,
    earth: wires.find(({ use }) => use === 'earth')?.net,
    colours: (cable) =>
      coloursFound(
        supplyOf(found),
        cable.cores.map(({ colour }) => colour),
      ),
  }
}

/** Links in the terminals of each device as they will be: the plan's, and those that are there and harm nothing. */
export function deviceLinks(found: Installation, { plan, kept }: Target): [string, string][] {
  const joins = new Joins(plan)
  const isOf = (ids: ReadonlySet<string>, [a, b]: readonly [string, string]) =>
    ownerOf(a) === ownerOf(b) && ids.has(ownerOf(a))
  const planned = plan.links.filter(({ kind, between }) => kind !== 'cut' && isOf(idsOf(plan.devices), between))
  const there = found.links.filter(
    ({ kind, between }) => kind !== 'cut' && isOf(kept, between) && joins.netOf(between[0]) === joins.netOf(between[1]),
  )
  return [...planned, ...there].map(({ between }) => between)
}

const idsOf = (list: readonly { id: string }[]): ReadonlySet<string> => new Set(list.map(({ id }) => id))

function linkedWith(node: string, links: readonly (readonly [string, string])[]): ReadonlySet<string> {
  const nodes = new Set([node])
  for (const at of nodes) for (const pair of links) if (pair.includes(at)) pair.forEach((ref) => nodes.add(ref))
  return nodes
}

/** Nets with a terminal in them that takes extra-low voltage only. */
function extraLowIn(doc: Installation, netOf: (node: string) => string): ReadonlySet<string> {
  return new Set(
    doc.devices.flatMap(({ id, type }) =>
      typeIn(doc, type).terminals.flatMap((t) => (t.extraLow && !t.internal ? [netOf(`${id}.${t.id}`)] : [])),
    ),
  )
}

/** What a conductor is for, by the terminal that it serves and by what feeds its net. */
function useOf(plan: Installation, core: Core, node: string, netOf: (node: string) => string): Use {
  if (isEarthColour(core.colour)) return 'earth'
  const device = plan.devices.find(({ id }) => id === ownerOf(node))
  const terminal = device && typeIn(plan, device.type).terminals.find(({ id }) => node === `${device.id}.${id}`)
  if (terminal?.role === 'earth' || terminal?.role === 'neutral') return terminal.role
  const feeds = plan.devices.flatMap(({ id, type }) =>
    typeIn(plan, type).primitives.flatMap((p) =>
      p.kind === 'source' ? [`${id}.${p.line}`, `${id}.${p.neutral}`] : [],
    ),
  )
  const feed = feeds.findIndex((ref) => netOf(ref) === netOf(node))
  return feed < 0 ? 'switched' : feed % 2 === 0 ? 'line' : 'neutral'
}

/** What is there and what is needed, apart where one has nothing that could serve the other. */
function stationsOf(
  found: Installation,
  { devices, removed, stands }: Target,
  wires: readonly (Wire & { owner: string; lead: boolean })[],
): Station[] {
  const box = found.wiringCentres[0]
  const boxPlace = box.place
  const stationOf = new Map<string, Station>()
  const made: Station[] = []
  const make = (fixed: boolean): Station => {
    const station: Station = { wires: [], strands: [], fixed, extraLow: new Set<string>() }
    made.push(station)
    return station
  }
  const nowAt = new Map<string, string>()
  for (const { device, standing } of devices) if (standing.is !== 'new') nowAt.set(standing.found, device.id)
  const placeOfOld = new Map(removed.map(({ id, place }) => [id, place]))
  /** Devices, by their id in the plan, that a cable which is found could serve. */
  const servedBy = (cable: Cable): string[] => {
    const owners = ownersOf(cable, box.id)
    const own = owners.flatMap((id) => nowAt.get(id) ?? (stands.has(id) ? [id] : []))
    const places = owners.flatMap((id) => placeOfOld.get(id) ?? [])
    const inPlace = devices
      .filter(
        ({ device, standing }) => standing.is !== 'kept' && device.place !== boxPlace && places.includes(device.place),
      )
      .map(({ device }) => device.id)
    return [...new Set([...own, ...inPlace])]
  }
  const merge = (ids: readonly string[]) => {
    const known = ids.flatMap((id) => stationOf.get(id) ?? [])
    const station = known[0] ?? make(false)
    for (const other of new Set(known))
      if (other !== station) {
        station.strands.push(...other.strands)
        other.strands = []
        for (const [id, one] of stationOf) if (one === other) stationOf.set(id, station)
      }
    for (const id of ids) stationOf.set(id, station)
    return station
  }
  const extraLow = extraLowCables(found)
  const leads = new Map<string, Station>()
  for (const cable of found.cables) {
    const strands = strandsOf(cable, box.id, stands)
    if (strands.length === 0) continue
    if (cable.leadOf !== undefined) {
      const station = make(true)
      station.strands.push(...strands)
      leads.set(cable.leadOf, station)
      continue
    }
    const served = servedBy(cable)
    const station = served.length > 0 ? merge(served) : make(false)
    station.strands.push(...strands)
  }
  for (const wire of wires) {
    const station = wire.lead
      ? stands.has(wire.owner)
        ? leads.get(wire.owner)
        : undefined
      : (stationOf.get(wire.owner) ?? merge([wire.owner]))
    const lead = station ?? make(true)
    if (!station) leads.set(wire.owner, lead)
    lead.wires.push(wire)
  }
  return made
    .filter(({ wires: own, strands }) => own.length + strands.length > 0)
    .map(({ wires: own, strands, fixed }) => ({
      wires: own,
      strands,
      fixed,
      extraLow: new Set(strands.map(({ cable }) => cable.id).filter((id) => extraLow.has(id))),
    }))
}

/** Devices and connectors that a cable's ends away from the wiring centre are on. */
export function ownersOf(cable: Cable, box: string): string[] {
  const owners = cable.cores.flatMap(({ ends }) =>
    ends.flatMap((end) => {
      const ref = placeOf(end)
      return ref === undefined || ownerOf(ref) === box ? [] : [ownerOf(ref)]
    }),
  )
  if (cable.leadOf !== undefined) owners.push(cable.leadOf)
  return [...new Set(owners)]
}

/** Which end of a cable is at the wiring centre; undefined where neither is. */
export function boxSide(cable: Cable, box: string): 0 | 1 | undefined {
  const isThere = (side: 0 | 1) =>
    cable.cores.some(({ ends }) => {
      const ref = placeOf(ends[side])
      return ref !== undefined && ownerOf(ref) === box
    })
  return isThere(1) ? 1 : isThere(0) ? 0 : undefined
}

function strandsOf(cable: Cable, box: string, stands: ReadonlySet<string>): Strand[] {
  const side = boxSide(cable, box)
  if (side === undefined) return []
  return cable.cores.map((core): Strand => {
    const at = placeOf(core.ends[side])
    const far = core.ends[1 - side]
    const node = far.at === 'parked' ? undefined : placeOf(far)
    const stays = node !== undefined && stands.has(ownerOf(node))
    return {
      cable,
      core,
      box: side,
      at: at !== undefined && ownerOf(at) === box ? at : undefined,
      parked: core.ends[side].at === 'parked',
      near: stays ? node : undefined,
      freed: node !== undefined && !stays,
      isEarth: isEarthColour(core.colour),
    }
  })
}

/** Cables of which every conductor in use is extra-low voltage. */
export function extraLowCables(found: Installation): ReadonlySet<string> {
  const joins = new Joins(found)
  const nets = extraLowIn(found, (node) => joins.netOf(node))
  const isIn = (end: Core['ends'][0]) => {
    const ref = end.at === 'parked' ? undefined : placeOf(end)
    return ref !== undefined && nets.has(joins.netOf(ref))
  }
  return new Set(found.cables.filter(({ cores }) => cores.some(({ ends }) => ends.some(isIn))).map(({ id }) => id))
}
