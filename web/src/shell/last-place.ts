import type { JobBrief } from '@nobbet/contract'

/** Where work on a job begins: a fault at the hunt, other controls at what moves for them, everything else at its plan. */
export const firstStation = (kind: JobBrief['kind']): 'hunt' | 'change' | 'plan' =>
  kind === 'fault' ? 'hunt' : kind === 'change-of-controls' ? 'change' : 'plan'

/** The workspace each job was last seen in, on this device: one press brings the user back there. */
const key = (job: string) => `nobbet.place.${job}`

const lastKey = 'nobbet.last-job'

/** The job that was worked on last, on this device. */
export function lastJob(): string | undefined {
  try {
    return localStorage.getItem(lastKey) ?? undefined
  } catch {
    return undefined
  }
}

export function rememberPlace(job: string, workspace: string): void {
  try {
    localStorage.setItem(key(job), workspace)
    localStorage.setItem(lastKey, job)
  } catch {
    // Storage may be refused; the job then opens where work on it begins.
  }
}

/** Where this job was left on this device; one that was never opened here, where work on it begins. */
export function lastPlace(job: string, kind: JobBrief['kind']): string {
  try {
    return localStorage.getItem(key(job)) ?? firstStation(kind)
  } catch {
    return firstStation(kind)
  }
}
