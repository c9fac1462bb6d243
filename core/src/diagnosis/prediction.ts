import { actionsFor } from '../checks'
import type { Circuit } from '../circuit'
import type { Fault } from '../hypotheses'
import { terminalVolts } from '../instruments'
import { calledPhases, Simulation } from '../simulation'
import { askableContacts } from './candidates'
import { answers, observableKey, stateKey, type Answer, type ControlState, type Observable } from './observation'

/** What a look would show: one answer, or either where the model does not decide it. */
export type Expected = Answer | 'either'

/** An observation is shut or open by the lever: anything but the closed end of its travel is felt as open. */
const shutTravel = 0.02

/** Shares of the nominal volts from which a tester's reading is called live, and up to which it is called dead. */
const [liveShare, deadShare] = [0.8, 0.2]

/**
 * What every look would show under each suspect, by simulating the suspect in each state of the controls.
 * Remembers what it has worked out.
 */
export class Predictor {
  private readonly atRest = new Map<string, Simulation>()
  private readonly settled = new Map<string, Simulation>()
  private readonly healthy: Simulation
  private readonly contacts

  constructor(private readonly circuit: Circuit) {
    this.healthy = new Simulation(circuit)
    this.contacts = askableContacts(circuit)
  }

  expected(fault: Fault | null, asking: ControlState, observable: Observable): Expected {
    const sim = this.simulate(fault, asking)
    if (sim.hunting) return 'either'
    const [yes, no] = answers[observable.kind]
    switch (observable.kind) {
      case 'terminal': {
        const volts = terminalVolts(sim.electrics, this.circuit.atomIndex.get(observable.terminal)!, 'tester')?.volts
        if (volts === undefined) return 'either'
        const { against } = sim.potentialAt(observable.terminal)
        const nominal =
          this.circuit.transformers.find((t) => this.circuit.devices[t.device].device.id === against)?.nominal ??
          this.circuit.installation.supply.volts
        if (volts >= liveShare * nominal) return yes
        return volts <= deadShare * nominal ? no : 'either'
      }
      case 'valve': {
        const at = this.circuit.deviceIndex.get(observable.device)!
        const open = this.circuit.actuators.some((a, i) => a.device === at && sim.actuatorPosition(i) > shutTravel)
        return open ? yes : no
      }
      case 'boiler': {
        // What the boiler shows is what it believes: its phase, not the terminal.
        const at = this.circuit.deviceIndex.get(observable.device)!
        const called = this.circuit.behaviours.some((b, i) => b.device === at && calledPhases.has(sim.phase(i).phase))
        return called ? yes : no
      }
      case 'pump': {
        const at = this.circuit.deviceIndex.get(observable.device)!
        return this.circuit.loads.some((l, i) => l.device === at && sim.loadWorking(i)) ? yes : no
      }
    }
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
      if (fault) rest.apply(fault.name, fault.damage, true)
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
