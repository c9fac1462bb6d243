import { renamedChange } from '../installation'
import type { Device, Installation } from '../installation'
import { matched, type Standing } from './matching'

/** A device of the plan as it will stand in the installation that is found. */
export interface Placed {
  device: Device
  standing: Standing
}

/** A plan told in the names of the installation that it is to be made of. */
export interface Target {
  plan: Installation
  devices: Placed[]
  /** Devices that are found and for which the plan has no use. */
  removed: Device[]
  /** Devices that stay, under the id that they have; and with them the connectors of the plan that are there already. */
  kept: ReadonlySet<string>
  stands: ReadonlySet<string>
}

/**
 * A plan with the ids and places that are found: a device that stays has its own, another in its place stands where it stood.
 * What the plan's wiring centre is called no longer matters; it only says what is joined.
 */
export function targetOf(found: Installation, laidOut: Installation): Target {
  const standings = matched(found, laidOut)
  const names = new Map<string, string>()
  const taken = new Set([...found.devices, ...found.wiringCentres, ...found.connectors].map(({ id }) => id))
  for (const { id } of laidOut.devices) {
    const standing = standings.get(id)!
    if (standing.is === 'kept') names.set(id, standing.found)
  }
  for (const { id } of laidOut.devices) {
    if (names.has(id)) continue
    const standing = standings.get(id)!
    const isOwn = standing.is === 'exchanged' && standing.found === id
    const name = isOwn ? id : freeOf(taken, id)
    names.set(id, name)
    taken.add(name)
  }
  const plan = withPlaces(found, renamedDevices(laidOut, names), standings, names)
  const kept = new Set([...standings.values()].flatMap((s) => (s.is === 'kept' ? [s.found] : [])))
  const joints = plan.connectors.flatMap(({ id }) => (found.connectors.some((c) => c.id === id) ? [id] : []))
  const used = new Set([...standings.values()].flatMap((s) => (s.is === 'new' ? [] : [s.found])))
  return {
    plan,
    devices: laidOut.devices.map(({ id }) => ({
      device: plan.devices.find((d) => d.id === names.get(id))!,
      standing: standings.get(id)!,
    })),
    removed: found.devices.filter(({ id }) => !used.has(id)),
    kept,
    stands: new Set([...kept, ...joints]),
  }
}

/** An id that is not taken: the wanted one, or that with a number behind it. */
export function freeOf(taken: ReadonlySet<string>, wanted: string): string {
  if (!taken.has(wanted)) return wanted
  for (let n = 2; ; n++) if (!taken.has(`${wanted.slice(0, 36)}-${n}`)) return `${wanted.slice(0, 36)}-${n}`
}

/** A document whose devices have other ids, wherever they are spoken of. In two steps, so that two may change names. */
function renamedDevices(doc: Installation, names: ReadonlyMap<string, string>): Installation {
  const steps = [...names].filter(([from, to]) => from !== to)
  const between = steps.map(([from], i) => [from, `between-names-${i}`] as const)
  const after = steps.map(([, to], i) => [`between-names-${i}`, to] as const)
  return [...between, ...after].reduce((at, [from, to]) => {
    const change = { do: 'set' as const, path: ['doc'], now: at }
    const { now } = renamedChange(change, { path: ['devices'], from, to }) as { now: Installation }
    return { ...now, devices: now.devices.map((d) => (d.id === from ? { ...d, id: to } : d)) }
  }, doc)
}

/** Devices where they stand or will stand, in the places that are found; a place that nothing shows to be one of them is another. */
function withPlaces(
  found: Installation,
  plan: Installation,
  standings: ReadonlyMap<string, Standing>,
  names: ReadonlyMap<string, string>,
): Installation {
  const placeIn = (id: string) => found.devices.find((d) => d.id === id)!.place
  const standsFor = new Map<string, string>()
  for (const [id, standing] of standings) {
    const { place } = plan.devices.find((d) => d.id === names.get(id))!
    if (standing.is !== 'new' && !standsFor.has(place)) standsFor.set(place, placeIn(standing.found))
  }
  const known = (place: string) => standsFor.get(place) ?? found.places.find(({ id }) => id === place)?.id
  const devices = plan.devices.map((device): Device => {
    const id = [...names].find(([, name]) => name === device.id)![0]
    const standing = standings.get(id)!
    return { ...device, place: standing.is === 'new' ? (known(device.place) ?? device.place) : placeIn(standing.found) }
  })
  const connectors = plan.connectors.map((c) => ({ ...c, place: known(c.place) ?? c.place }))
  const used = new Set([...devices, ...connectors].map(({ place }) => place))
  return { ...plan, devices, connectors, places: plan.places.filter(({ id }) => used.has(id)) }
}
