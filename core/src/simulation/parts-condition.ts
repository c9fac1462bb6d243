import type { Circuit } from '../circuit'
import { flagsKey, flagsOf, type Defect, type PartFlags } from './defects'

/**
 * In what condition the parts are: what is wrong with them, and what has happened to them since. What is wrong is a set of named
 * defects; put in and mended in any order, the set alone decides. What has happened (fuses blown, loads burnt out) stays until
 * the part is replaced.
 */
export class PartsCondition {
  /** Both together, part by part. */
  flags: PartFlags
  /** Of the flags, those that show in the circuit, as text: half of what names an electrical state. */
  key: string
  private readonly defects: Map<string, readonly Defect[]>
  private readonly blown: Uint8Array
  private readonly burnt: Uint8Array

  constructor(
    private readonly circuit: Circuit,
    from?: PartsCondition,
    /** What is wrong under a name, by the parts of this circuit; left out where they are numbered as before. */
    defectsOf?: (name: string) => readonly Defect[],
  ) {
    this.defects = new Map(from?.defects)
    if (defectsOf) for (const name of this.defects.keys()) this.defects.set(name, defectsOf(name))
    this.blown = from ? from.blown.slice() : new Uint8Array(circuit.fuses.length)
    this.burnt = from ? from.burnt.slice() : new Uint8Array(circuit.loads.length)
    // Flags are made anew whenever anything changes, never written to: forks share them.
    this.flags = from ? from.flags : flagsOf(circuit, [])
    this.key = from ? from.key : flagsKey(this.flags)
    if (from && from.circuit !== circuit) this.changed()
  }

  /** The names of what is wrong, in the order in which it was put in. */
  get wrong(): string[] {
    return [...this.defects.keys()]
  }

  /** Something is wrong from now on, under this name. */
  putIn(name: string, defects: readonly Defect[]): void {
    this.defects.set(name, defects)
    this.changed()
  }

  /** What is wrong under this name is so no longer, and the parts it speaks of are as new: fuse wire and windings too. */
  mend(name: string, defects: readonly Defect[]): void {
    for (const { part, index } of [...(this.defects.get(name) ?? []), ...defects]) {
      if (part === 'fuse') this.blown[index] = 0
      if (part === 'load') this.burnt[index] = 0
    }
    this.defects.delete(name)
    this.changed()
  }

  blow(fuse: number): void {
    this.blown[fuse] = 1
    this.changed()
  }

  burn(load: number): void {
    this.burnt[load] = 1
    this.changed()
  }

  private changed(): void {
    const flags = flagsOf(this.circuit, [...this.defects.values()].flat())
    this.blown.forEach((bit, i) => (flags.blown[i] |= bit))
    this.burnt.forEach((bit, i) => (flags.openLoads[i] |= bit))
    this.flags = flags
    this.key = flagsKey(flags)
  }
}
