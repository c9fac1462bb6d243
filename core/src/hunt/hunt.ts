import { same } from '../changes'
import type { Circuit } from '../circuit'
import { likeness, type Contradiction, type Evidence, type Weighing } from '../inference'
import { nth } from '../lists'
import type { Simulation } from '../simulation'
import type { WrittenLook } from '../looks'
import { Along, tells, type Shown, type TellingEntry } from './along'
import { isByEye } from './candidates'
import { usualHuntOptions, type HuntEntry, type HuntFinding, type HuntOptions } from './case'
import type { Course } from './course'
import { Ground } from './ground'
import { chanceOf, usualToldError, type Expected } from './likelihood'
import { misfits, type Misfit } from './misfits'
import { actPartsConductors } from './rewiring'
import { mendedAfter, mendedIn } from './put-right'
import { Seconds, type RankedPair } from './seconds'
import { blamedOf, sourceOf } from './sources'
import { asEntries, stateAfter } from './standing'
import { causesOf, suspectsOf, unlisted, type Suspect } from './suspects'
import type { One } from './together'
import { HuntWeighing, type Likeness } from './weighing'

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

/** A look in a state, as one name. What is seen to lie there lies so in every state. */
export const lookIn = (see: WrittenLook, state: string): string =>
  isByEye(see) ? JSON.stringify(see) : `${JSON.stringify(see)} in ${state}`

/** Where any two at once may have more than this share, they are thought of, as long as nothing was put right. */
const pairsThoughtOfFrom = 0.4

/** Options on which the weights of suspects hang. */
type OfWeights = 'workedOn' | 'fresh' | 'old' | 'wet' | 'stoodStill' | 'weights'

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
  /** Everything that may singly be the case. */
  readonly singles: readonly Suspect[]
  /** First those of the ground's kinds, of whom nothing has been put right; then those of whom something has. */
  private shown: Shown[] = []
  /** Per single suspect which of {@link shown} is its own. */
  private shownOf: readonly number[] = []
  private log: readonly HuntEntry[] = []
  /** What was found, as far as the log has been followed. */
  private told?: HuntWeighing
  /**
   * Two at once: what has been put right, and something else beside it; before that any, where that may explain what no single one
   * does.
   */
  private seconds?: Hunt
  /** Taken along the beginning of the log already, by whose they are. */
  private readonly inherited = new Map<string, Shown>()
  /** By whom it is worked out: those who are joined alike together, until the log takes conductors from each other. */
  private by: Ground

  constructor(
    readonly circuit: Circuit,
    readonly options: HuntOptions = usualHuntOptions,
    private readonly ground = new Ground(circuit, suspectsOf(circuit, options)),
    /** Nothing but these: neither what is on no list, nor something beside what was put right. */
    private readonly onlyListed = false,
  ) {
    this.singles = ground.suspects
    this.by = ground
  }

  /** {@link singles}, and two at once where one of them has been put right. */
  get suspects(): readonly Suspect[] {
    return this.seconds ? [...this.singles, ...this.seconds.singles] : this.singles
  }

  /**
   * Another hunt of the same suspects, at its beginning; what has been worked out of them before is used again. Options on which
   * their weights hang stay as they are.
   */
  again(options: Partial<Omit<HuntOptions, OfWeights>> = {}): Hunt {
    return new Hunt(this.circuit, { ...this.options, ...options }, this.ground)
  }

  /** Another hunt, where this one stands. */
  fork(): Hunt {
    const fork = new Hunt(this.circuit, this.options, this.ground, this.onlyListed)
    fork.shown = this.shown.map((shown) => ({
      ...shown,
      course: shown.course.copy(),
      chances: [...shown.chances],
      expected: [...shown.expected],
    }))
    fork.shownOf = this.shownOf
    fork.by = this.by
    fork.log = this.log
    fork.seconds = this.seconds?.fork()
    return fork
  }

  /** With nothing wrong, at rest. Not to be changed: fork it. */
  get whole(): Simulation {
    return this.ground.whole
  }

  /** The log that was followed last. */
  get followed(): readonly HuntEntry[] {
    return this.log
  }

  /** Is this log the one that was followed, or does it go on from there? Whatever its entries are called. */
  isOnTheWayTo(log: readonly HuntEntry[]): boolean {
    return this.log.length <= log.length && this.log.every((entry, i) => saysTheSame(entry, log[i]))
  }

  /** Another hunt, which does not think of some of the suspects. */
  leavingOut(ids: readonly string[]): Hunt {
    const suspects = this.singles.filter(({ id }) => !ids.includes(id))
    return new Hunt(this.circuit, this.options, new Ground(this.circuit, suspects))
  }

  /** Every look that was asked for, answered or not, with the state it was to be made in. */
  get looked(): ReadonlySet<string> {
    return new Set(this.log.flatMap((entry) => ('see' in entry ? [lookIn(entry.see, this.stateAt(entry))] : [])))
  }

  /** What was put right, or went with a part that was changed. */
  get mended(): ReadonlySet<string> {
    return mendedIn(this.singles, this.log)
  }

  private mendedBefore(entry: string): ReadonlySet<string> {
    const at = this.log.findIndex(({ id }) => id === entry)
    return mendedIn(this.singles, this.log.slice(0, at))
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
    const [first] = this.misfits(log)
    if (first) throw new HuntError(first.entry, first.reason)
    const by = log.some((entry) => 'do' in entry && actPartsConductors(entry.do)) ? this.ground.apart : this.ground
    const { kindOf, kinds } = by
    const along = new Along(this.circuit, this.options, by)
    // Whatever was put right is put right of one suspect, not of those who behaved alike before.
    const apart = mendedIn(this.singles, log)
    let next = kinds
    const shownOf = this.singles.map((suspect, i) =>
      causesOf(suspect).some(({ id }) => apart.has(id)) ? next++ : nth(kindOf, i),
    )
    const goesOn =
      by === this.by &&
      this.shown.length === next &&
      this.isOnTheWayTo(log) &&
      shownOf.every((shown, i) => shown === this.shownOf[i])
    const before = goesOn ? this.shown : []
    const secondsBefore = this.seconds
    this.told = undefined
    this.shown = []
    this.seconds = undefined
    const firstOf = (numbers: readonly number[]) => {
      const first = new Map<number, number>()
      numbers.forEach((number, suspect) => first.has(number) || first.set(number, suspect))
      return first
    }
    const [firstOfKind, firstApart] = [firstOf(kindOf), firstOf(shownOf)]
    const isNeeded = (at: number) => !this.onlyListed || firstApart.has(at)
    const shown: Shown[] = []
    for (let at = 0; at < next; at++) {
      const isApart = at >= kinds
      const suspect = (isApart ? firstApart : firstOfKind).get(at) ?? 0
      const kind = nth(kindOf, suspect)
      const of = `${nth(this.singles, suspect).id}${isApart ? ', apart' : ''}`
      const one = before[at] ?? this.inherited.get(of) ?? along.begun(kind, of)
      one.kind = kind
      for (let i = one.gone; isNeeded(at) && i < log.length; i++)
        along.step(one, nth(log, i), nth(this.singles, suspect), isApart)
      shown.push(one)
      yield shown.length / next
    }
    this.told = undefined
    this.by = by
    this.shown = shown
    this.shownOf = shownOf
    this.log = [...log]
    this.inherited.clear()
    if (!this.onlyListed) this.seconds = this.secondsOf(log, secondsBefore)
  }

  /** Two at once, where something was put right, or two may well explain what no single one does. */
  private secondsOf(log: readonly HuntEntry[], before?: Hunt): Hunt | undefined {
    const two = this.two()
    if (mendedAfter(this.singles, log).size === 0 && two.share <= pairsThoughtOfFrom) return undefined
    const hunt = this.of(two.suspects(this.circuit))
    if (before?.isOnTheWayTo(log)) before.leavesTo(hunt)
    hunt.follow(log)
    return hunt
  }

  /** A hunt of several at once and of nothing else, which goes along what this one goes along. */
  of(several: readonly One[]): Hunt {
    const suspects = several.map(({ suspect }) => suspect)
    return new Hunt(
      this.circuit,
      this.options,
      new Ground(this.circuit, suspects, this.whole, undefined, several),
      true,
    )
  }

  /** Whoever is in both need not be taken along what this one has come along. This one is not to be used any more. */
  private leavesTo(heir: Hunt): void {
    for (const one of this.shown) heir.inherited.set(one.of, one)
  }

  /** All pairs of single suspects, those first that may go best with what was found. */
  pairsInOrder(): RankedPair[] {
    return this.two().inOrder()
  }

  private two(): Seconds {
    return new Seconds(this.singles, (single) => this.chancesLike(single), mendedAfter(this.singles, this.log))
  }

  /** Of each finding how probable it is for what looks like a single suspect and was not put right with it. */
  private chancesLike(single: number): number[] {
    const { chances } = nth(this.shown, nth(this.by.kindOf, single))
    return this.findings.map((entry, finding) => {
      if (!('see' in entry) || entry.see.at !== 'wiring') return nth(chances, finding)
      return chanceOf(this.wiringLike(single, entry.see.thing), entry.see, entry.found, this.options.errors)
    })
  }

  /** Per suspect its share, and how probable all that was found is. */
  ranking(): Weighing {
    return this.weighing.ranking
  }

  /** What something on no list is most like, as far as the log goes: at most so many single suspects. */
  likenesses(most: number): Likeness[] {
    return this.weighing.likenesses(most)
  }

  /** Per suspect the natural logarithm of how probable all that was found is. */
  logLikelihoods(): Float64Array {
    return this.weighing.logLikelihoods()
  }

  /** Findings that do not go with the rest, the one most likely mistaken first. */
  contradictions(): Contradiction[] {
    return this.weighing.contradictions()
  }

  /** What a suspect would have shown at each finding, and how probable what was found is then. */
  fits(suspect: number): { finding: string; expected: Expected; chance: number }[] {
    const { evidence } = this.weighing
    const one = nth(this.suspects, suspect)
    const expected = (entry: TellingEntry, i: number): Expected => {
      if (one.id === unlisted) return 'open'
      return 'see' in entry && entry.see.at === 'wiring'
        ? this.wiringAt(one, entry.see.thing, this.mendedBefore(entry.id))
        : nth(this.shownBy(suspect).expected, i)
    }
    return this.findings.map((entry, i) => ({
      finding: entry.id,
      chance: this.weighing.chanceOf(suspect, nth(evidence, i)),
      expected: expected(entry, i),
    }))
  }

  /** A suspect's installation as it stands after the log. Not to be changed: fork it. */
  courseOf(suspect: number): Course {
    return this.shownBy(suspect).course
  }

  /** That of something which looks like a single suspect and was not put right with it. */
  likeOf(single: number): { kind: number; course: Course; apart: () => Course } {
    const kind = nth(this.by.kindOf, single)
    const { course } = nth(this.shown, kind)
    return { kind, course, apart: () => forkAs(course, this.by.ownCircuitOf(single)) }
  }

  /** A fork of a suspect's own, to be taken along where conductors are taken from each other. */
  courseApart(suspect: number): Course {
    const beside = suspect - this.singles.length
    if (beside >= 0 && this.seconds) return this.seconds.courseApart(beside)
    const shown = nth(this.shownOf, suspect)
    const isOfKind = shown === nth(this.by.kindOf, suspect)
    return forkAs(nth(this.shown, shown).course, isOfKind ? this.by.ownCircuitOf(suspect) : undefined)
  }

  /** What is seen where the wiring of a device or box is compared with the drawing, as the log has left a suspect. */
  wiringShown(suspect: number, thing: string): Expected {
    return this.wiringAt(nth(this.suspects, suspect), thing, this.mended)
  }

  /** The same of something which looks like a single suspect and was not put right with it. */
  wiringLike(single: number, thing: string): Expected {
    return this.wiringAt(nth(this.singles, single), thing, new Set())
  }

  private wiringAt(suspect: Suspect, thing: string, mended: ReadonlySet<string>): Expected {
    if (suspect.id === unlisted) return 'open'
    return this.ground.wiring.shownAt(
      thing,
      causesOf(suspect).filter(({ id }) => !mended.has(id)),
    )
  }

  /** Suspects of one number have installations that are the same for all that can be seen. */
  kindOf(suspect: number): number {
    const beside = suspect - this.singles.length
    return beside < 0 ? nth(this.shownOf, suspect) : this.shown.length + (this.seconds?.kindOf(beside) ?? 0)
  }

  private shownBy(suspect: number): Shown {
    const beside = suspect - this.singles.length
    return beside >= 0 && this.seconds ? this.seconds.shownBy(beside) : nth(this.shown, nth(this.shownOf, suspect))
  }

  /** What was found, and what it says of every suspect. */
  get weighing(): HuntWeighing {
    if (this.shown.length === 0) throw new Error('a log was not followed to its end')
    const evidence = () => this.findings.map((entry, i) => this.evidenceOf(entry, i))
    return (this.told ??= new HuntWeighing(this.suspects, this.likeable.length, evidence()))
  }

  /** What something on no list may be like. */
  private get likeable(): readonly Suspect[] {
    return this.onlyListed ? [] : this.singles
  }

  private evidenceOf(entry: TellingEntry, finding: number): Evidence {
    const source = sourceOf(entry, this.options.errors)
    const { suspects, likeable } = this
    const { own, like } = this.chancesAt(entry, finding, source)
    const likelihood = new Float64Array(suspects.length + likeable.length)
    suspects.forEach((suspect, i) => (likelihood[i] = own(suspect, i)))
    likeable.forEach((_, single) => (likelihood[suspects.length + single] = like(single)))
    return { id: entry.id, ...source, likelihood }
  }

  /** How probable a finding is for a suspect, and for what is on no list and looks like a single one. */
  private chancesAt(
    entry: TellingEntry,
    finding: number,
    source: Pick<Evidence, 'hit' | 'miss'>,
  ): { own: (suspect: Suspect, i: number) => number; like: (single: number) => number } {
    const { errors } = this.options
    if ('blamed' in entry) {
      // Whom somebody blamed is nothing that an installation shows, and no likeness.
      const told = errors.told ?? usualToldError
      return { own: (suspect) => blamedOf(this.circuit, suspect, entry, errors), like: () => told }
    }
    if ('see' in entry && entry.see.at === 'wiring') {
      const { see, found } = entry
      const mended = this.mendedBefore(entry.id)
      return {
        own: (suspect) => chanceOf(this.wiringAt(suspect, see.thing, mended), see, found, errors),
        like: (single) => likeness(chanceOf(this.wiringLike(single, see.thing), see, found, errors), source),
      }
    }
    return {
      own: (_, i) => nth(this.shownBy(i).chances, finding),
      like: (single) => likeness(nth(nth(this.shown, nth(this.by.kindOf, single)).chances, finding), source),
    }
  }

  /** The state a look was made in; or would have been, had what goes before it been done. */
  private stateAt({ id, after = [] }: HuntFinding): string {
    const at = this.log.findIndex((entry) => entry.id === id)
    return stateAfter(this.circuit, [...this.log.slice(0, at), ...asEntries(after)])
  }

  /** Entries that do not fit the installation; the others can be followed. */
  misfits(log: readonly HuntEntry[]): Misfit[] {
    // Whatever was put right besides changes nothing of several at once.
    const isKnown = (id: string) =>
      this.onlyListed || this.singles.some((one) => causesOf(one).some((cause) => cause.id === id))
    return [
      ...misfits(this.circuit, log, this.ground.whole),
      ...log.flatMap((entry) =>
        'mended' in entry && !isKnown(entry.mended)
          ? [{ entry: entry.id, reason: `there is no suspect "${entry.mended}"` }]
          : [],
      ),
    ]
  }
}

const forkAs = (course: Course, own: Circuit | undefined): Course => (own ? course.forkAs(own) : course.fork())

/** Whatever the two are called. */
const saysTheSame = (one: HuntEntry, other: HuntEntry | undefined): boolean =>
  other !== undefined && same({ ...one, id: '' }, { ...other, id: '' })
