import { type AtomId, type EdgeId, type NetId, reduceToTree, type Circuit, type GateTree } from '../circuit'
import { feasibleGates } from './feasible'
import { gateGraph, wiringBetween, type GateGraph } from './gates'

/** A stretch of wiring that no contact interrupts, edge by edge with the atom each leads to. */
export interface Leg {
  kind: 'leg'
  from: AtomId
  to: AtomId
  steps: { edge: EdgeId; to: AtomId }[]
}
/** A contact or fuse the signal must get through. */
export interface Gate {
  kind: 'gate'
  edge: EdgeId
  from: AtomId
  to: AtomId
}
/** Ways side by side. */
export interface Split {
  kind: 'split'
  from: AtomId
  to: AtomId
  branches: Way[]
}
/** Contacts that fit no line: a miswiring joins what should be apart. */
export interface Tangle {
  kind: 'tangle'
  edges: EdgeId[]
  from: AtomId
  to: AtomId
}
export type Station = Leg | Gate | Split | Tangle

/** A way from one atom to another as a line of stations, laid out once from the closures that are possible. */
export type Way = Station[]

/** Contact and fuse edges of a way, in order. */
export const gatesOf = (way: Way): EdgeId[] =>
  way.flatMap((station) => {
    switch (station.kind) {
      case 'leg':
        return []
      case 'gate':
        return [station.edge]
      case 'split':
        return station.branches.flatMap(gatesOf)
      case 'tangle':
        return station.edges
    }
  })

/**
 * The way from `from` to `to` over every conductor and contact that could conduct, or undefined where there is none.
 * Ordered by document, never by state, so that a picture of it never jumps.
 */
export function wayBetween(circuit: Circuit, from: AtomId, to: AtomId): Way | undefined {
  const graph = gateGraph(circuit)
  const [start, end] = [graph.netOf[from], graph.netOf[to]]
  if (start === end) return leg(circuit, from, to)
  const gates = feasibleGates(circuit, graph, gatesOnSimplePaths(circuit, graph, start, end), start, end)
  if (gates.length === 0) return undefined
  const pieces = gates.map((edge) => {
    const { a, b } = circuit.edges[edge]
    return { edge, from: graph.netOf[a], to: graph.netOf[b] }
  })
  return lay(circuit, reduceToTree(pieces, start, end), from, to)
}

/**
 * Gates that lie on some simple path between two nets: the biconnected component of an imagined gate between them
 * (Hopcroft and Tarjan 1973, with an explicit stack so that long chains cannot overflow).
 */
function gatesOnSimplePaths(circuit: Circuit, graph: GateGraph, from: NetId, to: NetId): EdgeId[] {
  const imagined = circuit.edges.length as EdgeId
  const otherSide = (gate: EdgeId, net: NetId) => {
    if (gate === imagined) return net === from ? to : from
    const a = graph.netOf[circuit.edges[gate].a]
    return a === net ? graph.netOf[circuit.edges[gate].b] : a
  }
  const gatesAt = (net: NetId) => {
    const gates = graph.gatesAt.get(net) ?? []
    return net === from || net === to ? [imagined, ...gates] : gates
  }
  const depth = new Map([[from, 0]])
  const low = new Map([[from, 0]])
  const gateStack: EdgeId[] = []
  const stack: { net: NetId; by?: EdgeId; next: number }[] = [{ net: from, next: 0 }]
  while (stack.length > 0) {
    const top = stack[stack.length - 1]
    const list = gatesAt(top.net)
    if (top.next < list.length) {
      const gate = list[top.next++]
      const other = otherSide(gate, top.net)
      if (gate === top.by || other === top.net) continue
      const seen = depth.get(other)
      if (seen === undefined) {
        depth.set(other, stack.length)
        low.set(other, stack.length)
        gateStack.push(gate)
        stack.push({ net: other, by: gate, next: 0 })
      } else if (seen < depth.get(top.net)!) {
        gateStack.push(gate)
        low.set(top.net, Math.min(low.get(top.net)!, seen))
      }
      continue
    }
    stack.pop()
    const parent = stack[stack.length - 1]
    if (!parent) break
    low.set(parent.net, Math.min(low.get(parent.net)!, low.get(top.net)!))
    if (low.get(top.net)! < depth.get(parent.net)!) continue
    const component = gateStack.splice(gateStack.lastIndexOf(top.by!))
    if (component.includes(imagined)) return component.filter((g) => g !== imagined).sort((x, y) => x - y)
  }
  return []
}

// From the tree of gates to stations: the wiring from gate to gate is put back in.

function leg(circuit: Circuit, from: AtomId, to: AtomId): Way {
  return from === to ? [] : [{ kind: 'leg', from, to, steps: wiringBetween(circuit, from, to) }]
}

function lay(circuit: Circuit, tree: GateTree<EdgeId, NetId>, from: AtomId, to: AtomId): Way {
  const items = tree.kind === 'series' ? tree.items : [tree]
  const way: Way = []
  let at = from
  items.forEach((item, i) => {
    if (item.kind === 'gate' || item.kind === 'tangle') {
      const [start, end] = item.kind === 'gate' ? gateEnds(circuit, item) : [at, entry(circuit, items[i + 1]) ?? to]
      way.push(...leg(circuit, at, start))
      way.push(
        item.kind === 'gate'
          ? { kind: 'gate', edge: item.edge, from: start, to: end }
          : { ...item, from: start, to: end },
      )
      at = end
    } else {
      const end = entry(circuit, items[i + 1]) ?? to
      const branches = (item.kind === 'parallel' ? item.branches : [item]).map((branch) =>
        lay(circuit, branch, at, end),
      )
      way.push(...split(circuit, branches, at, end))
      at = end
    }
  })
  way.push(...leg(circuit, at, to))
  return way
}

function gateEnds(circuit: Circuit, gate: { edge: EdgeId; from: NetId }): [AtomId, AtomId] {
  const { a, b } = circuit.edges[gate.edge]
  return gateGraph(circuit).netOf[a] === gate.from ? [a, b] : [b, a]
}

/** The atom at which a piece begins. */
function entry(circuit: Circuit, tree: GateTree<EdgeId, NetId> | undefined): AtomId | undefined {
  if (!tree) return undefined
  switch (tree.kind) {
    case 'gate':
      return gateEnds(circuit, tree)[0]
    case 'series':
      return entry(circuit, tree.items[0])
    case 'parallel':
      return entry(circuit, tree.branches[0])
    case 'tangle':
      // A net is named by one of its atoms.
      return tree.from as number as AtomId
  }
}

/** Wiring that all branches share, before they part and after they meet, is drawn once. */
function split(circuit: Circuit, branches: Way[], from: AtomId, to: AtomId): Way {
  const firstLegs = branches.map((way) => (way[0].kind === 'leg' ? way[0].steps : []))
  const lastLegs = branches.map((way) => {
    const last = way[way.length - 1]
    return last.kind === 'leg' ? last.steps : []
  })
  const shared = (legs: { edge: number }[][], at: (leg: { edge: number }[], i: number) => number | undefined) => {
    let n = 0
    while (at(legs[0], n) !== undefined && legs.every((l) => at(l, n) === at(legs[0], n))) n++
    return n
  }
  const before = shared(firstLegs, (l, i) => l[i]?.edge)
  const after = shared(lastLegs, (l, i) => l[l.length - 1 - i]?.edge)
  const start = before > 0 ? firstLegs[0][before - 1].to : from
  const lead = lastLegs[0].slice(lastLegs[0].length - after)
  const firstOfLead = lead[0]
  const end = firstOfLead ? otherEnd(circuit, firstOfLead) : to
  return [
    ...leg(circuit, from, start),
    {
      kind: 'split',
      from: start,
      to: end,
      branches: branches.map((way) => [
        ...leg(circuit, start, way[0].kind === 'leg' ? way[0].to : start),
        ...way.slice(way[0].kind === 'leg' ? 1 : 0, way[way.length - 1].kind === 'leg' ? -1 : undefined),
        ...(way[way.length - 1].kind === 'leg' ? leg(circuit, way[way.length - 1].from, end) : []),
      ]),
    },
    ...leg(circuit, end, to),
  ]
}

function otherEnd(circuit: Circuit, step: { edge: EdgeId; to: AtomId }): AtomId {
  const { a, b } = circuit.edges[step.edge]
  return a === step.to ? b : a
}
