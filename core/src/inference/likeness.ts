import type { Evidence } from './evidence'

/**
 * What is on no list mostly shows what something on it would, and at so many looks something of its own: a share from 0 to 1. An
 * estimate, for want of figures.
 */
export const departs = 0.25

/** How probable an answer is for something on no list that is like one that has it as probable as this. */
export function likeness(probability: number, { hit, miss }: Pick<Evidence, 'hit' | 'miss'>): number {
  const answers = 1 + (1 - hit) / miss
  return (1 - departs) * probability + departs / answers
}
