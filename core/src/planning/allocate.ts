import { nth } from '../lists'
import type { Link, WiringCentreTerminal } from '../installation'
import { centreKind, type CentreKindId } from './centres'

/** Conductors that are to be joined in the wiring centre. */
export interface Joined {
  /** The function's id; `L`, `N` and `E` are the mains. */
  id: string
  legend: string
  /** Of each conductor the cable it comes in. */
  from: readonly string[]
  /** Of each conductor the terminal at its device's end, as the device numbers it: what tells like devices. */
  pins?: readonly string[]
  extraLow?: boolean
}

/** A conductor that is joined with nothing, and where it may lie. */
export interface Spare {
  legend: string
  from: string
  /** It may be live: it has a terminal of its own, come what may. */
  live?: true
}

export interface Allocation {
  terminals: WiringCentreTerminal[]
  /** Per function and conductor, the number of its terminal from 0 on. */
  places: number[][]
  /** Per spare conductor its terminal; undefined where none is left: it is cut back. */
  spares: (number | undefined)[]
  links: { between: [number, number]; kind: Link['kind'] }[]
}

/** The wiring does not go into the wiring centre that there is. */
export class CentreTooSmall extends Error {
  constructor(
    readonly kind: CentreKindId,
    /** Terminals that it would take. */
    readonly needs: number,
  ) {
    const { name, terminals, cascade } = centreKind(kind)
    const each = cascade ? 'each of the' : 'a'
    super(`the wiring takes ${needs} terminals, and ${each} ${name.toLowerCase()} has ${terminals}`)
    this.name = 'CentreTooSmall'
  }
}

/** The ways of a bar for line, neutral or earth; a longer one is two, joined by the maker. */
const barWays = 8
const leverSizes = [2, 3, 5] as const
const mostLever = 5
const mains = new Set(['L', 'N', 'E'])

/**
 * Gives every conductor its terminal, in the order in which the functions are named: as few terminals to a function as hold its
 * conductors, side by side, so that one link less than terminals joins them, and none fewer would.
 *
 * @throws CentreTooSmall
 */
export function allocated(functions: readonly Joined[], spares: readonly Spare[], kind: CentreKindId): Allocation {
  const { by } = centreKind(kind)
  if (by === 'device') return byDevice(functions, spares, centreKind(kind).cut)
  return by === 'levers' ? byLevers(functions, spares) : byFunction(functions, spares, kind)
}

function byFunction(functions: readonly Joined[], spares: readonly Spare[], kind: CentreKindId): Allocation {
  const { ways, terminals: has } = centreKind(kind)
  const terminals: WiringCentreTerminal[] = []
  const add = (legend: string) => terminals.push({ id: String(terminals.length + 1), legend, ways }) - 1
  const links: Allocation['links'] = []
  const places = functions.map(({ legend, from }) => {
    const own = chunks(from.length, () => ways).map((n) => ({ n, at: add(legend) }))
    links.push(...chained(own.map(({ at }) => at)))
    return own.flatMap(({ n, at }) => Array.from({ length: n }, () => at))
  })
  const needed = terminals.length + spares.filter(({ live }) => live).length
  if (has !== undefined && needed > has) throw new CentreTooSmall(kind, needed)
  // What is joined with nothing has a terminal of its own, as long as there is one.
  let free = has === undefined ? Infinity : has - needed
  const parked = spares.map(({ legend, live }) => {
    if (!live && free-- <= 0) return undefined
    const at = add(legend)
    if (has === undefined) terminals[at] = { ...nth(terminals, at), ways: 1 }
    return at
  })
  while (has !== undefined && terminals.length < has) add('Free')
  return { terminals, places, spares: parked, links }
}

/** Conductors that go to a connector, where the pieces that join it to those before and after it take a way each. */
function leverTakes(connector: number, left: number): number {
  const free = mostLever - (connector > 0 ? 1 : 0)
  return left > free ? free - 1 : free
}

/** Spare conductors are cut back, but for what may be live: a connector is for what is joined. */
function byLevers(functions: readonly Joined[], spares: readonly Spare[]): Allocation {
  const terminals: WiringCentreTerminal[] = []
  const links: Allocation['links'] = []
  let connectors = 0
  const places = functions.map(({ id, legend, from }) => {
    const isBar = mains.has(id)
    // The piece that joins two connectors takes a way of either.
    const sizes = isBar ? chunks(from.length, () => barWays) : chunks(from.length, (i, rest) => leverTakes(i, rest))
    const own = sizes.map((n, i) => {
      const joints = isBar ? 0 : (i > 0 ? 1 : 0) + (i < sizes.length - 1 ? 1 : 0)
      const name = isBar ? `${id}${sizes.length > 1 ? i + 1 : ''}` : `K${++connectors}`
      const ways = isBar ? barWays : (leverSizes.find((size) => size >= n + joints) ?? mostLever)
      return { n, at: terminals.push({ id: name, legend, ways }) - 1 }
    })
    links.push(
      ...chained(own.map(({ at }) => at)).map((link) => (isBar ? { ...link, kind: 'factory' as const } : link)),
    )
    return own.flatMap(({ n, at }) => Array.from({ length: n }, () => at))
  })
  const parked = spares.map(({ legend, live }) =>
    live ? terminals.push({ id: `K${++connectors}`, legend, ways: 2 }) - 1 : undefined,
  )
  return { terminals, places, spares: parked, links }
}

interface Placed {
  legend: string
  put: (at: number) => void
  /** The function, by its number, and the pin of the device; none of a spare. */
  of?: { f: number; pin: string }
}

function byDevice(functions: readonly Joined[], spares: readonly Spare[], cut = false): Allocation {
  const rows = new Map<string, Placed[]>()
  const places = functions.map(({ from }) => from.map(() => -1))
  const parked = spares.map((): number | undefined => undefined)
  const inRow = (from: string, placed: Placed) => rows.set(from, [...(rows.get(from) ?? []), placed])
  functions.forEach(({ legend, from, pins = [] }, f) =>
    from.forEach((cable, i) =>
      inRow(cable, { legend, put: (at) => (nth(places, f)[i] = at), of: { f, pin: pins[i] ?? '' } }),
    ),
  )
  spares.forEach(({ legend, from }, i) => inRow(from, { legend, put: (at) => (parked[i] = at) }))
  const terminals: WiringCentreTerminal[] = []
  const placed = [...rows.values()].map((row, r) =>
    row.map(({ legend, put, of }, i) => {
      const at = terminals.push({ id: `${rowName(r)}${i + 1}`, legend, ways: 1 }) - 1
      put(at)
      return { at, of }
    }),
  )
  const tracks = cut ? tracksOfLike(functions, placed) : []
  const links = functions.flatMap(({ id }, f) =>
    mains.has(id)
      ? chained(nth(places, f)).map((link) => ({ ...link, kind: 'factory' as const }))
      : spanned(
          nth(places, f),
          tracks.filter(({ kind }) => kind === 'factory'),
        ),
  )
  return { terminals, places, spares: parked, links: [...tracks, ...links] }
}

/**
 * What joins the rows of like devices, one after the other, pin by pin, as the maker fits it: whoever cuts nothing has them work as
 * one. Mains have tracks of their own, and nothing joins mains and extra-low voltage.
 */
function tracksOfLike(
  functions: readonly Joined[],
  rows: readonly (readonly { at: number; of?: { f: number; pin: string } }[])[],
): Allocation['links'] {
  const last = new Map<string, (typeof rows)[number]>()
  return rows.flatMap((row) => {
    const pins = row.flatMap(({ of }) => (of ? [of.pin] : []))
    const key = [...pins].sort().join()
    const before = last.get(key)
    if (new Set(pins).size === pins.length) last.set(key, row)
    return row.flatMap(({ at, of }): Allocation['links'] => {
      const like = before?.find((other) => other.of && other.of.pin === of?.pin)
      if (!of || !like?.of) return []
      const [one, other] = [nth(functions, like.of.f), nth(functions, of.f)]
      if (mains.has(one.id) || mains.has(other.id) || one.extraLow !== other.extraLow) return []
      return [{ between: [like.at, at], kind: one === other ? 'factory' : 'cut' }]
    })
  })
}

/** Links that join what tracks leave apart: one less than the pieces there are. */
function spanned(places: readonly number[], tracks: Allocation['links']): Allocation['links'] {
  const pieceOf = new Map(places.map((at) => [at, at]))
  for (const { between } of tracks) {
    const [one, other] = between.map((at) => pieceOf.get(at))
    if (one === undefined || other === undefined) continue
    for (const [at, piece] of pieceOf) if (piece === other) pieceOf.set(at, one)
  }
  return chained([...new Set(pieceOf.values())])
}

/** A, B, … Z, AA, AB, … */
const rowName = (n: number): string =>
  (n >= 26 ? rowName(Math.floor(n / 26) - 1) : '') + String.fromCharCode(65 + (n % 26))

/** So many conductors in terminals that take so many: `take` of the terminal's number, and of how many are left. */
function chunks(conductors: number, take: (terminal: number, left: number) => number): number[] {
  const sizes: number[] = []
  for (let left = conductors; left > 0;) {
    const size = Math.min(left, take(sizes.length, left))
    sizes.push(size)
    left -= size
  }
  return sizes
}

const chained = (at: readonly number[]): Allocation['links'] =>
  at.slice(1).map((next, i) => ({ between: [nth(at, i), next], kind: 'fitted' }))
