import { reduceToTree, type Circuit, type GateTree } from '../circuit'
import type { Simulation } from '../simulation'
import { feelOf, feltFlow, type Feel } from '../water'

/** The water of one heat source, laid out from its flow to its return: edges are ways. Layout only: holds no state. */
export interface WaterRound {
  source: number
  way: number
  /** Undefined where nothing joins flow and return. */
  tree?: GateTree
}

const roundsByCircuit = new WeakMap<Circuit, WaterRound[]>()

/** Every source with its water round: what lies between flow and return, reduced to series and parallel once. */
export function waterRounds(circuit: Circuit): WaterRound[] {
  const before = roundsByCircuit.get(circuit)
  if (before) return before
  const { ways, sources } = circuit.water
  const rounds = sources.flatMap(({ way }, source): WaterRound[] => {
    if (way === undefined) return []
    const { from, to } = ways[way]
    const others = ways.flatMap((w, edge) =>
      edge === way || w.from === w.to ? [] : [{ edge, from: w.from, to: w.to }],
    )
    const joined = onTheWay(others, to, from)
    return [{ source, way, ...(joined.length > 0 ? { tree: reduceToTree(joined, to, from) } : {}) }]
  })
  roundsByCircuit.set(circuit, rounds)
  return rounds
}

interface Piece {
  edge: number
  from: number
  to: number
}

/** Without dead ends: pieces at a net that nothing else reaches are left out, again and again. */
function onTheWay(pieces: Piece[], start: number, end: number): Piece[] {
  let left = pieces
  for (;;) {
    const at = new Map<number, number>()
    for (const { from, to } of left) for (const net of [from, to]) at.set(net, (at.get(net) ?? 0) + 1)
    const dead = (net: number) => net !== start && net !== end && at.get(net) === 1
    const next = left.filter(({ from, to }) => !dead(from) && !dead(to))
    if (next.length === left.length) return next
    left = next
  }
}

/** How the water in one way is: what a hand feels before and behind it, and how much goes through. */
export interface WayState {
  /** l/h, 0 where nobody would feel any; negative against the direction in which it is drawn. */
  flow: number
  before: Feel
  behind: Feel
  /** °C of the same. */
  celsius: [before: number, behind: number]
}

export function wayStates(sim: Simulation): WayState[] {
  const celsius = sim.pipeTemperatures()
  return sim.circuit.water.ways.map((_, i) => {
    const flow = Math.abs(sim.flows[i]) < feltFlow ? 0 : sim.flows[i]
    const [before, behind] = [celsius[2 * i], celsius[2 * i + 1]]
    return { flow, before: feelOf(before), behind: feelOf(behind), celsius: [before, behind] }
  })
}
