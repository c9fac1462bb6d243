import type { EntityManager } from '@mikro-orm/libsql'

/** Steps of the order of termination whose last tick says that they are done, in the order in which they were ticked. */
export async function ticksOf(em: EntityManager, job: string): Promise<string[]> {
  // SQLite takes the other columns from the row that has the greatest number. Most entries are none, and need no reading as JSON.
  const last = (await em.execute(
    `select json_extract(entry, '$.step') as step, json_extract(entry, '$.done') as done, max(number) as number
       from entry where job = ? and entry like '%"tick"%' and json_extract(entry, '$.do') = 'tick'
       group by step order by number`,
    [job],
  )) as unknown as { step: string; done: number }[]
  return last.filter(({ done }) => done === 1).map(({ step }) => step)
}
