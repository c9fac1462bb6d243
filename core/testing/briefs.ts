import { answersOf } from '../src/planning/answers'
import { whyNotLaid } from '../src/planning/plan-brief'
import {
  centreKindIds,
  circuitKindIds,
  circuitsTaken,
  fittingChoices,
  refusalsOf,
  schemeIds,
  supplyIds,
  usualFittings,
  type Fittings,
  type PlanBrief,
  type SchemeId,
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
  const asked = circuits.length > 0 ? circuits : [{ kind: one(takes), name: 'Only one' }]
  return {
    scheme,
    // Now and then a zone that is not to wait, a programmer without an OFF contact, a cable in the wall.
    circuits: asked.map((c) => (c.kind !== 'hot-water' && random() < 0.04 ? { ...c, alongside: true } : c)),
    ...(random() < 0.1 && { offContact: false }),
    ...(random() < 0.15 && { inWall: { [one(['stat-1-cable', 'cyl-stat-cable', 'boiler-cable'])]: one(inWalls) } }),
    ...fittings,
    supply: one(supplyIds),
    cable: one<PlanBrief['cable']>(['five-core', 'only-needed']),
    terminals: one(centreKindIds),
  }
}

const inWalls = [
  ['brown', 'blue', 'green-yellow'],
  ['brown', 'black', 'grey', 'green-yellow'],
  ['red', 'black', 'yellow', 'blue', 'green-yellow'],
  ['black', 'white', 'red', 'blue', 'bare'],
]

/** A standard brief of a scheme: the fewest circuits it takes, everything else as usual. */
export const standardBrief = (scheme: SchemeId): unknown => {
  const circuits = circuitKindIds.flatMap((kind) =>
    Array.from({ length: circuitsTaken(scheme, kind)[0] }, () => ({ kind, name: kind })),
  )
  return { scheme, circuits: circuits.length > 0 ? circuits : [{ kind: 'heating', name: 'heating' }] }
}

/**
 * Whether a plan keeps some answers of a brief, whatever the others are: looked for among all that these could be. Apart from
 * what looks for conflicts, so as to hold it to account.
 */
export function canKeep(brief: PlanBrief, kept: readonly string[]): boolean {
  const open = answersOf(brief).filter(({ id }) => !kept.includes(id))
  const laid = new Map<string, boolean>()
  const search = (one: PlanBrief, rest: typeof open): boolean => {
    const [next, ...others] = rest
    if (next) return next.open(one).some((value) => search(value, others))
    if (refusalsOf(one).length > 0) return false
    const key = JSON.stringify(one)
    const is = laid.get(key) ?? whyNotLaid(one) === undefined
    laid.set(key, is)
    return is
  }
  return search(brief, open)
}

/** What a scheme brings by itself: gravity without a cylinder thermostat, two supplies that meet. */
export const broughtByScheme: readonly string[] = ['no-cylinder-thermostat', 'second-supply']
