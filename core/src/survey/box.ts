import type { NearEnd, SeenCable, Survey } from './document'

/** What is joined in the wiring centre by what is seen of it: terminals by links, conductors by the terminal they are in. */
export class Box {
  private readonly over = new Map<string, string>()
  private readonly numbers = new Map<string, number>()
  /** Per net, how many conductors sit in it. */
  readonly sits: number[] = []

  constructor({ links, cables }: Pick<Survey, 'links' | 'cables'>) {
    for (const { between } of links) this.over.set(this.root(between[0]), this.root(between[1]))
    for (const { cores } of cables)
      for (const { at } of cores) {
        const net = this.netOf(at)
        if (net >= 0) this.sits[net] = (this.sits[net] ?? 0) + 1
      }
  }

  get nets(): number {
    return this.numbers.size
  }

  /** The net that a conductor sits in, by a number; -1 where it is in none: parked, cut back, loose, not looked at. */
  netOf(end: NearEnd): number {
    if (end.at === 'terminal') return this.netAt(end.terminal)
    return end.at === 'connector' ? this.netAt(` ${end.connector}`) : -1
  }

  /** The net of a terminal. */
  netAt(terminal: string): number {
    const root = this.root(terminal)
    let number = this.numbers.get(root)
    if (number === undefined) this.numbers.set(root, (number = this.numbers.size))
    return number
  }

  private root(node: string): string {
    let at = node
    for (let over = this.over.get(at); over !== undefined && over !== at; over = this.over.get(at)) at = over
    return at
  }
}

/** Per cable and core the net it sits in. */
export const netsOf = (box: Box, cables: readonly SeenCable[]): number[][] =>
  cables.map(({ cores }) => cores.map(({ at }) => box.netOf(at)))
