/** The other tabs of this browser, which keep the same things. */
export interface Tabs {
  /** Tells them that something of a job is kept otherwise. */
  say(job: string): void
  /** Is told the same by them. Returns how to stop. */
  listen(heard: (job: string) => void): () => void
  /** Does something that one tab at a time should do; false where another one is at it. */
  alone(name: string, work: () => Promise<void>): Promise<boolean>
}

/** By channel and lock, where the browser has them: without, each tab sends for itself, which does no harm. */
export function browserTabs(): Tabs {
  const channel = typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel('nobbet')
  const listeners = new Set<(job: string) => void>()
  channel?.addEventListener('message', ({ data }) => listeners.forEach((heard) => heard(String(data))))
  return {
    say: (job) => channel?.postMessage(job),
    listen(heard) {
      listeners.add(heard)
      return () => void listeners.delete(heard)
    },
    async alone(name, work) {
      // Only on a secure address; a firm's own network may be reached without one.
      if (!navigator.locks) {
        await work()
        return true
      }
      return navigator.locks.request(`nobbet ${name}`, { ifAvailable: true }, async (lock) => {
        if (lock) await work()
        return lock !== null
      })
    },
  }
}
