import type { TerminationStep } from '@nobbet/core'

/** What is to be done, in one word or two. */
export const stepWords: Record<TerminationStep['do'], string> = {
  link: 'Link',
  'cut-link': 'Cut',
  land: 'Land',
  park: 'Park',
  'cut-back': 'Cut back',
  join: 'Join',
  clamp: 'Clamp',
  close: 'Close',
}

/** What the words beside a step say of it. */
export const purposeText = ({ do: what, purpose }: TerminationStep): string =>
  what === 'land' || what === 'join' ? `other end: ${purpose}` : purpose
