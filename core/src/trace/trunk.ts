import { nth } from '../lists'
import type { Leg, Station, Way } from './paths'
import type { Run } from './runs'

/** What several runs have in common from the supply on, and where each leaves it. */
export interface Trunk {
  way: Way
  /** Per run that leaves it, by its id, the rest of its way. */
  branches: ReadonlyMap<string, Way>
}

/**
 * The trunk of most of some runs, to be drawn once: the gates and conductors they come by in common, from the supply to where the
 * first of them leaves. Undefined where no two begin alike. Every branch keeps something of its own.
 */
export function trunkOf(runs: readonly Run[]): Trunk | undefined {
  const byStart = new Map<string, Run[]>()
  for (const run of runs) {
    const [first] = run.way
    if (!first) continue
    const key = startOf(first)
    byStart.set(key, [...(byStart.get(key) ?? []), run])
  }
  const most = Math.max(0, ...[...byStart.values()].map((group) => group.length))
  const group = [...byStart.values()].find((one) => one.length === most && most > 1)
  if (!group) return undefined
  const pieces = group.map(({ way }) => way.flatMap(piecesOf))
  const shortest = Math.min(...pieces.map((list) => list.length))
  let shared = 0
  // Its last piece is always a branch's own.
  while (shared < shortest - 1 && pieces.every((list) => same(nth(list, shared), nth(nth(pieces, 0), shared)))) shared++
  if (shared === 0) return undefined
  return {
    way: joined(nth(pieces, 0).slice(0, shared)),
    branches: new Map(group.map(({ id }, i) => [id, joined(nth(pieces, i).slice(shared))])),
  }
}

/** A station, a stretch of wiring taken conductor by conductor. */
type Piece = Exclude<Station, Leg> | (Leg & { steps: [Leg['steps'][number]] })

const piecesOf = (station: Station): Piece[] =>
  station.kind !== 'leg'
    ? [station]
    : station.steps.map((step, i) => ({
        kind: 'leg',
        from: i === 0 ? station.from : nth(station.steps, i - 1).to,
        to: step.to,
        steps: [step],
      }))

const startOf = (station: Station): string => {
  const [first] = piecesOf(station)
  if (first?.kind === 'gate') return `gate ${first.edge}`
  return first?.kind === 'leg' ? `leg ${first.steps[0].edge} ${first.from}` : `${station.kind} ${station.from}`
}

/** Ways side by side and ways that cross are never taken together. */
function same(one: Piece, other: Piece): boolean {
  if (one.kind === 'gate' && other.kind === 'gate') return one.edge === other.edge && one.from === other.from
  return (
    one.kind === 'leg' && other.kind === 'leg' && one.steps[0].edge === other.steps[0].edge && one.from === other.from
  )
}

function joined(pieces: readonly Piece[]): Way {
  const way: Way = []
  for (const piece of pieces) {
    const last = way.at(-1)
    if (piece.kind === 'leg' && last?.kind === 'leg')
      way[way.length - 1] = { ...last, to: piece.to, steps: [...last.steps, ...piece.steps] }
    else way.push(piece)
  }
  return way
}
