import { placeOf, type Installation } from '../installation'

/**
 * What conductors and links alone join, whatever contacts do: terminals by their address, connectors by their id. A conductor
 * that is parked joins nothing.
 */
export class Joins {
  private readonly over = new Map<string, string>()

  /** `connectors`: whether what meets in a connector of its own is joined there, or only what hangs together without. */
  constructor({ cables, links }: Pick<Installation, 'cables' | 'links'>, connectors: 'joined' | 'apart' = 'joined') {
    for (const { between, kind } of links) if (kind !== 'cut') this.join(...between)
    for (const { cores } of cables)
      for (const { ends } of cores) {
        const [a, b] = ends.map((end) =>
          end.at === 'parked' || (end.at === 'connector' && connectors === 'apart') ? undefined : placeOf(end),
        )
        if (a !== undefined && b !== undefined) this.join(a, b)
      }
  }

  /** The name of the net that a terminal or connector is in: one of those that are joined with it. */
  netOf(node: string): string {
    let at = node
    for (let over = this.over.get(at); over !== undefined; over = this.over.get(at)) at = over
    return at
  }

  private join(a: string, b: string): void {
    const [x, y] = [this.netOf(a), this.netOf(b)]
    if (x !== y) this.over.set(x, y)
  }
}

/** The nets among some terminals and connectors, each with all that are in it in order; those that are alone are left out. */
export function netsAmong(installation: Pick<Installation, 'cables' | 'links'>, nodes: Iterable<string>): string[][] {
  const joins = new Joins(installation)
  const nets = new Map<string, string[]>()
  for (const node of [...nodes].sort()) {
    const net = joins.netOf(node)
    nets.set(net, [...(nets.get(net) ?? []), node])
  }
  return [...nets.values()].filter((net) => net.length > 1).sort(([a], [b]) => (a < b ? -1 : 1))
}
