import { compile, potentials } from '../circuit'
import { Rig } from '../hypotheses'
import { demandActions } from '../inputs'
import type { Expected } from './expected'

/** What each net of the expected wiring would read with some demands on, everything settled: worked out once a state. */
export class Predicted {
  private readonly known = new Map<string, boolean[]>()
  private readonly circuit

  constructor(private readonly expected: Expected) {
    this.circuit = compile(expected.installation)
  }

  /** Per expected net: is it live to neutral? Demands that are not there are not on. */
  live(wanted: readonly string[]): readonly boolean[] {
    const key = [...wanted].sort().join()
    const known = this.known.get(key)
    if (known) return known
    const { simulation: sim } = Rig.after(this.circuit, demandActions(this.circuit, wanted))
    sim.settle()
    const states = potentials(sim.electrics)
    const live: boolean[] = []
    for (const { ref, net } of this.expected.terminals) {
      const atom = this.circuit.atomIndex.get(ref)
      if (net >= 0 && atom !== undefined) live[net] ||= states[atom].state === 'live'
    }
    this.known.set(key, live)
    return live
  }
}
