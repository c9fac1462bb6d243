import { appendFileSync, existsSync, renameSync, statSync } from 'node:fs'
import { join } from 'node:path'

/** What is worth knowing afterwards of who came in and what was done to the data. No customer's word is ever among it. */
export type SecurityEvent =
  | 'pairing-started'
  | 'pairing-stopped'
  | 'paired'
  | 'pairing-refused'
  | 'device-revoked'
  | 'stranger-refused'
  | 'host-name-refused'
  | 'job-deleted'
  | 'job-restored'
  | 'type-deleted'
  | 'backup-made'
  | 'backup-taken-in'
  | 'backup-restored'

const mostBytes = 1_000_000

/** One line of JSON for each event, in the data folder, for its owner's eyes only; the file before is kept beside it. */
export class SecurityLog {
  private readonly file: string
  private saidLately = new Map<string, number>()

  constructor(
    folder: string,
    private readonly now: () => Date,
  ) {
    this.file = join(folder, 'security.log')
  }

  write(event: SecurityEvent, about: { address?: string; device?: string; job?: string } = {}): void {
    try {
      if (existsSync(this.file) && statSync(this.file).size > mostBytes) renameSync(this.file, `${this.file}.before`)
      appendFileSync(this.file, `${JSON.stringify({ at: this.now().toISOString(), event, ...about })}\n`, {
        mode: 0o600,
      })
    } catch {
      // A full disk must not keep anybody from reading their jobs.
    }
  }

  /** As {@link write}, but the same thing of the same address only once a minute: nobody fills the disk by knocking. */
  writeOnce(event: SecurityEvent, address: string): void {
    const at = this.now().getTime()
    const key = `${event} ${address}`
    if (at - (this.saidLately.get(key) ?? -Infinity) < 60_000) return
    if (this.saidLately.size > 500) this.saidLately.clear()
    this.saidLately.set(key, at)
    this.write(event, { address })
  }
}
