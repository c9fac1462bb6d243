import type { JobBrief, JobBriefInput } from '@nobbet/contract'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { render } from '@testing-library/react'
import { BriefForm, emptyBrief } from '../src/brief/brief-form'

/** Shows the form of a brief; gives what is saved in it, in order. */
export function showBrief(start: JobBriefInput = emptyBrief): JobBrief[] {
  const saved: JobBrief[] = []
  render(
    <QueryClientProvider client={new QueryClient()}>
      <BriefForm
        start={{ ...start, site: 'Quay Cottage' }}
        saveLabel="Save"
        busy={false}
        onSave={(brief) => saved.push(brief)}
      />
    </QueryClientProvider>,
  )
  return saved
}
