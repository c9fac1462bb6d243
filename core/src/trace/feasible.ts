import type { EdgeId, NetId, Circuit } from '../circuit'
import type { GateGraph } from './gates'

/** Steps of the search before it is given up and every gate counts as possible: far beyond any real box. */
const mostSteps = 50_000

/**
 * Of some gates, those on a simple path between two nets that could conduct from end to end at one moment: never both
 * throws of one changeover, nor two switches on one gear that no position of its travel closes together.
 */
export function feasibleGates(
  circuit: Circuit,
  graph: GateGraph,
  gates: readonly EdgeId[],
  from: NetId,
  to: NetId,
): EdgeId[] {
  const allowed = new Set(gates)
  const used = new Set<EdgeId>()
  const path: EdgeId[] = []
  const visited = new Set([from])
  let steps = 0
  const walk = (net: NetId): void => {
    if (net === to) return path.forEach((gate) => used.add(gate))
    for (const gate of graph.gatesAt.get(net) ?? []) {
      if (++steps > mostSteps) return
      if (!allowed.has(gate)) continue
      const { a, b } = circuit.edges[gate]
      const next = graph.netOf[a] === net ? graph.netOf[b] : graph.netOf[a]
      if (visited.has(next) || path.some((other) => excludes(circuit, other, gate))) continue
      visited.add(next)
      path.push(gate)
      walk(next)
      path.pop()
      visited.delete(next)
    }
  }
  walk(from)
  return steps > mostSteps ? [...gates] : [...used].sort((x, y) => x - y)
}

/** Can two gates never conduct at one moment while their devices are whole? */
function excludes(circuit: Circuit, one: number, other: number): boolean {
  const [x, y] = [one, other].map((edge) => circuit.edges[edge])
  if (x.kind !== 'contact' || y.kind !== 'contact') return false
  const [p, q] = [circuit.contacts[x.contact], circuit.contacts[y.contact]]
  if (p.device !== q.device) return false
  if (p.part === q.part) return true
  const [s, t] = [travelOf(circuit, x.contact), travelOf(circuit, y.contact)]
  if (!s || !t || s.actuator !== t.actuator) return false
  return Math.max(s.from, t.from) > Math.min(s.to, t.to)
}

/** The part of travel in which a throw can be closed, where travel alone decides it. */
function travelOf(circuit: Circuit, contact: number): { actuator: string; from: number; to: number } | undefined {
  const { closedWhen, inverted, device } = circuit.contacts[contact]
  if (!('actuator' in closedWhen)) return undefined
  const { amount } = circuit.devices[device]
  const reached = amount(closedWhen.reached)
  const lets = closedWhen.releasedAt === undefined ? reached : amount(closedWhen.releasedAt)
  const { actuator } = closedWhen
  return inverted ? { actuator, from: 0, to: reached } : { actuator, from: lets, to: 1 }
}
