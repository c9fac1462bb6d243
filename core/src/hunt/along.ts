import type { Circuit } from '../circuit'
import { restOf, variantOf, type Hypothesis } from '../hypotheses'
import { isSetByHand } from '../inputs'
import { nth } from '../lists'
import type { Found } from '../looks'
import type { Simulation } from '../simulation'
import type { HuntEntry, HuntFinding, HuntOptions } from './case'
import { Course } from './course'
import type { Ground, Kind } from './ground'
import { chanceWith, oddsOfTold, type Expected } from './likelihood'
import { causesOf, type Suspect } from './suspects'

/** What a suspect, or one kind of them, would have shown along the log. */
export interface Shown {
  course: Course
  /** Of each finding, in the order of the log: how probable it is here, and what would have been shown. */
  chances: number[]
  expected: Expected[]
  kind: Kind
  /** Whose it is: the first of its kind, or the one of whom something was put right. */
  of: string
  /** Entries of the log that it has been taken along. */
  gone: number
  /** Ids of those of its causes that were put right so far, of it itself. */
  right: ReadonlySet<string>
}

/** Takes suspects along a log, entry by entry. */
export class Along {
  constructor(
    private readonly circuit: Circuit,
    private readonly options: HuntOptions,
    private readonly ground: Ground,
  ) {}

  begun(kind: Kind, of: string): Shown {
    return {
      course: new Course(this.ground.restOf(kind).fork()),
      kind,
      chances: [],
      expected: [],
      of,
      gone: 0,
      right: new Set(),
    }
  }

  /** `putRight`: what is put right in the log is put right of it; else it goes on as it was, like something that only looks like it. */
  step(shown: Shown, entry: HuntEntry, suspect: Suspect, putRight: boolean): void {
    const { course } = shown
    shown.gone++
    if ('do' in entry) return course.act(entry.do)
    const still = causesOf(suspect).filter(({ id }) => !shown.right.has(id))
    if ('mended' in entry) {
      const [mended, left] = apartBy(still, ({ id }) => putRight && id === entry.mended)
      shown.right = withAll(shown.right, mended)
      if (mended.length > 0) course.mended(sameControls(this.restOf(left), course.sim))
      return
    }
    if ('renew' in entry) {
      const [renewed, left] = apartBy(still, (cause) => putRight && isOf(cause, entry))
      shown.right = withAll(shown.right, renewed)
      if (renewed.length > 0)
        course.sim.mend(
          'hypothesis',
          renewed.flatMap(({ variant }) => variant.defects),
        )
      const defects = renewed.length > 0 ? left.flatMap(({ variant }) => variant.defects) : []
      if (defects.length > 0) course.sim.putIn('hypothesis', defects)
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
    if ('says' in entry) {
      const { hit, miss } = oddsOfTold(entry.says, errors)
      // Of what is on no list anything may be said that there is to say.
      if (!hypothesis) return { expected: 'open', chance: miss / (1 - hit + miss) }
      const holds = this.ground.noticing(kind).holds(entry.says)
      return { expected: { word: holds ? 'yes' : 'no' }, chance: holds ? hit : miss }
    }
    if ('blamed' in entry) return { expected: 'open', chance: 1 }
    const { see, found } = entry
    const shows = hypothesis ? course.shows(see) : { expected: 'open' as const, beside: [] }
    return { expected: shows.expected, chance: chanceWith(shows, see, found, errors) }
  }

  /** At rest, with this wrong and nothing else. */
  private restOf(left: readonly Hypothesis[]): Simulation {
    return left.length === 0 ? this.ground.whole : restOf(this.circuit, variantOf(left), this.ground.whole)
  }
}

/** A failure of a device, or of the part of it, that was changed for a new one? */
export function isOf({ kind, id }: Hypothesis, { renew, part }: Extract<HuntEntry, { renew: string }>): boolean {
  const [device, own] = id.split('.')
  return kind === 'part' && device === renew && (part === undefined || own === part)
}

const withAll = (right: ReadonlySet<string>, more: readonly Hypothesis[]): ReadonlySet<string> =>
  more.length === 0 ? right : new Set([...right, ...more.map(({ id }) => id)])

function apartBy<T>(all: readonly T[], is: (one: T) => boolean): [T[], T[]] {
  return [all.filter(is), all.filter((one) => !is(one))]
}

/** An entry from which something is learnt. */
export type TellingEntry =
  (HuntFinding & { found: Found }) | Extract<HuntEntry, { says: unknown }> | Extract<HuntEntry, { blamed: unknown }>
export const tells = (entry: HuntEntry): entry is TellingEntry =>
  'says' in entry || 'blamed' in entry || ('see' in entry && typeof entry.found !== 'string')

/**
 * An installation at rest, with the controls where those of another have been set. What had come to stand otherwise by itself, or
 * was left so (a lockout, a lever), is put right with the rest; pipes that were hot are hot still.
 */
function sameControls(rest: Simulation, like: Simulation): Simulation {
  const sim = rest.fork()
  for (const { device, id } of like.circuit.controls) {
    const { device: owner, type } = nth(like.circuit.devices, device)
    const control = type.controls.find((c) => c.id === id)
    const value = like.control(owner.id, id)
    if (control?.kind === 'choice' && !isSetByHand(like.circuit, owner.id, id)) continue
    if (value !== sim.control(owner.id, id)) sim.set(owner.id, id, String(value))
  }
  sim.warmAs(like)
  return sim
}
