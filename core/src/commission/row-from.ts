import { same } from '../changes'
import type { Circuit } from '../circuit'
import type { Action } from '../simulation'
import { histories, perform, settledMs } from './histories'
import { expectedOf } from './shown'
import { isDeadRow, type RowLook, type RunRow } from './row'

/** A row as it was done: what was set, and how long was waited. */
export type Done = Pick<RunRow, 'acts' | 'waitMs'>

/** How the controls stand after some acts, by `device.control`. */
export function standsAfter(acts: readonly Action[]): Map<string, string> {
  const stands = new Map<string, string>()
  for (const act of acts) if (act.do === 'set') stands.set(`${act.device}.${act.control}`, act.value)
  return stands
}

/**
 * A row as it is done after what was done so far: where rows before it were not done, or something else was done since the last of them,
 * what it goes out from is set first. Expected is then what the healthy installation shows after just that, whatever was asked
 * for before. `done`: rows done without anything else between them, in their order; none where nobody knows how the controls stand.
 * Undefined where the run has no such row.
 */
export function rowFrom(
  circuit: Circuit,
  rows: readonly RunRow[],
  id: string,
  done: readonly Done[],
): RunRow | undefined {
  const at = rows.findIndex((row) => row.id === id)
  if (at < 0) return undefined
  const row = rows[at]
  if (isWhole(rows.slice(0, at), done)) return row
  const acts = [...caughtUp(circuit, rows, at, done), ...row.acts]
  if (row.amiss) return { ...row, acts }
  const shown = histories(circuit).map((sim) => {
    for (const before of done) perform(sim, before.acts, before.waitMs)
    perform(sim, acts, row.waitMs)
    return row.looks.map(({ see }) => expectedOf(sim, see))
  })
  const [first, ...others] = shown
  const looks = first.flatMap((look, i): RowLook[] =>
    look && others.every((seen) => same(seen[i], look)) ? [look] : [],
  )
  return { ...row, acts, looks }
}

/** Is that just the rows before, each as the run has it? */
const isWhole = (before: readonly RunRow[], done: readonly Done[]): boolean =>
  before.length === done.length &&
  before.every(({ acts, waitMs }, i) => waitMs === done[i].waitMs && same(acts, done[i].acts))

/** What brings the controls to where the row goes out from, and lets it come to rest there. */
function caughtUp(circuit: Circuit, rows: readonly RunRow[], at: number, done: readonly Done[]): Action[] {
  const [stands, own] = [standsAfter(done.flatMap(({ acts }) => acts)), standsAfter(rows[at].acts)]
  const from = standsAfter(rows.slice(0, at).flatMap(({ acts }) => acts))
  const missing = [...from].flatMap(([name, value]): Action[] => {
    const [device = '', control = ''] = name.split('.')
    return stands.get(name) === value ? [] : [{ do: 'set', device, control, value }]
  })
  // Isolated nothing moves: a control that the row sets itself has not to be set twice.
  if (isDeadRow(rows[at])) return missing.filter((act) => act.do === 'set' && !own.has(`${act.device}.${act.control}`))
  const isIdle = missing.length === 0 && rows[at].looks.length === 0
  return isIdle ? [] : [...missing, { do: 'wait', ms: settledMs(circuit) }]
}
