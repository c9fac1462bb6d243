import type { Happening } from './happenings'
import type { UntimedPlant } from './untimed-plant'
import type { Sorter } from './walk'

/** The states met so far, each once, in the order in which they were met, and how each was come to first. */
export class StatesMet {
  /** As {@link UntimedPlant.load} takes them. */
  readonly texts: string[] = []
  readonly cameFrom: number[] = []
  readonly cameBy: Happening[] = []
  /** Steps that no input makes, for finding rounds: state by state, where they lead. */
  readonly onward: number[][] = []
  private readonly numbers = new Map<string, number>()

  constructor(
    private readonly plant: UntimedPlant,
    private readonly sorts: readonly Sorter[],
  ) {}

  /** The number of the state the plant is in. */
  enter(from: number, by: Happening | null): number {
    const text = this.plant.save()
    for (const sort of this.sorts) sort(text)
    const key = String.fromCharCode.apply(null, text as unknown as number[])
    let at = this.numbers.get(key)
    if (at !== undefined) return at
    at = this.texts.push(key) - 1
    this.numbers.set(key, at)
    this.cameFrom.push(from)
    this.cameBy.push(by!)
    this.onward.push([])
    return at
  }
}
