import { ActionError, parseAction, type Simulation } from '../simulation'
import { rewiringOf } from './rewiring'

/** Until nothing moves any more. */
export const settle = 'settle'

/** Lets time pass, and does nothing. */
export const passes = (act: string): boolean => act === settle || act.startsWith('wait=')

/** How long is waited, ms; undefined of what is done, and of waiting until nothing moves. */
export function waitOf(act: string): number | undefined {
  if (act === settle || !passes(act)) return undefined
  const action = parseAction(act)
  return action.do === 'wait' ? action.ms : undefined
}

/** The device somebody sets by this act; undefined where none is set. */
export function deviceSetOf(act: string): string | undefined {
  if (passes(act) || rewiringOf(act)) return undefined
  const action = parseAction(act)
  return action.do === 'set' ? action.device : undefined
}

/** Does one act of a log. Throws {@link ActionError} where it does not fit the installation, or is nothing that is done on site. */
export function perform(sim: Simulation, act: string): void {
  if (act === settle) return void sim.settle()
  const action = parseAction(act)
  switch (action.do) {
    case 'set':
      return sim.set(action.device, action.control, action.value)
    case 'wait':
      return void sim.run(action.ms)
    case 'clock':
      return sim.setClock(action.minuteOfWeek)
    case 'lost-time':
      return sim.setLostTime(action.device, action.minutes)
    case 'heat':
      return sim.letWarm(action.scenario ?? undefined)
    default:
      throw new ActionError(`"${act}" is nothing that can be done on site`)
  }
}
