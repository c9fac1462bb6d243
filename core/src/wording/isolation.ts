import type { Circuit } from '../circuit'
import { unpartedSupplies } from '../inputs'
import { deviceName } from './names'

/** What is not asked for where a supply has no switch drawn that parts it, and what to do; undefined where all have one. */
export function notIsolatedText(circuit: Circuit): string | undefined {
  const names = unpartedSupplies(circuit).map((id) => deviceName(circuit, id))
  if (names.length === 0) return undefined
  return (
    `No test with the supply off is asked for here: nothing drawn at ${names.join(' and ')} parts both line and neutral. ` +
    'Isolate where that is done. To be asked for dead tests, draw a supply with a switch at the Bench.'
  )
}
