import { compile } from '../circuit'
import { departuresFrom } from '../departures'
import { putInsOf, Rig } from '../hypotheses'
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
  { plan, acts, from }: Background,
  stands: (sim: Simulation) => boolean,
): Cause[] {
  if (!plan || !acts || plan === sim.circuit) return []
  const { installation } = sim.circuit
  // What was put into the wiring is in it from the start here.
  const faults = putInsOf(from ?? sim.circuit)
  const done = acts.filter((act) => !((act.do === 'fault' || act.do === 'mend') && faults.get(act.fault)?.change))
  return departuresFrom(plan.installation, installation).flatMap(({ what, step }): Cause[] => {
    const { simulation } = Rig.after(compile(edited(installation, step).doc, sim.circuit), done)
    return stands(simulation) ? [] : [{ claim: { is: 'departure', what, tried: true }, failed: true, because: [] }]
  })
}
