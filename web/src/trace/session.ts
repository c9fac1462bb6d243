import { actionsUntil, formatAction, parseAction, Rig, type Action, type Circuit } from '@nobbet/core'

/** Reads written actions; what cannot be read is told, and the rest is left out. */
export function actionsOf(texts: readonly string[]): { actions: Action[]; problem?: string } {
  const actions: Action[] = []
  for (const text of texts) {
    try {
      actions.push(parseAction(text))
    } catch (error) {
      return { actions, problem: (error as Error).message }
    }
  }
  return { actions }
}

/**
 * One sitting at an installation: everything done to it, in order, and the rig on which that was done. The actions are
 * the whole of it: replayed, they give the same state, here or at a colleague's.
 */
export class TraceSession {
  readonly actions: Action[] = []
  rig: Rig
  private healthyRig?: Rig
  /** The first action that did not fit the installation, where there was one. */
  problem?: string

  constructor(
    readonly circuit: Circuit,
    actions: readonly Action[],
  ) {
    this.rig = new Rig(circuit)
    for (const action of actions) if (!this.act(action)) break
  }

  /** Does an action; false, with `problem` set, where it does not fit. */
  act(wanted: Action): boolean {
    const { simulation } = this.rig
    const from = simulation.time
    try {
      this.rig.perform(wanted)
    } catch (error) {
      this.problem = (error as Error).message
      return false
    }
    // Time stands still once it hunts: what is written down is the time that has passed.
    const action: Action = wanted.do === 'wait' ? { do: 'wait', ms: simulation.time - from } : wanted
    if (this.healthyRig && !isFault(action)) this.healthyRig.perform(action)
    const last = this.actions[this.actions.length - 1]
    if (action.do === 'wait' && last?.do === 'wait')
      this.actions[this.actions.length - 1] = { do: 'wait', ms: last.ms + action.ms }
    else if (action.do !== 'wait' || action.ms > 0) this.actions.push(action)
    return true
  }

  /**
   * The same installation with the same things done to it and no fault ever put in: what should be read. While there is
   * no fault it is the rig itself.
   */
  get healthy(): Rig {
    if (!this.actions.some(isFault)) return this.rig
    this.healthyRig ??= Rig.after(
      this.circuit,
      this.actions.filter((a) => !isFault(a)),
    )
    return this.healthyRig
  }

  /** Is something under way: a valve travelling, a relay pulling in, an overrun counting? */
  get underWay(): boolean {
    return !this.rig.simulation.hunting && this.rig.simulation.nextEventAt() !== Infinity
  }

  /** Does time go on though everything is at rest: by a clock that is set, or temperatures that go their own way? */
  get lives(): boolean {
    const { heat, hunting, minuteOfWeek } = this.rig.simulation
    if (hunting) return false
    return heat !== undefined || minuteOfWeek !== undefined
  }

  /** Lets time pass, though never beyond the moment at which everything is at rest and nothing is to come. */
  advance(ms: number): void {
    if (this.underWay || this.lives) this.act({ do: 'wait', ms })
  }

  /** Goes to the next event that shows: contacts that follow within a few milliseconds belong to it. */
  stepToEvent(): void {
    const { simulation } = this.rig
    const before = simulation.history.length
    const from = simulation.time
    for (let i = 0; i < 2000 && (this.underWay || this.lives); i++) {
      const next = simulation.nextAt()
      if (next === Infinity) break
      if (simulation.history.length > before && next > simulation.time + 20) break
      this.act({ do: 'wait', ms: next - simulation.time })
      if (simulation.time - from > 24 * 3_600_000) break
    }
  }

  /** The same sitting as it stood so many ms after its start. */
  at(ms: number): TraceSession {
    return new TraceSession(this.circuit, actionsUntil(this.actions, ms))
  }

  /** Everything but the last thing that was done, and the time that has passed since. */
  withoutLast(): Action[] {
    const last = this.actions.findLastIndex((a) => a.do !== 'wait')
    return this.actions.slice(0, Math.max(0, last))
  }

  get written(): string[] {
    return this.actions.map(formatAction)
  }
}

/** Is it something wrong that is put in, or taken out again? */
export const isFault = (action: Action) => action.do === 'fault' || action.do === 'mend'
