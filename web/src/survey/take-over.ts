import { asFoundOf, surveyDepartureText, type Installation, type Survey, type Surveyed } from '@nobbet/core'
import { v4 as newId } from 'uuid'
import { openVisit, recordOf } from '@nobbet/contract'
import type { JobStore } from '../store/job-store'

/**
 * Makes the job's wiring of what was seen. What it was is kept, and so is the wiring as found; each departure is written into the
 * record.
 */
export async function takeOver(
  store: JobStore,
  survey: Survey,
  result: Surveyed,
  against: Installation,
): Promise<void> {
  const state = store.current().state!
  const { survey: record } = recordOf(state)
  const [before, revision] = [record?.taken?.before ?? newId(), newId()]
  if (!record?.taken) await store.record({ do: 'keep', revision: before, kind: 'as-found', name: 'Before the survey' })
  const found = asFoundOf(survey, result, against)
  await store.edit('The wiring as found, of the survey', (document) => ({ ...document, wiring: found }))
  await store.record({ do: 'keep', revision, kind: 'as-found', name: 'As found, by survey' })
  const visit = openVisit(recordOf(state))?.id ?? ''
  const known = new Set(recordOf(state).items.map(({ text }) => text))
  for (const departure of result.departures) {
    const { title, means, severity } = surveyDepartureText(against, survey, departure)
    const text = `${title} (${departure.sure}). ${means}`.slice(0, 1000)
    if (known.has(text)) continue
    await store.record({
      do: 'item',
      id: newId(),
      item: { kind: 'found', severity, text, evidence: [], at: new Date().toISOString(), visit },
    })
  }
  await store.record({ do: 'survey-taken', before, revision })
}
