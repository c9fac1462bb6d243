import type { SimEvent } from './events'

/** Events after which the oldest half is dropped: far more than a month of a large house, some tens of megabytes. */
const mostEvents = 200_000

/**
 * What has happened, oldest first. Copies share their events until one of them goes on: of a thousand simulations that start from
 * one, each remembers only what became of it.
 */
export class EventLog {
  private events: SimEvent[] = []
  private shared = false

  /** Everything that is remembered, oldest first; not to be written to. */
  get all(): readonly SimEvent[] {
    return this.events
  }

  copy(): EventLog {
    const copy = new EventLog()
    copy.events = this.events
    copy.shared = this.shared = true
    return copy
  }

  add(event: SimEvent): void {
    if (this.events.length >= mostEvents) this.replace(this.events.slice(mostEvents / 2))
    else if (this.shared) this.replace(this.events.slice())
    this.events.push(event)
  }

  replace(events: SimEvent[]): void {
    this.events = events
    this.shared = false
  }
}
