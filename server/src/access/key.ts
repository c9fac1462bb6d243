import { randomBytes } from 'node:crypto'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

/**
 * The key that signs devices' cookies. It stands beside the database and in no backup: who gets hold of a backup cannot come in
 * with it.
 */
export function signingKey(folder: string): string {
  const file = join(folder, 'cookie.key')
  const known = existsSync(file) ? readFileSync(file, 'utf8').trim() : ''
  if (/^[0-9a-f]{64}$/.test(known)) return known
  const made = randomBytes(32).toString('hex')
  writeFileSync(file, `${made}\n`, { mode: 0o600 })
  return made
}
