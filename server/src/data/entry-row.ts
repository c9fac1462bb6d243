import type { EntityManager } from '@mikro-orm/libsql'
import { EntryEntity, type EntryRow } from './entities'

/** Puts an entry into the log; its number is the database's to give. */
export async function insertEntry(em: EntityManager, row: Omit<EntryRow, 'number'>): Promise<number> {
  await em.insert(EntryEntity, { ...row, entry: asKept(row.entry) } as EntryRow)
  // The driver does not tell the number it gave.
  return (await em.findOneOrFail(EntryEntity, { id: row.id })).number
}

/** A value as it will be read again: fields that are undefined are not there. The driver would make them null, in place. */
export const asKept = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T
