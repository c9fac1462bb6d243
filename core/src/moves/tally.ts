import type { Installation } from '../installation'
import type { Change } from './change-of-controls'
import { costs, touchesOf } from './costs'
import type { Move } from './move'

/** What a change comes to, in numbers. */
export interface Tally {
  /** Conductors that are there and of which an end is touched, and how many there are. */
  touched: number
  conductors: number
  /** Links fitted and taken out, cables run, terminals fitted. */
  links: number
  cables: number
  terminals: number
  /** Ends and links that a better choice could spare at most; 0 where none can touch less. */
  atMostLess: number
}

export function tallyOf({ from, to, cost, bound }: Change, moves: readonly Move[]): Tally {
  const count = (...kinds: Move['do'][]) => moves.filter((move) => kinds.includes(move.do)).length
  const cores = conductorsOf(from)
  const now = conductorsOf(to)
  return {
    touched: [...cores].filter(([id, ends]) => now.get(id) !== ends).length,
    conductors: cores.size,
    links: count('link', 'unlink', 'cut-link'),
    cables: count('lay'),
    terminals: count('terminal'),
    atMostLess: Math.max(0, touchesOf(cost) - Math.ceil(bound / costs.end)),
  }
}

const conductorsOf = ({ cables }: Installation): Map<string, string> =>
  new Map(cables.flatMap(({ id, cores }) => cores.map((core) => [`${id}.${core.id}`, JSON.stringify(core.ends)])))
