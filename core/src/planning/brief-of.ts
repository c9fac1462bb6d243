import type { Installation } from '../installation'
import type { CircuitBrief, PlanBrief } from './brief'
import { circuitsTaken, schemeIds, schemes, type SchemeId } from './schemes'
import { planBriefSchema } from './plan-brief'

/**
 * A brief for wiring that comes without one: its circuits by what its demands are for, and the scheme it calls itself,
 * else the first that takes them. It is a guess to begin with; the wiring itself is left as it is.
 */
export function briefOf(installation: Installation): PlanBrief {
  const circuits = installation.intent.demands.map(({ kind, name }, i, all): CircuitBrief => ({
    kind,
    name:
      all.findIndex((d) => d.name.toLowerCase() === name.toLowerCase()) === i
        ? name.slice(0, 40)
        : `${name.slice(0, 36)} ${i + 1}`,
  }))
  const told = schemeIds.find((id) => schemes[id].name.toLowerCase() === installation.scheme.toLowerCase())
  for (const scheme of [...(told ? [told] : []), ...schemeIds]) {
    const brief = planBriefSchema.safeParse({ scheme, circuits: fitting(scheme, circuits), terminals: 'separate' })
    if (brief.success && brief.data.circuits.length === circuits.length) return brief.data
  }
  return planBriefSchema.parse({
    scheme: 'two-port',
    circuits: [{ kind: 'heating', name: 'Heating' }],
    terminals: 'separate',
  })
}

/** Circuits that a scheme takes. */
const fitting = (scheme: SchemeId, circuits: readonly CircuitBrief[]): CircuitBrief[] =>
  circuits.filter(
    ({ kind }, i) => circuits.slice(0, i).filter((c) => c.kind === kind).length < circuitsTaken(scheme, kind)[1],
  )
