import type { Circuit } from '../circuit'
import { restOf, variantOf, type Hypothesis } from '../hypotheses'
import { contradictions, weighed, type Contradiction, type Evidence, type Weighing } from '../inference'
import { nth } from '../lists'
import type { Found, WrittenLook } from '../looks'
import { ActionError, type Simulation } from '../simulation'
import { usualHuntOptions, type HuntEntry, type HuntFinding, type HuntOptions } from './case'
import { Course } from './course'
import { Ground, type Kind } from './ground'
import { blamedRightly, chanceWith, oddsOf, usualToldError, type Expected } from './likelihood'
import { stateAfter } from './standing'
import { causesOf, devicesOf, suspectsOf, type Suspect } from './suspects'

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

/** Options on which the weights of suspects hang. */
type OfWeights = 'workedOn' | 'fresh' | 'old' | 'wet' | 'stoodStill' | 'weights'

/** Whatever state it is made in: what makes one reading wrong makes the next one of the same thing wrong as well. */
const sourceOfLook = (see: WrittenLook): string => JSON.stringify(see)

/** What one kind of suspects would have shown along the log. */
interface Shown {
  course: Course
  /** Of each finding, in the order of the log: how probable it is here, and what would have been shown. */
  chances: number[]
  expected: Expected[]
  kind: Kind
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
  private shown: Shown[] = []
  /** Per suspect which of {@link shown} is its own. */
  private shownOf: readonly number[] = []
  private log: readonly HuntEntry[] = []
  /** What was found, as far as the log has been followed. */
  private told?: Evidence[]

  constructor(
    readonly circuit: Circuit,
    readonly options: HuntOptions = usualHuntOptions,
    private readonly ground = new Ground(circuit, suspectsOf(circuit, options)),
  ) {
    this.suspects = ground.suspects
  }

  /**
   * Another hunt of the same suspects, at its beginning; what has been worked out of them before is used again. Options on which
   * their weights hang stay as they are.
   */
  again(options: Partial<Omit<HuntOptions, OfWeights>> = {}): Hunt {
    return new Hunt(this.circuit, { ...this.options, ...options }, this.ground)
  }

  /** Another hunt, which does not think of some of the suspects. */
  leavingOut(ids: readonly string[]): Hunt {
    const suspects = this.suspects.filter(({ id }) => !ids.includes(id))
    return new Hunt(this.circuit, this.options, new Ground(this.circuit, suspects))
  }

  /** Every look that was asked for, answered or not, with the state it was to be made in. */
  get looked(): ReadonlySet<string> {
    return new Set(this.log.flatMap((entry) => ('see' in entry ? [lookIn(entry.see, this.stateAt(entry.id))] : [])))
  }

  /** Suspects that were put right. */
  get mended(): ReadonlySet<string> {
    return new Set(this.log.flatMap((entry) => ('mended' in entry ? [entry.mended] : [])))
  }

  /** Entries that tell something, in the order of the log. */
  get findings(): TellingEntry[] {
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

  /**
   * As {@link follow}, one kind of suspects after the other: gives the share of them that have been taken along, from 0 to 1. Left
   * early, it is begun anew by the next.
   */
  *following(log: readonly HuntEntry[]): Generator<number, void> {
    this.checked(log)
    const { kindOf, kinds } = this.ground
    // Whatever was put right is put right of one suspect, not of those who behaved alike before.
    const apart = log.flatMap((entry) => ('mended' in entry ? [entry.mended] : []))
    let next = kinds
    const shownOf = this.suspects.map((suspect, i) =>
      causesOf(suspect).some(({ id }) => apart.includes(id)) ? next++ : nth(kindOf, i),
    )
    const goesOn =
      this.shown.length === next &&
      this.log.every((entry, i) => log[i] !== undefined && JSON.stringify(log[i]) === JSON.stringify(entry)) &&
      shownOf.every((shown, i) => shown === this.shownOf[i])
    const from = goesOn ? this.log.length : 0
    const before = goesOn ? this.shown : []
    this.told = undefined
    this.shown = []
    const first = new Map<number, number>()
    shownOf.forEach((shown, suspect) => first.has(shown) || first.set(shown, suspect))
    const shown: Shown[] = []
    for (let at = 0; at < next; at++) {
      const suspect = first.get(at)
      // All of its suspects may have been put right.
      const one = before[at] ?? this.begun(suspect === undefined ? 0 : nth(kindOf, suspect))
      if (suspect !== undefined)
        for (let i = from; i < log.length; i++) this.step(one, nth(log, i), nth(this.suspects, suspect))
      shown.push(one)
      yield shown.length / next
    }
    this.told = undefined
    this.shown = shown
    this.shownOf = shownOf
    this.log = [...log]
  }

  /** Per suspect its share, and how probable all that was found is. */
  ranking(): Weighing {
    return weighed(this.priors(), this.evidence)
  }

  /** Findings that do not go with the rest, the one most likely mistaken first. */
  contradictions(): Contradiction[] {
    return contradictions(this.priors(), this.evidence)
  }

  /** What a suspect would have shown at each finding, and how probable what was found is then. */
  fits(suspect: number): { finding: string; expected: Expected; chance: number }[] {
    const { expected } = this.shownBy(suspect)
    return this.findings.map((entry, i) => ({
      finding: entry.id,
      chance: this.chanceOf(suspect, entry, i),
      expected: nth(expected, i),
    }))
  }

  /** A suspect's installation as it stands after the log. Not to be changed: fork it. */
  courseOf(suspect: number): Course {
    return this.shownBy(suspect).course
  }

  /** Suspects of one number have installations that are the same for all that can be seen. */
  kindOf(suspect: number): number {
    return nth(this.shownOf, suspect)
  }

  private shownBy(suspect: number): Shown {
    return nth(this.shown, nth(this.shownOf, suspect))
  }

  private priors(): number[] {
    return this.suspects.map(({ prior }) => prior)
  }

  /** What was found at a source, in the order of the log: with what each suspect would have it. */
  foundAt(see: WrittenLook): Evidence[] {
    return this.evidence.filter(({ source }) => source === sourceOfLook(see))
  }

  /** What was found, as each suspect would have it. */
  get evidence(): readonly Evidence[] {
    return (this.told ??= this.evidenceOfLog())
  }

  private evidenceOfLog(): Evidence[] {
    if (this.shown.length === 0) throw new Error('a log was not followed to its end')
    return this.findings.map((entry, i) => ({
      id: entry.id,
      ...this.sourceOf(entry),
      likelihood: Float64Array.from(this.suspects, (_, suspect) => this.chanceOf(suspect, entry, i)),
    }))
  }

  /** How probable the finding of that number is for a suspect. Whom somebody blamed is nothing that an installation shows. */
  private chanceOf(suspect: number, entry: TellingEntry, finding: number): number {
    if (!('blamed' in entry)) return nth(this.shownBy(suspect).chances, finding)
    const causes = causesOf(nth(this.suspects, suspect))
    const isAt = causes.some((cause) => devicesOf(this.circuit, cause).includes(entry.blamed))
    return isAt ? blamedRightly : (this.options.errors.told ?? usualToldError)
  }

  private sourceOf(entry: TellingEntry): Pick<Evidence, 'source' | 'hit' | 'miss'> {
    const told = this.options.errors.told ?? usualToldError
    if ('says' in entry) return { source: `says ${JSON.stringify(entry.says)}`, hit: 1 - told, miss: told }
    if ('blamed' in entry) return { source: 'blamed', hit: blamedRightly, miss: told }
    return { source: sourceOfLook(entry.see), ...oddsOf(entry.see, this.options.errors) }
  }

  private stateAt(finding: string): string {
    const at = this.log.findIndex((entry) => entry.id === finding)
    return stateAfter(this.circuit, this.log.slice(0, at))
  }

  private begun(kind: Kind): Shown {
    return { course: new Course(this.ground.restOf(kind).fork()), kind, chances: [], expected: [] }
  }

  private step(shown: Shown, entry: HuntEntry, suspect: Suspect): void {
    const { course } = shown
    if ('do' in entry) return course.act(entry.do)
    const causes = causesOf(suspect)
    if ('mended' in entry) {
      if (causes.some(({ id }) => id === entry.mended))
        course.mended(sameControls(this.without(causes, entry.mended), course.sim))
      return
    }
    if ('renew' in entry) {
      const [renewed, left] = apartBy(causes, (cause) => isOf(cause, entry))
      if (renewed.length > 0)
        course.sim.mend(
          'hypothesis',
          renewed.flatMap(({ variant }) => variant.defects),
        )
      const still = renewed.length > 0 ? left.flatMap(({ variant }) => variant.defects) : []
      if (still.length > 0) course.sim.putIn('hypothesis', still)
      return course.mended(course.sim)
    }
    if (!tells(entry)) return
    const { expected, chance } = this.heardOrSeen(shown, entry, suspect)
    shown.expected.push(expected)
    shown.chances.push(chance)
  }

  private heardOrSeen(
    { course, kind }: Shown,
    entry: TellingEntry,
    { hypothesis }: Suspect,
  ): { expected: Expected; chance: number } {
    const { errors } = this.options
    const told = errors.told ?? usualToldError
    if ('says' in entry) {
      if (!hypothesis) return { expected: 'open', chance: 0.5 }
      const holds = this.ground.noticing(kind).holds(entry.says)
      return { expected: { word: holds ? 'yes' : 'no' }, chance: holds ? 1 - told : told }
    }
    if ('blamed' in entry) return { expected: 'open', chance: 1 }
    const { see, found } = entry
    const shows = hypothesis ? course.shows(see) : { expected: 'open' as const, beside: [] }
    return { expected: shows.expected, chance: chanceWith(shows, see, found, errors) }
  }

  /** At rest, with everything wrong but what was put right. */
  private without(causes: readonly Hypothesis[], mended: string): Simulation {
    const left = causes.filter(({ id }) => id !== mended)
    return left.length === 0 ? this.ground.whole : restOf(this.circuit, variantOf(left), this.ground.whole)
  }

  /** Goes along the log with nothing wrong: what cannot be done or looked at there is refused. */
  private checked(log: readonly HuntEntry[]): void {
    const course = new Course(this.ground.whole.fork())
    for (const entry of log) {
      try {
        if ('do' in entry) course.act(entry.do)
        else if ('renew' in entry) hasDevice(this.circuit, entry.renew)
        else if ('blamed' in entry) hasDevice(this.circuit, entry.blamed)
        else if ('mended' in entry) {
          if (!this.suspects.some((suspect) => causesOf(suspect).some(({ id }) => id === entry.mended)))
            throw new ActionError(`there is no suspect "${entry.mended}"`)
        } else if ('says' in entry) hasDemand(this.circuit, entry.says.demand)
        else known(this.circuit, entry.see)
      } catch (error) {
        if (error instanceof ActionError) throw new HuntError(entry.id, error.message)
        throw error
      }
    }
  }
}

/** A failure of a device, or of the part of it, that was changed for a new one? */
function isOf({ kind, id }: Hypothesis, { renew, part }: Extract<HuntEntry, { renew: string }>): boolean {
  const [device, own] = id.split('.')
  return kind === 'part' && device === renew && (part === undefined || own === part)
}

function apartBy<T>(all: readonly T[], is: (one: T) => boolean): [T[], T[]] {
  return [all.filter(is), all.filter((one) => !is(one))]
}

/** An entry from which something is learnt. */
type TellingEntry =
  (HuntFinding & { found: Found }) | Extract<HuntEntry, { says: unknown }> | Extract<HuntEntry, { blamed: unknown }>
const tells = (entry: HuntEntry): entry is TellingEntry =>
  'says' in entry || 'blamed' in entry || ('see' in entry && typeof entry.found !== 'string')

/**
 * An installation at rest, with the controls where those of another have been set. What had come to stand otherwise by itself, or
 * was left so (a lockout, a lever), is put right with the rest.
 */
function sameControls(rest: Simulation, like: Simulation): Simulation {
  const sim = rest.fork()
  for (const { device, id } of like.circuit.controls) {
    const { device: owner, type } = nth(like.circuit.devices, device)
    const control = type.controls.find((c) => c.id === id)
    const value = like.control(owner.id, id)
    if (control?.kind === 'choice' && control.ambient) continue
    if (value !== sim.control(owner.id, id)) sim.set(owner.id, id, String(value))
  }
  return sim
}

function hasDevice({ deviceIndex }: Circuit, id: string): void {
  if (!deviceIndex.has(id)) throw new ActionError(`there is no device "${id}"`)
}

function hasDemand({ installation }: Circuit, id: string | undefined): void {
  if (id !== undefined && !installation.intent.demands.some((d) => d.id === id))
    throw new ActionError(`there is no demand "${id}"`)
}

/** Throws {@link ActionError} where what is to be looked at is no part of the installation. */
function known(circuit: Circuit, see: WrittenLook): void {
  const terminals = see.at === 'points' ? [see.red, ...(see.black === undefined ? [] : [see.black])] : []
  for (const ref of terminals) if (!circuit.atomIndex.has(ref)) throw new ActionError(`there is no terminal "${ref}"`)
  const device = see.at === 'points' ? undefined : see.at === 'pipe' ? see.connection.split('.')[0] : see.device
  if (device !== undefined) hasDevice(circuit, device)
}
