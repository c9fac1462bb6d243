import { surveyAfter, type SurveyDeed } from '@nobbet/contract'
import type { Survey } from '@nobbet/core'
import type { JobStore } from '../store/job-store'
import { seenOf } from './use-survey'

/**
 * What was written down and is on its way into the browser's database: whoever writes fast goes on from it at once, and writes nothing
 * over what is not there yet.
 */
export class OnTheWay {
  private deeds: readonly SurveyDeed[] = []
  private readonly listeners = new Set<() => void>()

  constructor(private readonly store: JobStore) {}

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener)
    return () => void this.listeners.delete(listener)
  }
  current = (): readonly SurveyDeed[] => this.deeds

  /** The survey with everything that is on its way. */
  survey = (): Survey => withDeeds(seenOf(this.store.current().state!), this.deeds)

  record(deed: SurveyDeed): void {
    this.set([...this.deeds, deed])
    void this.store.record(deed).finally(() => this.set(this.deeds.filter((one) => one !== deed)))
  }

  private set(deeds: readonly SurveyDeed[]): void {
    this.deeds = deeds
    for (const listener of this.listeners) listener()
  }
}

/** What is recorded already comes to the same when it is done again. */
export const withDeeds = (seen: Survey, deeds: readonly SurveyDeed[]): Survey =>
  deeds.reduce((at, deed) => surveyAfter({ seen: at }, deed, '').seen, seen)
