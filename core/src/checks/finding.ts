/** In the order in which they would hurt. */
export const severities = ['danger', 'will-not-work', 'poor-practice', 'advice'] as const
export type Severity = (typeof severities)[number]

export type RuleId =
  | 'no-neutral'
  | 'no-permanent-live'
  | 'no-earth'
  | 'contact-without-feed'
  | 'line-neutral-joined'
  | 'demand-never-calls'
  | 'call-without-demand'
  | 'never-settles'

/** Something a check found: what, where, and in which state of the demands. Sentences are made elsewhere. */
export interface Finding {
  rule: RuleId
  severity: Severity
  /** Terminals concerned. */
  terminals: string[]
  devices: string[]
  /** Demands that were wanted when it showed; absent for rules that no demand takes part in. */
  demands?: string[]
  /** Actions that lead from rest to the state in which it shows, in the written grammar. */
  actions?: string[]
}

export interface CheckResult {
  findings: Finding[]
  /** Combinations of demands that were run. */
  combinations: number
  /** Conductor ends that nobody has found. */
  unknownEnds: number
  /** Ends recorded but neither seen nor tested. */
  unverifiedEnds: number
}
