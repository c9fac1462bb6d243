import type { End, Installation, TerminalRef } from '../installation'
import { outsideTerminals } from './verbs'

/** What one side of a cable goes to: a wiring centre or a device. */
export function ownerOfSide(doc: Installation, cable: string, end: 0 | 1): string | undefined {
  const cores = doc.cables.find((c) => c.id === cable)?.cores ?? []
  const count = new Map<string, number>()
  for (const { ends } of cores) {
    const at = ends[end]
    if (!('terminal' in at)) continue
    const [owner] = at.terminal.split('.')
    count.set(owner, (count.get(owner) ?? 0) + 1)
  }
  const most = [...count].sort((x, y) => y[1] - x[1])[0]?.[0]
  if (most !== undefined || doc.wiringCentres.length !== 1) return most
  // With one wiring centre, the far side of a device's cable is there unless it is said otherwise.
  const [centre] = doc.wiringCentres
  const other = cores.flatMap(({ ends }) => {
    const far = ends[1 - end]
    return 'terminal' in far ? [far.terminal.split('.')[0]] : []
  })
  return other.length > 0 && !other.includes(centre.id) ? centre.id : undefined
}

/** A terminal that can be named from a keyboard: by its number in the list, its id, or the beginning of it. */
export interface TypedOption {
  number: number
  ref: TerminalRef
  id: string
  legend: string
}

/** Terminals of an owner as they are offered to the keyboard. */
export function typedOptions(doc: Installation, owner: string): TypedOption[] {
  const device = doc.devices.find((d) => d.id === owner)
  const centre = doc.wiringCentres.find((c) => c.id === owner)
  const terminals = device
    ? outsideTerminals(doc, device)
    : (centre?.terminals ?? []).map((t) => ({ ref: `${owner}.${t.id}`, id: t.id, legend: t.legend }))
  return terminals.map((t, i) => ({ number: i + 1, ...t }))
}

/**
 * Reads what was typed for an end: a terminal of the side's own wiring centre or device, `owner.terminal` anywhere, `x` cut
 * back, `-` loose, `?` not found. A string says why it cannot be read.
 */
export function readTyped(doc: Installation, owner: string | undefined, typed: string): End | string {
  const text = typed.trim()
  if (text === 'x' || text === 'X') return { at: 'cut-back' }
  if (text === '-') return { at: 'loose' }
  if (text === '?') return { at: 'unknown' }
  if (text.includes('.')) {
    const [to, id] = text.split('.')
    return typedOptions(doc, to).some((o) => o.id === id)
      ? { at: 'terminal', terminal: text }
      : `there is no terminal "${text}"`
  }
  if (owner === undefined) return 'choose first what this side of the cable goes to'
  const options = typedOptions(doc, owner)
  const same = (o: TypedOption) => o.id.toLowerCase() === text.toLowerCase()
  const begins = options.filter((o) => o.id.toLowerCase().startsWith(text.toLowerCase()))
  // Where terminals are numbered, the number is what stands on them; elsewhere it is the place in the list.
  const found = options.find(same) ?? (begins.length === 1 ? begins[0] : options.find((o) => String(o.number) === text))
  if (found) return { at: 'terminal', terminal: found.ref }
  return begins.length > 1
    ? `"${text}" could be ${begins.map((o) => o.id).join(' or ')}`
    : `there is no terminal "${text}" there`
}
