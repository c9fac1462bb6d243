import type { JobState, PhotoWrite } from '@nobbet/contract'
import { same, type Renaming } from '@nobbet/core'
import type { KeptClash, Step } from './kept'
import type { Sending } from './sending'

/** What a screen sees of a job. */
export interface JobView {
  /** The job with everything that was done here; undefined while nothing is known of it. */
  state?: JobState
  done: readonly Step[]
  undone: readonly Step[]
  clashes: readonly KeptClash[]
  /** Photos that are not sent yet; without a picture, one that is to be taken down. */
  photos: readonly { id: string; pin?: Omit<PhotoWrite, 'image'>; at: string }[]
  /** How much is not sent yet. */
  unsent: number
  sending: Sending
  /** When something done here arrived at the server last, ms since 1970. */
  deliveredAt?: number
  /** The server could not be asked: what is shown is as it was told at that time, ms since 1970. */
  age?: { readAt: number; reason: string }
  /** Nothing can be shown, and why. */
  error?: Error
  /** New entries of mine that go by another id now, since somebody else had taken it; until they have been seen. */
  renamed: readonly Renaming[]
  /** What was done last could not be done or kept, and why. */
  problem?: string
}

/** The new state, with what says the same as before being the very same: nothing is worked out again for it. */
export function stillTheSame(before: JobState | undefined, now: JobState | undefined): JobState | undefined {
  if (!before || !now) return now
  const keep = <T>(old: T, next: T): T => (same(old, next) ? old : next)
  const document = {
    brief: keep(before.document.brief, now.document.brief),
    status: now.document.status,
    wiring: keep(before.document.wiring, now.document.wiring),
  }
  return {
    ...now,
    document: same(before.document, document) ? before.document : document,
    findings: keep(before.findings, now.findings),
    hunt: keep(before.hunt, now.hunt),
    revisions: keep(before.revisions, now.revisions),
  }
}
