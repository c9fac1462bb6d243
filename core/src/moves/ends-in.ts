import { placeOf } from '../installation'
import type { Change } from './change-of-controls'
import { netsAmong } from './joins'

/**
 * What terminals of devices are joined once a change is made, and what the plan would join that is laid out from nothing. They are the
 * same, whichever conductors and terminals of the wiring centre it goes through.
 */
export function joinsOf({ to, target }: Change): { is: string[][]; planned: string[][] } {
  const devices = new Set(target.plan.devices.map(({ id }) => id))
  const refs = [target.plan, to].flatMap(({ cables, links }) => [
    ...cables.flatMap(({ cores }) => cores.flatMap(({ ends }) => ends.flatMap((end) => placeOf(end) ?? []))),
    ...links.flatMap(({ between }) => between),
  ])
  const nodes = new Set(refs.filter((ref) => devices.has(ref.split('.')[0])))
  return { is: netsAmong(to, nodes), planned: netsAmong(target.plan, nodes) }
}
