import type { JobState, LogTail, LogWrite, PhotoWrite } from '@nobbet/contract'
import { ApiError, errorText, UnreadableAnswer } from '../api/client'

/** What the store asks of the server. */
export interface Server {
  readJob(job: string): Promise<JobState>
  readLog(job: string, after: number): Promise<LogTail>
  writeLog(job: string, write: LogWrite): Promise<LogTail>
  writePhoto(job: string, id: string, write: PhotoWrite): Promise<unknown>
  deletePhoto(job: string, id: string): Promise<unknown>
}

/** An answer that has not come within this time is not waited for, ms. What it was about may be asked again without harm. */
export const longestMs = 20_000

/** The server has not answered in time. */
export class Stalled extends Error {
  constructor() {
    super('The server does not answer.')
    this.name = 'Stalled'
  }
}

export async function inTime<T>(asked: Promise<T>): Promise<T> {
  let timer: ReturnType<typeof setTimeout> | undefined
  const late = new Promise<never>((_, failed) => {
    timer = setTimeout(() => failed(new Stalled()), longestMs)
  })
  try {
    return await Promise.race([asked, late])
  } finally {
    clearTimeout(timer)
  }
}

/**
 * What to make of a failure: `passing` may go by itself and is tried again; `met`, somebody else was there first; `nonsense`,
 * something answered that is not this server; `final` will be the same next time.
 */
export function kindOf(error: unknown): 'passing' | 'met' | 'nonsense' | 'final' {
  if (error instanceof UnreadableAnswer) return 'nonsense'
  if (!(error instanceof ApiError)) return 'passing'
  if (error.status === 412) return 'met'
  return error.status >= 500 || [408, 425, 429].includes(error.status) ? 'passing' : 'final'
}

/** So many answers in a row that make no sense are tried again. */
export const nonsenseTries = 3

/** Pause before the next try after so many failures, ms: doubling from a second to a minute, never two clients in step. */
export const pauseMs = (failures: number, chance = Math.random): number =>
  Math.min(60_000, 1000 * 2 ** Math.min(failures - 1, 6)) * (1 + 0.2 * chance())

/** How what was done here stands to the server. */
export type Sending =
  | { is: 'saved' }
  | { is: 'saving' }
  /** It may pass: everything is kept here, and tried again. */
  | { is: 'kept-here'; reason: string }
  /** It will not pass by itself: everything is kept here until somebody does something. `first`: what the server refuses. */
  | { is: 'stopped'; reason: string; first?: string }

export const reasonOf = (error: unknown): string => errorText(error as Error)
