import type { Running } from '../src'

/** What tells two states of a server's data apart. */
export const markOf = (server: Pick<Running, 'execute'>) => async (): Promise<string> =>
  JSON.stringify(
    await server.execute(`select
      (select count(*) || ' ' || coalesce(max(number), 0) from entry) as entries,
      (select count(*) || ' ' || coalesce(sum(version), 0) || ' ' || count(deleted_at) from job) as jobs,
      (select coalesce(sum(length(installation)), 0) from draft) as wirings,
      (select count(*) from revision) as revisions,
      (select count(*) from finding) as findings,
      (select count(*) || ' ' || coalesce(sum(bytes), 0) from photo) as photos,
      (select count(*) from picture) as pictures,
      (select count(*) || ' ' || coalesce(sum(version), 0) || ' ' || count(deleted_at) from own_type) as types,
      (select count(*) from device) as devices`),
  )
