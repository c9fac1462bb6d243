/** A sheet of labels on A4: columns and rows, the size of one, and where the first begins, mm. */
export interface LabelGrid {
  name: string
  columns: number
  rows: number
  width: number
  height: number
  left: number
  top: number
  /** From the left edge of one to that of the next. */
  pitch: number
  /** What stays free within its edge; no printer prints up to the edge of the paper. */
  inset: number
}

/** Grids that labels are sold in everywhere, by how many there are to a sheet. */
export const labelGrids = {
  24: {
    name: '24: 70 × 37 mm',
    columns: 3,
    rows: 8,
    width: 70,
    height: 37,
    left: 0,
    top: 0.5,
    pitch: 70,
    inset: 5,
  },
  40: {
    name: '40: 52.5 × 29.7 mm',
    columns: 4,
    rows: 10,
    width: 52.5,
    height: 29.7,
    left: 0,
    top: 0,
    pitch: 52.5,
    inset: 5,
  },
  65: {
    name: '65: 38.1 × 21.2 mm',
    columns: 5,
    rows: 13,
    width: 38.1,
    height: 21.2,
    left: 4.7,
    top: 10.7,
    pitch: 40.6,
    inset: 1.5,
  },
} as const satisfies Record<number, LabelGrid>
export type LabelGridId = keyof typeof labelGrids
