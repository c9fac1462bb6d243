import { severityOf } from '../checks'
import { compile, type Circuit } from '../circuit'
import type { Demand } from '../installation'
import { breachKey, explored } from '../states'
import { withRewiring, type Disturbed } from './rewiring'

/** A system with more states than this is not gone through for a test: it is not offered then. */
const mostGoneThrough = 4000

/** Per circuit and bound what was found of it: dangers as it is, and whether what is done to its wiring is harmless, by its text. */
interface Judged {
  before?: ReadonlySet<string> | 'too-many'
  is: Map<string, boolean>
}
const judgedOf = new WeakMap<Circuit, Map<number, Judged>>()

/**
 * Does no state of an installation show a danger, with this done to its wiring, that was not there before? All of them are gone
 * through, once; where there are more than `mostStates`, it is not said to be harmless. `as`: its demands with that done.
 */
export function isHarmless(
  circuit: Circuit,
  disturbed: Disturbed,
  as: (demands: readonly Demand[]) => Demand[] = (demands) => [...demands],
  mostStates = mostGoneThrough,
): boolean {
  const byBound = judgedOf.get(circuit) ?? new Map<number, Judged>()
  judgedOf.set(circuit, byBound)
  const judged = byBound.get(mostStates) ?? { is: new Map<string, boolean>() }
  byBound.set(mostStates, judged)
  const doc = withRewiring(circuit.installation, disturbed)
  const demands = as(doc.intent.demands)
  const key = JSON.stringify([disturbed, demands])
  const known = judged.is.get(key)
  if (known !== undefined) return known
  const { before = dangersOf(circuit, mostStates) } = judged
  judged.before = before
  const isAsBefore = (after: ReturnType<typeof dangersOf>) =>
    after !== 'too-many' && before !== 'too-many' && [...after].every((danger) => before.has(danger))
  const is =
    before !== 'too-many' && isAsBefore(dangersOf(compile({ ...doc, intent: { ...doc.intent, demands } }), mostStates))
  judged.is.set(key, is)
  return is
}

/** Everything dangerous that any state shows. */
function dangersOf(circuit: Circuit, mostStates: number): ReadonlySet<string> | 'too-many' {
  const { complete, breaches } = explored(circuit, { mostStates })
  if (!complete) return 'too-many'
  return new Set(breaches.filter((b) => severityOf(b.breach) === 'danger').map((b) => breachKey(b.breach)))
}
