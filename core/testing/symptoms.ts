import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Circuit } from '../src/circuit'
import type { Signs } from '../src/trace'

/** A section of docs/symptoms.md: of one example, what each fault shows in which demand. */
export interface SymptomSection {
  example: string
  columns: string[]
  rows: [fault: string, cells: string[]][]
}

const cellsOf = (line: string) =>
  line
    .split('|')
    .slice(1, -1)
    .map((cell) => cell.trim())

const parts = () => readFileSync(join(process.cwd(), 'docs/symptoms.md'), 'utf8').split('\n## ').slice(1)

/** A type whose rows are those of a device of another, with its type exchanged. */
export interface StandIn {
  type: string
  example: string
  device: string
}

export const standIns = (): StandIn[] =>
  parts()
    .filter((part) => part.startsWith('Device types without rows'))
    .flatMap((part) =>
      part
        .split('\n')
        .filter((line) => line.startsWith('|'))
        .map(cellsOf)
        .slice(2),
    )
    .map(([type, example, device]) => ({ type, example, device }))

export function symptomSections(): SymptomSection[] {
  return parts().flatMap((part) => {
    const example = /^Example `([a-z-]+)`/m.exec(part)?.[1]
    if (!example) return []
    const [head, , ...lines] = part
      .split('\n')
      .filter((line) => line.startsWith('|'))
      .map(cellsOf)
    const rows = lines.map(([fault, ...cells]): SymptomSection['rows'][number] => [fault, cells])
    return [{ example, columns: head.slice(1), rows }]
  })
}

/** A cell's statements, sorted: their order says nothing. */
export const statementsOf = (cell: string): string[] => (cell === '-' ? [] : cell.split('; ').sort())

const displays: Record<string, string | undefined> = { idle: undefined, off: 'dark', lockout: 'locked out' }

/** What a rig shows, in the statements of docs/symptoms.md: only what differs from a whole system at rest. */
export function signStatements(circuit: Circuit, signs: Signs): string[] {
  if (signs.hunting) return ['hunts']
  const attributes = new Map<string, string[]>()
  const say = (device: string, ...words: (string | undefined)[]) => {
    const said = words.flatMap((w) => (w === undefined ? [] : [w]))
    if (said.length > 0) attributes.set(device, [...(attributes.get(device) ?? []), ...said])
  }
  for (const { device, actuator, place, hums, lever } of signs.valves) {
    if (place === 'rest' && !hums && lever !== 'fixed') continue
    const { ends } = circuit.actuators[actuator].part
    const word = { rest: ends?.shut ?? 'shut', part: ends?.part ?? 'half', driven: ends?.open ?? 'open' }[place]
    say(device, word.replace('at ', ''), hums ? 'hums' : 'silent', lever)
  }
  for (const { device, calls, phase } of signs.boilers)
    say(device, calls.length > 0 ? calls.join(' ') : undefined, phase in displays ? displays[phase] : phase)
  for (const device of signs.dark) say(device, 'dark')
  for (const device of signs.blown) say(device, 'blown')
  for (const device of signs.unlinked) say(device, 'unlinked')
  for (const load of signs.working) {
    const { device, part } = circuit.loads[load]
    say(circuit.devices[device].device.id, part.work)
  }
  if (signs.warm.length > 0) say('warm', signs.warm.join(' '))
  return [...attributes].map(([device, words]) => `${device}: ${words.join(', ')}`).sort()
}
