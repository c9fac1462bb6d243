import type { EntityManager } from '@mikro-orm/libsql'

/**
 * Steps of the order of termination of a job whose last tick says that they are done, in the order in which they were ticked.
 * SQLite takes the other columns from the row that has the greatest number. Most entries are none, and need no reading as JSON.
 */
export const ticked = `select step from (
    select json_extract(entry, '$.step') as step, json_extract(entry, '$.done') as done, max(number) as number
      from entry where job = ? and entry like '%"tick"%' and json_extract(entry, '$.do') = 'tick' group by step)
  where done = 1 order by number`

/** The steps that are done of one job. */
export async function ticksOf(em: EntityManager, job: string): Promise<string[]> {
  const rows = (await em.execute(ticked, [job])) as unknown as { step: string }[]
  return rows.map(({ step }) => step)
}
