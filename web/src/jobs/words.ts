import type { JobBrief } from '@nobbet/contract'

export const kindWords: Record<JobBrief['kind'], string> = {
  fault: 'Fault',
  'new-system': 'New system',
  'change-of-controls': 'Change of controls',
}
