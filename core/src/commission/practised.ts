import type { Circuit } from '../circuit'
import { faultsOf, Rig } from '../hypotheses'
import { ActionError } from '../simulation'
import { carriedOut, type LookFound } from './carry-out'
import type { RunOptions } from './options'
import type { RunRow } from './row'
import { commissioningRun } from './run'

/** A run to practise on: what its rows show with something wrong, or with nothing. */
export interface Practised {
  rows: { row: RunRow; looks: LookFound[]; isOtherwise: boolean }[]
  /** What is wrong, by name and in words; undefined where nothing is. */
  fault?: { name: string; label: string }
}

/** One practice in so many has nothing wrong. */
const oneHealthyOf = 6

/** The run as it shows with a fault that the seed chooses, of those that some row shows. The same seed chooses the same. */
export function practised(circuit: Circuit, options: RunOptions, seed: number): Practised {
  const rows = commissioningRun(circuit, options)
  const healthy = { rows: shownWith(circuit, rows, undefined)! }
  if (seed % oneHealthyOf === 0) return healthy
  const faults = faultsOf(circuit)
  // From one end to the other in a stride that meets every fault: most of them show.
  for (let i = 0; i < faults.length; i++) {
    const fault = faults[(seed * 7919 + i * 31) % faults.length]
    const shown = shownWith(circuit, rows, fault.name)
    if (shown?.some(({ isOtherwise }) => isOtherwise))
      return { rows: shown, fault: { name: fault.name, label: fault.label } }
  }
  return healthy
}

/** Undefined with a fault by which the installation never comes to rest. */
function shownWith(
  circuit: Circuit,
  rows: readonly RunRow[],
  fault: string | undefined,
): Practised['rows'] | undefined {
  try {
    const rig = new Rig(circuit)
    if (fault !== undefined) rig.perform({ do: 'fault', fault })
    return [...carriedOut(rig, rows)].map(({ row, looks, otherwise }) => ({
      row,
      looks,
      isOtherwise: otherwise.length > 0,
    }))
  } catch (error) {
    if (error instanceof ActionError) return undefined
    throw error
  }
}
