import type { Due, Item, Part } from '@nobbet/contract'

export const itemWords: Record<Item['kind'], string> = {
  found: 'Found',
  done: 'Done',
  advised: 'Advised',
  'made-safe': 'Made safe',
  'not-ours': 'Not ours',
}

export const gravityWords: Record<Item['severity'], string> = {
  danger: 'Danger',
  fault: 'Fault',
  minor: 'Minor',
  remark: 'Remark',
}

/** Of three shapes and four inks, so that none is told by its colour alone. */
export const gravityMarks: Record<Item['severity'], string> = { danger: '▲', fault: '✕', minor: '◇', remark: '·' }

export const dueWords: Record<Due['kind'], string> = {
  measure: 'Left for now',
  'follow-up': 'Follow-up',
  step: 'Step of the run',
}

export const partWords: Record<Part['use'], string> = { used: 'Used', bring: 'To bring' }
