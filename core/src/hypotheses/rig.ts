import type { Circuit } from '../circuit'
import { ActionError, Simulation, type Action } from '../simulation'
import { faultsOf, type Fault } from './faults'

/** An installation under the hand: a simulation, the faults it can have, and which of them are in. */
export class Rig {
  readonly faults: ReadonlyMap<string, Fault>
  readonly simulation: Simulation

  constructor(circuit: Circuit) {
    this.faults = new Map(faultsOf(circuit).map((f) => [f.name, f]))
    this.simulation = new Simulation(circuit)
  }

  get faultsIn(): Fault[] {
    return this.simulation.wrong.map((name) => this.faults.get(name)!)
  }

  /** Does one action. Throws {@link ActionError} where it does not fit the installation; nothing has then changed. */
  perform(action: Action): void {
    switch (action.do) {
      case 'set':
        return this.simulation.set(action.device, action.control, action.value)
      case 'wait':
        // One that hunts stops there, and says so by itself: nothing that follows is told as if the time had passed.
        if (this.simulation.run(action.ms) === 'unfinished')
          throw new ActionError('too many events: the installation never comes to rest')
        return
      case 'clock':
        return this.simulation.setClock(action.minuteOfWeek)
      case 'heat':
        return this.simulation.letWarm(action.scenario ?? undefined)
      case 'fault':
      case 'mend': {
        const fault = this.faults.get(action.fault)
        if (!fault)
          throw new ActionError(
            `there is no fault "${action.fault}": the faults of this installation are listed by "faults"`,
          )
        return action.do === 'fault'
          ? this.simulation.putIn(fault.name, fault.defects)
          : this.simulation.mend(fault.name, fault.defects)
      }
    }
  }

  /** A rig on which these actions have been done in order. */
  static after(circuit: Circuit, actions: readonly Action[]): Rig {
    const rig = new Rig(circuit)
    for (const action of actions) rig.perform(action)
    return rig
  }

  /** A rig as it stood so many ms after the start of these actions: those of that very moment are done. */
  static at(circuit: Circuit, actions: readonly Action[], ms: number): Rig {
    const rig = new Rig(circuit)
    for (const action of actions) {
      const left = ms - rig.simulation.time
      if (action.do === 'wait' && action.ms >= left) {
        if (left > 0) rig.perform({ do: 'wait', ms: left })
        // What follows the wait is done only where it ends just then.
        if (action.ms > left) break
      } else rig.perform(action)
    }
    return rig
  }
}
