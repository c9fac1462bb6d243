import type { Installation } from '../installation'
import { costs } from './costs'
import { free, staysIdle, type Serving } from './serving'
import type { Work } from './work'

/** The terminals of the wiring centre that is found, their links, and how many conductors each takes. */
export interface Terminals {
  refs: string[]
  ways: ReadonlyMap<string, number>
  /** Links between two of them, by id. */
  links: { id: string; between: [string, string]; kind: 'fitted' | 'factory' }[]
}

export function terminalsOf({ wiringCentres: [centre], links }: Installation): Terminals {
  const refs = centre.terminals.map(({ id }) => `${centre.id}.${id}`)
  const known = new Set(refs)
  return {
    refs,
    ways: new Map(centre.terminals.map(({ id, ways }) => [`${centre.id}.${id}`, ways])),
    links: links.flatMap(({ id, between, kind }) =>
      kind !== 'cut' && between.every((ref) => known.has(ref)) ? [{ id, between, kind }] : [],
    ),
  }
}

/** Terminals that hang together by links between terminals of one net. */
export function groupsOf({ refs, links }: Terminals, labelOf: (ref: string) => string): string[][] {
  const over = new Map<string, string>()
  const top = (ref: string): string => {
    const above = over.get(ref)
    return above === undefined ? ref : top(above)
  }
  for (const { between } of links) {
    if (labelOf(between[0]) !== labelOf(between[1])) continue
    const [a, b] = [top(between[0]), top(between[1])]
    if (a !== b) over.set(b, a)
  }
  const groups = new Map<string, string[]>()
  for (const ref of refs) groups.set(top(ref), [...(groups.get(top(ref)) ?? []), ref])
  return [...groups.values()]
}

/** How the conductors lie in the wiring centre once it is done: what stays, what comes to each net, what is parked. */
export interface Load {
  /** Ends that stay, by terminal. */
  stays: Map<string, number>
  /** Ends to be landed, by net. */
  arrives: Map<string, number>
  /** Conductors that stay on a device and are taken from their terminal: to be parked in one of their own. */
  parks: number
}

export function loadOf(work: Work, servings: readonly Serving[], labelOf: (ref: string) => string): Load {
  const stays = new Map<string, number>()
  const arrives = new Map<string, number>()
  const more = (map: Map<string, number>, key: string) => map.set(key, (map.get(key) ?? 0) + 1)
  let parks = 0
  work.stations.forEach(({ wires, strands }, s) => {
    const { by } = servings[s]
    wires.forEach(({ net }, w) => {
      const at = by[w]?.at
      if (at !== undefined && labelOf(at) === net) more(stays, at)
      else more(arrives, net)
    })
    for (const strand of strands) {
      if (by.includes(strand) || strand.at === undefined) continue
      if (staysIdle(work, strand, labelOf)) more(stays, strand.at)
      else if (strand.near !== undefined) parks++
    }
  })
  return { stays, arrives, parks }
}

/** What it costs to join each net's terminals, and to find room for what comes to it. */
export function joiningCost(terminals: Terminals, load: Load, labelOf: (ref: string) => string): number {
  const held = (group: readonly string[]) => group.reduce((n, ref) => n + (load.stays.get(ref) ?? 0), 0)
  const room = (group: readonly string[]) => group.reduce((n, ref) => n + terminals.ways.get(ref)!, 0)
  const groups = groupsOf(terminals, labelOf)
  const used = groups.filter((group) => held(group) > 0)
  const empty = groups.filter((group) => held(group) === 0).map(room)
  let cost = 0
  for (const { between } of terminals.links) if (labelOf(between[0]) !== labelOf(between[1])) cost += costs.link
  const nets = new Set([...load.arrives.keys(), ...used.map(([ref]) => labelOf(ref))])
  for (const net of nets) {
    if (net === free) continue
    const own = used.filter(([ref]) => labelOf(ref) === net)
    cost += Math.max(0, own.length - 1) * costs.link
    let left = (load.arrives.get(net) ?? 0) - own.reduce((n, group) => n + room(group) - held(group), 0)
    for (let begun = own.length > 0; left > 0; begun = true) {
      const taken = empty.shift()
      left -= taken ?? 1
      cost += (begun ? costs.link : 0) + (taken === undefined ? costs.terminal : 0)
    }
  }
  for (let left = load.parks; left > 0; left--) if (empty.shift() === undefined) cost += costs.terminal
  return cost
}
