import { recordOf, type JobState } from '@nobbet/contract'

/**
 * The plan of a job, where there is one: what was only assumed of a system that is there is no plan of it; nor is what was planned
 * before the box was surveyed, whose terminals and cables have other numbers.
 */
export function planOf(state: JobState | undefined) {
  if (!state) return undefined
  const { taken } = recordOf(state).survey ?? {}
  const since = state.revisions.findIndex(({ id }) => id === taken?.revision) + 1
  return state.revisions.slice(since).findLast((r) => r.kind === 'planned' && r.installation.provenance !== 'assumed')
    ?.installation
}
