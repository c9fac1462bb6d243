import { compile } from '../circuit'
import { departuresFrom } from '../departures'
import { Rig } from '../hypotheses'
import { edited } from '../installation'
import type { Simulation } from '../simulation'
import type { Background } from './asker'
import type { Cause } from './claims'

/**
 * What departs from the plan and, put right by itself with the same things done, takes an effect away. For what no way shows: a
 * relay that pulls itself out, a valve held half way. Nothing where there is no plan or what was done is not known.
 */
export function departuresBehind(
  sim: Simulation,
  { plan, acts }: Background,
  stands: (sim: Simulation) => boolean,
): Cause[] {
  if (!plan || !acts || plan === sim.circuit) return []
  const { installation } = sim.circuit
  return departuresFrom(plan.installation, installation).flatMap(({ what, step }): Cause[] => {
    const { simulation } = Rig.after(compile(edited(installation, step).doc, sim.circuit), acts)
    return stands(simulation) ? [] : [{ claim: { is: 'departure', what, tried: true }, failed: true, because: [] }]
  })
}
