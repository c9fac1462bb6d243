/**
 * A complex symmetric system of equations, solved by elimination without pivoting into UᵀD⁻¹U. The networks it serves
 * are passive (the real part of the admittance matrix is positive definite), for which that is stable (Higham 1998,
 * "Factorizing complex symmetric matrices with positive definite real and imaginary parts"). Rows are expected with few
 * neighbours first: what is zero is skipped.
 */
export class LinearSystem {
  /** Upper triangle, row by row. */
  readonly re: Float64Array
  readonly im: Float64Array
  private factored = false

  constructor(readonly size: number) {
    this.re = new Float64Array(size * size)
    this.im = new Float64Array(size * size)
  }

  /** Adds to one entry of the upper triangle (row ≤ column after ordering; either order may be given). */
  add(row: number, column: number, re: number, im: number): void {
    const at = row <= column ? row * this.size + column : column * this.size + row
    this.re[at] += re
    this.im[at] += im
  }

  /** Solves in place: the right-hand side goes in, the unknowns come out. */
  solve(re: Float64Array, im: Float64Array): void {
    if (!this.factored) this.factor()
    const n = this.size
    const a = this.re
    const b = this.im
    for (let j = 0; j < n; j++) {
      const yr = re[j]
      const yi = im[j]
      if (yr === 0 && yi === 0) continue
      const at = j * n
      const dr = a[at + j]
      const di = b[at + j]
      const d = dr * dr + di * di
      const qr = (yr * dr + yi * di) / d
      const qi = (yi * dr - yr * di) / d
      for (let i = j + 1; i < n; i++) {
        const ur = a[at + i]
        const ui = b[at + i]
        if (ur === 0 && ui === 0) continue
        re[i] -= ur * qr - ui * qi
        im[i] -= ur * qi + ui * qr
      }
    }
    for (let j = n - 1; j >= 0; j--) {
      const at = j * n
      let yr = re[j]
      let yi = im[j]
      for (let i = j + 1; i < n; i++) {
        const ur = a[at + i]
        const ui = b[at + i]
        if (ur === 0 && ui === 0) continue
        yr -= ur * re[i] - ui * im[i]
        yi -= ur * im[i] + ui * re[i]
      }
      const dr = a[at + j]
      const di = b[at + j]
      const d = dr * dr + di * di
      re[j] = (yr * dr + yi * di) / d
      im[j] = (yi * dr - yr * di) / d
    }
  }

  private factor(): void {
    const n = this.size
    const a = this.re
    const b = this.im
    for (let j = 0; j < n; j++) {
      const at = j * n
      const dr = a[at + j]
      const di = b[at + j]
      const d = dr * dr + di * di
      for (let i = j + 1; i < n; i++) {
        const ur = a[at + i]
        const ui = b[at + i]
        if (ur === 0 && ui === 0) continue
        const lr = (ur * dr + ui * di) / d
        const li = (ui * dr - ur * di) / d
        const row = i * n
        for (let k = i; k < n; k++) {
          const vr = a[at + k]
          const vi = b[at + k]
          a[row + k] -= lr * vr - li * vi
          b[row + k] -= lr * vi + li * vr
        }
      }
    }
    this.factored = true
  }
}
