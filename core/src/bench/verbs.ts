import type { DeviceType } from '../catalogue'
import { coloursOf, typeEntry, typeIn, type SupplyId } from '../catalogue'
import type {
  Cable,
  Change,
  Colour,
  Core,
  Device,
  End,
  Installation,
  Link,
  Provenance,
  Step,
  TerminalRef,
  WiringCentre,
} from '../installation'

/** One end of one conductor. */
export interface EndRef {
  cable: string
  core: string
  end: 0 | 1
}

export const cableOf = (doc: Installation, id: string): Cable | undefined => doc.cables.find((c) => c.id === id)
export const coreAt = (doc: Installation, { cable, core }: Omit<EndRef, 'end'>): Core | undefined =>
  cableOf(doc, cable)?.cores.find((k) => k.id === core)

const coreOf = ({ cable, core }: EndRef) => ({ cable, core })

/** Puts an end elsewhere. What somebody had seen or tested of it no longer holds. */
export const moveEnd = (ref: EndRef, to: End): Step => ({
  deed: { do: 'place-end', core: coreOf(ref), to },
  changes: [{ do: 'end', ...ref, to }],
})

export const land = (ref: EndRef, terminal: TerminalRef): Step => moveEnd(ref, { at: 'terminal', terminal })

/** Parks an end in the first terminal of the same wiring centre that nothing is on; undefined where there is none. */
export function park(doc: Installation, ref: EndRef): Step | undefined {
  const end = coreAt(doc, ref)?.ends[ref.end]
  const owner = end && 'terminal' in end ? end.terminal.split('.')[0] : doc.wiringCentres[0]?.id
  const centre = doc.wiringCentres.find((c) => c.id === owner) ?? doc.wiringCentres[0]
  const taken = takenTerminals(doc)
  const free = centre?.terminals.find((t) => !taken.has(`${centre.id}.${t.id}`))
  if (!centre || !free) return undefined
  return moveEnd(ref, { at: 'parked', terminal: `${centre.id}.${free.id}` })
}

/** Terminals that a conductor or link is on. */
function takenTerminals(doc: Installation): Set<string> {
  const ends = doc.cables.flatMap((c) =>
    c.cores.flatMap((k) => k.ends.flatMap((e) => ('terminal' in e ? [e.terminal] : []))),
  )
  return new Set([...ends, ...doc.links.flatMap((l) => l.between)])
}

/** How an end came to be known. */
export function markEnd(doc: Installation, ref: EndRef, provenance: Provenance): Step | undefined {
  const end = coreAt(doc, ref)?.ends[ref.end]
  if (!end) return undefined
  return {
    deed: { do: 'mark-end', core: coreOf(ref), provenance },
    changes: [{ do: 'end', ...ref, to: { ...end, provenance } }],
  }
}

export const sleeve = (ref: EndRef, colour: Colour | null): Step => ({
  deed: { do: 'sleeve', core: coreOf(ref), colour: colour ?? undefined, found: true },
  changes: [{ do: 'core', cable: ref.cable, core: ref.core, set: { sleeve: colour } }],
})

export const recolour = (ref: EndRef, colour: Colour): Step => ({
  deed: { do: 'recolour', core: coreOf(ref), colour },
  changes: [{ do: 'core', cable: ref.cable, core: ref.core, set: { colour } }],
})

/** An id that nothing in the document has yet, near to the one wished. */
export function freeId(doc: Installation, wish: string): string {
  const lists = [
    doc.devices,
    doc.wiringCentres,
    doc.connectors,
    doc.cables,
    doc.links,
    doc.tees,
    doc.places,
    doc.intent.demands,
  ]
  const taken = new Set(lists.flatMap((all) => all.map((x) => x.id)))
  const stem =
    wish
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .slice(0, 34) || 'x'
  let id = stem
  for (let n = 2; taken.has(id); n++) id = `${stem}-${n}`
  return id
}

export function fitLink(doc: Installation, a: TerminalRef, b: TerminalRef): Step {
  const value: Link = { id: freeId(doc, `link-${doc.links.length + 1}`), kind: 'fitted', between: [a, b] }
  return {
    deed: { do: 'link', between: [a, b] },
    changes: [{ do: 'put', in: 'links', value }],
  }
}

/** Takes a fitted link out, cuts a factory link, or makes one that was cut whole again. */
export function cutLink(link: Link): Step {
  const { between } = link
  if (link.kind === 'fitted')
    return { deed: { do: 'unlink', between }, changes: [{ do: 'drop', in: 'links', id: link.id }] }
  const kind = link.kind === 'factory' ? 'cut' : 'factory'
  return {
    deed: { do: 'factory-link', between, now: kind === 'cut' ? 'cut' : 'left-in' },
    changes: [{ do: 'put', in: 'links', value: { ...link, kind } }],
  }
}

/** Sizes mains cable comes in. */
export const cableSizes = [3, 4, 5] as const

/** A cable with loose ends, its conductors in the colours usual where the supply is. */
export function addCable(doc: Installation, label: string, size: (typeof cableSizes)[number]): Step {
  const supply: SupplyId = doc.supply.volts < 200 ? '120-60' : '230-50'
  const cores = coloursOf(supply).bySize[size].map((colour): Core => ({
    id: colour,
    colour,
    areaMm2: 0.75,
    ends: [{ at: 'loose' }, { at: 'loose' }],
  }))
  const value: Cable = { id: freeId(doc, label), label, ratedForMains: true, cores }
  return { deed: { do: 'add', name: label }, changes: [{ do: 'put', in: 'cables', value }] }
}

export const removeCable = (doc: Installation, id: string): Step => ({
  deed: { do: 'take-out', name: cableOf(doc, id)?.label ?? id },
  changes: [{ do: 'drop', in: 'cables', id }],
})

/** A terminal more in a wiring centre, behind `after` or at the end. */
export function addTerminal(centre: WiringCentre, legend: string, after?: string): Step {
  const numbers = centre.terminals.map((t) => Number(t.id)).filter(Number.isInteger)
  const id = String(Math.max(0, ...numbers) + 1)
  const at = after === undefined ? centre.terminals.length : centre.terminals.findIndex((t) => t.id === after) + 1
  const terminals = [...centre.terminals]
  terminals.splice(at, 0, { id, legend, ways: 1 })
  return {
    deed: { do: 'add-terminal', terminal: id, centre: centre.name },
    changes: [{ do: 'put', in: 'wiringCentres', value: { ...centre, terminals } }],
  }
}

/** Takes a terminal out; what was on it hangs loose, and its links go. Undefined for the last one. */
export function removeTerminal(doc: Installation, centre: WiringCentre, id: string): Step | undefined {
  if (centre.terminals.length < 2) return undefined
  const ref = `${centre.id}.${id}`
  const value = { ...centre, terminals: centre.terminals.filter((t) => t.id !== id) }
  return {
    deed: { do: 'remove-terminal', terminal: id, centre: centre.name },
    changes: [...freed(doc, (t) => t === ref), { do: 'put', in: 'wiringCentres', value }],
  }
}

export function changeTerminal(centre: WiringCentre, id: string, set: { legend?: string; ways?: number }): Step {
  const terminals = centre.terminals.map((t) => (t.id === id ? { ...t, ...set } : t))
  return {
    deed: { do: 'change-terminal', terminal: id, centre: centre.name },
    changes: [{ do: 'put', in: 'wiringCentres', value: { ...centre, terminals } }],
  }
}

export function addCentre(doc: Installation, name: string, terminals: number): Step {
  const value: WiringCentre = {
    id: freeId(doc, `wc-${doc.wiringCentres.length + 1}`),
    name,
    place: doc.wiringCentres[0]?.place ?? doc.places[0].id,
    terminals: Array.from({ length: terminals }, (_, i) => ({ id: String(i + 1), legend: '', ways: 1 })),
  }
  return { deed: { do: 'add', name }, changes: [{ do: 'put', in: 'wiringCentres', value }] }
}

/** Takes a wiring centre out; conductors that were in it hang loose. */
export const removeCentre = (doc: Installation, centre: WiringCentre): Step => ({
  deed: { do: 'take-out', name: centre.name },
  changes: [...freed(doc, (t) => t.startsWith(`${centre.id}.`)), { do: 'drop', in: 'wiringCentres', id: centre.id }],
})

/** Conductors off some terminals, and links that are on them out. */
function freed(doc: Installation, gone: (terminal: string) => boolean): Change[] {
  const ends = doc.cables.flatMap((cable) =>
    cable.cores.flatMap((core) =>
      core.ends.flatMap((end, i): Change[] =>
        'terminal' in end && gone(end.terminal)
          ? [{ do: 'end', cable: cable.id, core: core.id, end: i as 0 | 1, to: { at: 'loose' } }]
          : [],
      ),
    ),
  )
  const links = doc.links
    .filter((l) => l.between.some(gone))
    .map((l): Change => ({ do: 'drop', in: 'links', id: l.id }))
  return [...ends, ...links]
}

/** A device more, with its own lead where its type has one, all ends loose. */
export function addDevice(doc: Installation, type: DeviceType, name: string, place: string): Step {
  const id = freeId(doc, name)
  const device: Device = { id, name, type: type.id, place, settings: {} }
  const leads = type.terminals.filter((t) => t.lead && !t.internal)
  const changes: Change[] = []
  if (!doc.types.some((t) => t.id === type.id)) changes.push({ do: 'put', in: 'types', value: typeEntry(type) })
  changes.push({ do: 'put', in: 'devices', value: device })
  if (leads.length > 0) {
    const cores = leads.map((t, i): Core => {
      const before = leads.slice(0, i).filter((x) => x.lead === t.lead).length
      const core = before > 0 ? `${t.lead}-${before + 1}` : t.lead!
      return {
        id: core,
        colour: t.lead!,
        areaMm2: 0.75,
        ends: [{ at: 'terminal', terminal: `${id}.${t.id}` }, { at: 'loose' }],
      }
    })
    const lead: Cable = { id: `${id}-lead`.slice(0, 40), label: `${name} lead`, ratedForMains: true, leadOf: id, cores }
    changes.push({ do: 'put', in: 'cables', value: lead })
  }
  return { deed: { do: 'add', name }, changes }
}

/** Why a device cannot simply be taken out: what it is needed for. */
export function neededFor(doc: Installation, id: string): string[] {
  return doc.intent.demands
    .filter(
      (d) =>
        [d.channel?.device, d.thermostat?.device, d.call.boiler].includes(id) ||
        d.circuit.valves.some((v) => v.device === id) ||
        d.circuit.runs?.includes(id) ||
        d.circuit.emitters?.includes(id),
    )
    .map((d) => d.name)
}

/** Takes a device out with its own lead; other conductors on it hang loose. Undefined where a demand needs it. */
export function removeDevice(doc: Installation, id: string): Step | undefined {
  const device = doc.devices.find((d) => d.id === id)
  if (!device || neededFor(doc, id).length > 0) return undefined
  const leads = doc.cables.filter((c) => c.leadOf === id)
  const rest = { ...doc, cables: doc.cables.filter((c) => c.leadOf !== id) }
  const pipes = doc.pipes.filter((p) => [p.from, p.to].some((ref) => ref.startsWith(`${id}.`)))
  return {
    deed: { do: 'take-out', name: device.name },
    changes: [
      ...leads.map((c): Change => ({ do: 'drop', in: 'cables', id: c.id })),
      ...freed(rest, (t) => t.startsWith(`${id}.`)),
      ...pipes.map((p): Change => ({ do: 'drop', in: 'pipes', id: p.id })),
      { do: 'drop', in: 'devices', id },
    ],
  }
}

/** A device with other settings, name, place or knobs. */
export function changeDevice(
  doc: Installation,
  id: string,
  set: Partial<Omit<Device, 'id' | 'type'>>,
): Step | undefined {
  const device = doc.devices.find((d) => d.id === id)
  return (
    device && {
      deed: { do: 'settings', name: set.name ?? device.name },
      changes: [{ do: 'put', in: 'devices', value: { ...device, ...set } }],
    }
  )
}

/** Terminals of a device that conductors can be put on, in their order. */
export const outsideTerminals = (
  doc: Installation,
  device: Device,
): { ref: TerminalRef; id: string; legend: string }[] =>
  typeIn(doc, device.type)
    .terminals.filter((t) => !t.internal)
    .map((t) => ({ ref: `${device.id}.${t.id}`, id: t.id, legend: device.legends?.[t.id] ?? t.legend }))

/** What turns one document into another, list by list; empty where they are the same. */
export function replaceWith(doc: Installation, next: Installation): Change[] {
  const changes: Change[] = []
  const lists = [
    'places',
    'types',
    'devices',
    'wiringCentres',
    'connectors',
    'cables',
    'links',
    'tees',
    'pipes',
  ] as const
  const same = (x: unknown, y: unknown) => JSON.stringify(x) === JSON.stringify(y)
  const each = (
    list: (typeof lists)[number] | 'demands',
    before: readonly { id: string }[],
    after: readonly { id: string }[],
  ) => {
    for (const entry of before)
      if (!after.some((x) => x.id === entry.id)) changes.push({ do: 'drop', in: list, id: entry.id })
    after.forEach((value, at) => {
      const old = before.find((x) => x.id === value.id)
      if (!old || !same(old, value)) changes.push({ do: 'put', in: list, value, ...(old ? {} : { at }) } as Change)
    })
  }
  for (const list of lists) each(list, doc[list], next[list])
  each('demands', doc.intent.demands, next.intent.demands)
  const head = (['name', 'scheme', 'supply', 'provenance'] as const).filter((key) => !same(doc[key], next[key]))
  if (head.length > 0) changes.push({ do: 'head', set: Object.fromEntries(head.map((key) => [key, next[key]])) })
  return changes
}

/** How an end is known: by its own mark, else as the document's. */
export const provenanceOf = (doc: Installation, ref: EndRef): Provenance =>
  coreAt(doc, ref)?.ends[ref.end].provenance ?? doc.provenance
