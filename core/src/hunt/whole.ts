import type { Circuit } from '../circuit'
import { Simulation } from '../simulation'
import type { HuntEntry } from './case'
import { Course } from './course'

/** The installation with nothing wrong, as it stands after everything that was done in a log that fits it. */
export function wholeAfter(circuit: Circuit, log: readonly HuntEntry[]): Simulation {
  const course = new Course(new Simulation(circuit))
  for (const entry of log) if ('do' in entry) course.act(entry.do)
  return course.sim
}
