/**
 * Solves a symmetric positive definite system in place by elimination: `a` row by row, the right-hand side goes in with `x`
 * and the unknowns come out. Both are overwritten.
 */
export function solveSymmetric(a: Float64Array, x: Float64Array): void {
  const n = x.length
  for (let j = 0; j < n; j++) {
    const d = a[j * n + j]
    for (let i = j + 1; i < n; i++) {
      const f = a[i * n + j] / d
      if (f === 0) continue
      for (let k = j; k < n; k++) a[i * n + k] -= f * a[j * n + k]
      x[i] -= f * x[j]
    }
  }
  for (let j = n - 1; j >= 0; j--) {
    for (let k = j + 1; k < n; k++) x[j] -= a[j * n + k] * x[k]
    x[j] /= a[j * n + j]
  }
}
