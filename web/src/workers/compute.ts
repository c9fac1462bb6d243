import { LongAsked } from './asked'
import type { ComputeApi } from './compute.worker'

/** What is worked out apart from the rest: a check or a week never keeps the next reading of a hunt waiting. */
export type Task = 'checks' | 'week' | 'hunt' | `at-once-${number}` | 'kit' | 'brief'

const workers = new LongAsked<Task, ComputeApi>(
  (task) => new Worker(new URL('./compute.worker.ts', import.meta.url), { type: 'module', name: task }),
)

/**
 * What takes longer than a frame is asked of a worker.
 *
 * @example
 * const diagnosis = await ask('hunt', (api) => api.diagnose(installation, findings))
 */
export const ask: typeof workers.ask = workers.ask.bind(workers)
/** As {@link ask}, what takes long: it can be left. */
export const longRun: typeof workers.longRun = workers.longRun.bind(workers)
