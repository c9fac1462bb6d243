import { EditError } from '@nobbet/core'
import { kindOf, nonsenseTries, pauseMs, reasonOf, type Sending } from './sending'

/** What a queue works on. */
export interface Errand {
  /** Does something that one tab at a time should do; false where another one is at it. */
  alone(work: () => Promise<void>): Promise<boolean>
  /** Sends what stands first; false where nothing is left. Throws what went wrong. */
  next(): Promise<boolean>
  /** How much is waiting. */
  left(): number
  /** What stands first, in words. */
  first(): string | undefined
  tell(sending: Sending): void
}

/** What was done is sent when the hand rests for so long, ms. */
const restMs = 300
/** Another tab is at it: it is looked after again, ms. */
const lookAgainMs = 5000

/** Carries an errand out in order, one thing after the other, and tries again what may pass, after growing pauses. */
export class Queue {
  private timer: ReturnType<typeof setTimeout> | undefined
  private busy = false
  private failures = 0
  private nonsense = 0
  private stopped = false

  constructor(private readonly errand: Errand) {}

  /** Has the last try failed? */
  get failing(): boolean {
    return this.failures + this.nonsense > 0
  }

  /** Something was done. A queue that waits out a pause, or was stopped, is not hurried by that. */
  stir(): void {
    if (!this.failing && !this.stopped) this.schedule(restMs)
  }

  /** Tries at once; one that was stopped only where somebody wants it `again`. */
  wake(again = false): void {
    if (again) {
      this.failures = this.nonsense = 0
      this.stopped = false
    }
    if (!this.stopped) this.schedule(0)
  }

  private schedule(ms: number): void {
    clearTimeout(this.timer)
    this.timer = setTimeout(() => void this.send(), ms)
  }

  private async send(): Promise<void> {
    if (this.busy) return
    this.busy = true
    try {
      const did = await this.errand.alone(async () => {
        while (await this.errand.next()) this.failures = this.nonsense = 0
      })
      if (!did && this.errand.left() > 0) this.schedule(lookAgainMs)
    } catch (error) {
      this.failed(error)
    } finally {
      this.busy = false
    }
  }

  private failed(error: unknown): void {
    const reason = reasonOf(error)
    const kind = error instanceof EditError ? 'final' : kindOf(error)
    if (kind === 'nonsense') this.nonsense++
    if (kind === 'final' || this.nonsense >= nonsenseTries) {
      this.stopped = true
      return this.errand.tell({ is: 'stopped', reason, first: kind === 'final' ? this.errand.first() : undefined })
    }
    this.failures++
    this.errand.tell({ is: 'kept-here', reason })
    this.schedule(pauseMs(this.failures))
  }
}
