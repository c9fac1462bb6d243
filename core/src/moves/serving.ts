import type { ColourSet } from '../catalogue'
import { assigned } from './assignment'
import { costs } from './costs'
import type { Station, Strand, Wire, Work } from './work'

/** A terminal without a net: nothing that is alive is in it. */
export const free = 'free'
/** The net that a terminal of the wiring centre becomes part of; undefined where that is not decided. */
export type LabelOf = (terminal: string) => string | undefined

/** Which conductor serves each wire of a station; undefined where a new one has to. */
export interface Serving {
  cost: number
  by: (Strand | undefined)[]
}

/** No way of serving costs as much; finite, since costs are added. */
const never = 1e9

/** Which conductors serve a station best, given what the terminals of the wiring centre become. What is not decided costs nothing. */
export function servingOf(work: Work, station: Station, labelOf: LabelOf): Serving {
  let best: Serving | undefined
  for (const carries of sharings(work, station)) {
    const one = assign(work, station, labelOf, carries)
    if (!best || one.cost < best.cost) best = one
  }
  return best!
}

type Carries = (cable: string) => 'mains' | 'extra-low'

/** What each cable may carry: never both. Only where a place needs both is there anything to choose. */
function sharings({ netOf }: Work, { wires, strands, extraLow }: Station): Carries[] {
  const own = [...new Set(strands.map(({ cable }) => cable.id))].filter((id) => !extraLow.has(id))
  const needsLow = wires.some((w) => w.extraLow)
  const needsMains = wires.some((w) => !w.extraLow)
  const given = (id: string) => extraLow.has(id)
  if (!needsLow) return [(id) => (given(id) ? 'extra-low' : 'mains')]
  const lowNets = new Set(wires.filter((w) => w.extraLow).map(({ net }) => net))
  // Where a mains conductor stays on a device that stays, the cable is mains for good.
  const isBound = (id: string) =>
    strands.some(
      ({ cable, near, isEarth }) => cable.id === id && near !== undefined && !isEarth && !lowNets.has(netOf(near)),
    )
  const open = own.filter((id) => !isBound(id))
  if (!needsMains) return [(id) => (given(id) || open.includes(id) ? 'extra-low' : 'mains')]
  return Array.from({ length: 1 << Math.min(open.length, 6) }, (_, bits): Carries => {
    const low = new Set(open.filter((_id, i) => bits & (1 << i)))
    return (id) => (given(id) || low.has(id) ? 'extra-low' : 'mains')
  })
}

function assign(work: Work, station: Station, labelOf: LabelOf, carries: Carries): Serving {
  const { wires, strands, fixed } = station
  const idle = strands.map((strand) => idleCost(work, station, strand, labelOf))
  const matrix = wires.map((wire) => [
    ...strands.map((strand, i) =>
      mayServe(strand, wire, fixed, carries) ? serveCost(work, strand, wire, labelOf) - idle[i] : never,
    ),
    ...wires.map(() => (fixed ? costs.end : costs.conductor)),
  ])
  const columns = assigned(matrix)
  const by = columns.map((column): Strand | undefined => strands[column])
  const laid = !fixed && by.includes(undefined) ? costs.cable : 0
  const sum = columns.reduce((total, column, row) => total + matrix[row][column], 0)
  return { cost: sum + laid + idle.reduce((total, one) => total + one, 0), by }
}

/** Whether a conductor can be used for that at all. */
function mayServe(strand: Strand, wire: Wire, fixed: boolean, carries: Carries): boolean {
  if (fixed) return strand.near !== undefined && wire.nodes.has(strand.near)
  if (strand.isEarth !== (wire.use === 'earth')) return false
  return strand.isEarth || (carries(strand.cable.id) === 'extra-low') === wire.extraLow
}

function serveCost({ colours }: Work, strand: Strand, wire: Wire, labelOf: LabelOf): number {
  const near = strand.near !== undefined && wire.nodes.has(strand.near) ? 0 : costs.end
  return near + (isIn(strand, wire.net, labelOf) ? 0 : costs.end) + colourCost(colours(strand.cable), strand, wire)
}

function colourCost(set: ColourSet, { core: { colour } }: Strand, { use }: Wire): number {
  const rank = set.wanted[use].indexOf(colour)
  return (rank < 0 ? set.wanted[use].length : rank) * costs.colour + (set.sleeveFor(use, colour) ? costs.sleeve : 0)
}

/** Is a conductor's end in a terminal that becomes part of this net, or may become it? */
function isIn({ at }: Strand, net: string, labelOf: LabelOf): boolean {
  if (at === undefined) return false
  const label = labelOf(at)
  return label === undefined || label === net
}

/** What a conductor costs that serves nothing. */
function idleCost(work: Work, { fixed }: Station, strand: Strand, labelOf: LabelOf): number {
  const off = strand.freed && !fixed ? costs.end : 0
  if (strand.at === undefined) return off
  return off + (staysIdle(work, strand, labelOf) ? 0 : costs.end)
}

/** May the end at the wiring centre of a conductor that serves nothing stay where it is? */
export function staysIdle({ netOf, earth, deadEnds }: Work, strand: Strand, labelOf: LabelOf): boolean {
  if (strand.parked) return isIn(strand, free, labelOf)
  // One that stays on its device may stay with what belongs together with it: then nothing is joined otherwise.
  if (strand.near !== undefined) return isIn(strand, netOf(strand.near), labelOf)
  if (strand.cable.leadOf !== undefined) return false
  if (!strand.freed && [...deadEnds].some((net) => isIn(strand, net, labelOf))) return true
  // What is joined with nothing at its other end is cut back here as well, but for an earth.
  return strand.isEarth && earth !== undefined && isIn(strand, earth, labelOf)
}
