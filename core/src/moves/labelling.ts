import { free, servingOf, type Serving } from './serving'
import { groupsOf, joiningCost, loadOf, type Terminals } from './terminals'
import { costs, touchesOf } from './costs'
import type { Work } from './work'

/** What each terminal of the wiring centre becomes, and which conductor serves what. */
export interface Labelling {
  labels: ReadonlyMap<string, string>
  servings: Serving[]
  cost: number
  /** Nothing costs less than this; where it is the cost itself, nothing less has to be touched. */
  bound: number
}

/** Steps of the search after which it is broken off. */
const mostSteps = 3000

/**
 * What the terminals of the wiring centre become, so that as little as can be is touched. Terminals of one net are interchangeable: what
 * is chosen is not where each conductor goes but which net each terminal is part of; which conductors then stay follows. First each
 * group of linked terminals takes the net that suits it best, again and again until none changes; then branch and bound over
 * single terminals, in which what is still open costs nothing. Exact unless broken off; then {@link Labelling.bound} says how far from exact it can be at most.
 */
export function labelled(work: Work, terminals: Terminals): Labelling {
  return new Search(work, terminals).best()
}

class Search {
  private readonly labels = new Map<string, string>()
  private readonly stationsAt = new Map<string, number[]>()
  private readonly remembered: Map<string, Serving>[]
  private readonly own: string[][]
  /** Terminals that hold something or are linked: what has to be decided. */
  private readonly open: string[]
  private readonly candidates = new Map<string, string[]>()
  private found: { labels: Map<string, string>; servings: Serving[]; cost: number } | undefined
  private steps = 0
  /** What each station costs at least, given what is decided. */
  private readonly now: number[] = []
  private missed = Infinity

  constructor(
    private readonly work: Work,
    private readonly terminals: Terminals,
  ) {
    this.remembered = work.stations.map(() => new Map<string, Serving>())
    this.own = work.stations.map(({ strands }) => [
      ...new Set(strands.flatMap(({ at }) => (at === undefined ? [] : [at]))),
    ])
    this.own.forEach((refs, s) =>
      refs.forEach((ref) => this.stationsAt.set(ref, [...(this.stationsAt.get(ref) ?? []), s])),
    )
    const linked = new Set(terminals.links.flatMap(({ between }) => between))
    this.open = groupsOf(terminals, () => free)
      .map((group) => group.filter((ref) => this.stationsAt.has(ref) || linked.has(ref)))
      .sort((a, b) => b.length - a.length)
      .flat()
    for (const group of groupsOf(terminals, () => free)) {
      const nets = [...new Set(group.flatMap((ref) => this.netsFor(ref)))]
      for (const ref of group) this.candidates.set(ref, [...nets, free])
    }
  }

  best(): Labelling {
    this.begin()
    this.improve(groupsOf(this.terminals, () => free))
    this.improve(this.open.map((ref) => [ref]))
    this.labels.clear()
    this.work.stations.forEach((_, s) => (this.now[s] = this.serving(s).cost))
    this.branch(0, this.leastLinks() * costs.link)
    const { labels, servings, cost } = this.found!
    return { labels, servings, cost, bound: Math.min(cost, this.missed) }
  }

  /**
   * Links that have to be fitted whatever becomes of the terminals: a net needs as many as its conductors fill, and each group of
   * linked terminals more than the first costs a link. The largest groups that could serve come first, single ones behind them.
   */
  private leastLinks(): number {
    const groups = groupsOf(this.terminals, () => free)
    const ways = (refs: readonly string[]) => refs.reduce((n, ref) => n + this.terminals.ways.get(ref)!, 0)
    const wires = new Map<string, number>()
    for (const { net } of this.work.stations.flatMap((station) => station.wires))
      wires.set(net, (wires.get(net) ?? 0) + 1)
    const single = Math.max(...this.terminals.ways.values())
    return [...wires].reduce((links, [net, n]) => {
      const sizes = groups
        .filter(([ref]) => this.candidates.get(ref)!.includes(net))
        .map(ways)
        .sort((a, b) => b - a)
      let left = n
      let taken = 0
      for (; left > 0; taken++) left -= Math.max(sizes[taken] ?? 0, single)
      return links + Math.max(0, taken - 1)
    }, 0)
  }

  /** Nets that a terminal may become part of, since a conductor in it belongs there or could serve there. */
  private netsFor(ref: string): string[] {
    return (this.stationsAt.get(ref) ?? []).flatMap((s) => {
      const station = this.work.stations[s]
      return station.strands
        .filter(({ at }) => at === ref)
        .flatMap((strand) => [
          ...(strand.near !== undefined ? [this.work.netOf(strand.near)] : []),
          ...station.wires
            .filter(({ use, nodes }) =>
              station.fixed
                ? strand.near !== undefined && nodes.has(strand.near)
                : strand.isEarth === (use === 'earth'),
            )
            .map(({ net }) => net),
          ...(strand.isEarth && this.work.earth !== undefined ? [this.work.earth] : []),
          ...(strand.near === undefined && !strand.freed ? this.work.deadEnds : []),
        ])
    })
  }

  /** Each group becomes what most of its conductors belong to. */
  private begin(): void {
    for (const ref of this.terminals.refs) this.labels.set(ref, free)
    for (const group of groupsOf(this.terminals, () => free)) {
      const votes = new Map<string, number>()
      for (const net of group.flatMap((ref) => this.netsFor(ref))) votes.set(net, (votes.get(net) ?? 0) + 1)
      const [most] = [...votes].sort((a, b) => b[1] - a[1])
      for (const ref of group) this.labels.set(ref, most?.[0] ?? free)
    }
  }

  /** Gives groups of terminals another net as long as that helps. */
  private improve(groups: readonly string[][]): void {
    let cost = this.whole()
    for (let better = true; better;) {
      better = false
      for (const group of groups) {
        if (!group.some((ref) => this.open.includes(ref))) continue
        const were = group.map((ref) => this.labels.get(ref)!)
        let kept = were
        for (const net of this.candidates.get(group[0])!) {
          group.forEach((ref) => this.labels.set(ref, net))
          const now = this.whole()
          if (now >= cost) continue
          ;[cost, kept, better] = [now, group.map(() => net), true]
        }
        group.forEach((ref, i) => this.labels.set(ref, kept[i]))
      }
    }
  }

  /** What all labels together come to; kept where nothing cheaper was found before. */
  private whole(): number {
    const labelOf = (ref: string) => this.labels.get(ref) ?? free
    const servings = this.work.stations.map((_, s) => this.serving(s))
    const served = servings.reduce((sum, one) => sum + one.cost, 0)
    // What is to be joined costs something on top, if anything.
    if (this.found && served >= this.found.cost) return served
    const cost = served + joiningCost(this.terminals, loadOf(this.work, servings, labelOf), labelOf)
    if (!this.found || cost < this.found.cost) this.found = { labels: new Map(this.labels), servings, cost }
    return cost
  }

  /** Goes through what the terminals from one on may become; `cut` is what links between those before it cost. */
  private branch(depth: number, cut: number): void {
    const least = this.now.reduce((sum, cost) => sum + cost, cut)
    if (touchesOf(least) >= touchesOf(this.found!.cost)) return
    if (depth === this.open.length) {
      this.whole()
      return
    }
    if (++this.steps > mostSteps) {
      this.missed = Math.min(this.missed, least)
      return
    }
    const ref = this.open[depth]
    const near = this.neighbours(ref)
    const stations = this.stationsAt.get(ref) ?? []
    const before = stations.map((s) => this.now[s])
    const ways = this.candidates.get(ref)!.map((net) => {
      this.labels.set(ref, net)
      const cuts = near.filter((other) => this.labels.has(other) && this.labels.get(other) !== net).length
      const own = stations.map((s) => this.serving(s).cost)
      return { net, cuts, own, cost: own.reduce((sum, one) => sum + one, cuts * costs.link) }
    })
    ways.sort((a, b) => a.cost - b.cost)
    for (const { net, cuts, own } of ways) {
      this.labels.set(ref, net)
      stations.forEach((s, i) => (this.now[s] = own[i]))
      this.branch(depth + 1, cut + cuts * costs.link)
    }
    stations.forEach((s, i) => (this.now[s] = before[i]))
    this.labels.delete(ref)
  }

  private neighbours(ref: string): string[] {
    return this.terminals.links.flatMap(({ between: [a, b] }) => (a === ref ? [b] : b === ref ? [a] : []))
  }

  private serving(s: number): Serving {
    const key = this.own[s].map((ref) => this.labels.get(ref) ?? '?').join()
    let known = this.remembered[s].get(key)
    if (!known) {
      known = servingOf(this.work, this.work.stations[s], (ref) => this.labels.get(ref))
      this.remembered[s].set(key, known)
    }
    return known
  }
}
