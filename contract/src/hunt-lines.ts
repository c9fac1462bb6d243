import { entriesOf, fitsCircuit, type Circuit, type HuntEntry } from '@nobbet/core'
import { noHunt, type HuntLine, type HuntRecord } from './hunt-record'
import type { JobState } from './log'

/** What is recorded of a job's hunt; one that was kept in a browser before there were hunts has none. */
export const huntOf = (state: Pick<JobState, 'hunt'>): HuntRecord => (state as Partial<JobState>).hunt ?? noHunt

/** A line as the log shows it; one of the older kind can be taken back, and nothing else. */
export interface LogLine extends HuntLine {
  /** The finding of the older kind it belongs to. */
  older?: string
  /** It was made of something, or with something set, that the wiring no longer has: it is shown, and not weighed. */
  gone?: true
}

/** The whole log of a job's hunt: findings of the older kind first, as what was set and seen. */
export function linesOf(circuit: Circuit, state: JobState): LogLine[] {
  const lines: LogLine[] = []
  for (const finding of state.findings) {
    const gone = !fitsCircuit(circuit, finding)
    const before = weighed(lines)
    const entries = entriesOf(circuit, finding, before)
    // How the controls stood then cannot be said any more: what was looked at can.
    for (const entry of gone ? entries.slice(-1) : entries)
      lines.push({
        entry,
        at: finding.at,
        note: 'see' in entry ? finding.note : '',
        older: finding.id,
        ...(gone && { gone }),
      })
  }
  return [...lines, ...huntOf(state).lines]
}

/** The entries of a log that can be weighed. */
export const weighed = (lines: readonly LogLine[]): HuntEntry[] =>
  lines.flatMap(({ entry, gone }) => (gone ? [] : [entry]))
