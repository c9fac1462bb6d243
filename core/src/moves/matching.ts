import { typeIn } from '../catalogue'
import type { Demand, Device, Installation } from '../installation'

/** What becomes of a device of the plan: it is there and stays, another stands in its place now, or there was none. */
export type Standing = { is: 'kept' | 'exchanged'; found: string } | { is: 'new' }

/**
 * Which device that is found each device of a plan stands for. By what it does for the demands (their thermostat, their channel,
 * their valves, their boiler), then by its name, then by its type alone.
 */
export function matched(found: Installation, plan: Installation): Map<string, Standing> {
  const roles = [rolesIn(found, ordered(found)), rolesIn(plan, demandsLike(plan, found))] as const
  const result = new Map<string, Standing>()
  const taken = new Set<string>()
  const rounds: ((a: Device, b: Device) => boolean)[] = [
    (a, b) => a.type === b.type && a.id === b.id && shares(roles, a, b),
    (a, b) => a.type === b.type && shares(roles, a, b),
    (a, b) => shares(roles, a, b, 'timing'),
    (a, b) => shares(roles, a, b) && familyOf(found, a) === familyOf(plan, b),
    (a, b) => shares(roles, a, b),
    (a, b) => a.id === b.id && familyOf(found, a) === familyOf(plan, b),
    (a, b) => a.type === b.type,
  ]
  for (const fits of rounds)
    for (const device of plan.devices) {
      if (result.has(device.id)) continue
      const other = found.devices.find((one) => !taken.has(one.id) && fits(one, device))
      if (!other) continue
      taken.add(other.id)
      result.set(device.id, { is: isSame(found, other, plan, device) ? 'kept' : 'exchanged', found: other.id })
    }
  for (const { id } of plan.devices) if (!result.has(id)) result.set(id, { is: 'new' })
  return result
}

const familyOf = (doc: Installation, { type }: Device): string => typeIn(doc, type).family
const isSame = (found: Installation, a: Device, plan: Installation, b: Device): boolean =>
  a.type === b.type && typeIn(found, a.type).version === typeIn(plan, b.type).version

/** The demands that are found, each under the name by which its part is known in both. */
const ordered = (found: Installation) => found.intent.demands.map((demand) => ({ demand, as: demand.id }))

/** The plan's demands, each under the id of the found one it stands for: of one kind and name, else the next of its kind. */
function demandsLike(plan: Installation, found: Installation): { demand: Demand; as: string }[] {
  const left = [...found.intent.demands]
  const take = (fits: (other: Demand) => boolean): string | undefined => {
    const at = left.findIndex(fits)
    return at < 0 ? undefined : left.splice(at, 1)[0].id
  }
  const named = plan.intent.demands.map((demand) => ({
    demand,
    as: take(({ kind, name }) => kind === demand.kind && name.toLowerCase() === demand.name.toLowerCase()),
  }))
  return named.map(({ demand, as }) => ({
    demand,
    as: as ?? take(({ kind, id }) => kind === demand.kind && id === demand.id) ?? `new ${demand.id}`,
  }))
}

/** What each device does for which demand. */
function rolesIn(doc: Installation, demands: readonly { demand: Demand; as: string }[]): Map<string, Set<string>> {
  const roles = new Map<string, Set<string>>()
  const add = (device: string | undefined, role: string) => {
    if (device !== undefined) roles.set(device, (roles.get(device) ?? new Set()).add(role))
  }
  for (const { demand, as } of demands) {
    add(demand.channel?.device, `timing`)
    if (demand.thermostat?.device !== demand.channel?.device) add(demand.thermostat?.device, `asks ${as}`)
    demand.circuit.valves.forEach(({ device }, i) => add(device, `valve ${i} ${as}`))
    demand.circuit.runs?.forEach((device, i) => add(device, `runs ${i} ${as}`))
    demand.circuit.emitters?.forEach((device, i) => add(device, `warms ${i} ${as}`))
    add(demand.call.boiler, 'boiler')
  }
  for (const { id, type } of doc.devices) if (typeIn(doc, type).family === 'supply') add(id, `supply ${type}`)
  return roles
}

function shares(
  [inFound, inPlan]: readonly [Map<string, Set<string>>, Map<string, Set<string>>],
  a: Device,
  b: Device,
  only?: string,
): boolean {
  const others = inPlan.get(b.id)
  return [...(inFound.get(a.id) ?? [])].some((role) => (only === undefined || role === only) && others?.has(role))
}
