import type { FirstDone } from '@nobbet/core'

/** What may be terminated first, and why it is taught so. */
export const firsts: Record<FirstDone, { name: string; why: string }> = {
  links: { name: 'Links first', why: 'nothing else reminds you of a link' },
  supply: { name: 'Supply first', why: 'the cable on which all others hang is in its place from the start' },
  mains: {
    name: 'L, N and earth together',
    why: 'of all cables at once, after the links; what is switched is then easy to see',
  },
}
