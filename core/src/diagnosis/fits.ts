import type { Circuit } from '../circuit'
import { askableContacts } from '../hunt'
import type { Observation } from './observation'

/** Is what was looked at, and every control it was looked at in, still part of this installation? */
export function fitsCircuit(
  circuit: Circuit,
  { asking, observable }: Pick<Observation, 'asking' | 'observable'>,
): boolean {
  const contacts = new Set(askableContacts(circuit).map((c) => `${c.device}.${c.contact}`))
  if (!asking.every((key) => contacts.has(key))) return false
  return observable.kind === 'terminal'
    ? circuit.atomIndex.has(observable.terminal)
    : circuit.deviceIndex.has(observable.device)
}
