import type { JobState } from '@nobbet/contract'
import type { Installation } from '@nobbet/core'
import { planOf } from '../wiring/plan-of'

/** What a run expects by: the plan, where there is one of just these devices and demands; else the wiring as it is known. */
export function expectedWiring(state: JobState): Installation {
  const { wiring } = state.document
  const plan = planOf(state)
  return plan && plan !== wiring && namesOf(plan) === namesOf(wiring) ? plan : wiring
}

const namesOf = ({ devices, intent }: Installation): string =>
  JSON.stringify([devices.map(({ id, type }) => `${id} ${type}`).sort(), intent.demands])
