import type { Entry, LogEntry } from '@nobbet/contract'
import { v4 as newId } from 'uuid'

const deviceKey = 'nobbet.device'
const nameKey = 'nobbet.name'

/** A name for this browser, made once. */
function device(): string {
  try {
    const known = localStorage.getItem(deviceKey)
    if (known) return known
    const made = newId().slice(0, 8)
    localStorage.setItem(deviceKey, made)
    return made
  } catch {
    return 'unnamed-device'
  }
}

/** What the user of this browser is called in logs; empty until somebody has said. */
export function ownName(): string {
  try {
    return localStorage.getItem(nameKey) ?? ''
  } catch {
    return ''
  }
}
export function setOwnName(name: string): void {
  try {
    localStorage.setItem(nameKey, name.trim().slice(0, 120))
  } catch {
    // Without storage the job's own engineer stands in the log.
  }
}

/** One device on one day. */
export const visitNow = (at = new Date()): string => `${device()}-${at.toISOString().slice(0, 10)}`

/** A line for the log, done now on this device: by whom its user is called, else by who attends the job. */
export function entryOf(entry: Entry, attends: string, id = newId(), visit?: string): LogEntry {
  const at = new Date()
  return { id, author: ownName() || attends, visit: visit ?? visitNow(at), at: at.toISOString(), entry }
}
