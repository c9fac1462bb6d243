import { openMeasures, recordOf, type JobState } from '@nobbet/contract'
import {
  asLeftOf,
  compile,
  findingKey,
  findingText,
  linksPastLimits,
  rewiringOf,
  same,
  togetherOf,
  type CheckFinding,
  type Installation,
} from '@nobbet/core'
import { proxy } from 'comlink'
import { ask, longRun } from '../workers/compute'
import { planOf } from '../wiring/plan-of'

/** What is said of a wiring that is to be left: the wiring itself, where it is another, or why it must not be left. */
export interface Judgement {
  wiring?: Installation
  /** Why it must not be left so. */
  refused: readonly string[]
  /** States that were looked at. */
  states: number
}

/**
 * Judges what would be left if this were not put back: everything that other measures leave is left with it. All states are gone through.
 * Refused is what goes past a limit or cut-out, and whatever is dangerous in it and is not in the plan. Throws where the check fails.
 */
export async function judgeAsLeft(state: JobState, puts: string, signal: AbortSignal): Promise<Judgement> {
  const { wiring } = state.document
  const others = openMeasures(recordOf(state)).flatMap((measure) => measure.puts ?? [])
  const left = asLeftOf(compile(wiring), [...others, puts])
  const plan = planOf(state)
  // What is disturbed by hand only, or a control that was turned, leaves no other wiring.
  const touches = rewiringOf(puts) !== undefined || /^(lifted|link-in|link-out) /.test(puts)
  if (!touches) return { refused: [], states: 0 }
  const past = left.pastLimit || linksPastLimits(wiring, plan).length > 0
  const refused = past ? ['A link goes past a limit or a cut-out. That is never left in.'] : []
  const before = plan ?? (rewiringOf(puts) ? wiring : undefined)
  const known = new Set(before && !same(before, left.judged) ? (await dangersIn(before, signal)).keys : [])
  const { found, states } = await dangersIn(left.judged, signal)
  const circuit = compile(left.judged)
  for (const finding of found) {
    if (known.has(findingKey(finding))) continue
    const { title, reason } = findingText(circuit, finding)
    refused.push(`${title}. ${reason}`)
  }
  return { wiring: left.wiring, refused: [...new Set(refused)], states }
}

async function dangersIn(
  installation: Installation,
  signal: AbortSignal,
): Promise<{ found: CheckFinding[]; keys: string[]; states: number }> {
  const rules = await ask('checks', (api) => api.rules(installation))
  const states = await longRun(
    'checks',
    (api, run) =>
      api.states(
        run,
        installation,
        proxy(() => undefined),
      ),
    signal,
  )
  if (!states) throw new Error('The check was left before it was through.')
  if (!states.complete) throw new Error('There are more states than could be looked at.')
  const found = togetherOf(rules.findings, states).filter(({ severity }) => severity === 'danger')
  return { found, keys: found.map(findingKey), states: states.states }
}
