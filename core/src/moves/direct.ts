import { isEarthColour } from '../catalogue'
import { ownerOf, placeOf, type Cable, type Core, type End, type Installation } from '../installation'
import { assigned } from './assignment'
import { costs } from './costs'
import type { Joins } from './joins'
import { freeOf, type Target } from './target'
import { boxSide, ownersOf } from './work'

/** Cables past the wiring centre: those that are there with their ends as they will be, and those to be laid. */
export interface Direct {
  there: Cable[]
  laid: Cable[]
}

export const endAt = (node: string): End =>
  node.includes('.') ? { at: 'terminal', terminal: node } : { at: 'connector', connector: node }
const nodeOf = (end: End): string | undefined => (end.at === 'parked' ? undefined : placeOf(end))

/**
 * What becomes of the cables between devices: a conductor that joins what the plan joins stays; one that runs between the right two
 * devices is landed anew; where there is none, one is laid.
 */
export function directCables(found: Installation, target: Target, joins: Joins, taken: Set<string>): Direct {
  const { plan, devices, stands } = target
  const box = found.wiringCentres[0].id
  const planBox = plan.wiringCentres[0]?.id ?? ''
  const nowAt = new Map(
    devices.flatMap(({ device, standing }) => (standing.is === 'new' ? [] : [[standing.found, device.id]])),
  )
  const there = found.cables.filter((cable) => cable.leadOf === undefined && boxSide(cable, box) === undefined)
  const served = new Map<Core, [string, string]>()
  const laid: Cable[] = []
  for (const cable of plan.cables) {
    if (boxSide(cable, planBox) !== undefined) continue
    const ends = ownersOf(cable, planBox)
    if (cable.leadOf !== undefined) {
      if (!stands.has(cable.leadOf)) laid.push({ ...cable, id: freeOf(taken, cable.id) })
      continue
    }
    const alike = there.filter((one) => {
      const owners = ownersOf(one, box).map((id) => nowAt.get(id) ?? id)
      return owners.length > 1 && owners.every((id) => ends.includes(id)) && owners.length === ends.length
    })
    const cores = alike.flatMap((one) => one.cores.filter((core) => !served.has(core)))
    const missing = servedBy(cable, cores, served)
    if (missing.length > 0)
      laid.push({
        ...cable,
        id: freeOf(taken, cable.id),
        cores: missing.length === cable.cores.length ? cable.cores : missing,
      })
  }
  for (const { id } of laid) taken.add(id)
  return {
    there: there.map((cable) => ({ ...cable, cores: cable.cores.map((core) => asIs(core, served, stands, joins)) })),
    laid,
  }
}

/** Chooses conductors for those of a planned cable; what is left over. */
function servedBy(cable: Cable, cores: readonly Core[], served: Map<Core, [string, string]>): Core[] {
  const wanted = cable.cores.flatMap((core) => {
    const [a, b] = core.ends.map(nodeOf)
    return a === undefined || b === undefined ? [] : [{ core, a, b }]
  })
  const never = 1e9
  const matrix = wanted.map(({ core, a, b }) => [
    ...cores.map((one) => {
      if (isEarthColour(one.colour) !== isEarthColour(core.colour)) return never
      return (
        Math.min(...pairsOf(a, b).map((pair) => touched(one, pair))) + (one.colour === core.colour ? 0 : costs.colour)
      )
    }),
    ...wanted.map(() => costs.conductor + 2 * costs.end),
  ])
  return assigned(matrix).flatMap((column, i) => {
    if (column >= cores.length) return [wanted[i].core]
    const { a, b } = wanted[i]
    const [best, other] = pairsOf(a, b)
    served.set(cores[column], touched(cores[column], best) <= touched(cores[column], other) ? best : other)
    return []
  })
}

const pairsOf = (a: string, b: string): [[string, string], [string, string]] => [
  [a, b],
  [b, a],
]
const touched = ({ ends }: Core, pair: readonly [string, string]): number =>
  ends.filter((end, i) => nodeOf(end) !== pair[i]).length * costs.end

/** A conductor that is there, with its ends where they will be. */
function asIs(
  core: Core,
  served: ReadonlyMap<Core, [string, string]>,
  stands: ReadonlySet<string>,
  joins: Joins,
): Core {
  const pair = served.get(core)
  if (pair) {
    const ends = core.ends.map((end, i) => (nodeOf(end) === pair[i] ? end : endAt(pair[i]))) as Core['ends']
    return { ...core, ends }
  }
  const nodes = core.ends.map(nodeOf)
  const isStanding = nodes.every((node) => node === undefined || stands.has(ownerOf(node)))
  const [a, b] = nodes
  if (isStanding && (a === undefined || b === undefined || joins.netOf(a) === joins.netOf(b))) return core
  return { ...core, ends: [{ at: 'cut-back' }, { at: 'cut-back' }] }
}
