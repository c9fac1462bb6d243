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
  settings: { setting: string; value: string }[]
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

const setUpOf = (doc: Installation, { type, settings }: Device): WiringThere['settings'] =>
  typeIn(doc, type).settings.flatMap(({ id, label, choices, default: usual }) => {
    const stands = settings[id] ?? usual
    const choice = choices?.find(({ value }) => value === stands)
    return choice ? [{ setting: label, value: choice.label }] : []
  })

/** How many things are compared. */
export const comparedAt = (doc: Installation, thing: string): number => seenOf(wiringAt(doc, thing)).length

/** Does it look as it is drawn? What is drawn, and what is there. Two conductors of one colour look the same. */
export function wiringSeen(drawn: Installation, there: Installation, thing: string): 'as-drawn' | 'otherwise' {
  if (drawn === there) return 'as-drawn'
  const [one, other] = [seenOf(wiringAt(drawn, thing)), seenOf(wiringAt(there, thing))]
  return one.length === other.length && one.every((item, i) => item === other[i]) ? 'as-drawn' : 'otherwise'
}

const seenOf = ({ terminals, links, settings }: WiringThere): string[] =>
  [
    ...terminals.flatMap(({ terminal, conductors }) =>
      conductors.map(({ colour, sleeve }) => `${terminal} ${colour} ${sleeve ?? ''}`),
    ),
    ...links.map(({ between, cut }) => `${[...between].sort().join(' ')} ${cut ? 'cut' : 'in'}`),
    ...settings.map(({ setting, value }) => `${setting}=${value}`),
  ].sort()
