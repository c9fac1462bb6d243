export { carriedOut, type Otherwise, type RowFound } from './carry-out'
export type { RowKind, RowLook, RunRow } from './row'
export { commissioningRun, usualRun, type RunOptions } from './run'
