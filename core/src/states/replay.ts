import type { Circuit } from '../circuit'
import { formatAction, Simulation, type Action } from '../simulation'
import type { FoundBreach, Happening } from './happenings'
import { inputActions } from '../inputs'
import { UntimedPlant } from './untimed-plant'
import { breachKey, isolationBreaches, settledBreaches, type Breach } from './properties'

/** A counterexample as a person would bring it about, and whether it then shows with the times that the parts really take. */
export interface Replay {
  /** In the written grammar, from rest. */
  actions: string[]
  reproduced: boolean
}

/** Events within which a thing must come to rest or be taken for never resting. */
const mostEvents = 3000

/** Plays the way to a breach in the simulation, with times. */
export function replay(circuit: Circuit, { breach, path }: FoundBreach): Replay {
  return new Player(circuit).play(path, breach)
}

class Player {
  private readonly sim: Simulation
  private readonly plant: UntimedPlant
  private readonly actions: Action[] = []

  constructor(private readonly circuit: Circuit) {
    this.sim = new Simulation(circuit)
    this.plant = new UntimedPlant(circuit)
    this.plant.rest()
  }

  play(path: readonly Happening[], breach: Breach): Replay {
    let reproduced = this.shows(breach)
    for (let i = 0; i < path.length && !reproduced; i++) {
      const happening = path[i]
      if (happening.what === 'input') {
        if (happening.midTravel && !this.waitInTravel()) break
        for (const action of inputActions(this.circuit, this.plant.inputs[happening.input], happening.asks)) {
          this.actions.push(action)
          if (action.do === 'set') this.sim.set(action.device, action.control, action.value)
        }
        // A thermostat's dial may have no stop that says so for certain.
        if (!path[i + 1] || (path[i + 1].what === 'input' && !midTravel(path[i + 1]))) reproduced = this.rest(breach)
      } else if (happening.what === 'phase') {
        // A phase runs out only once everything that moves has come to rest.
        reproduced = this.rest(breach)
        if (!reproduced) this.wait(this.sim.phase(happening.behaviour).until - this.sim.time)
        reproduced ||= this.rest(breach)
      } else if (!path.slice(i + 1).some((h) => h.what !== 'input') && !(path[i + 1] && midTravel(path[i + 1])))
        reproduced = this.rest(breach)
      this.follow(happening)
    }
    if (!reproduced) reproduced = this.rest(breach)
    return { actions: this.actions.map(formatAction), reproduced }
  }

  private follow(happening: Happening): void {
    const { plant } = this
    if (happening.what === 'input') {
      if (plant.asks(happening.input) !== happening.asks) plant.change(happening.input)
      plant.changed = happening.midTravel
    } else if (happening.what === 'contact') plant.switchContact(happening.contact)
    else if (happening.what === 'miss') plant.missContact(happening.contact)
    else if (happening.what === 'travel') plant.advance(happening.actuator)
    else if (happening.what === 'message') plant.deliver(happening.port)
    else plant.expire(happening.behaviour)
    plant.follow(() => undefined)
  }

  /** Lets time pass until the contacts stand as on the way that was found, and half way on to the next event. */
  private waitInTravel(): boolean {
    const wanted = this.plant.contactsText
    const start = this.sim.time
    for (let n = 0; n < mostEvents; n++) {
      const stands = String.fromCharCode(...this.circuit.contacts.map((_, i) => (this.sim.contactClosed(i) ? 1 : 0)))
      const next = this.sim.nextMoveAt()
      // Contacts that are about to switch come first.
      if (stands === wanted && next > this.sim.time + 100) {
        const half = next === Infinity ? 0 : Math.floor((next - this.sim.time) / 2)
        this.sim.run(half)
        this.note(this.sim.time - start)
        return next < Infinity
      }
      if (next === Infinity) return false
      this.sim.step()
    }
    return false
  }

  /** Lets everything move that moves, until the breach shows or all stands still. */
  private rest(breach: Breach): boolean {
    const start = this.sim.time
    let shown = this.shows(breach)
    for (let n = 0; n < mostEvents && !shown && !this.sim.hunting; n++) {
      if (this.sim.nextMoveAt() === Infinity && !this.sim.shortNow) break
      if (!this.sim.step()) break
      shown = this.shows(breach)
    }
    this.note(this.sim.time - start)
    return shown || this.shows(breach)
  }

  private wait(ms: number): void {
    if (!Number.isFinite(ms) || ms <= 0) return
    this.sim.run(ms)
    this.note(ms)
  }

  private note(ms: number): void {
    if (ms <= 0) return
    const last = this.actions[this.actions.length - 1]
    if (last?.do === 'wait') this.actions[this.actions.length - 1] = { do: 'wait', ms: last.ms + ms }
    else this.actions.push({ do: 'wait', ms })
  }

  private shows(breach: Breach): boolean {
    const { sim, circuit } = this
    const key = breachKey(breach)
    switch (breach.property) {
      case 'no-short':
        return sim.shortNow || sim.history.some((e) => e.kind === 'short' || e.kind === 'fuse')
      case 'settles':
        return sim.hunting
      case 'extra-low-stays-low':
        return (
          sim.history.some((e) => e.kind === 'burnt') ||
          breach.terminals.some(
            (ref) => sim.potentialAt(ref).state === 'live' && (sim.potentialAt(ref).volts ?? 0) > 100,
          )
        )
      case 'isolates':
        return isolationBreaches(circuit, sim.electrics.state).some((b) => breachKey(b) === key)
      default:
        // While a contact is about to switch or a valve moves, nothing has settled.
        return sim.nextMoveAt() === Infinity && settledBreaches(sim, true).some((b) => breachKey(b) === key)
    }
  }
}

const midTravel = (h: Happening): boolean => h.what === 'input' && h.midTravel
