import {
  centreKindIds,
  circuitKindIds,
  circuitsTaken,
  fittingChoices,
  schemeIds,
  supplyIds,
  usualFittings,
  type Fittings,
  type PlanBrief,
} from '../src/planning'

/** A brief as somebody might ask for it, not parsed yet: of every scheme, control, boiler and wiring centre; some cannot be laid out. */
export function someBrief(random: () => number, mostCircuits = 10): unknown {
  const one = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]
  const scheme = one(schemeIds)
  const takes = circuitKindIds.filter((kind) => circuitsTaken(scheme, kind)[1] > 0)
  const circuits = takes
    .flatMap((kind) => {
      const [least, most] = circuitsTaken(scheme, kind)
      const n = least + Math.floor(random() * (most - least + 1))
      return Array.from({ length: n }, (_, i) => ({ kind, name: `${kind} ${i + 1}` }))
    })
    .slice(0, mostCircuits)
  const fittings: Partial<Fittings> = {}
  // Half of what could be chosen is left as it usually is.
  if (usualFittings(scheme) && random() < 0.5) {
    fittings.cylinder = one(Object.keys(fittingChoices.cylinder) as Fittings['cylinder'][])
    fittings.control = one(Object.keys(fittingChoices.control) as Fittings['control'][])
    fittings.boiler = one(Object.keys(fittingChoices.boiler) as Fittings['boiler'][])
  }
  return {
    scheme,
    circuits: circuits.length > 0 ? circuits : [{ kind: one(takes), name: 'Only one' }],
    ...fittings,
    supply: one(supplyIds),
    cable: one<PlanBrief['cable']>(['five-core', 'only-needed']),
    terminals: one(centreKindIds),
  }
}

/** What a scheme brings by itself: gravity without a cylinder thermostat, two supplies that meet. */
export const broughtByScheme: readonly string[] = ['no-cylinder-thermostat', 'second-supply']
