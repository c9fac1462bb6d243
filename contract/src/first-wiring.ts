import { planSystem, type Installation } from '@nobbet/core'
import type { JobBrief } from './schemas'

/**
 * The wiring a job begins with, laid out from its brief. For what is to be built it is a plan. Where something is fitted already
 * it is only the standard wiring of such a system: assumed, end by end, until somebody has looked.
 */
export function firstWiring(brief: Pick<JobBrief, 'kind' | 'site' | 'fitted'>, id: string): Installation {
  const planned = planSystem(brief.fitted, id, brief.site)
  return brief.kind === 'fault' ? { ...planned, provenance: 'assumed' } : planned
}
