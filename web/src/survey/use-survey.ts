import { nothingSeen, type Installation, type Survey, type Surveyed } from '@nobbet/core'
import { recordOf, type JobState } from '@nobbet/contract'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { ask } from '../workers/compute'

/** What a survey is held against: the wiring from before it was made of the survey itself. */
export function heldAgainst(state: JobState): Installation {
  const { survey } = recordOf(state)
  const before = state.revisions.find(({ id }) => id === survey?.taken?.before)
  return before?.installation ?? state.document.wiring
}

export const seenOf = (state: JobState): Survey => recordOf(state).survey?.seen ?? nothingSeen

/** What follows from a survey, worked out apart from the screen; until it is, what followed before stays, and is told to be old. */
export function useSurvey(
  survey: Survey,
  installation: Installation,
): { result?: Surveyed; old: boolean; error: Error | null; again: () => void } {
  const { data, error, refetch, isPlaceholderData } = useQuery({
    queryKey: ['survey', survey, installation],
    queryFn: () => ask('brief', (api) => api.survey(survey, installation)),
    enabled: survey.cables.length > 0,
    staleTime: Infinity,
    networkMode: 'always',
    placeholderData: keepPreviousData,
    retry: false,
  })
  return {
    result: survey.cables.length > 0 ? data : undefined,
    old: isPlaceholderData,
    error,
    again: () => void refetch(),
  }
}
