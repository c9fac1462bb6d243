import type { JobState } from '@nobbet/contract'

/** The plan of a job, where there is one: what was only assumed of a system that is there is no plan of it. */
export const planOf = (state: JobState | undefined) =>
  state?.revisions.findLast((r) => r.kind === 'planned' && r.installation.provenance !== 'assumed')?.installation
