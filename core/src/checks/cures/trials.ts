import { compile, type Circuit } from '../../circuit'
import { edited, EditError, type Step } from '../../installation'
import { breachKey, explore, type Breach } from '../../states'
import { severityOf } from '../all-states'
import { findingKey, isGrave, type CheckFinding } from '../finding'
import { staticFindings } from '../rules'

/** States of one trial after which it is left, and counts as not tried. */
const mostEach = 60_000
/** States of all trials on one installation together: what is left untried then is not offered. */
const mostInAll = 400_000

/** What a finding of the states is called, as its breach is. */
const keyOfState = (f: CheckFinding): string =>
  breachKey({
    property: f.rule as Breach['property'],
    demands: f.demands ?? [],
    devices: f.devices,
    terminals: f.terminals,
  })

const isOfStates = (f: CheckFinding): boolean => f.actions !== undefined

/**
 * Changes of an installation tried out on a copy: rules, then every reachable state. A change is no cure where anything of the
 * upper two severities comes of it that was not there before, or where its states could not all be looked at.
 */
export class Trials {
  private readonly before: ReadonlySet<string>
  private readonly outcomes = new Map<string, ReadonlySet<string>>()
  private spent = 0

  /** `findings` are all that are told of the installation as it is: whatever is not among them is new. */
  constructor(
    readonly circuit: Circuit,
    findings: readonly CheckFinding[],
  ) {
    this.before = new Set(findings.map((f) => (isOfStates(f) ? keyOfState(f) : findingKey(f))))
  }

  /**
   * Which of these findings are gone once a step has been carried out; none where something worse comes of it. A generator:
   * each pause gives the number of states looked at in all trials so far.
   */
  *gone(step: Step, targets: readonly CheckFinding[]): Generator<number, ReadonlySet<CheckFinding>> {
    const nothing = new Set<CheckFinding>()
    const text = JSON.stringify([step.changes, targets.map(findingKey)])
    const known = this.outcomes.get(text)
    if (known) return new Set(targets.filter((f) => known.has(findingKey(f))))
    const found = yield* this.tried(step, targets)
    this.outcomes.set(text, new Set([...(found ?? nothing)].map(findingKey)))
    return found ?? nothing
  }

  private *tried(
    step: Step,
    targets: readonly CheckFinding[],
  ): Generator<number, ReadonlySet<CheckFinding> | undefined> {
    const circuit = this.after(step)
    if (!circuit || this.spent >= mostInAll) return undefined
    const rules = staticFindings(circuit)
    if (rules.some((f) => isGrave(f) && !this.before.has(findingKey(f)))) return undefined
    const standing = new Set(rules.map(findingKey))
    const left = new Set(targets.filter((f) => isOfStates(f) || !standing.has(findingKey(f))))
    if (left.size === 0) return undefined
    const byState = new Map([...left].filter(isOfStates).map((f) => [keyOfState(f), f]))
    let worse = false
    const run = explore(circuit, {
      mostStates: mostEach,
      until: (breach) => {
        const key = breachKey(breach)
        const target = byState.get(key)
        if (target) left.delete(target)
        else if (!this.before.has(key) && isGrave({ severity: severityOf(breach) })) worse = true
        return worse || left.size === 0
      },
    })
    for (;;) {
      const { done, value } = run.next()
      if (!done) {
        yield this.spent + value
        continue
      }
      this.spent += value.states
      return worse || left.size === 0 || !value.complete ? undefined : left
    }
  }

  private after(step: Step): Circuit | undefined {
    try {
      return compile(edited(this.circuit.installation, step).doc, this.circuit)
    } catch (error) {
      if (error instanceof EditError) return undefined
      throw error
    }
  }
}
