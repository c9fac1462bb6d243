/** Series–parallel tree of edges between two nets; `from` and `to` are nets. Of wiring as of pipes. */
export type GateTree<E extends number = number, N extends number = number> =
  | { kind: 'gate'; edge: E; from: N; to: N }
  | { kind: 'series'; items: GateTree<E, N>[]; from: N; to: N }
  | { kind: 'parallel'; branches: GateTree<E, N>[]; from: N; to: N }
  /** What does not reduce to series and parallel: every edge that takes part, in document order. */
  | { kind: 'tangle'; edges: E[]; from: N; to: N }

/**
 * Series and parallel reduction of edges until one piece is left between the two nets; what resists stays a tangle. Branches
 * stand in the order of their first edge.
 */
export function reduceToTree<E extends number, N extends number>(
  edges: readonly { edge: E; from: N; to: N }[],
  from: N,
  to: N,
): GateTree<E, N> {
  const pieces = new Set<GateTree<E, N>>(edges.map((e): GateTree<E, N> => ({ kind: 'gate', ...e })))
  while (pieces.size > 1 && (joinParallel(pieces) || joinSeries(pieces, from, to)));
  if (pieces.size > 1) return { kind: 'tangle', edges: edges.map((e) => e.edge), from, to }
  const [only] = pieces
  return only.from === from ? only : turned(only)
}

function joinParallel<E extends number, N extends number>(pieces: Set<GateTree<E, N>>): boolean {
  const byEnds = new Map<string, GateTree<E, N>[]>()
  for (const piece of pieces) {
    const key = piece.from < piece.to ? `${piece.from} ${piece.to}` : `${piece.to} ${piece.from}`
    byEnds.set(key, [...(byEnds.get(key) ?? []), piece])
  }
  for (const group of byEnds.values()) {
    if (group.length < 2) continue
    const { from, to } = group[0]
    const branches = group
      .flatMap((piece) => {
        const same = piece.from === from ? piece : turned(piece)
        return same.kind === 'parallel' ? same.branches : [same]
      })
      .sort((x, y) => firstGate(x) - firstGate(y))
    for (const piece of group) pieces.delete(piece)
    pieces.add({ kind: 'parallel', branches, from, to })
    return true
  }
  return false
}

function joinSeries<E extends number, N extends number>(pieces: Set<GateTree<E, N>>, from: N, to: N): boolean {
  const at = new Map<N, GateTree<E, N>[]>()
  for (const piece of pieces) for (const end of [piece.from, piece.to]) at.set(end, [...(at.get(end) ?? []), piece])
  for (const [net, [a, b, more]] of at) {
    if (net === from || net === to || !b || more) continue
    const first = a.to === net ? a : turned(a)
    const second = b.from === net ? b : turned(b)
    const items = [first, second].flatMap((w) => (w.kind === 'series' ? w.items : [w]))
    pieces.delete(a)
    pieces.delete(b)
    pieces.add({ kind: 'series', items, from: first.from, to: second.to })
    return true
  }
  return false
}

function turned<E extends number, N extends number>(tree: GateTree<E, N>): GateTree<E, N> {
  const ends = { from: tree.to, to: tree.from }
  switch (tree.kind) {
    case 'series':
      return { ...tree, ...ends, items: tree.items.map(turned).reverse() }
    case 'parallel':
      return { ...tree, ...ends, branches: tree.branches.map(turned) }
    default:
      return { ...tree, ...ends }
  }
}

/** Branches stand in the order of their first contact in the document, which is the order of the demands. */
function firstGate(tree: GateTree): number {
  switch (tree.kind) {
    case 'gate':
      return tree.edge
    case 'tangle':
      return Math.min(...tree.edges)
    case 'series':
      return Math.min(...tree.items.map(firstGate))
    case 'parallel':
      return Math.min(...tree.branches.map(firstGate))
  }
}
