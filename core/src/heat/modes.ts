/** One rotation after another until what is off the diagonal is this small against the rest. */
const tolerance = 1e-13
const sweeps = 60

/**
 * A network of lumps that hold heat, joined by conductances, solved exactly: every temperature is a sum of exponentials.
 *
 * C·dT/dt = w − L·T, with C in Wh/K, L in W/K (symmetric: conductances to everything on the diagonal, their negatives beside
 * it), w in W. With S = C^-½·L·C^-½ = Q·Λ·Qᵀ (Jacobi's rotations) each mode decays by itself.
 */
export class Modes {
  /** Decay of each mode, 1/h, not below 0. */
  readonly decays: Float64Array
  /** C^-½·Q, row by lump. */
  readonly shapes: Float64Array

  constructor(
    private readonly capacities: Float64Array,
    conductances: Float64Array,
  ) {
    const n = capacities.length
    const s = new Float64Array(n * n)
    const q = new Float64Array(n * n)
    for (let i = 0; i < n; i++) {
      q[i * n + i] = 1
      for (let j = 0; j < n; j++) s[i * n + j] = conductances[i * n + j] / Math.sqrt(capacities[i] * capacities[j])
    }
    diagonalise(s, q, n)
    this.decays = Float64Array.from({ length: n }, (_, k) => Math.max(0, s[k * n + k]))
    this.shapes = q
    for (let i = 0; i < n; i++) for (let k = 0; k < n; k++) q[i * n + k] /= Math.sqrt(capacities[i])
  }

  /** How temperatures (°C) go on from here under steady heat (W) into every lump. */
  from(temperatures: Float64Array, watts: Float64Array): Course {
    const { decays, shapes, capacities } = this
    const n = capacities.length
    const start = new Float64Array(n)
    const force = new Float64Array(n)
    for (let i = 0; i < n; i++)
      for (let k = 0; k < n; k++) {
        start[k] += shapes[i * n + k] * capacities[i] * temperatures[i]
        force[k] += shapes[i * n + k] * watts[i]
      }
    return new Course(shapes, decays, start, force)
  }
}

/** Below this decay, 1/h, a mode runs on in a straight line. */
const noDecay = 1e-9

/** Temperatures as functions of time, hours from the start. */
export class Course {
  private readonly n: number
  constructor(
    private readonly shapes: Float64Array,
    private readonly decays: Float64Array,
    private readonly start: Float64Array,
    private readonly force: Float64Array,
  ) {
    this.n = decays.length
  }

  /** Amplitudes of the modes after so many hours. */
  private modes(hours: number): Float64Array {
    const { decays, start, force } = this
    return start.map((m, k) => {
      if (decays[k] < noDecay) return m + force[k] * hours
      const rest = force[k] / decays[k]
      return rest + (m - rest) * Math.exp(-decays[k] * hours)
    })
  }
  /** Their integrals over those hours. */
  private sums(hours: number): Float64Array {
    const { decays, start, force } = this
    return start.map((m, k) => {
      if (decays[k] < noDecay) return m * hours + (force[k] * hours * hours) / 2
      const rest = force[k] / decays[k]
      return rest * hours - ((m - rest) * Math.expm1(-decays[k] * hours)) / decays[k]
    })
  }
  private unfold(modes: Float64Array): Float64Array {
    const { n, shapes } = this
    const out = new Float64Array(n)
    for (let i = 0; i < n; i++) for (let k = 0; k < n; k++) out[i] += shapes[i * n + k] * modes[k]
    return out
  }
  /** Every temperature after so many hours, °C. */
  at(hours: number): Float64Array {
    return this.unfold(this.modes(hours))
  }
  /** Every temperature summed over so many hours, K·h. */
  integral(hours: number): Float64Array {
    return this.unfold(this.sums(hours))
  }
  /** Σ weights·T as a function of time, made cheap to ask often. */
  sum(weights: Float64Array): (hours: number) => number {
    const { n, shapes, decays, start, force } = this
    const share = new Float64Array(n)
    for (let i = 0; i < n; i++)
      if (weights[i] !== 0) for (let k = 0; k < n; k++) share[k] += weights[i] * shapes[i * n + k]
    return (hours) => {
      let total = 0
      for (let k = 0; k < n; k++) {
        if (decays[k] < noDecay) total += share[k] * (start[k] + force[k] * hours)
        else {
          const rest = force[k] / decays[k]
          total += share[k] * (rest + (start[k] - rest) * Math.exp(-decays[k] * hours))
        }
      }
      return total
    }
  }
}

/** Jacobi's method: rotates `s` to a diagonal and gathers the rotations in `q`. */
function diagonalise(s: Float64Array, q: Float64Array, n: number): void {
  let size = 0
  for (const v of s) size += v * v
  for (let sweep = 0; sweep < sweeps; sweep++) {
    let off = 0
    for (let i = 0; i < n; i++) for (let j = i + 1; j < n; j++) off += s[i * n + j] ** 2
    if (off <= tolerance * tolerance * size) return
    for (let p = 0; p < n - 1; p++)
      for (let r = p + 1; r < n; r++) {
        const b = s[p * n + r]
        if (b === 0) continue
        const theta = (s[r * n + r] - s[p * n + p]) / (2 * b)
        const t = Math.sign(theta || 1) / (Math.abs(theta) + Math.hypot(theta, 1))
        const c = 1 / Math.hypot(t, 1)
        const d = t * c
        for (let k = 0; k < n; k++) {
          const [x, y] = [s[k * n + p], s[k * n + r]]
          s[k * n + p] = c * x - d * y
          s[k * n + r] = d * x + c * y
        }
        for (let k = 0; k < n; k++) {
          const [x, y] = [s[p * n + k], s[r * n + k]]
          s[p * n + k] = c * x - d * y
          s[r * n + k] = d * x + c * y
          const [u, v] = [q[k * n + p], q[k * n + r]]
          q[k * n + p] = c * u - d * v
          q[k * n + r] = d * u + c * v
        }
      }
  }
}
