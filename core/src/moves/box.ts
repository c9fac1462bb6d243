import { nth } from '../lists'
import type { WiringCentre, WiringCentreTerminal } from '../installation'
import { free } from './serving'
import { groupsOf, type Terminals } from './terminals'

/** Terminals that hang together and are empty, and how many conductors they take. */
interface Unit {
  refs: string[]
  room: number
}

/** The wiring centre while it is filled: what is in each terminal, which are still empty, which links and terminals come to it. */
export class Box {
  readonly added: WiringCentreTerminal[] = []
  readonly links: [string, string][] = []
  private readonly labels: Map<string, string>
  private readonly held: Map<string, number>
  private readonly ways: Map<string, number>
  private readonly used = new Map<string, string[][]>()
  private readonly empty: Unit[]

  constructor(
    private readonly centre: WiringCentre,
    terminals: Terminals,
    labels: ReadonlyMap<string, string>,
    stays: ReadonlyMap<string, number>,
  ) {
    this.labels = new Map(labels)
    this.held = new Map(stays)
    this.ways = new Map(terminals.ways)
    this.empty = []
    for (const group of groupsOf(terminals, (ref) => this.labels.get(ref) ?? free)) {
      const label = this.labels.get(group[0]) ?? free
      const isHeld = group.some((ref) => this.holds(ref) > 0)
      if (isHeld) this.used.set(label, [...(this.used.get(label) ?? []), group])
      else this.empty.push({ refs: group, room: group.reduce((n, ref) => n + this.waysOf(ref), 0) })
    }
    for (const [label, groups] of this.used) if (label !== free) this.joinUp(groups)
  }

  /** A terminal for one conductor more of a net. */
  land(net: string): string {
    const groups = this.used.get(net) ?? []
    const roomy = groups.flat().find((ref) => this.holds(ref) < this.waysOf(ref))
    const ref = roomy ?? this.begin(net, groups)
    this.held.set(ref, this.holds(ref) + 1)
    return ref
  }

  /** A terminal of its own for a conductor that is not in use. */
  park(): string {
    const { refs } = this.take(undefined)
    this.labels.set(refs[0], free)
    this.held.set(refs[0], this.waysOf(refs[0]))
    return refs[0]
  }

  /** Further terminals for a net: linked with those it has. */
  private begin(net: string, groups: readonly string[][]): string {
    const last = groups[groups.length - 1]?.at(-1)
    const { refs } = this.take(last)
    refs.forEach((ref) => this.labels.set(ref, net))
    if (last !== undefined) this.links.push(nearest(this.order, groups.flat(), refs))
    this.used.set(net, [...groups, refs])
    return refs[0]
  }

  private take(beside: string | undefined): Unit {
    if (this.empty.length === 0) return this.further()
    const at = beside === undefined ? 0 : this.order(beside)
    const far = ({ refs }: Unit) => Math.abs(this.order(refs[0]) - at)
    const best = this.empty.reduce((near, one) => (far(one) < far(near) ? one : near))
    this.empty.splice(this.empty.indexOf(best), 1)
    return best
  }

  /** A terminal more than the wiring centre has. */
  private further(): Unit {
    const all = [...this.centre.terminals, ...this.added]
    const number = Math.max(0, ...all.map(({ id }) => Number(id)).filter(Number.isInteger)) + 1
    const ways = Math.max(...this.centre.terminals.map((t) => t.ways))
    this.added.push({ id: String(number), legend: 'Free', ways })
    const ref = `${this.centre.id}.${number}`
    this.ways.set(ref, ways)
    return { refs: [ref], room: ways }
  }

  private joinUp(groups: readonly string[][]): void {
    groups.slice(1).forEach((group, i) => this.links.push(nearest(this.order, groups.slice(0, i + 1).flat(), group)))
  }

  private readonly order = (ref: string): number =>
    [...this.centre.terminals, ...this.added].findIndex(({ id }) => `${this.centre.id}.${id}` === ref)
  private holds(ref: string): number {
    return this.held.get(ref) ?? 0
  }
  private waysOf(ref: string): number {
    return this.ways.get(ref)!
  }
}

/** Of two lists of terminals those that stand nearest to each other. */
function nearest(order: (ref: string) => number, some: readonly string[], others: readonly string[]): [string, string] {
  const pairs = some.flatMap((a) => others.map((b) => [a, b] as [string, string]))
  const far = ([a, b]: [string, string]) => Math.abs(order(a) - order(b))
  return pairs.reduce((best, one) => (far(one) < far(best) ? one : best), nth(pairs, 0))
}
