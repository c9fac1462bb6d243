import type { Circuit } from '../circuit'
import { restOf } from '../hypotheses'
import { contradictions, weighed, type Contradiction, type Evidence, type Weighing } from '../inference'
import { nth } from '../lists'
import type { Found, Look, WrittenLook } from '../looks'
import { ActionError, Simulation } from '../simulation'
import { passes, perform } from './acts'
import { usualHuntOptions, type HuntEntry, type HuntFinding, type HuntOptions } from './case'
import { answerFor, chanceOf, expectedOf, shownAs, type Expected } from './likelihood'
import { stateAfter } from './standing'
import { suspectsOf, type Suspect } from './suspects'

/** An entry of the log that does not fit the installation; the message is one line for the user. */
export class HuntError extends Error {
  constructor(
    readonly entry: string,
    reason: string,
  ) {
    super(`entry "${entry}": ${reason}`)
    this.name = 'HuntError'
  }
}

/** A look in a state, as one name. */
export const lookIn = (see: WrittenLook, state: string): string => `${JSON.stringify(see)} in ${state}`

/** One suspect's own installation, gone along the log. */
interface Course {
  sim: Simulation
  /** When something was done last, ms: clicks are heard from then on. */
  touched: number
  /** Of each finding, in the order of the log: how probable it is here, and what would have been shown. */
  chances: number[]
  expected: Expected[]
}

/**
 * What may be wrong, in the light of everything done and seen. Every suspect has a simulation of its own that is taken along the
 * log; a log that goes on from the one before is followed from there, any other from the start, to the same result.
 *
 * @example
 * const hunt = new Hunt(circuit)
 * hunt.follow([{ id: '1', do: 'programmer.heating=on' }, { id: '2', see: { at: 'boiler', device: 'boiler' }, found: { word: 'not-called' } }])
 * hunt.ranking().shares // per suspect, in the order of hunt.suspects
 */
export class Hunt {
  readonly suspects: readonly Suspect[]
  private readonly whole: Simulation
  private readonly courses: Course[]
  private log: readonly HuntEntry[] = []

  constructor(
    readonly circuit: Circuit,
    readonly options: HuntOptions = usualHuntOptions,
  ) {
    this.suspects = suspectsOf(circuit, options)
    this.whole = new Simulation(circuit)
    this.courses = []
  }

  /** Every look that was asked for, answered or not, with the state it was to be made in. */
  get looked(): ReadonlySet<string> {
    return new Set(this.log.flatMap((entry) => ('see' in entry ? [lookIn(entry.see, this.stateAt(entry.id))] : [])))
  }

  /** Findings that tell something, in the order of the log. */
  get findings(): ToldFinding[] {
    return this.log.filter(tells)
  }

  /**
   * Takes every suspect along a log. Throws {@link HuntError} where an entry does not fit the installation; nothing has then
   * changed.
   */
  follow(log: readonly HuntEntry[]): void {
    const run = this.following(log)
    while (!run.next().done);
  }

  /** As {@link follow}, suspect by suspect: gives how many have been taken along. Left early, it is begun anew by the next. */
  *following(log: readonly HuntEntry[]): Generator<number, void> {
    this.checked(log)
    const goesOn = this.log.every(
      (entry, i) => log[i] !== undefined && JSON.stringify(log[i]) === JSON.stringify(entry),
    )
    const from = goesOn && this.courses.length === this.suspects.length ? this.log.length : 0
    const courses = from === 0 ? [] : this.courses.splice(0)
    this.courses.length = 0
    for (const [i, { hypothesis }] of this.suspects.entries()) {
      const course = courses[i] ?? this.begun(hypothesis)
      for (let at = from; at < log.length; at++) this.step(course, log, at, hypothesis)
      this.courses.push(course)
      yield i + 1
    }
    this.log = [...log]
  }

  /** Per suspect its share, and how probable all that was found is. */
  ranking(): Weighing {
    return weighed(this.priors(), this.evidence())
  }

  /** Findings that do not go with the rest, the one most likely mistaken first. */
  contradictions(): Contradiction[] {
    return contradictions(this.priors(), this.evidence())
  }

  /** What a suspect would have shown at each finding, and how probable what was found is then. */
  fits(suspect: number): { finding: string; expected: Expected; chance: number }[] {
    const { chances, expected } = nth(this.courses, suspect)
    return this.findings.map(({ id }, i) => ({ finding: id, chance: nth(chances, i), expected: nth(expected, i) }))
  }

  /** A suspect's installation as it stands after the log. Not to be changed: fork it. */
  simulationOf(suspect: number): Simulation {
    return nth(this.courses, suspect).sim
  }

  private priors(): number[] {
    return this.suspects.map(({ prior }) => prior)
  }

  private evidence(): Evidence[] {
    if (this.courses.length < this.suspects.length) throw new Error('a log was not followed to its end')
    return this.findings.map(({ id, see, found }, i) => ({
      id,
      source: lookIn(see, this.stateAt(id)),
      answer: answerFor(see, shownAs(found, this.circuit)),
      likelihood: Float64Array.from(this.courses, ({ chances }) => nth(chances, i)),
    }))
  }

  private stateAt(finding: string): string {
    const at = this.log.findIndex((entry) => entry.id === finding)
    return stateAfter(this.circuit, this.log.slice(0, at))
  }

  private begun(hypothesis: Suspect['hypothesis']): Course {
    const sim = hypothesis ? restOf(this.circuit, hypothesis.variant, this.whole) : this.whole.fork()
    return { sim, touched: 0, chances: [], expected: [] }
  }

  private step(course: Course, log: readonly HuntEntry[], at: number, hypothesis: Suspect['hypothesis']): void {
    const entry = nth(log, at)
    const { sim } = course
    if ('do' in entry) {
      if (!passes(entry.do)) course.touched = sim.time
      return perform(sim, entry.do)
    }
    if ('renew' in entry) {
      const subject = hypothesis?.kind === 'part' ? hypothesis.id.split('.') : []
      const renewed = subject[0] === entry.renew && (entry.part === undefined || subject[1] === entry.part)
      if (renewed && hypothesis) sim.mend('hypothesis', hypothesis.variant.defects)
      sim.settle()
      return
    }
    if (!tells(entry)) return
    const { see, found } = entry
    const expected = hypothesis ? expectedOf(sim, lookOf(see, course.touched)) : 'open'
    course.expected.push(expected)
    course.chances.push(chanceOf(expected, see, shownAs(found, this.circuit), this.options.errors))
  }

  /** Goes along the log with nothing wrong: what cannot be done or looked at there is refused. */
  private checked(log: readonly HuntEntry[]): void {
    const sim = this.whole.fork()
    for (const entry of log) {
      try {
        if ('do' in entry) perform(sim, entry.do)
        else if ('renew' in entry) {
          if (!this.circuit.deviceIndex.has(entry.renew)) throw new ActionError(`there is no device "${entry.renew}"`)
        } else known(this.circuit, entry.see)
      } catch (error) {
        if (error instanceof ActionError) throw new HuntError(entry.id, error.message)
        throw error
      }
    }
  }
}

/** A finding that is an answer. */
type ToldFinding = HuntFinding & { found: Found }
const tells = (entry: HuntEntry): entry is ToldFinding => 'see' in entry && typeof entry.found !== 'string'

const lookOf = (see: WrittenLook, since: number): Look => (see.at === 'clicks' ? { ...see, at: 'clicks', since } : see)

/** Throws {@link ActionError} where what is to be looked at is no part of the installation. */
function known(circuit: Circuit, see: WrittenLook): void {
  const terminals = see.at === 'points' ? [see.red, ...(see.black === undefined ? [] : [see.black])] : []
  for (const ref of terminals) if (!circuit.atomIndex.has(ref)) throw new ActionError(`there is no terminal "${ref}"`)
  const device = see.at === 'points' ? undefined : see.at === 'pipe' ? see.connection.split('.')[0] : see.device
  if (device !== undefined && !circuit.deviceIndex.has(device)) throw new ActionError(`there is no device "${device}"`)
}
