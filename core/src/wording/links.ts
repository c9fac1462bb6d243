import type { ScheduledTerminal } from '../planning'

/** What is beside a terminal: those it is linked to, and those it came linked to, the link being cut. */
export const linkText = ({ linkedTo, cutFrom }: Pick<ScheduledTerminal, 'linkedTo' | 'cutFrom'>): string =>
  [
    ...(linkedTo.length > 0 ? [`to ${linkedTo.join(', ')}`] : []),
    ...(cutFrom.length > 0 ? [`cut from ${cutFrom.join(', ')}`] : []),
  ].join('; ')
