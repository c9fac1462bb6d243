import { firstWiring, type HuntFindingRecord, type JobState } from '@nobbet/contract'
import { compile, edited, hypothesesOf, same, type Installation } from '@nobbet/core'
import { v4 as newId } from 'uuid'
import type { JobStore } from '../store/job-store'

/**
 * Writes what a hunt came to into the job's log; and, where the wiring was found to be otherwise than was assumed or planned, keeps
 * that as found.
 */
export async function conclude(store: JobStore, finding: HuntFindingRecord): Promise<void> {
  const { state } = store.current()
  await store.record({ do: 'conclude', finding })
  const found = state && asFound(state, finding)
  if (found)
    await store.record({ do: 'keep', revision: newId(), kind: 'as-found', name: 'As found', installation: found })
}

/** The wiring as it was found, with every conductor where it was that was moved back; undefined where it was no other than known. */
export function asFound({ document, revisions }: JobState, { causes }: HuntFindingRecord): Installation | undefined {
  const { wiring, brief } = document
  // Two that were the case together are one suspect, whose id has both.
  const parts = new Set(causes[0]?.id.split(' + '))
  const changes = hypothesesOf(compile(wiring)).flatMap(({ id, variant }) =>
    parts.has(id) && variant.change ? [variant.change] : [],
  )
  const found = changes.reduce((doc, change) => edited(doc, change).doc, wiring)
  if (revisions.some((revision) => same(revision.installation, found))) return undefined
  return same(found, standard(brief, wiring.id)) ? undefined : found
}

/** The wiring as it is laid out for a brief; undefined where that cannot be laid out. */
function standard(brief: JobState['document']['brief'], id: string): Installation | undefined {
  try {
    return firstWiring(brief, id)
  } catch {
    return undefined
  }
}

/** What a hunt came to, as a line of the record. */
export const cameTo = ({ causes, remedy }: HuntFindingRecord): string =>
  [causes[0].label, remedy].filter(Boolean).join('. ').slice(0, 1000)
