/** The workspace each job was last seen in, on this device: one press brings the user back there. */
const key = (job: string) => `nobbet.place.${job}`

export function rememberPlace(job: string, workspace: string): void {
  try {
    localStorage.setItem(key(job), workspace)
  } catch {
    // Storage may be refused; the job then opens at its brief.
  }
}

export function lastPlace(job: string): string {
  try {
    return localStorage.getItem(key(job)) ?? 'brief'
  } catch {
    return 'brief'
  }
}
