import { changesBetween, installationShape, rebased, type FieldChange, type Installation } from '@nobbet/core'
import { firstWiring } from './first-wiring'
import { jobGround } from './job-state'
import type { JobBrief, JobDocument } from './schemas'

/** Fields that say what something is called, how it is known, how long it is or where it stands, and not how it is wired. */
const names = ['name', 'label', 'legend', 'scheme', 'provenance', 'lengthM', 'floor', 'apartMin']

/** What another brief means for the wiring that is there. */
export type Refit =
  /** Nothing, or other names and places only: brief and wiring change where they stand. */
  | { is: 'in-place'; document: JobDocument }
  /** Another scheme, or other devices: a plan that can only be laid beside what is recorded. */
  | { is: 'new-plan'; document: JobDocument; plan: Installation }

/**
 * The job with another brief. What differs between the wiring that the old brief would be laid out as and the new one's is made
 * on the wiring as it stands; where somebody has named a thing otherwise, that name stays. `document` of a new plan has the new
 * brief and the wiring untouched.
 */
export function withBrief(document: JobDocument, brief: JobBrief): Refit {
  const { id } = document.wiring
  const changes = changesBetween(installationShape, firstWiring(document.brief, id), firstWiring(brief, id))
  if (!changes.every(namesOnly))
    return { is: 'new-plan', document: { ...document, brief }, plan: firstWiring(brief, id) }
  const here = changes.map((change) => ({ ...change, path: ['wiring', ...change.path] }))
  return { is: 'in-place', document: rebased(jobGround, { ...document, brief }, here).doc }
}

const namesOnly = (change: FieldChange) => change.do === 'set' && names.includes(change.path[change.path.length - 1])
