import type { Clash, FieldChange } from '@nobbet/core'
import type { JobState, JobSummary, LogEntry, PhotoWrite } from '@nobbet/contract'

/** Something that the server has not taken in yet, with its place in the queue. */
export type Pending = { key: number; job: string } & (
  | {
      kind: 'entry'
      logged: LogEntry
      /** Number of the log on which it was made: while nothing else came in, it needs no second look. */
      on: number
    }
  /** A photo to be pinned, its picture kept beside the queue; or the photo of that id is to be taken down. */
  | { kind: 'photo'; id: string; pin?: Omit<PhotoWrite, 'image' | 'thumbnail'>; at: string }
)
export type PendingEntry = Extract<Pending, { kind: 'entry' }>
type Without<T, K extends string> = T extends unknown ? Omit<T, K> : never
export type NewPending = Without<Pending, 'key' | 'job'>

/** A job as the server last told it. */
export interface Known {
  state: JobState
  /** When that was, ms since 1970. */
  readAt: number
}

/** Something of mine that met something of theirs, until one of them is chosen. */
export interface KeptClash {
  id: string
  job: string
  /** The entry of mine it was part of, and what I had called it. */
  of: string
  label: string
  at: string
  clash: Clash
  /** Who had changed it, and when, where their entry is known. */
  by?: { author: string; at: string }
}

/** One step of work that can be taken back: the entry it made, and what that changed. */
export interface Step {
  entry: string
  label: string
  changes: FieldChange[]
}
export interface Steps {
  done: Step[]
  undone: Step[]
}

/** All that is kept here of one job. */
export interface KeptJob {
  known?: Known
  pending: Pending[]
  clashes: KeptClash[]
  steps: Steps
}

/** What a step of work adds and takes away, all at once or not at all. */
export interface Keeping {
  add?: NewPending[]
  /** Pictures of photos among them, as data addresses, by the photo’s id. */
  pictures?: Record<string, string>
  steps?: Steps
  /** Ids of clashes that are settled. */
  settled?: string[]
}

/** How one sitting at Trace stands: the values of its address, by name. */
export type Sitting = Record<string, string[]>

/** What this browser keeps. Each method is one transaction: it has happened whole, or not at all, once it resolves. */
export interface Keeper {
  read(job: string): Promise<KeptJob>
  keep(job: string, keeping: Keeping): Promise<void>
  /** Reads a job, lets it be worked over at once, and writes what is returned, with nobody else in between. */
  rework(job: string, work: (kept: KeptJob) => KeptJob): Promise<KeptJob>
  /** The picture of a photo that is not sent yet. */
  picture(photo: string): Promise<string | undefined>
  /** Jobs of which something is known here. */
  jobs(): Promise<string[]>
  /** Jobs with something that the server has not got. */
  unsent(): Promise<string[]>
  list(): Promise<{ jobs: JobSummary[]; readAt: number } | undefined>
  keepList(jobs: JobSummary[], readAt: number): Promise<void>
  sitting(job: string): Promise<Sitting | undefined>
  keepSitting(job: string, sitting: Sitting): Promise<void>
}

export const noSteps: Steps = { done: [], undone: [] }

/** Under which the small picture of a photo is kept. */
export const smallOf = (photo: string) => `${photo}-small`
