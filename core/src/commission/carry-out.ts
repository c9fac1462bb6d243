import type { Rig } from '../hypotheses'
import type { LookResult } from '../looks'
import { meets, shownTo } from './shown'
import type { RowLook, RunRow } from './row'

/** A look of a row, and what it showed. */
export interface LookFound extends RowLook {
  found: LookResult
}

/** What a row showed, carried out on a rig. */
export interface RowFound {
  row: RunRow
  looks: LookFound[]
  /** Those that were not as expected. */
  otherwise: LookFound[]
}

/** Carries rows out on a rig, one after the other, as somebody would who waits as long as the run says; each as it is done. */
export function* carriedOut(rig: Rig, rows: readonly RunRow[]): Generator<RowFound, void> {
  for (const row of rows) {
    row.acts.forEach((act) => rig.perform(act))
    rig.perform({ do: 'wait', ms: row.waitMs })
    const looks = row.looks.map((look): LookFound => ({ ...look, found: shownTo(rig.simulation, look.see) }))
    yield { row, looks, otherwise: looks.filter((look) => !meets(look, look.found)) }
  }
}
