/**
 * The cheapest way to give each row a column of its own, by the Hungarian method (Kuhn 1955, in Munkres's O(n³) form). `costs`
 * has as many columns as rows or more; costs are finite. Returns the column of each row.
 */
export function assigned(costs: readonly (readonly number[])[]): number[] {
  const rows = costs.length
  const columns = rows === 0 ? 0 : costs[0].length
  const ofRow = new Float64Array(rows + 1)
  const ofColumn = new Float64Array(columns + 1)
  /** The row that has a column; 0 for none. Rows and columns are counted from 1, so that 0 can stand for none. */
  const rowOf = new Int32Array(columns + 1)
  const before = new Int32Array(columns + 1)
  for (let row = 1; row <= rows; row++) {
    rowOf[0] = row
    let column = 0
    const least = new Float64Array(columns + 1).fill(Infinity)
    const seen = new Uint8Array(columns + 1)
    do {
      seen[column] = 1
      const at = rowOf[column]
      let step = Infinity
      let next = 0
      for (let j = 1; j <= columns; j++) {
        if (seen[j]) continue
        const left = costs[at - 1][j - 1] - ofRow[at] - ofColumn[j]
        if (left < least[j]) {
          least[j] = left
          before[j] = column
        }
        if (least[j] < step) {
          step = least[j]
          next = j
        }
      }
      for (let j = 0; j <= columns; j++) {
        if (seen[j]) {
          ofRow[rowOf[j]] += step
          ofColumn[j] -= step
        } else least[j] -= step
      }
      column = next
    } while (rowOf[column] !== 0)
    do {
      const from = before[column]
      rowOf[column] = rowOf[from]
      column = from
    } while (column !== 0)
  }
  const result = new Array<number>(rows).fill(-1)
  for (let j = 1; j <= columns; j++) if (rowOf[j] > 0) result[rowOf[j] - 1] = j - 1
  return result
}
