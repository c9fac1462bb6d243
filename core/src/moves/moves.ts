import { changesBetween, inverted, type FieldChange } from '../changes'
import { coreName, endText, terminalText, typeIn } from '../catalogue'
import {
  installationShape,
  ownerOf,
  placeOf,
  type Cable,
  type Core,
  type Device,
  type End,
  type Installation,
} from '../installation'
import type { Change } from './change-of-controls'
import type { Move, MoveNote } from './move'
import { ownersOf } from './work'

/**
 * The moves that make of what is found what it is to be, in an order that can be followed with a screwdriver, everything being dead: place by
 * place, far ends first and the wiring centre last, so that nobody walks twice; at each place off before on, and no terminal is ever
 * asked to hold more than it takes. Carried out in order their changes give the new installation exactly, taken back in reverse
 * the old one.
 */
export function movesOf(change: Change): Move[] {
  return new Moves(change).all()
}

/** What takes moves back, the last first. */
export const takenBack = (moves: readonly Move[]): FieldChange[] => inverted(moves.flatMap(({ changes }) => changes))

const sameEnd = (a: End, b: End) => a.at === b.at && placeOf(a) === placeOf(b)
const loose: End = { at: 'loose' }

/** What a hand does with an end in the wiring centre. */
function kindOf(now: End, to: End): Move['do'] {
  if (to.at === 'cut-back') return 'cut-back'
  const stays = placeOf(to) === placeOf(now)
  if (to.at === 'parked') return stays ? 'leave' : 'park'
  return stays || placeOf(now) === undefined ? 'land' : 'move'
}

/** An end that is elsewhere afterwards. */
interface Pending {
  cable: string
  core: string
  side: 0 | 1
  to: End
}

class Moves {
  private readonly moves: Move[] = []
  private readonly from: Installation
  private readonly to: Installation
  private readonly box: string
  private readonly boxPlace: string
  private doc: Installation

  constructor(private readonly change: Change) {
    this.from = change.from
    this.to = change.to
    this.doc = change.from
    const [centre] = change.from.wiringCentres
    this.box = centre.id
    this.boxPlace = centre.place
  }

  all(): Move[] {
    const places = [...this.to.places, ...this.from.places].map(({ id }) => id)
    for (const place of new Set(places)) if (place !== this.boxPlace) this.at(place)
    this.at(this.boxPlace)
    this.boxWork()
    this.push({ do: 'finish', place: this.placeName(this.boxPlace), what: this.to.scheme }, 'done', this.to)
    return this.moves
  }

  /** Everything at one place but what is inside the wiring centre. */
  private at(place: string): void {
    this.off(place)
    this.devices(place)
    this.laid(place)
    this.on(place)
    this.deviceLinks(place)
  }

  /** Ends that leave their device: for another terminal of it they are moved later, at once. */
  private off(place: string): void {
    for (const cable of this.from.cables) {
      const after = this.to.cables.find(({ id }) => id === cable.id)
      for (const core of cable.cores)
        for (const side of [0, 1] as const) {
          const was = core.ends[side]
          const ref = placeOf(was)
          if (ref === undefined || this.placeOfOwner(this.from, ownerOf(ref)) !== place) continue
          const is = after?.cores.find(({ id }) => id === core.id)?.ends[side]
          const isLeadEnd = cable.leadOf === ownerOf(ref)
          if (ownerOf(ref) === this.box) {
            // Of a lead that goes with its device; what else is in the wiring centre is done there.
            if (!after) this.end(cable, core, side, loose, 'take-off')
          } else if (!isLeadEnd && is && !sameEnd(was, is) && !this.isMovedOnDevice(was, is))
            this.end(
              cable,
              core,
              side,
              is.at === 'cut-back' ? is : loose,
              is.at === 'cut-back' ? 'cut-back' : 'take-off',
            )
        }
    }
  }

  private isMovedOnDevice(was: End, is: End): boolean {
    const [a, b] = [placeOf(was), placeOf(is)]
    if (a === undefined || b === undefined || ownerOf(a) !== ownerOf(b)) return false
    return this.typeOf(this.from, ownerOf(a)) === this.typeOf(this.to, ownerOf(b))
  }

  private typeOf(doc: Installation, device: string): string | undefined {
    return doc.devices.find(({ id }) => id === device)?.type
  }

  private devices(place: string): void {
    const name = this.placeName(place)
    const old = this.from.devices.filter((d) => d.place === place && this.goes(d))
    const fresh = this.to.devices.filter((d) => d.place === place && this.comes(d))
    for (const device of old) {
      const next = fresh.find(({ id }) =>
        this.change.target.devices.some(
          (p) => p.device.id === id && p.standing.is === 'exchanged' && p.standing.found === device.id,
        ),
      )
      const without = this.withoutDevice(this.doc, device.id)
      if (next) {
        const into = this.withDevice(without, next, device.id)
        this.push(
          {
            do: 'exchange',
            place: name,
            what: device.name,
            to: this.deviceText(next),
            note: this.waterNote(device, next),
          },
          `exchange ${device.id} ${next.id}`,
          into,
        )
      } else
        this.push(
          { do: 'remove', place: name, what: this.deviceText(device, this.from), note: this.waterNote(device) },
          `remove ${device.id}`,
          without,
        )
    }
    for (const device of fresh) {
      if (this.doc.devices.some(({ id }) => id === device.id)) continue
      this.push(
        { do: 'fit', place: name, what: this.deviceText(device), note: this.waterNote(undefined, device) },
        `fit ${device.id}`,
        this.withDevice(this.doc, device),
      )
    }
    this.connectors(place, name)
  }

  private connectors(place: string, name: string): void {
    for (const one of this.from.connectors)
      if (one.place === place && !this.to.connectors.some(({ id }) => id === one.id))
        this.push({ do: 'remove', place: name, what: one.name }, `remove ${one.id}`, {
          ...this.doc,
          connectors: this.doc.connectors.filter(({ id }) => id !== one.id),
        })
    for (const one of this.to.connectors)
      if (one.place === place && !this.from.connectors.some(({ id }) => id === one.id))
        this.push({ do: 'fit', place: name, what: one.name }, `fit ${one.id}`, {
          ...this.doc,
          connectors: [...this.doc.connectors, one],
        })
  }

  private goes(device: Device): boolean {
    const now = this.to.devices.find(({ id }) => id === device.id)
    return now?.type !== device.type
  }
  private comes(device: Device): boolean {
    return this.typeOf(this.from, device.id) !== device.type
  }

  /** A document without a device, its own lead, and the links in it. */
  private withoutDevice(doc: Installation, id: string): Installation {
    return {
      ...doc,
      devices: doc.devices.filter((d) => d.id !== id),
      cables: doc.cables.filter(({ leadOf }) => leadOf !== id),
      links: doc.links.filter(({ between }) => !between.some((ref) => ownerOf(ref) === id)),
    }
  }

  /** A document with a device more, where the new installation has it, its lead with the far ends loose. */
  private withDevice(doc: Installation, device: Device, instead?: string): Installation {
    const at = instead === undefined ? doc.devices.length : this.doc.devices.findIndex(({ id }) => id === instead)
    const leads = this.to.cables.filter(({ leadOf }) => leadOf === device.id)
    return {
      ...doc,
      places: this.to.places.reduce(
        (places, one) => (places.some(({ id }) => id === one.id) ? places : [...places, one]),
        doc.places,
      ),
      devices: [...doc.devices.slice(0, at), device, ...doc.devices.slice(at)],
      cables: [...doc.cables, ...leads.map((lead) => this.unlanded(lead, device.id))],
      types: this.to.types.reduce(
        (types, one) => (types.some(({ id }) => id === one.id) ? types : [...types, one]),
        doc.types,
      ),
    }
  }

  private unlanded(cable: Cable, keeps?: string): Cable {
    const end = (one: End): End => {
      const ref = placeOf(one)
      return ref === undefined || ownerOf(ref) === keeps ? one : loose
    }
    return { ...cable, cores: cable.cores.map((core) => ({ ...core, ends: [end(core.ends[0]), end(core.ends[1])] })) }
  }

  /** Cables that come to something at this place. */
  private laid(place: string): void {
    for (const cable of this.to.cables) {
      if (cable.leadOf !== undefined || this.doc.cables.some(({ id }) => id === cable.id)) continue
      const owners = ownersOf(cable, this.box)
      if (!owners.some((owner) => this.placeOfOwner(this.to, owner) === place)) continue
      const cables = [...this.doc.cables, this.unlanded(cable)]
      const colours = cable.cores.map(({ colour }) => colour).join(', ')
      this.push(
        { do: 'lay', place: this.placeName(place), what: cable.label, to: colours, note: this.whyLaid(cable) },
        `lay ${cable.id}`,
        { ...this.doc, cables },
      )
    }
  }

  private whyLaid(cable: Cable): MoveNote {
    const owners = ownersOf(cable, this.box)
    const isLow = this.change.extraLow.has(cable.id)
    const there = this.from.cables.some(
      (one) =>
        one.leadOf === undefined &&
        ownersOf(one, this.box).some((id) => owners.includes(id) || this.standsFor(id, owners)),
    )
    if (isLow && there) return { is: 'extra-low' }
    return { is: there ? 'too-few' : 'no-cable' }
  }

  private standsFor(found: string, owners: readonly string[]): boolean {
    return this.change.target.devices.some(
      ({ device, standing }) => owners.includes(device.id) && standing.is !== 'new' && standing.found === found,
    )
  }

  /** Ends that come to devices and connectors at this place. */
  private on(place: string): void {
    for (const { cable, core, side, to } of this.pending()) {
      const ref = placeOf(to)
      if (ref === undefined || ownerOf(ref) === this.box || this.placeOfOwner(this.to, ownerOf(ref)) !== place) continue
      const at = this.endNow(cable, core, side)
      this.endOf(cable, core, side, to, placeOf(at) === undefined ? 'land' : 'move')
    }
  }

  private deviceLinks(place: string): void {
    const name = this.placeName(place)
    const isHere = (refs: readonly string[]) => {
      const owner = ownerOf(refs[0])
      return owner !== this.box && this.placeOfOwner(this.to, owner) === place
    }
    this.takeLinksOut(name, isHere)
    this.fitLinks(name, isHere)
  }

  /** Everything inside the wiring centre. */
  private boxWork(): void {
    const name = this.placeName(this.boxPlace)
    const isHere = (refs: readonly string[]) => ownerOf(refs[0]) === this.box
    this.takeLinksOut(name, isHere)
    this.furtherTerminals(name)
    this.landAtBox()
    this.fitLinks(name, isHere)
    this.labels(name)
  }

  private takeLinksOut(place: string, isHere: (refs: readonly string[]) => boolean): void {
    for (const link of this.doc.links) {
      if (link.kind === 'cut' || !isHere(link.between)) continue
      const after = this.to.links.find(({ id }) => id === link.id)
      if (after && after.kind !== 'cut') continue
      const links = after
        ? this.doc.links.map((one) => (one.id === link.id ? after : one))
        : this.doc.links.filter((one) => one.id !== link.id)
      this.push(
        { do: after ? 'cut-link' : 'unlink', place, what: this.pairText(link.between) },
        `${after ? 'cut' : 'unlink'} ${link.between.join('+')}`,
        { ...this.doc, links },
      )
    }
  }

  private fitLinks(place: string, isHere: (refs: readonly string[]) => boolean): void {
    for (const link of this.to.links) {
      if (!isHere(link.between)) continue
      const now = this.doc.links.find(({ id }) => id === link.id)
      if (now?.kind === link.kind) continue
      const links = now ? this.doc.links.map((one) => (one.id === link.id ? link : one)) : [...this.doc.links, link]
      this.push(
        { do: link.kind === 'cut' ? 'cut-link' : 'link', place, what: this.pairText(link.between, this.to) },
        `${link.kind === 'cut' ? 'cut' : 'link'} ${link.between.join('+')}`,
        { ...this.doc, links },
      )
    }
  }

  private furtherTerminals(place: string): void {
    const [before, after] = [this.doc.wiringCentres[0], this.to.wiringCentres[0]]
    for (const terminal of after.terminals.slice(before.terminals.length)) {
      const [centre] = this.doc.wiringCentres
      const next = { ...centre, terminals: [...centre.terminals, terminal] }
      this.push({ do: 'terminal', place, what: `${centre.name} ${terminal.id}` }, `terminal ${terminal.id}`, {
        ...this.doc,
        wiringCentres: [next],
      })
    }
  }

  /** What leaves, goes elsewhere or comes, each as soon as there is room; where two stand in each other's way one is held loose. */
  private landAtBox(): void {
    const open = this.pending().filter(({ cable, core, side, to }) => {
      const at = placeOf(to) ?? placeOf(this.endNow(cable, core, side))
      return at !== undefined && ownerOf(at) === this.box
    })
    while (open.length > 0) {
      const next = open.findIndex((one) => this.hasRoom(one))
      if (next >= 0) {
        const [{ cable, core, side, to }] = open.splice(next, 1)
        const now = this.endNow(cable, core, side)
        const kind = kindOf(now, to)
        this.endOf(cable, core, side, to, kind)
      } else {
        const held = open.find(({ cable, core, side }) => placeOf(this.endNow(cable, core, side)) !== undefined)!
        this.endOf(held.cable, held.core, held.side, loose, 'take-off')
      }
    }
  }

  private hasRoom({ cable, core, side, to }: Pending): boolean {
    const ref = placeOf(to)
    if (ref === undefined || ref === placeOf(this.endNow(cable, core, side))) return true
    const [centre] = this.doc.wiringCentres
    const ways = centre.terminals.find(({ id }) => `${centre.id}.${id}` === ref)?.ways ?? 0
    const held = this.doc.cables
      .flatMap(({ cores }) => cores.flatMap(({ ends }) => ends))
      .filter((end) => placeOf(end) === ref).length
    return held < ways
  }

  private labels(place: string): void {
    const legends = new Map(this.to.wiringCentres[0].terminals.map(({ id, legend }) => [id, legend]))
    for (const { id, legend } of this.doc.wiringCentres[0].terminals) {
      const to = legends.get(id)
      if (to === undefined || to === legend) continue
      const [centre] = this.doc.wiringCentres
      const terminals = centre.terminals.map((t) => (t.id === id ? { ...t, legend: to } : t))
      this.push({ do: 'label', place, what: `${centre.name} ${id}`, from: legend, to }, `label ${id}`, {
        ...this.doc,
        wiringCentres: [{ ...centre, terminals }],
      })
    }
  }

  /** Ends that are not yet where they will be, in the order of their cables. */
  private pending(): Pending[] {
    return this.to.cables.flatMap((cable) =>
      cable.cores.flatMap((core) =>
        ([0, 1] as const).flatMap((side): Pending[] => {
          const now = this.doc.cables.find(({ id }) => id === cable.id)?.cores.find(({ id }) => id === core.id)
          if (!now || sameEnd(now.ends[side], core.ends[side])) return []
          return [{ cable: cable.id, core: core.id, side, to: core.ends[side] }]
        }),
      ),
    )
  }

  private endNow(cable: string, core: string, side: 0 | 1): End {
    return this.doc.cables.find(({ id }) => id === cable)!.cores.find(({ id }) => id === core)!.ends[side]
  }

  private endOf(cable: string, core: string, side: 0 | 1, to: End, kind: Move['do']): void {
    const of = this.doc.cables.find(({ id }) => id === cable)!
    this.end(
      of,
      of.cores.find(({ id }) => id === core)!,
      side,
      to,
      kind,
    )
  }

  /** One end goes elsewhere; a sleeve that belongs to what it serves now goes on with the landing. */
  private end(cable: Cable, core: Core, side: 0 | 1, to: End, kind: Move['do']): void {
    const after = this.to.cables.find(({ id }) => id === cable.id)?.cores.find(({ id }) => id === core.id)
    const isOn = placeOf(to) !== undefined && to.at !== 'parked'
    const now = this.doc.cables.find(({ id }) => id === cable.id)!.cores.find(({ id }) => id === core.id)!
    const was = now.ends[side]
    const sleeved = isOn && after && after.sleeve !== now.sleeve
    const ends: Core['ends'] = side === 0 ? [to, now.ends[1]] : [now.ends[0], to]
    const { sleeve: worn, ...bare } = now
    const sleeve = sleeved ? after.sleeve : worn
    const next: Core = { ...bare, ...(sleeve && { sleeve }), ends }
    const cables = this.doc.cables.map((one) =>
      one.id === cable.id ? { ...one, cores: one.cores.map((k) => (k.id === core.id ? next : k)) } : one,
    )
    const owner = ownerOf(placeOf(to) ?? placeOf(was) ?? this.box)
    const place = this.placeName(
      this.placeOfOwner(this.to, owner) ?? this.placeOfOwner(this.from, owner) ?? this.boxPlace,
    )
    const far = now.ends[1 - side]
    const isAlive = (kind === 'park' || kind === 'leave') && placeOf(far) !== undefined && far.at !== 'parked'
    this.push(
      {
        do: kind,
        place,
        what: coreName(cable, now),
        colour: now.colour,
        ...(sleeved && sleeve && { sleeve }),
        ...(placeOf(was) !== undefined && { from: endText(this.doc, was) }),
        ...(placeOf(to) !== undefined && { to: endText(this.to, to) }),
        ...(isAlive && { note: { is: 'alive' as const } }),
      },
      `${kind} ${cable.id}.${core.id}.${side}@${placeOf(to) ?? to.at}`,
      { ...this.doc, cables },
    )
  }

  private waterNote(old: Device | undefined, next?: Device): MoveNote | undefined {
    const ports = (device: Device, doc: Installation) =>
      typeIn(doc, device.type)
        .primitives.flatMap((p) => (p.kind === 'port' || p.kind === 'waterway' ? [`${p.from} ${p.to}`] : []))
        .sort()
        .join()
    const [was, is] = [old ? ports(old, this.from) : '', next ? ports(next, this.to) : '']
    if (was === '' && is === '') return undefined
    const isHead = was === is && next !== undefined && typeIn(this.to, next.type).family === 'valves'
    return isHead ? { is: 'head' } : { is: 'water' }
  }

  private deviceText(device: Device, doc = this.to): string {
    return `${device.name} (${typeIn(doc, device.type).name})`
  }
  private pairText([a, b]: readonly [string, string], doc = this.doc): string {
    return `${terminalText(doc, a)} and ${terminalText(doc, b)}`
  }
  private placeOfOwner(doc: Installation, owner: string): string | undefined {
    return [...doc.devices, ...doc.connectors, ...doc.wiringCentres].find(({ id }) => id === owner)?.place
  }
  private placeName(place: string): string {
    return [...this.to.places, ...this.from.places].find(({ id }) => id === place)?.name ?? ''
  }

  private push(move: Omit<Move, 'id' | 'changes'>, id: string, next: Installation): void {
    const changes = changesBetween(installationShape, this.doc, next)
    this.doc = next
    const { note, ...rest } = move
    this.moves.push({ id: `change ${id}`, ...rest, ...(note && { note }), changes })
  }
}
