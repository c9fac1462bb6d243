/** The same discrete state this many times without anybody touching anything is hunting. */
const huntingVisits = 3

/** Counts how often each discrete state has been entered since somebody last touched something. */
export class StateVisits {
  private visits = new Map<string, number>()
  private last = ''

  copy(): StateVisits {
    const copy = new StateVisits()
    copy.visits = new Map(this.visits)
    copy.last = this.last
    return copy
  }

  forget(): void {
    this.visits.clear()
  }

  /** Enters a state; true where it has now come round often enough to be called hunting. */
  enter(state: string): boolean {
    if (state === this.last) return false
    this.last = state
    const visits = (this.visits.get(state) ?? 0) + 1
    this.visits.set(state, visits)
    return visits >= huntingVisits
  }
}
