import type { Circuit } from '../circuit'
import { ActionError, Simulation } from '../simulation'
import type { HuntEntry } from './case'
import { Course } from './course'

/** The installation with nothing wrong, as it stands after everything in a log that can be done to it. */
export function wholeAfter(circuit: Circuit, log: readonly HuntEntry[]): Simulation {
  const course = new Course(new Simulation(circuit))
  for (const entry of log) {
    try {
      if ('do' in entry) course.act(entry.do)
    } catch (error) {
      // A misfit, told elsewhere: nothing was done.
      if (!(error instanceof ActionError)) throw error
    }
  }
  return course.sim
}
