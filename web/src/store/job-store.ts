import {
  documentProblems,
  grown,
  jobDocumentSchema,
  jobGround,
  jobShape,
  LogError,
  openVisit,
  recordOf,
  type Entry,
  type JobDocument,
  type LogEntry,
  type LogTail,
  type PhotoWrite,
} from '@nobbet/contract'
import { ChangeError, changesBetween, EditError, insisted, inverted, rebased, same, type Clash } from '@nobbet/core'
import { v4 as newId } from 'uuid'
import { absorbed, assembled, readAnew, type Assembled } from './assemble'
import {
  noSteps,
  smallOf,
  type Keeper,
  type Keeping,
  type KeptClash,
  type KeptJob,
  type NewPending,
  type Pending,
  type Step,
} from './kept'
import { batchOf, labelOf, mostEntries } from './batch'
import { stillTheSame, type JobView } from './job-view'
import { Queue } from './queue'
import { inTime, kindOf, reasonOf, type Server } from './sending'
import type { Tabs } from './tabs'
import { entryOf } from './who'

/** Steps that can be taken back. */
const mostSteps = 500
/**
 * A job under the hand, outside of React. Everything done is kept in this browser before it is shown as done, goes to the server
 * in order, and stands on whatever others have made of the job meanwhile.
 */
export class JobStore {
  private view: JobView = {
    renamed: [],
    done: [],
    undone: [],
    clashes: [],
    photos: [],
    unsent: 0,
    sending: { is: 'saved' },
  }
  private readonly listeners = new Set<() => void>()
  /** The job with what is just being kept; shown once it is. */
  private ahead: Assembled
  private keeping: Promise<void> = Promise.resolve()
  private loading: Promise<void> | undefined
  private readonly queue: Queue
  private misfits = 0
  /** How many entries go at once. */
  private most = mostEntries
  /** Rises whenever something could not be kept: what was worked out on top of it is not what is there. */
  private unkept = 0

  constructor(
    readonly job: string,
    private readonly deps: { keeper: Keeper; server: Server; tabs: Tabs },
  ) {
    this.ahead = { kept: { pending: [], clashes: [], steps: noSteps }, state: undefined, renamings: [] }
    this.queue = new Queue({
      alone: (work) => deps.tabs.alone(job, work),
      next: () => this.sendNext(),
      left: () => this.view.unsent,
      first: () => labelOf(this.ahead.kept.pending[0]),
      tell: (sending) => this.set({ sending }),
    })
    deps.tabs.listen((heard) => {
      if (heard === job && this.loading) void this.reread().then(() => this.queue.stir())
    })
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener)
    return () => void this.listeners.delete(listener)
  }
  readonly current = (): JobView => this.view

  /** Brings the job: what is kept here at once, what the server has as soon as it answers. */
  load(): Promise<void> {
    this.loading ??= this.begin()
    return this.loading
  }
  private async begin(): Promise<void> {
    await this.reread()
    await this.catchUp()
    this.queue.wake()
  }

  /** Asks the server what is new. What is shown stays where it cannot be asked. */
  async catchUp(): Promise<void> {
    const { job, deps } = this
    try {
      const { known, pending } = await deps.keeper.read(job)
      // A job that was begun here and has not arrived yet is not there to be asked for.
      if (!known && pending.some((p) => p.kind === 'entry' && p.logged.entry.do === 'open')) return
      if (known) {
        await this.takeIn(await inTime(deps.server.readLog(job, known.state.number)))
      } else await this.readAnew()
      this.set({ age: undefined, error: undefined })
      // The server is there again: what waits need not wait for the end of its pause.
      if (this.queue.failing) this.queue.wake()
    } catch (error) {
      const { known } = this.ahead.kept
      if (known) this.set({ age: { readAt: known.readAt, reason: reasonOf(error) } })
      else if (!this.ahead.state) this.set({ error: error as Error })
    }
  }

  /** The page is looked at again, or the connection is back. */
  wake(): void {
    if (!this.loading) return
    void this.catchUp()
    this.queue.wake()
  }

  /** Tries again what had been given up. */
  readonly again = (): void => {
    this.misfits = 0
    this.set({ error: undefined, problem: undefined })
    void this.catchUp()
    this.queue.wake(true)
  }

  /**
   * Changes brief or wiring, as one step that can be taken back. Throws {@link EditError} where the job would make no sense.
   * Resolves once it is kept.
   */
  edit(label: string, change: (document: JobDocument) => JobDocument): Promise<void> {
    const entry = this.editOf(label, change(this.document()))
    return entry ? this.step(entry, { keepsUndone: false }) : Promise.resolve()
  }

  /**
   * Makes what differs between a state that somebody began with and the one they want. What others have changed since is left
   * alone; where both have touched one thing it is asked. True where all of it stands. Throws {@link EditError} where the job would
   * make no sense.
   */
  async editFrom(label: string, start: JobDocument, wanted: JobDocument): Promise<boolean> {
    const document = this.document()
    const changes = changesBetween(jobShape, start, wanted)
    const result = rebased(jobGround, document, changes)
    const id = newId()
    const entry = this.editOf(label, result.doc)
    if (entry) await this.step(entry, { keepsUndone: false, id })
    if (result.clashes.length > 0) await this.addClashes(result.clashes, id, label)
    return result.clashes.length === 0
  }

  /** What goes by another id now has been seen. */
  readonly seen = (): void => this.set({ renamed: [] })

  /** Says why something asked for was not done. */
  refuse(reason: string): void {
    this.set({ problem: reason })
  }

  readonly undo = (): void => void this.back('done')
  readonly redo = (): void => void this.back('undone')

  /** Takes the last step back, or does the last one taken back again; on whatever stands there now. */
  private async back(from: 'done' | 'undone'): Promise<void> {
    const steps = this.ahead.kept.steps
    const step = from === 'done' ? steps.done.at(-1) : steps.undone.at(0)
    if (!step || !this.ahead.state) return
    const wanted = from === 'done' ? inverted(step.changes) : step.changes
    const { changes, clashes } = rebased(jobGround, this.ahead.state.document, wanted)
    const label = `${from === 'done' ? 'Undo' : 'Again'}: ${step.label}`.slice(0, 200)
    const id = newId()
    const moved: Step = { ...step, entry: from === 'done' ? step.entry : id }
    const after =
      from === 'done'
        ? { done: steps.done.slice(0, -1), undone: [moved, ...steps.undone] }
        : { done: [...steps.done, moved], undone: steps.undone.slice(1) }
    const add: NewPending[] =
      changes.length > 0
        ? [this.newEntry({ do: 'edit', label, changes, ...(from === 'done' && { undoes: step.entry }) }, id)]
        : []
    await this.keep({ add, steps: after })
    // Somebody has been there since: what they have made of it stands, and is asked about.
    if (clashes.length > 0) await this.addClashes(clashes, id, label)
  }

  private async addClashes(clashes: readonly Clash[], of: string, label: string): Promise<void> {
    const at = new Date().toISOString()
    const made = clashes.map((clash): KeptClash => ({ id: newId(), job: this.job, of, label, at, clash }))
    await this.rework((kept) => assembled(this.job, { ...kept, clashes: [...kept.clashes, ...made] }), true)
  }

  /** Puts what an entry of mine wanted there, or lets theirs stand; mine is then in the log all the same. */
  async choose(id: string, choice: 'mine' | 'theirs'): Promise<void> {
    const clash = this.ahead.kept.clashes.find((c) => c.id === id)
    if (!clash) return
    if (choice === 'theirs') {
      const { label, of } = clash
      await this.keep({ add: [this.newEntry({ do: 'aside', label, of, changes: clash.clash.mine })], settled: [id] })
      return
    }
    const document = insisted(jobGround, this.document(), clash.clash)
    if (!document) return this.set({ problem: `“${clash.label}” cannot be done any more: what it needs is not there.` })
    const entry = this.editOf(clash.label, document)
    if (entry) await this.step(entry, { settled: [id] })
    else await this.keep({ settled: [id] })
  }

  /** Records something that changes neither brief nor wiring. */
  record(entry: Exclude<Entry, { do: 'edit' }>): Promise<void> {
    return this.keep({ add: [this.newEntry(entry)] })
  }

  /** Pins a photo, or takes one down. */
  photo(id: string, write?: PhotoWrite): Promise<void> {
    const at = new Date().toISOString()
    if (!write) return this.keep({ add: [{ kind: 'photo', id, at }] })
    const { image, thumbnail, ...pin } = write
    const pictures = { [id]: image, ...(thumbnail !== undefined && { [smallOf(id)]: thumbnail }) }
    return this.keep({ add: [{ kind: 'photo', id, pin, at }], pictures })
  }

  /**
   * Takes the first thing out of the queue, which the server will not take, so that the rest can go. A change is kept to be
   * chosen again, a finding or note goes on as a note; a photo is dropped.
   */
  async putAside(): Promise<void> {
    await this.rework((kept) => {
      const [first, ...rest] = kept.pending
      if (!first) return assembled(this.job, kept)
      // The rest was made with it in place: each is looked at again.
      const pending = rest.map((p) => (p.kind === 'entry' ? { ...p, on: -1 } : p))
      if (first.kind === 'photo') return assembled(this.job, { ...kept, pending })
      const { logged } = first
      const { entry, id, at } = logged
      if (entry.do === 'edit') {
        const clash: Clash = { mine: entry.changes, why: 'senseless', restore: [] }
        const made: KeptClash = { id: newId(), job: this.job, of: id, label: entry.label, at, clash }
        return assembled(this.job, { ...kept, pending, clashes: [...kept.clashes, made] })
      }
      const text = `Could not be recorded as it was: ${JSON.stringify(entry)}`.slice(0, 2000)
      const note: Pending = { ...first, on: -1, logged: { ...logged, id: newId(), entry: { do: 'note', text } } }
      return assembled(this.job, { ...kept, pending: [note, ...pending] })
    }, true)
    this.again()
  }

  private document(): JobDocument {
    const document = this.ahead.state?.document
    if (!document) throw new EditError('the job has not been read yet')
    return document
  }

  private editOf(label: string, next: JobDocument): Extract<Entry, { do: 'edit' }> | undefined {
    const before = this.document()
    const read = jobDocumentSchema.safeParse(next)
    // As it is kept: blanks about a text gone, what nobody knows left out.
    const wanted = read.success && !same(read.data, next) ? read.data : next
    const changes = changesBetween(jobShape, before, wanted)
    if (changes.length === 0) return undefined
    const [problem] = documentProblems(wanted)
    if (problem) throw new EditError(problem.field ? `${problem.field}: ${problem.reason}` : problem.reason)
    return { do: 'edit', label: label.slice(0, 200), changes }
  }

  private step(
    entry: Extract<Entry, { do: 'edit' }>,
    { settled, keepsUndone = true, id }: { settled?: string[]; keepsUndone?: boolean; id?: string },
  ): Promise<void> {
    const { done, undone } = this.ahead.kept.steps
    const made = this.newEntry(entry, id)
    const step: Step = { entry: made.logged.id, label: entry.label, changes: entry.changes }
    const steps = { done: [...done, step].slice(-mostSteps), undone: keepsUndone ? undone : [] }
    return this.keep({ add: [made], steps, settled })
  }

  private newEntry(entry: Entry, id?: string): Extract<NewPending, { kind: 'entry' }> {
    const attends = (entry.do === 'open' ? entry : this.ahead.state?.document)?.brief.engineer ?? ''
    const { state } = this.ahead
    // What is written while a visit is open was done on it.
    const visit = entry.do === 'visit' ? entry.visit.id : state && openVisit(recordOf(state))?.id
    return { kind: 'entry', logged: entryOf(entry, attends, id, visit), on: this.ahead.kept.known?.state.number ?? 0 }
  }

  /** Keeps something and then shows it; what cannot be kept is not shown as done. */
  private keep(keeping: Keeping): Promise<void> {
    const { job, deps } = this
    const { add = [], steps, settled = [] } = keeping
    const { kept, state } = this.ahead
    const pending = [...kept.pending, ...add.map((one): Pending => ({ ...one, job, key: Number.MAX_SAFE_INTEGER }))]
    const clashes = kept.clashes.filter((c) => !settled.includes(c.id))
    const after = add.reduce((at, one) => (one.kind === 'entry' ? grown(at, one.logged, job) : at), state)
    const ahead: Assembled = {
      kept: { ...kept, pending, clashes, steps: steps ?? kept.steps },
      state: after,
      renamings: [],
    }
    this.ahead = ahead
    const unkept = this.unkept
    const mine = this.keeping.then(async () => {
      try {
        await deps.keeper.keep(job, keeping)
        if (unkept === this.unkept) this.show(ahead, { problem: undefined })
        else await this.showKept()
        deps.tabs.say(job)
        if (add.length === 0) return
        this.queue.stir()
      } catch (error) {
        this.unkept++
        await this.showKept()
        this.set({ problem: `Not kept, and not done: ${(error as Error).message || 'this browser has no room left.'}` })
      }
    })
    this.keeping = mine
    return mine
  }

  /** Shows what is kept, without waiting for what is being kept. */
  private async showKept(): Promise<void> {
    this.ahead = assembled(this.job, await this.deps.keeper.read(this.job))
    this.show(this.ahead)
  }

  /** Shows what is kept, by whichever tab. */
  private async reread(): Promise<void> {
    for (;;) {
      const before = this.keeping
      await before
      const kept = await this.deps.keeper.read(this.job)
      // Something more is being kept by now: it belongs to what is shown.
      if (before !== this.keeping) continue
      this.ahead = assembled(this.job, kept)
      return this.show(this.ahead)
    }
  }

  private async rework(work: (kept: KeptJob) => Assembled, tell: boolean): Promise<void> {
    let renamings: Assembled['renamings'] = []
    await this.deps.keeper.rework(this.job, (kept) => {
      const worked = work(kept)
      renamings = worked.renamings
      return worked.kept
    })
    await this.reread()
    if (renamings.length > 0) this.set({ renamed: [...this.view.renamed, ...renamings] })
    if (tell) this.deps.tabs.say(this.job)
  }

  /** Sends the next batch; false where there is none. */
  private async sendNext(): Promise<boolean> {
    const { job, deps } = this
    const { known, pending } = await deps.keeper.read(job)
    const [first] = pending
    if (!first) {
      this.most = mostEntries
      // Something may have been kept since that was read: it is sent next.
      if (this.view.unsent === 0) this.set({ sending: { is: 'saved' } })
      return false
    }
    if (!this.queue.failing) this.set({ sending: { is: 'saving' } })
    let sent = 0
    try {
      if (first.kind === 'photo') {
        const { id, pin } = first
        const image = pin && (await deps.keeper.picture(id))
        const thumbnail = pin && (await deps.keeper.picture(smallOf(id)))
        if (!pin) await inTime(deps.server.deletePhoto(job, id))
        else if (image !== undefined)
          await inTime(deps.server.writePhoto(job, id, { ...pin, image, ...(thumbnail && { thumbnail }) }))
        const delivered = (kept: KeptJob) => ({ ...kept, pending: kept.pending.filter((p) => p.key !== first.key) })
        await this.rework((kept) => assembled(job, delivered(kept)), true)
      } else {
        const after = known?.state.number ?? 0
        const entries = batchOf(pending, this.most)
        sent = entries.length
        await this.takeIn(await inTime(deps.server.writeLog(job, { after, entries })), entries)
      }
    } catch (error) {
      const kind = kindOf(error)
      // One of many is refused, and which is not said: they go one by one, so that it is found and the ones before it arrive.
      if (kind === 'final' && sent > 1) this.most = 1
      else if (kind === 'met') await this.meet(known?.state.number ?? 0)
      else throw error
      return true
    }
    this.misfits = 0
    this.set({ age: undefined, deliveredAt: Date.now() })
    return true
  }

  /** Somebody else was there first: what they did is brought, and mine made on that. */
  private async meet(after: number): Promise<void> {
    const { job, deps } = this
    const tail = await inTime(deps.server.readLog(job, after))
    if (tail.entries.length > 0) return this.takeIn(tail)
    // Nothing is new, and still it does not fit: what is known here is not what the server has.
    await this.readAnew()
    if (++this.misfits > 3) throw new EditError('what is here and what the server has do not fit together')
  }

  /**
   * Takes in what is new at the server; where that does not follow from what is known here, the job is read anew. What was written
   * is there, whatever else is.
   */
  private async takeIn({ entries, number, lineage }: LogTail, written: readonly LogEntry[] = []): Promise<void> {
    const { job } = this
    const known = this.ahead.kept.known?.state
    // A server whose data were renewed, or put back from an earlier copy: its numbers are not those known here.
    if (number < (known?.number ?? 0) || (known && known.lineage !== lineage)) return this.readAnew(written)
    try {
      await this.rework((kept) => absorbed(job, kept, { entries, lineage }, Date.now()), entries.length > 0)
    } catch (error) {
      if (!(error instanceof ChangeError || error instanceof LogError)) throw error
      await this.readAnew(written)
    }
  }

  private async readAnew(written: readonly LogEntry[] = []): Promise<void> {
    const state = await inTime(this.deps.server.readJob(this.job))
    await this.rework((kept) => readAnew(this.job, without(kept, written), state, Date.now()), true)
  }

  private show({ kept, state }: Assembled, rest: Partial<JobView> = {}): void {
    const { sending } = this.view
    this.set({
      state: stillTheSame(this.view.state, state),
      done: kept.steps.done,
      undone: kept.steps.undone,
      clashes: kept.clashes,
      photos: kept.pending.flatMap((p) => (p.kind === 'photo' ? [{ id: p.id, pin: p.pin, at: p.at }] : [])),
      unsent: kept.pending.length,
      sending: kept.pending.length === 0 ? { is: 'saved' } : sending.is === 'saved' ? { is: 'saving' } : sending,
      ...rest,
    })
  }

  private set(change: Partial<JobView>): void {
    this.view = { ...this.view, ...change }
    for (const listener of this.listeners) listener()
  }
}

/** What is kept, without what has arrived. */
function without(kept: KeptJob, written: readonly LogEntry[]): KeptJob {
  const ids = new Set(written.map(({ id }) => id))
  return { ...kept, pending: kept.pending.filter((p) => p.kind !== 'entry' || !ids.has(p.logged.id)) }
}
