import { nth } from '../lists'
import type { WrittenLook } from '../looks'

/** Something that goes on as it is told, and shows something. */
interface Going<S> {
  act(text: string): void
  shows(see: WrittenLook): S
  readonly sim: { nextEventAt(): number }
}

/** A look, and itself as a text. */
export interface NamedLook {
  see: WrittenLook
  key: string
}

/**
 * What something would show at moments to come: gone along only for what has not been asked before. It holds for as long as nothing
 * is done to what it is foreseen of.
 */
export class Foresight<S> {
  private readonly rests: boolean[] = []
  private readonly shown: Map<string, S>[]
  private going?: { one: Going<S>; at: number }

  /** `begin`: a fork, after the acts; `moments`: what is done from each to the next, undefined where nothing is. */
  constructor(
    private readonly begin: () => Going<S>,
    private readonly moments: readonly (string | undefined)[],
  ) {
    this.shown = moments.map(() => new Map<string, S>())
  }

  /** Will nothing move any more by then? */
  isAtRest(moment: number): boolean {
    return (this.rests[moment] ??= this.goneTo(moment).sim.nextEventAt() === Infinity)
  }

  shows(moment: number, { see, key }: NamedLook): S {
    const shown = nth(this.shown, moment)
    let one = shown.get(key)
    if (one === undefined) {
      one = this.goneTo(moment).shows(see)
      shown.set(key, one)
    }
    return one
  }

  /** What is known is kept, and what went along for it is not. */
  rest(): void {
    this.going = undefined
  }

  private goneTo(moment: number): Going<S> {
    if (!this.going || this.going.at > moment) this.going = { one: this.begin(), at: -1 }
    const { going } = this
    while (going.at < moment) {
      const act = this.moments[++going.at]
      if (act !== undefined) going.one.act(act)
    }
    return going.one
  }
}
