import type { CoreRef, Departed } from '../departures'
import type { Step } from '../installation'
import type { BreachDetail, PropertyId } from '../states'

/** In the order in which they would hurt. */
export const severities = ['danger', 'will-not-work', 'poor-practice', 'advice'] as const
export type Severity = (typeof severities)[number]

/** Rules a conductor can break, by what they are about. */
export const ruleIds = [
  // What must reach a terminal.
  'line-neutral-joined',
  'line-neutral-swapped',
  'neutral-earth-joined',
  'earth-as-neutral',
  'no-earth',
  'no-neutral',
  'no-permanent-live',
  'contact-without-feed',
  'contact-fed-backwards',
  'fewer-cores-than-needed',
  // Extra-low voltage.
  'mains-on-extra-low',
  'extra-low-beside-mains',
  'transformers-tied',
  // Conductors and links.
  'green-yellow-misused',
  'switched-not-identified',
  'live-end-loose',
  'live-end-cut-back',
  'unused-not-made-off',
  'leads-nowhere',
  'contact-bridged',
  'contact-unused',
  'more-than-ways',
  'end-not-found',
  'link-between-places',
  // Ratings.
  'load-over-fuse',
  'fuse-over-cable',
  'contact-over-rating',
  'transformer-overloaded',
  // The scheme as a whole.
  'second-supply',
  'borrowed-neutral',
  'pump-beside-its-output',
  'limit-not-in-series',
  'no-cylinder-thermostat',
  'no-bypass',
] as const
export type StaticRuleId = (typeof ruleIds)[number]

/** Every finding is by a rule, or by a property of the reachable states. */
export type RuleId = StaticRuleId | PropertyId

/** Something a check found: what, where, and in which state of the demands. Sentences are made elsewhere. */
export interface CheckFinding {
  rule: RuleId
  severity: Severity
  /** Terminals concerned. */
  terminals: string[]
  devices: string[]
  cores?: CoreRef[]
  links?: string[]
  /** Figures of a rating: what there is, what it may be, in which unit. */
  figures?: { is: number; may: number; unit: string }
  /** Demands that are not served, or whose circuit is heated. */
  demands?: string[]
  /** Actions that lead from rest to the state in which it shows, in the written grammar. */
  actions?: string[]
  /** Of a counterexample: did it show in the simulation with the times that parts really take? */
  reproduced?: boolean
  /** What exactly is wrong, where one sentence would not be true of all cases. */
  detail?: BreachDetail | 'sleeved-earth'
  /** What might cure it: not yet tried, and never offered as it is. */
  proposal?: Step
  /** What cures it with one press: tried, it removes the finding and brings nothing of the upper two severities. */
  remedy?: Step
  /** What departs from the plan, or where there is none from what the demands need: put right, the finding is gone. */
  culprit?: Culprit
}

/** What is behind a finding. */
export interface Culprit {
  what: Departed
  /** Whether it departs from a plan that there is, or was found by trying what would put it right. */
  by: 'plan' | 'trial'
}

/** What names a finding from one edit to the next, so that a waiver stays with it. */
export const findingKey = ({ rule, terminals, devices, cores, links, demands }: CheckFinding): string =>
  [
    rule,
    ...terminals,
    ...(terminals.length === 0 ? devices : []),
    ...(cores ?? []).map((c) => `${c.cable}.${c.core}${c.end === undefined ? '' : `.${c.end}`}`),
    ...(links ?? []),
    ...(demands ?? []),
  ].join(' ')

export const isGrave = ({ severity }: { severity: Severity }): boolean =>
  severity === 'danger' || severity === 'will-not-work'

export const bySeverity = (x: { severity: Severity }, y: { severity: Severity }): number =>
  severities.indexOf(x.severity) - severities.indexOf(y.severity)
