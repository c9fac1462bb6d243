import {
  changesOf,
  grown,
  jobGround,
  renamedEntry,
  type EditEntry,
  type JobState,
  type LogEntry,
  type LogTail,
  type NumberedEntry,
} from '@nobbet/contract'
import { applied, ChangeError, idsAdded, rebased, same, thingOf, type FieldChange, type Renaming } from '@nobbet/core'
import { v4 as newId } from 'uuid'
import type { KeptClash, KeptJob, Pending, PendingEntry, Step, Steps } from './kept'

/** What is kept of a job, worked out: the job with everything that is not sent yet. */
export interface Assembled {
  kept: KeptJob
  state: JobState | undefined
  /** Entries of mine that go by another id now, since theirs had taken it. */
  renamings: readonly Renaming[]
}

/**
 * Puts what is not sent yet on what the server has told. What was made on an older state is made again on this one: where that
 * meets something of theirs, theirs stands and mine is kept as a clash. `theirs` is what came in since.
 */
export function assembled(job: string, kept: KeptJob, theirs: readonly NumberedEntry[] = []): Assembled {
  const state = kept.known?.state
  const number = state?.number ?? 0
  const mine = kept.pending.flatMap((p) => (p.kind === 'entry' ? [p.logged] : []))
  const work = new Work(job, state, theirs, idsAdded(changesOf(mine)))
  const pending = kept.pending.flatMap((one): Pending[] => {
    if (one.kind !== 'entry') return [one]
    const again = work.put(one, number)
    return again ? [again] : []
  })
  const changed = pending.length !== kept.pending.length || pending.some((p, i) => p !== kept.pending[i])
  if (!changed && work.clashes.length === 0) return { kept, state: work.state, renamings: [] }
  const clashes = work.clashes.length > 0 ? [...kept.clashes, ...work.clashes] : kept.clashes
  return {
    kept: { ...kept, pending, clashes, steps: followed(kept.steps, work.rewritten) },
    state: work.state,
    renamings: work.renamings,
  }
}

class Work {
  readonly clashes: KeptClash[] = []
  /** What became of changes of mine, by entry; none where nothing is left of them. */
  readonly rewritten = new Map<string, FieldChange[]>()
  readonly renamings: Renaming[] = []
  private readonly changes: FieldChange[]

  constructor(
    private readonly job: string,
    public state: JobState | undefined,
    private readonly theirs: readonly NumberedEntry[],
    /** Ids that entries of mine are made under. */
    private readonly reserved: ReadonlySet<string>,
  ) {
    this.changes = changesOf(theirs)
  }

  /** Puts one on top; undefined where nothing is left of it. */
  put(one: PendingEntry, on: number): PendingEntry | undefined {
    const entry = this.renamings.reduce(renamedEntry, one.logged.entry)
    const logged = entry === one.logged.entry ? one.logged : { ...one.logged, entry }
    if (entry.do !== 'edit') {
      if (!this.state && entry.do !== 'open') return one
      // The job is there: its beginning has arrived, though the answer to it was lost.
      if (this.state && entry.do === 'open') return undefined
      this.state = grown(this.state, logged, this.job)
      return logged === one.logged && one.on === on ? one : { ...one, logged, on }
    }
    // A job that was never read: what was done to it waits until it is.
    if (!this.state) return one
    if (one.on === on && logged === one.logged && this.fits(entry)) {
      this.state = grown(this.state, logged, this.job)
      return one
    }
    return this.again(one, logged as LogEntry & { entry: EditEntry }, on)
  }

  private fits(entry: EditEntry): boolean {
    try {
      applied(jobGround.shape, this.state!.document, entry.changes)
      return true
    } catch (error) {
      if (error instanceof ChangeError) return false
      throw error
    }
  }

  private again(one: PendingEntry, logged: LogEntry & { entry: EditEntry }, on: number): PendingEntry | undefined {
    const { entry, id } = logged
    const result = rebased(jobGround, this.state!.document, entry.changes, this.changes, this.reserved)
    this.renamings.push(...result.renamings)
    this.clashes.push(
      ...result.clashes.map((clash) => ({
        id: newId(),
        job: this.job,
        of: id,
        label: entry.label,
        at: logged.at,
        clash,
        by: this.whoTouched(clash.mine),
      })),
    )
    const rewritten = !same(result.changes, one.logged.entry.do === 'edit' && one.logged.entry.changes)
    if (rewritten) this.rewritten.set(id, result.changes)
    if (result.changes.length === 0) return undefined
    const next = rewritten ? { ...logged, entry: { ...entry, changes: result.changes } } : one.logged
    this.state = grown(this.state, next, this.job)
    return { ...one, logged: next, on }
  }

  private whoTouched(mine: readonly FieldChange[]): KeptClash['by'] {
    const things = mine.map(thingOf)
    const meets = (path: readonly string[]) =>
      things.some((thing) => thing.every((key, i) => i >= path.length || path[i] === key))
    const entry = this.theirs.findLast(
      ({ entry }) => entry.do === 'edit' && entry.changes.some((c) => meets(thingOf(c))),
    )
    return entry && { author: entry.author, at: entry.at }
  }
}

/** The steps that can be taken back, as their entries now read; those of which nothing is left are none any more. */
function followed(steps: Steps, rewritten: ReadonlyMap<string, FieldChange[]>): Steps {
  if (rewritten.size === 0) return steps
  const follow = (list: readonly Step[]) =>
    list.flatMap((step) => {
      const changes = rewritten.get(step.entry)
      if (!changes) return [step]
      return changes.length > 0 ? [{ ...step, changes }] : []
    })
  return { done: follow(steps.done), undone: follow(steps.undone) }
}

/** What is kept of a job after entries have come in from the server, one's own among them; older ones are known already. */
export function absorbed(
  job: string,
  kept: KeptJob,
  { entries, lineage }: Pick<LogTail, 'entries' | 'lineage'>,
  readAt: number,
): Assembled {
  const from = kept.known?.state.number ?? 0
  const fresh = entries.filter((e) => e.number > from)
  const mine = new Set(kept.pending.flatMap((p) => (p.kind === 'entry' ? [p.logged.id] : [])))
  const after = fresh.reduce<JobState | undefined>((at, entry) => grown(at, entry, job), kept.known?.state)
  if (!after) return assembled(job, kept)
  // A job that was begun here learns with its first answer whose numbers those are.
  const state = { ...after, lineage: after.lineage ?? lineage }
  const delivered = new Set(fresh.map((e) => e.id))
  const others = fresh.filter((e) => !mine.has(e.id))
  const rest = kept.pending.flatMap((p): Pending[] => {
    if (p.kind !== 'entry') return [p]
    if (delivered.has(p.logged.id)) return []
    // Only one's own came in before it: what it was made on is what stands there.
    return others.length === 0 && p.on === from ? [{ ...p, on: state.number }] : [p]
  })
  return assembled(job, { ...kept, known: { state, readAt }, pending: rest }, others)
}

/** What is kept of a job after the server has told it whole. */
export function readAnew(job: string, kept: KeptJob, state: JobState, readAt: number): Assembled {
  // Made on another state, whatever its number: each is looked at again.
  const pending = kept.pending.map((p) => (p.kind === 'entry' ? { ...p, on: -1 } : p))
  return assembled(job, { ...kept, pending, known: { state, readAt } })
}
