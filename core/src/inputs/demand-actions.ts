import type { Circuit } from '../circuit'
import type { ContactRef } from '../installation'
import type { Action } from '../simulation'
import { inputActions, inputOf } from './input'

/** The actions that make a device's contact ask, or stop asking: found in the conditions, not in device names. */
export const actionsFor = (circuit: Circuit, at: ContactRef, asking: boolean): Action[] =>
  inputActions(circuit, inputOf(circuit, at), asking)

/** The actions that make just these demands wanted: every channel and thermostat set, those of no wanted demand to rest. */
export function demandActions(circuit: Circuit, wantedIds: readonly string[]): Action[] {
  const { demands } = circuit.installation.intent
  const settings = new Map<string, { at: ContactRef; asking: boolean }>()
  for (const demand of demands)
    for (const at of [demand.channel, demand.thermostat]) {
      if (!at) continue
      const key = `${at.device}.${at.contact}`
      const asking = wantedIds.includes(demand.id) || (settings.get(key)?.asking ?? false)
      settings.set(key, { at, asking })
    }
  return [...settings.values()].flatMap(({ at, asking }) => actionsFor(circuit, at, asking))
}

/** Every subset of some ids, the empty one first, smaller ones before larger. */
export function subsets(ids: readonly string[]): string[][] {
  let all: string[][] = [[]]
  for (const id of ids) all = all.concat(all.map((s) => [...s, id]))
  return all.sort((x, y) => x.length - y.length)
}
