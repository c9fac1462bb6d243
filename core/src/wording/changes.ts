import { typeIn } from '../catalogue'
import type { FieldChange, Renaming } from '../changes'
import type { End, Installation } from '../installation'
import { endText } from '../catalogue'

const fieldWords: Record<string, string> = {
  name: 'name',
  label: 'name',
  legend: 'legend',
  ways: 'conductors it takes',
  colour: 'colour',
  sleeve: 'sleeve',
  areaMm2: 'cross-section',
  lengthM: 'length',
  kind: 'kind',
  type: 'type',
  place: 'place',
  reason: 'why it may stand',
  scheme: 'scheme',
  supply: 'supply',
  provenance: 'how it is known',
}
const entryWords: Record<string, string> = {
  devices: 'device',
  wiringCentres: 'wiring centre',
  terminals: 'terminal',
  connectors: 'connector',
  cables: 'cable',
  cores: 'conductor',
  links: 'link',
  places: 'place',
  pipes: 'pipe',
  tees: 'tee',
  types: 'device type',
  demands: 'demand',
  waivers: 'finding that may stand',
}

type Named = { id: string; name?: string; label?: string; legend?: string; between?: string[] }
const called = (list: string, entry: Named): string =>
  list === 'terminals'
    ? `terminal ${entry.id}${entry.legend ? ` “${entry.legend}”` : ''}`
    : (entry.name ?? entry.label ?? `${entryWords[list] ?? list} ${entry.between?.join(' to ') ?? entry.id}`)

/** What a path in an installation leads to, in words: "brown of Pump cable, end 2". */
export function thingText(doc: Installation, path: readonly string[]): string {
  const [list, id, ...rest] = path[0] === 'intent' ? path.slice(1) : path
  if (id === undefined) return fieldWords[list] ?? list
  const entries = (list === 'demands' ? doc.intent.demands : doc[list as 'devices']) as readonly Named[] | undefined
  const entry = entries?.find((e) => e.id === id)
  const name = entry ? called(list, entry) : `${entryWords[list] ?? list} ${id}`
  if (list === 'cables' && rest[0] === 'cores') return conductorText(doc, id, name, rest)
  if (list === 'wiringCentres' && rest[0] === 'terminals') {
    const field = rest[2] === undefined ? '' : `, ${fieldWords[rest[2]] ?? rest[2]}`
    return `terminal ${rest[1]} of ${name}${field}`
  }
  if (rest.length === 0) return name
  return `${name}, ${settingText(doc, list === 'devices' ? id : undefined, rest)}`
}

function conductorText(
  doc: Installation,
  cable: string,
  name: string,
  [, core, field, end]: readonly string[],
): string {
  const colour = doc.cables.find((c) => c.id === cable)?.cores.find((k) => k.id === core)?.colour ?? core
  const rest =
    field === 'ends' ? `, end ${Number(end) + 1}` : field === undefined ? '' : `, ${fieldWords[field] ?? field}`
  return `${colour} of ${name}${rest}`
}

function settingText(doc: Installation, device: string | undefined, [field, key]: readonly string[]): string {
  if (key === undefined) return fieldWords[field] ?? field
  const type = doc.devices.find((d) => d.id === device)?.type
  const known = type === undefined ? undefined : typeIn(doc, type)
  if (field === 'settings') return known?.settings.find((s) => s.id === key)?.label.toLowerCase() ?? key
  if (field === 'legends') return `legend of terminal ${key}`
  const control = known?.controls.find((c) => c.id === key)?.label.toLowerCase() ?? key
  return field === 'programme' ? `week of ${control}` : control
}

/** A value at a path of an installation, in words; nothing where there is none. */
export function valueText(doc: Installation, path: readonly string[], value: unknown): string {
  if (value === undefined || value === null) return 'nothing'
  if (path.includes('ends') && typeof value === 'object') {
    const end = value as End
    return `${endText(doc, end)}${end.provenance ? `, ${end.provenance}` : ''}`
  }
  if (typeof value === 'string') return value === '' ? 'nothing' : `“${value}”`
  if (typeof value === 'number') return String(value)
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  return 'another state of it'
}

/** What a change wants, in words. */
export function changeText(doc: Installation, change: FieldChange): string {
  const list = change.path[change.path.length - 1]
  switch (change.do) {
    case 'set':
      return `${thingText(doc, change.path)}: ${valueText(doc, change.path, change.now)}`
    case 'add':
      return `${called(list, change.value)} put in`
    case 'drop':
      return `${called(list, change.was)} taken out`
    case 'order':
      return `${list} in another order`
  }
}

/** That a new entry goes by another id than it was made under. */
export function renamedText({ path, from, to }: Renaming): string {
  const word = entryWords[path[path.length - 1]] ?? 'entry'
  return `Your ${word} ${from} is ${to} now.`
}
