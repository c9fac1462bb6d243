import { ApiError, call, errorText } from '../api/client'
import { edited, editedBy, EditError, replaceWith, type Command, type Installation } from '@nobbet/core'
import type { Draft } from '@nobbet/contract'
import { v4 as newId } from 'uuid'
import { keep, readKept, tabName, type KeptWiring, type Step } from './kept'

/** How the draft stands to the server. */
export type Saving =
  | { is: 'saved' }
  | { is: 'saving' }
  /** The server cannot be reached: everything is kept here and sent when it is back. */
  | { is: 'kept-here' }
  /** Somebody else has written meanwhile. */
  | { is: 'changed'; theirs: Draft; problem?: string }
  | { is: 'refused'; reason: string }

export interface WiringState {
  doc?: Installation
  version: number
  done: readonly Step[]
  undone: readonly Step[]
  saving: Saving
  error?: Error
}

const sendAfterMs = 700
const tryAgainMs = 4000

/**
 * The wiring of a job under the hand: every step undone without limit, kept in the browser at once, sent to the server a
 * moment later. One for each job and tab; it lives outside React, so that a step done on one screen can be undone on another.
 */
export class WiringStore {
  private state: WiringState = { version: 0, done: [], undone: [], saving: { is: 'saved' } }
  private readonly listeners = new Set<() => void>()
  private readonly tab = tabName()
  private pending: Command[] = []
  private timer: ReturnType<typeof setTimeout> | undefined
  private sending = false
  private loading: Promise<void> | undefined

  constructor(
    private readonly job: string,
    /** Told of every state of the draft that the server has acknowledged. */
    private readonly acknowledged: (draft: Draft) => void,
    /** Told of every state under the hand, so that the other screens show it too. */
    private readonly underHand: (doc: Installation) => void,
  ) {}

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener)
    return () => void this.listeners.delete(listener)
  }
  readonly current = (): WiringState => this.state

  /** Brings the draft: what was kept here goes before what the server has. */
  load(): Promise<void> {
    this.loading ??= this.begin().catch((error: Error) => this.set({ error }))
    return this.loading
  }
  again(): void {
    this.loading = undefined
    this.set({ error: undefined })
    void this.load()
  }

  private async begin(): Promise<void> {
    const kept = await readKept(this.job, this.tab)
    const theirs = await this.fetched().catch((error: Error) => {
      // Without the server, what was kept here is what there is.
      if (kept && !(error instanceof ApiError)) return undefined
      throw error
    })
    if (kept && (!theirs || theirs.version === kept.version)) {
      this.pending = kept.pending
      this.set({ doc: kept.doc, version: kept.version, done: kept.done, undone: kept.undone })
      if (kept.pending.length > 0) this.schedule(0)
      return
    }
    if (kept && theirs && kept.pending.length > 0) {
      this.pending = kept.pending
      this.set({
        doc: kept.doc,
        version: kept.version,
        done: kept.done,
        undone: kept.undone,
        saving: { is: 'changed', theirs },
      })
      return
    }
    if (kept && theirs) this.join(kept.doc, theirs, kept)
    else this.take(theirs!)
  }

  private fetched = (): Promise<Draft> => call('readDraft', { params: { job: this.job } })

  /** Another screen has written the draft: it is taken over where nothing of one's own is on its way. */
  adopt(draft: Draft): void {
    const { doc, version } = this.state
    if (!doc || draft.version <= version || this.pending.length > 0 || this.sending) return
    this.join(doc, draft, this.state)
  }

  /** What was done elsewhere is one step more, so that what was done before it can still be taken back. */
  private join(doc: Installation, draft: Draft, { done, undone }: Pick<WiringState, 'done' | 'undone'>): void {
    const command = replaceWith(doc, draft.installation, 'Changed on another screen')
    const inverse = command && edited(doc, command).inverse
    this.set({
      doc: draft.installation,
      version: draft.version,
      done: command && inverse ? [...done, { command, inverse }] : done,
      undone: command ? [] : undone,
      saving: { is: 'saved' },
    })
    this.keepHere()
    this.acknowledged(draft)
  }

  private take(draft: Draft): void {
    this.pending = []
    this.set({ doc: draft.installation, version: draft.version, done: [], undone: [], saving: { is: 'saved' } })
    this.keepHere()
    this.acknowledged(draft)
  }

  /** Does one step. Throws {@link EditError} where it cannot be done any more. */
  perform(command: Command): void {
    const { doc, done } = this.state
    if (!doc) return
    const { doc: next, inverse } = edited(doc, command)
    this.pending.push(command)
    this.set({ doc: next, done: [...done, { command, inverse }], undone: [] })
    this.stir()
  }
  readonly undo = (): void => {
    const { doc, done, undone } = this.state
    const step = done[done.length - 1]
    if (!doc || !step) return
    this.pending.push(step.inverse)
    this.set({ doc: edited(doc, step.inverse).doc, done: done.slice(0, -1), undone: [step, ...undone] })
    this.stir()
  }
  readonly redo = (): void => {
    const { doc, done, undone } = this.state
    const [step] = undone
    if (!doc || !step) return
    this.pending.push(step.command)
    this.set({ doc: edited(doc, step.command).doc, done: [...done, step], undone: undone.slice(1) })
    this.stir()
  }

  /** Something was done: it is kept here at once, and sent when the hand rests. */
  private stir(): void {
    this.keepHere()
    if (this.state.doc) this.underHand(this.state.doc)
    if (this.state.saving.is === 'changed') return
    this.set({ saving: { is: 'saving' } })
    this.schedule(sendAfterMs)
  }

  private schedule(ms: number): void {
    clearTimeout(this.timer)
    this.timer = setTimeout(() => void this.send(), ms)
  }

  private async send(): Promise<void> {
    const { doc, version } = this.state
    if (this.sending || !doc || this.pending.length === 0) return
    this.sending = true
    const sent = this.pending.length
    try {
      const saved = await call('writeDraft', { params: { job: this.job }, body: { installation: doc }, over: version })
      this.pending = this.pending.slice(sent)
      this.set({ version: saved.version, saving: this.pending.length > 0 ? { is: 'saving' } : { is: 'saved' } })
      this.keepHere()
      this.acknowledged({ ...saved, installation: this.state.doc ?? saved.installation })
      if (this.pending.length > 0) this.schedule(sendAfterMs)
    } catch (error) {
      if (!(error instanceof ApiError)) this.notReached()
      else if (error.status === 412) await this.meet()
      else this.set({ saving: { is: 'refused', reason: errorText(error) } })
    } finally {
      this.sending = false
    }
  }

  private notReached(): void {
    this.set({ saving: { is: 'kept-here' } })
    this.keepHere()
    this.schedule(tryAgainMs)
  }

  /** Somebody else has written: what they have is fetched, and the person asked. */
  private async meet(): Promise<void> {
    try {
      this.set({ saving: { is: 'changed', theirs: await this.fetched() } })
    } catch {
      this.notReached()
    }
  }

  /** Does one's own unsent steps again, on what they have written. Says which one cannot be done, and then changes nothing. */
  replayOnTheirs(): void {
    const { saving } = this.state
    if (saving.is !== 'changed') return
    const { theirs } = saving
    try {
      const doc = editedBy(theirs.installation, this.pending)
      // What was acknowledged before is part of theirs now; how to take it back may not fit any more.
      const done: Step[] = []
      let at = theirs.installation
      for (const command of this.pending) {
        const after = edited(at, command)
        done.push({ command, inverse: after.inverse })
        at = after.doc
      }
      this.set({ doc, version: theirs.version, done, undone: [], saving: { is: 'saving' } })
      this.keepHere()
      this.schedule(0)
    } catch (error) {
      if (!(error instanceof EditError)) throw error
      this.set({ saving: { is: 'changed', theirs, problem: error.message } })
    }
  }

  /** Keeps one's own as a revision that never changes, and goes on from theirs. */
  async keepMineAsRevision(): Promise<void> {
    const { saving, doc } = this.state
    if (saving.is !== 'changed' || !doc) return
    const name = `Mine, when two had changed it, ${new Date().toLocaleString('en-GB', { dateStyle: 'short', timeStyle: 'short' })}`
    try {
      await call('writeRevision', {
        params: { job: this.job, revision: newId() },
        body: { kind: 'altered', name, installation: doc },
      })
      this.take(await this.fetched())
    } catch (error) {
      this.set({ saving: { ...saving, problem: `Not kept: ${errorText(error as Error)}` } })
    }
  }

  private keepHere(): void {
    const { doc, version, done, undone } = this.state
    if (!doc) return
    const kept: KeptWiring = {
      job: this.job,
      tab: this.tab,
      version,
      doc,
      done: [...done],
      undone: [...undone],
      pending: [...this.pending],
      alive: Date.now(),
    }
    void keep(kept).catch(() => undefined)
  }

  private set(change: Partial<WiringState>): void {
    this.state = { ...this.state, ...change }
    for (const listener of this.listeners) listener()
  }
}
