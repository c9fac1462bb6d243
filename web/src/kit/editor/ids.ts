/** An id that no row has yet. */
export function freeId(wish: string, rows: readonly { id: string }[]): string {
  const ids = new Set(rows.map((r) => r.id))
  let n = 1
  while (ids.has(`${wish}${n}`)) n++
  return `${wish}${n}`
}

/** Without the keys that are not set, which the schema does not take. */
export function without<T extends object>(row: T): T {
  return Object.fromEntries(Object.entries(row).filter(([, v]) => v !== undefined && v !== false)) as T
}
