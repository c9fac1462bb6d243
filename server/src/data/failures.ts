/** What stands in the way of the data, by what SQLite or the system says of it. */
export type DataTrouble = 'damaged' | 'full' | 'read-only' | 'busy'

const codes: [RegExp, DataTrouble][] = [
  [/^SQLITE_(CORRUPT|NOTADB)/, 'damaged'],
  [/^(SQLITE_FULL|ENOSPC|EDQUOT)/, 'full'],
  [/^(SQLITE_(READONLY|CANTOPEN|PERM|IOERR)|EROFS|EACCES|EPERM)/, 'read-only'],
  [/^SQLITE_(BUSY|LOCKED)/, 'busy'],
]

/** The trouble an error tells of; undefined where it is none of the data's. */
export function troubleOf(error: unknown): DataTrouble | undefined {
  for (let at = error as { code?: string; cause?: unknown; previous?: unknown } | undefined; at;) {
    const code = at.code
    const known = typeof code === 'string' ? codes.find(([pattern]) => pattern.test(code)) : undefined
    if (known) return known[1]
    at = (at.previous ?? at.cause) as typeof at
  }
  return undefined
}
