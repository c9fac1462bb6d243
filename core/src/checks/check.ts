import type { Circuit } from '../circuit'
import { allStates, type AllStates, type Counterexample } from './all-states'
import { bySeverity, type CheckFinding } from './finding'
import { knownOf, type Known } from './gaps'
import { staticFindings } from './rules'

export interface CheckResult {
  /** By rules and by all states, worst first. */
  findings: CheckFinding[]
  states: AllStates
  known: Known
}

/** A counterexample as a finding beside those of the rules. */
export const findingOf = ({ breach, severity, actions, reproduced }: Counterexample): CheckFinding => ({
  rule: breach.property,
  severity,
  terminals: breach.terminals,
  devices: breach.devices,
  ...(breach.demands.length > 0 && { demands: breach.demands }),
  actions,
  reproduced,
  ...(breach.detail && { detail: breach.detail }),
})

/** Findings of rules and of all states together. What a rule says already of the poles is not said again by the states. */
export function togetherOf(rules: readonly CheckFinding[], states: AllStates): CheckFinding[] {
  const short = rules.some((f) => f.rule === 'line-neutral-joined')
  const shown = states.properties
    .flatMap((p) => p.broken.map(findingOf))
    .filter((f) => !(short && f.rule === 'no-short'))
  return [...rules, ...shown].sort(bySeverity)
}

/**
 * Checks the wiring as recorded: rules a conductor can break, then every reachable state. A generator: each pause gives the
 * number of states so far.
 */
export function* checking(circuit: Circuit, mostStates?: number): Generator<number, CheckResult> {
  const rules = staticFindings(circuit)
  const states = yield* allStates(circuit, mostStates)
  return { findings: togetherOf(rules, states), states, known: knownOf(circuit) }
}

/** {@link checking} driven to its end at once. */
export function check(circuit: Circuit, mostStates?: number): CheckResult {
  const run = checking(circuit, mostStates)
  for (;;) {
    const { done, value } = run.next()
    if (done) return value
  }
}
