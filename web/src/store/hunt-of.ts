import { noHunt, type HuntRecord, type JobState } from '@nobbet/contract'

/** What a job's log says of its hunt; a job that was kept here before there were hunts has none. */
export const huntOf = (state: JobState): HuntRecord => (state as Partial<JobState>).hunt ?? noHunt

/** How many looks a job's hunt has: for lists, which have no circuit at hand. */
export const looksIn = (state: JobState): number =>
  state.findings.length + huntOf(state).lines.filter(({ entry }) => 'see' in entry).length
