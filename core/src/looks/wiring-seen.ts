import { typeIn } from '../catalogue'
import { ownerOf, type Colour, type Device, type Installation } from '../installation'

/** What lies in a terminal: a conductor, by what is seen of it. */
interface ConductorThere {
  cable: string
  colour: Colour
  sleeve?: Colour
}

/** Everything of a device's or wiring centre's wiring that can be compared with a drawing. */
export interface WiringThere {
  /** Terminals in use, in the order in which the document comes by them. */
  terminals: { terminal: string; conductors: ConductorThere[] }[]
  links: { between: readonly [string, string]; cut: boolean }[]
  /** Of what is chosen at set-up, as it is called on the device: a slider, a jumper, a menu. */
  settings: { place: string; setting: string; value: string }[]
}

export function wiringAt(doc: Installation, thing: string): WiringThere {
  const { cables, links, devices, wiringCentres } = doc
  const isHere = (terminal: string) => ownerOf(terminal) === thing
  const terminals = new Map<string, ConductorThere[]>()
  // A strip is read from its first terminal to its last.
  for (const { id } of wiringCentres.find((centre) => centre.id === thing)?.terminals ?? [])
    terminals.set(`${thing}.${id}`, [])
  for (const { label, cores } of cables)
    for (const { colour, sleeve, ends } of cores)
      for (const end of ends)
        if (end.at === 'terminal' && isHere(end.terminal))
          terminals.set(end.terminal, [
            ...(terminals.get(end.terminal) ?? []),
            { cable: label, colour, ...(sleeve && { sleeve }) },
          ])
  return {
    terminals: [...terminals]
      .map(([terminal, conductors]) => ({ terminal, conductors }))
      .filter(({ conductors }) => conductors.length > 0),
    links: links
      .filter(({ between }) => between.every(isHere))
      .map(({ between: [a, b], kind }) => ({ between: [a, b], cut: kind === 'cut' })),
    settings: devices.filter(({ id }) => id === thing).flatMap((device) => setUpOf(doc, device)),
  }
}

const setUpOf = (doc: Installation, { id: device, type, settings }: Device): WiringThere['settings'] =>
  typeIn(doc, type).settings.flatMap(({ id, label, choices, default: usual }) => {
    const stands = settings[id] ?? usual
    const choice = choices?.find(({ value }) => value === stands)
    return choice ? [{ place: `${device}.${id}`, setting: label, value: choice.label }] : []
  })

/** How many things are compared. */
export function comparedAt(doc: Installation, thing: string): number {
  const { terminals, links, settings } = wiringAt(doc, thing)
  return terminals.flatMap(({ conductors }) => conductors).length + links.length + settings.length
}

/**
 * Does it look as it is drawn, and where not: the terminals and set-up choices, in alphabetical order. What is drawn, and what is
 * there. Two conductors of one colour look the same; a link lies otherwise at both its ends.
 */
export function wiringSeen(drawn: Installation, there: Installation, thing: string): WiringSeen {
  if (drawn === there) return asDrawn
  const [one, other] = [seenOf(wiringAt(drawn, thing)), seenOf(wiringAt(there, thing))]
  const at = [...new Set([...one.keys(), ...other.keys()])].filter((place) => one.get(place) !== other.get(place))
  return at.length === 0 ? asDrawn : { word: 'otherwise', at: at.sort() }
}
export type WiringSeen = { word: 'as-drawn' } | { word: 'otherwise'; at: string[] }
const asDrawn = { word: 'as-drawn' } as const

/** Everything in which the wiring of a device or wiring centre can differ from a drawing: its terminals, in use or not, and its set-up. */
export const placesAt = (doc: Installation, thing: string): string[] => [
  ...(doc.wiringCentres.find(({ id }) => id === thing)?.terminals ?? []).map(({ id }) => `${thing}.${id}`),
  ...doc.devices
    .filter(({ id }) => id === thing)
    .flatMap(({ type }) => [
      ...typeIn(doc, type).terminals.flatMap(({ id, internal }) => (internal ? [] : [`${thing}.${id}`])),
      ...typeIn(doc, type).settings.flatMap(({ id, choices }) => (choices ? [`${thing}.${id}`] : [])),
    ]),
]

/** Per place what is seen there. */
function seenOf({ terminals, links, settings }: WiringThere): Map<string, string> {
  const seen = new Map<string, string[]>()
  const add = (place: string, what: string) => seen.set(place, [...(seen.get(place) ?? []), what])
  for (const { terminal, conductors } of terminals)
    for (const { colour, sleeve } of conductors) add(terminal, `${colour} ${sleeve ?? ''}`)
  for (const { between, cut } of links)
    for (const [end, other] of [between, [...between].reverse()] as [string, string][])
      add(end, `${cut ? 'cut link' : 'link'} to ${other}`)
  for (const { place, value } of settings) add(place, value)
  return new Map([...seen].map(([place, what]) => [place, what.sort().join()]))
}
