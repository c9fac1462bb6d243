import type { Rig } from '../hypotheses'
import { agrees, lookAt, type LookResult } from '../looks'
import type { RowLook, RunRow } from './row'

/** A look of a row that was not as expected. */
export interface Otherwise extends RowLook {
  found: LookResult
}

/** What a row showed, carried out on a rig. */
export interface RowFound {
  row: RunRow
  otherwise: Otherwise[]
}

/** Carries rows out on a rig, one after the other, as somebody would who waits as long as the run says; each as it is done. */
export function* carriedOut(rig: Rig, rows: readonly RunRow[]): Generator<RowFound, void> {
  for (const row of rows) {
    row.acts.forEach((act) => rig.perform(act))
    rig.perform({ do: 'wait', ms: row.waitMs })
    const otherwise = row.looks.flatMap((look): Otherwise[] => {
      const found = lookAt(rig.simulation, look.see)
      return agrees(look.expect, found) ? [] : [{ ...look, found }]
    })
    yield { row, otherwise }
  }
}
