import type { Circuit } from '../circuit'
import { thingLookedAt, words, type Found, type WrittenLook } from '../looks'
import { deadLooksAt, looksAt } from './candidates'

/** Something that can be picked to say what was found of it: a device, a wiring centre, a connector. */
export interface Thing {
  id: string
  name: string
  /** Where it stands, as a place's id. */
  place: string
  /** What can be looked at there; the terminals of a wiring centre in their order. */
  looks: WrittenLook[]
}

/** Everything that can be picked, with what can be looked at there, in the order of the document; what offers no look is left out. */
export function thingsOf(circuit: Circuit): Thing[] {
  const { devices, wiringCentres, connectors } = circuit.installation
  const looks = [...looksAt(circuit), ...clicksAt(circuit), ...deadLooksAt(circuit)]
  return [...devices, ...wiringCentres, ...connectors]
    .map(({ id, name, place }) => ({ id, name, place, looks: looks.filter((see) => thingLookedAt(see) === id) }))
    .filter((thing) => thing.looks.length > 0)
}

/** Contacts that something other than a hand throws are heard. */
const clicksAt = ({ devices }: Circuit): WrittenLook[] =>
  devices.flatMap(({ device, type }) =>
    type.primitives.some((part) => part.kind === 'contact' || part.kind === 'changeover')
      ? [{ at: 'clicks', device: device.id }]
      : [],
  )

const verdicts = ['correct', 'reversed', 'no-neutral', 'no-earth', 'dead', 'unclear']
/** Phases that any display can show; a device has words of its own for some. */
const phases = ['idle', 'waits-off', 'self-check', 'firing', 'overrun', 'no-flow', 'lockout', 'off'] as const
const circulatorPhases = ['idle', 'circulating', 'off'] as const

/** The words that can be written down of a look; those that are numbers have the unit they are read in instead, or beside them. */
export function answersTo(
  circuit: Circuit,
  see: WrittenLook,
): { words: Found[]; unit?: 'V' | 'Ω' | 'MΩ' | 'W' | '°C' } {
  const told = (list: readonly string[]): Found[] => list.map((word) => ({ word }))
  switch (see.at) {
    case 'display': {
      const device = circuit.deviceIndex.get(see.device)
      const sequence = circuit.behaviours.find((one) => one.device === device)?.part.behaviour
      return { words: told(sequence === 'circulator-call' ? circulatorPhases : phases) }
    }
    case 'flow-temperature':
      return { words: [], unit: '°C' }
    case 'points':
      switch (see.with) {
        case 'tester':
        case 'meter':
          return { words: told(words.points), unit: 'V' }
        case 'polarity':
          return { words: told(verdicts) }
        case 'power':
          return { words: [], unit: 'W' }
        case 'insulation':
          return { words: [{ value: null, unit: 'MΩ' }], unit: 'MΩ' }
        default:
          return { words: [{ value: null, unit: 'Ω' }], unit: 'Ω' }
      }
    default:
      return { words: told(words[see.at]) }
  }
}
