import type { Circuit } from '../circuit'
import { AT_TIMES, type PartFlags } from '../simulation'

/** Contacts that make at times only: at every operation they make or miss, and may do the other the next time. */
export class Misses {
  /** 1 where a contact misses this time. */
  readonly missing: Uint8Array
  private readonly atTimes: number[]

  constructor(circuit: Circuit, flags: PartFlags) {
    this.missing = new Uint8Array(circuit.contacts.length)
    this.atTimes = circuit.contacts.flatMap((_, i) => (flags.heldContacts[i] === AT_TIMES ? [i] : []))
  }

  /** Is there any such contact? */
  get any(): boolean {
    return this.atTimes.length > 0
  }
  has(contact: number): boolean {
    return this.atTimes.includes(contact)
  }
  /** A contact that is asked no more has nothing to miss. */
  forget(asked: (contact: number) => boolean): void {
    for (const i of this.atTimes) if (!asked(i)) this.missing[i] = 0
  }
}
