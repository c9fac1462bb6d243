import type { Circuit } from '../circuit'
import { demandFindings } from './demand-rules'
import { severities, type CheckResult } from './finding'
import { staticFindings } from './static-rules'

/** Checks the wiring as recorded: rules a conductor can break, then every combination of demands. Worst first. */
export function check(circuit: Circuit): CheckResult {
  const run = demandFindings(circuit)
  // A short that stands with every control at rest would show again in every combination: told once, where it is.
  const statics = staticFindings(circuit)
  const short = statics.some((f) => f.rule === 'line-neutral-joined')
  const dynamic = short ? run.findings.filter((f) => f.rule !== 'line-neutral-joined') : run.findings
  const findings = [...statics, ...dynamic].sort(
    (x, y) => severities.indexOf(x.severity) - severities.indexOf(y.severity),
  )
  const { provenance, cables } = circuit.installation
  const ends = cables.flatMap((cable) => cable.cores.flatMap((core) => core.ends))
  const unknownEnds = ends.filter((end) => end.at === 'unknown').length
  const unverifiedEnds = ends.filter((end) => {
    const known = end.provenance ?? provenance
    return end.at !== 'unknown' && known !== 'seen' && known !== 'tested'
  }).length
  return { findings, combinations: run.combinations, unknownEnds, unverifiedEnds }
}
