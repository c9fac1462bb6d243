import type { Circuit } from '../circuit'
import { AT_TIMES, NOT_HELD, type PartFlags } from './defects'

/** Contacts break before they make, and neither takes no time: nothing can loop in zero time. Usual values. */
const breakMs = 2
const makeMs = 5

/** Of every throw of every contact, when it is due to stand otherwise than it does. */
export class Switches {
  private readonly due: Float64Array
  /** Of contacts that make at times only: was it asked last time, and does it miss this time? */
  private readonly asked: Uint8Array
  private readonly misses: Uint8Array

  /** `closed` tells how every throw stands, and is written to when one switches. */
  constructor(
    private readonly circuit: Circuit,
    private readonly closed: Uint8Array,
    from?: Switches,
  ) {
    const n = circuit.contacts.length
    this.due = from ? from.due.slice() : new Float64Array(n).fill(Infinity)
    this.asked = from ? from.asked.slice() : new Uint8Array(n)
    this.misses = from ? from.misses.slice() : new Uint8Array(n)
  }

  nextAt(): number {
    let next = Infinity
    for (let i = 0; i < this.due.length; i++) if (this.due[i] < next) next = this.due[i]
    return next
  }

  /** Switches what is due by now, and what is held. */
  switchDue(now: number, flags: PartFlags, switched: (contact: number, closed: boolean) => void): void {
    for (let i = 0; i < this.closed.length; i++) {
      const held = flags.heldContacts[i]
      const to = held === NOT_HELD || held === AT_TIMES ? (this.due[i] <= now ? 1 - this.closed[i] : -1) : held
      if (to === -1) continue
      this.due[i] = Infinity
      if (this.closed[i] === to) continue
      this.closed[i] = to
      switched(i, to === 1)
    }
  }

  /** Sets times for what should stand otherwise than it does. */
  schedule(now: number, flags: PartFlags, shouldClose: (contact: number) => boolean): void {
    for (let i = 0; i < this.closed.length; i++) {
      const held = flags.heldContacts[i]
      if (held !== NOT_HELD && held !== AT_TIMES) continue
      let wanted = shouldClose(i) ? 1 : 0
      if (held === AT_TIMES) {
        if (wanted && !this.asked[i]) this.misses[i] = 1 - this.misses[i]
        this.asked[i] = wanted
        if (this.misses[i]) wanted = 0
      }
      if (wanted === this.closed[i]) this.due[i] = Infinity
      else if (this.due[i] === Infinity)
        this.due[i] = now + (wanted ? makeMs + (this.circuit.contacts[i].part.laterMs ?? 0) : breakMs)
    }
  }
}
