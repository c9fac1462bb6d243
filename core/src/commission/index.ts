export { carriedOut, type Otherwise, type RowFound } from './carry-out'
export { commissioningRun, usualRun, type RowKind, type RowLook, type RunOptions, type RunRow } from './run'
