/** Does work one piece after the other: each finds what the one before has made of things, whether that went well or not. */
export class InTurn {
  private last: Promise<unknown> = Promise.resolve()

  run<T>(work: () => Promise<T>): Promise<T> {
    const mine = this.last.then(work, work)
    this.last = mine.catch(() => undefined)
    return mine
  }
}
