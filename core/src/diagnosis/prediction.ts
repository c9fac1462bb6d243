import { actionsFor } from '../inputs'
import type { Circuit } from '../circuit'
import type { Fault } from '../hypotheses'
import { agrees, lookAt, type Look } from '../looks'
import { Simulation } from '../simulation'
import { askableContacts } from './candidates'
import { answers, observableKey, stateKey, type Answer, type ControlState, type Observable } from './observation'

/** What a look would show: one answer, or either where the model does not decide it. */
export type Expected = Answer | 'either'

/** What is looked at, with what: a terminal is read with a low-impedance tester. */
function lookFor(observable: Observable): Look {
  switch (observable.kind) {
    case 'terminal':
      return { at: 'points', with: 'tester', red: observable.terminal }
    default:
      return { at: observable.kind, device: observable.device }
  }
}

/**
 * What every look would show under each suspect, by simulating the suspect in each state of the controls.
 * Remembers what it has worked out.
 */
export class Predictor {
  private readonly atRest = new Map<string, Simulation>()
  private readonly settled = new Map<string, Simulation>()
  private readonly predicted = new Map<string, Map<string, Expected>>()
  private readonly healthy: Simulation
  private readonly contacts

  constructor(private readonly circuit: Circuit) {
    this.healthy = new Simulation(circuit)
    this.contacts = askableContacts(circuit)
  }

  /** What a look shows under a suspect, worked out once. */
  expected(fault: Fault | null, asking: ControlState, observable: Observable): Expected {
    const key = `${fault?.name ?? ''}|${stateKey(asking)}`
    let answers = this.predicted.get(key)
    if (!answers) this.predicted.set(key, (answers = new Map<string, Expected>()))
    const at = observableKey(observable)
    let answer = answers.get(at)
    if (!answer) answers.set(at, (answer = this.predict(fault, asking, observable)))
    return answer
  }

  private predict(fault: Fault | null, asking: ControlState, observable: Observable): Expected {
    const sim = this.simulate(fault, asking)
    if (sim.hunting) return 'either'
    const shown = lookAt(sim, lookFor(observable))
    const [yes, no] = answers[observable.kind]
    const [asYes, asNo] = [yes, no].map((answer) => agrees(shown, { word: answer }))
    return asYes === asNo ? 'either' : asYes ? yes : no
  }

  /** The suspect's answers to a list of looks, as one string: two suspects with the same cannot be told apart by them. */
  signature(fault: Fault | null, looks: readonly { asking: ControlState; observable: Observable }[]): string {
    return looks.map((l) => `${observableKey(l.observable)}=${this.expected(fault, l.asking, l.observable)}`).join(';')
  }

  private simulate(fault: Fault | null, asking: ControlState): Simulation {
    const name = fault?.name ?? ''
    const key = `${name}|${stateKey(asking)}`
    const known = this.settled.get(key)
    if (known) return known
    let rest = this.atRest.get(name)
    if (!rest) {
      rest = this.healthy.fork()
      if (fault) rest.putIn(fault.name, fault.defects)
      // A fault is older than the visit: from some earlier call the controls have long come to rest.
      rest.settle()
      this.atRest.set(name, rest)
    }
    const sim = rest.fork()
    for (const contact of this.contacts) {
      const asks = asking.includes(`${contact.device}.${contact.contact}`)
      for (const action of actionsFor(this.circuit, contact, asks))
        if (action.do === 'set') sim.set(action.device, action.control, action.value)
    }
    sim.settle()
    this.settled.set(key, sim)
    return sim
  }
}
