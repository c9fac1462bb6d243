import type { Circuit } from '../../circuit'
import { placeOf, type Installation } from '../../installation'
import { isGrave, type Culprit, type CheckFinding } from '../finding'
import { departuresFrom, type Departure } from '../../departures'
import { repairsFor } from './repairs'
import { Trials } from './trials'

export interface CureOptions {
  /** The plan of this very installation, where there is one: what departs from it is looked at first. */
  plan?: Installation
}

/**
 * Looks for what is behind findings, by trying: what departs from the plan, what each rule proposes, and where neither helps
 * single changes of what is concerned. Gives the findings again, with a culprit and a remedy where a trial found them: with it
 * the finding is gone and nothing of the upper two severities has come. A generator: each pause gives the number of states
 * looked at so far; leave it to cancel.
 */
export function* cured(
  circuit: Circuit,
  findings: readonly CheckFinding[],
  { plan }: CureOptions = {},
): Generator<number, CheckFinding[]> {
  const trials = new Trials(circuit, findings)
  const found = new Map<CheckFinding, Pick<CheckFinding, 'culprit' | 'remedy'>>()
  const open = () => findings.filter((f) => !found.has(f))

  if (plan)
    for (const departure of departuresFrom(plan, circuit.installation))
      for (const f of yield* trials.gone(departure.step, open())) found.set(f, by(departure, 'plan'))

  const propose = function* (finding: CheckFinding): Generator<number, void> {
    if (!finding.proposal || found.has(finding)) return
    const gone = yield* trials.gone(finding.proposal, open())
    // What the proposal was made for comes first; what goes with it is gone by the same hand.
    if (!gone.has(finding)) return
    for (const f of gone) found.set(f, { remedy: finding.proposal, ...namedBy(circuit, finding) })
  }
  for (const f of findings) if (isGrave(f)) yield* propose(f)

  // A search is worth its time for what hurts: one change that clears all of it is taken before one that clears a part.
  const grave = open().filter(isGrave)
  if (grave.length > 0) {
    let best: { departure: Departure; gone: ReadonlySet<CheckFinding> } | undefined
    for (const departure of repairsFor(circuit, grave)) {
      const gone = yield* trials.gone(departure.step, grave)
      if (gone.size > (best?.gone.size ?? 0)) best = { departure, gone }
      if (gone.size === grave.length) break
    }
    if (best) for (const f of yield* trials.gone(best.departure.step, open())) found.set(f, by(best.departure, 'trial'))
  }
  for (const f of findings) yield* propose(f)
  return findings.map((f) => ({ ...f, ...found.get(f) }))
}

const by = ({ what, step }: Departure, of: Culprit['by']): Pick<CheckFinding, 'culprit' | 'remedy'> => ({
  culprit: { what, by: of },
  remedy: step,
})

/** The conductor that a proposal moves, where it moves just one: it is what the finding comes from. */
function namedBy(circuit: Circuit, { proposal }: CheckFinding): Pick<CheckFinding, 'culprit'> {
  if (proposal?.changes.length !== 1) return {}
  const [change] = proposal.changes
  if (change.do !== 'end') return {}
  const belongs = placeOf(change.to)
  const { cable, core, end } = change
  const is = circuit.installation.cables.find((c) => c.id === cable)!.cores.find((k) => k.id === core)!.ends[end]
  if (belongs === undefined) return {}
  return {
    culprit: { what: { kind: 'core', core: { cable, core, end }, at: placeOf(is) ?? '', belongs }, by: 'trial' },
  }
}
