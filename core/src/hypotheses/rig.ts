import { compile, type Circuit } from '../circuit'
import { edited, EditError, type Installation } from '../installation'
import { ActionError, actionsUntil, Simulation, type Action } from '../simulation'
import { putInsOf, type PutIn } from './put-ins'

/** An installation under the hand: a simulation, what can be put in that is wrong, and what of it is in. */
export class Rig {
  /** As the document has it, whatever was put into its wiring. */
  readonly circuit: Circuit
  private now: Simulation

  constructor(circuit: Circuit) {
    this.circuit = circuit
    this.now = new Simulation(circuit)
  }

  /** Another one once something was put into the wiring or taken out of it. */
  get simulation(): Simulation {
    return this.now
  }

  /** Everything that can be put in, by name. */
  get faults(): ReadonlyMap<string, PutIn> {
    return putInsOf(this.circuit)
  }

  get faultsIn(): PutIn[] {
    return this.now.wrong.map((name) => this.faults.get(name)!)
  }

  /** Is the wiring, or the set-up of a device, otherwise than the document has it? */
  get isRewired(): boolean {
    return this.now.circuit !== this.circuit
  }

  /** Does one action. Throws {@link ActionError} where it does not fit the installation; nothing has then changed. */
  perform(action: Action): void {
    switch (action.do) {
      case 'set':
        return this.now.set(action.device, action.control, action.value)
      case 'wait':
        // One that hunts stops there, and says so by itself: nothing that follows is told as if the time had passed.
        if (this.now.run(action.ms) === 'unfinished')
          throw new ActionError('too many events: the installation never comes to rest')
        return
      case 'clock':
        return this.now.setClock(action.minuteOfWeek)
      case 'lost-time':
        return this.now.setLostTime(action.device, action.minutes)
      case 'heat':
        return this.now.letWarm(action.scenario ?? undefined)
      case 'fault':
      case 'mend': {
        const fault = this.faults.get(action.fault)
        if (!fault)
          throw new ActionError(
            `there is no fault "${action.fault}": the faults of this installation are listed by "faults"`,
          )
        const isIn = this.now.wrong.includes(fault.name)
        if (fault.change && isIn !== (action.do === 'fault'))
          this.rewire(action.do === 'fault' ? [...this.faultsIn, fault] : this.faultsIn.filter((f) => f !== fault))
        const defects = fault.change ? [] : defectsIn(this.now.circuit, fault.name)
        return action.do === 'fault' ? this.now.putIn(fault.name, defects) : this.now.mend(fault.name, defects)
      }
    }
  }

  /** The same moment with the wiring as these have it, one after the other. */
  private rewire(faults: readonly PutIn[]): void {
    const changes = faults.flatMap(({ change }) => (change ? [change] : []))
    let doc: Installation = this.circuit.installation
    for (const change of changes) {
      try {
        doc = edited(doc, change).doc
      } catch (error) {
        if (error instanceof EditError)
          throw new ActionError(`these cannot be in at once: ${faults.map((f) => f.label).join('; ')}`)
        throw error
      }
    }
    const circuit = changes.length > 0 ? compile(doc, this.circuit) : this.circuit
    this.now = this.now.rewired(circuit, (name) => defectsIn(circuit, name))
  }

  /** A rig on which these actions have been done in order. */
  static after(circuit: Circuit, actions: readonly Action[]): Rig {
    const rig = new Rig(circuit)
    for (const action of actions) rig.perform(action)
    return rig
  }

  /** A rig as it stood so many ms after the start of these actions: those of that very moment are done. */
  static at(circuit: Circuit, actions: readonly Action[], ms: number): Rig {
    return Rig.after(circuit, actionsUntil(actions, ms))
  }
}

/** What a fault is of the parts of a circuit: of a conductor that is not there any more, nothing. */
const defectsIn = (circuit: Circuit, name: string) => putInsOf(circuit).get(name)?.defects ?? []
