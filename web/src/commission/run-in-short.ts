import { formatAction, type RunRow } from '@nobbet/core'

export const minutesOf = (rows: readonly RunRow[]): number =>
  Math.round(rows.reduce((sum, { minutes }) => sum + minutes, 0))

/** With everything done, in Trace, where each moment of it can be gone to. */
export const traceOf = (job: string, rows: readonly RunRow[]): string => {
  const acts = rows.flatMap(({ acts, waitMs }) => [
    ...acts.map(formatAction),
    ...(waitMs > 0 ? [formatAction({ do: 'wait', ms: waitMs })] : []),
  ])
  return `/jobs/${job}/trace?${new URLSearchParams([...acts.map((act): [string, string] => ['do', act]), ['happened', 'shown']])}`
}

export const assumedWords = 'Expected by a standard wiring: nobody has looked at this one.'
