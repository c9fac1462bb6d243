import { huntOf, type JobState } from '@nobbet/contract'

/** How many looks a job's hunt has: for lists, which have no circuit at hand. */
export const looksIn = (state: JobState): number =>
  state.findings.length + huntOf(state).lines.filter(({ entry }) => 'see' in entry).length
