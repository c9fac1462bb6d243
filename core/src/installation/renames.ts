import type { FieldChange, Renaming } from '../changes'
import type { Installation } from './schema'

/** Fields whose whole value is an id, by the list whose ids they are. */
const idFields: Record<string, readonly string[]> = {
  devices: ['device', 'leadOf', 'boiler', 'runs', 'emitters'],
  places: ['place'],
  connectors: ['connector'],
  demands: ['companions'],
}
/** Lists whose entries own terminals or water connections, written `owner.terminal`. */
const owners = ['devices', 'wiringCentres', 'tees']
/** Fields that hold such an address. */
const addressFields = ['terminal', 'between', 'from', 'to', 'asking']
/** Lists whose ids say what the entry is about: under another id it would be another thing. */
const named = ['types', 'waivers', 'cores']

/**
 * An id for an entry of one's own where somebody else has taken the one it had; `path` is its list's. A terminal takes the next
 * number, everything else its old id with a number behind it; none that is `reserved`. Undefined where the id is what the entry
 * is about.
 */
export function otherId(
  doc: Installation,
  path: readonly string[],
  id: string,
  reserved: ReadonlySet<string>,
): string | undefined {
  const list = path[path.length - 1]
  if (named.includes(list)) return undefined
  if (list === 'terminals') {
    const terminals = doc.wiringCentres.find((c) => c.id === path[path.length - 2])?.terminals ?? []
    const numbers = [...terminals.map((t) => t.id), ...reserved].map(Number).filter(Number.isInteger)
    return String(Math.max(0, ...numbers) + 1)
  }
  const taken = new Set(
    [
      doc.devices,
      doc.wiringCentres,
      doc.connectors,
      doc.cables,
      doc.links,
      doc.pipes,
      doc.tees,
      doc.places,
      doc.intent.demands,
    ].flatMap((all) => all.map((entry) => entry.id)),
  )
  const stem = id.replace(/-\d+$/, '').slice(0, 34)
  for (let n = 2; ; n++) if (!taken.has(`${stem}-${n}`) && !reserved.has(`${stem}-${n}`)) return `${stem}-${n}`
}

/** A change that speaks of a renamed entry by its new id, wherever it stands in it. */
export function renamedChange(change: FieldChange, renaming: Renaming): FieldChange {
  const path = renamedPath(change.path, renaming)
  const inside = (value: unknown) => renamedValue(value, renaming, path[path.length - 1])
  switch (change.do) {
    case 'add': {
      const value = inside(change.value) as typeof change.value
      const own = sameList(change.path, renaming) && change.value.id === renaming.from
      return { ...change, path, value: own ? { ...value, id: renaming.to } : value, after: renamedId(change, renaming) }
    }
    case 'drop': {
      const was = inside(change.was) as typeof change.was
      const own = sameList(change.path, renaming) && change.was.id === renaming.from
      return { ...change, path, was: own ? { ...was, id: renaming.to } : was, after: renamedId(change, renaming) }
    }
    case 'order': {
      if (!sameList(change.path, renaming)) return { ...change, path }
      const id = (one: string) => (one === renaming.from ? renaming.to : one)
      return { ...change, path, was: change.was.map(id), now: change.now.map(id) }
    }
    case 'set':
      return {
        ...change,
        path,
        ...('was' in change && { was: fieldValue(change.was, renaming, path) }),
        ...('now' in change && { now: fieldValue(change.now, renaming, path) }),
      }
  }
}

const sameList = (path: readonly string[], { path: list }: Renaming): boolean =>
  path.length === list.length && list.every((key, i) => path[i] === key)

const renamedId = (change: { path: string[]; after: string | null }, renaming: Renaming): string | null =>
  sameList(change.path, renaming) && change.after === renaming.from ? renaming.to : change.after

function renamedPath(path: readonly string[], { path: list, from, to }: Renaming): string[] {
  const through = path.length > list.length && list.every((key, i) => path[i] === key) && path[list.length] === from
  return through ? path.map((key, i) => (i === list.length ? to : key)) : [...path]
}

/** A value that stands under a field: an end, a list of ids, an address. */
function fieldValue(value: unknown, renaming: Renaming, path: readonly string[]): unknown {
  const named = path.findLast((key) => !/^\d+$/.test(key))
  return renamedValue(value, renaming, named)
}

function renamedValue(value: unknown, renaming: Renaming, field: string | undefined): unknown {
  if (Array.isArray(value)) return value.map((one) => renamedValue(one, renaming, field))
  if (typeof value === 'object' && value !== null)
    return Object.fromEntries(Object.entries(value).map(([key, inner]) => [key, renamedValue(inner, renaming, key)]))
  return typeof value === 'string' && field !== undefined ? renamedText(value, renaming, field) : value
}

function renamedText(text: string, { path, from, to }: Renaming, field: string): string {
  const list = path[path.length - 1]
  if (list === 'terminals') {
    const owner = path[path.length - 2]
    return addressFields.includes(field) && text === `${owner}.${from}` ? `${owner}.${to}` : text
  }
  if (text === from && idFields[list]?.includes(field)) return to
  if (owners.includes(list) && addressFields.includes(field) && text.startsWith(`${from}.`))
    return `${to}${text.slice(from.length)}`
  return text
}
