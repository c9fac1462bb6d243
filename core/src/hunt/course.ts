import type { Circuit } from '../circuit'
import type { Look, WrittenLook } from '../looks'
import type { Simulation } from '../simulation'
import { passes, perform, waitOf } from './acts'
import { Foresight } from './foresight'
import { expectedOf, type Expected } from './likelihood'
import { disturbedAfter, rewired, rewiringOf, type Disturbed } from './rewiring'

/** Valves and timers of one kind differ by so much of their time: what is seen on the way may be early or late by that. */
const [early, late] = [0.7, 1.3] as const

/** What a look shows, and what it would show at other times that are as good: a little earlier or later, or on its round. */
export interface Shows {
  expected: Expected
  beside: readonly Expected[]
  /** It goes round and round: nobody knows where it is when somebody looks. */
  even?: boolean
  /** It is something on no list, which shows this mostly. */
  like?: boolean
}

/** Of what goes round and round, looked at so many times, so far apart: some of everything that it comes by. */
const [glances, glanceMs] = [6, 7000]
/** Of what chatters so many events, and more each time: the same number again would always come to the same point of a short round. */
const [fewestEvents, moreEvents] = [150, 7]

/** One installation gone along a log. */
export class Course {
  /** When something was done last, ms: clicks are heard from then on. */
  touched = 0
  /** The same, had what is on its way been quicker or slower than usual; none where nothing is on its way. */
  private beside: { sim: Simulation; slack: number }[] = []

  /** Moments of what goes round for good, from a moment on. */
  private round?: { of: number; seen: readonly Simulation[] }
  /** How its conductors lie when nothing is disturbed for a test. */
  private own: Circuit
  private disturbed: Disturbed = []
  /** What it would show after acts that nobody has done yet; until something is done. */
  private readonly foreseen = new Map<string, Foresight<Shows>>()

  constructor(public sim: Simulation) {
    this.own = sim.circuit
  }

  /** Another that goes its own way from here; nothing is on its way there that this has not come to. */
  fork(): Course {
    const fork = new Course(this.sim.fork())
    fork.touched = this.touched
    fork.own = this.own
    fork.disturbed = this.disturbed
    return fork
  }

  /** A fork whose conductors lie so; joined alike, as long as nothing is taken from them. */
  forkAs(own: Circuit): Course {
    const fork = this.fork()
    fork.own = own
    return fork
  }

  /** The same in every respect, with what is on its way. */
  copy(): Course {
    const copy = this.fork()
    copy.beside = this.beside.map(({ sim, slack }) => ({ sim: sim.fork(), slack }))
    return copy
  }

  /** Throws {@link ActionError} where it does not fit the installation. */
  act(text: string): void {
    this.changed()
    const ms = waitOf(text)
    if (ms !== undefined) return this.wait(ms)
    // What has not come to its end when it is touched again is taken to be where it usually is.
    this.beside = []
    if (!passes(text)) this.touched = this.sim.time
    const rewiring = rewiringOf(text)
    if (!rewiring) return perform(this.sim, text)
    const disturbed = disturbedAfter(this.disturbed, rewiring)
    this.sim = rewired(this.sim, this.own, disturbed)
    this.disturbed = disturbed
  }

  /** What it would show after some acts, and at moments from there on, each after the one before. */
  foresee(acts: readonly string[], moments: readonly (string | undefined)[]): Foresight<Shows> {
    const key = JSON.stringify([acts, moments])
    let foresight = this.foreseen.get(key)
    if (!foresight) {
      const begin = () => {
        const fork = this.fork()
        acts.forEach((text) => fork.act(text))
        return fork
      }
      foresight = new Foresight(begin, moments)
      this.foreseen.set(key, foresight)
    }
    return foresight
  }

  private changed(): void {
    this.round = undefined
    this.foreseen.clear()
  }

  private onItsRound(): readonly Simulation[] {
    if (this.round?.of !== this.sim.time) {
      const sim = this.sim.fork()
      const seen = Array.from({ length: glances }, (_, glance) => {
        sim.goRound(glanceMs, fewestEvents + glance * moreEvents)
        return sim.fork()
      })
      this.round = { of: this.sim.time, seen }
    }
    return this.round.seen
  }

  private wait(ms: number): void {
    if (this.beside.length > 0) {
      for (const { sim, slack } of this.beside) sim.run(ms * slack)
      this.sim.run(ms)
      return
    }
    const { sim } = this
    const from = sim.time
    const at = (share: number) => Math.round(from + ms * share)
    sim.run(at(early) - from)
    // Where nothing happens from the earliest to the latest that it may be, all three are one.
    if (sim.nextEventAt() > at(late)) return void sim.run(from + ms - sim.time)
    const sooner = sim.fork()
    sim.run(from + ms - sim.time)
    const later = sim.fork()
    later.run(at(late) - later.time)
    this.beside = [
      { sim: sooner, slack: early },
      { sim: later, slack: late },
    ]
  }

  /**
   * A part or conductor is put right, or changed for a new one: the installation goes on as another, or with less wrong. What is
   * disturbed for a test stays so.
   */
  mended(sim: Simulation): void {
    this.changed()
    if (sim !== this.sim) this.own = sim.circuit
    this.sim = sim !== this.sim && this.disturbed.length > 0 ? rewired(sim, this.own, this.disturbed) : sim
    this.beside = []
    this.sim.settle()
  }

  /** What a look shows at this moment; and, where that may come earlier or later than usual, what it would show then. */
  shows(see: WrittenLook): Shows {
    const look: Look = see.at === 'clicks' ? { ...see, at: 'clicks', since: this.touched } : see
    // That it goes round is heard of its motor; all else comes and goes.
    if (this.sim.hunting && see.at !== 'motor') {
      const [expected = 'open', ...beside] = this.onItsRound().map((sim) => expectedOf(sim, look))
      return { expected, beside, even: true }
    }
    return { expected: expectedOf(this.sim, look), beside: this.beside.map(({ sim }) => expectedOf(sim, look)) }
  }
}
