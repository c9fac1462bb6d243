import type { NetId } from './ids'
import type { CircuitState } from './nets'
import { Equations, type Network } from './network'

/** Samples of one cycle in which a diode's current is found; harmonics up to half of it take part. */
const samples = 64
const top = samples / 2
/** Cosines and sines of whole samples of a cycle. */
const cosines = Float64Array.from({ length: samples }, (_, m) => Math.cos((2 * Math.PI * m) / samples))
const sines = Float64Array.from({ length: samples }, (_, m) => Math.sin((2 * Math.PI * m) / samples))

/** A diode does nothing worth knowing below this, volts. */
const leastVolts = 0.5

/** Ohms for direct current beyond which only the leak bleeds a net: a diode charges it to the peak and then rests. */
const sealedOhms = 1e9

/** Port of a diode with its resistor: nets it lies between. */
export interface DiodePort {
  diode: number
  anode: number
  cathode: number
  ohms: number
}

/** Diodes that are whole and lie between two nets just now on which something else hangs too. */
export function diodePorts(network: Network, state: CircuitState): DiodePort[] {
  const { circuit, nets, row, apart } = network
  const held = new Set(network.branches.flatMap(({ a, b }) => [nets.netOf[a], nets.netOf[b]]))
  const leadsOn = (net: NetId) => !apart[net] && (row[net] < 0 || held.has(net))
  return circuit.diodes.flatMap(({ anode, cathode, ohms }, diode): DiodePort[] => {
    const port = { diode, anode: nets.netOf[anode], cathode: nets.netOf[cathode], ohms }
    if (port.anode === port.cathode || state.openDiodes[diode] || state.shortedDiodes[diode]) return []
    return leadsOn(port.anode) && leadsOn(port.cathode) ? [port] : []
  })
}

/** Those of the ports that a solution without diodes drives. */
export function drivenPorts(
  { row, fixed }: Network,
  ports: readonly DiodePort[],
  re: Float64Array,
  im: Float64Array,
): DiodePort[] {
  return ports.filter(({ anode, cathode }) => {
    const dr = (row[anode] < 0 ? fixed[anode] : re[row[anode]]) - (row[cathode] < 0 ? fixed[cathode] : re[row[cathode]])
    const di = (row[anode] < 0 ? 0 : im[row[anode]]) - (row[cathode] < 0 ? 0 : im[row[cathode]])
    return Math.hypot(dr, di) > leastVolts
  })
}

/** What diodes add to a network's solution: by harmonic, from direct current upwards, the change in each row. */
export interface HalfWave {
  ports: DiodePort[]
  re: Float64Array[]
  im: Float64Array[]
  /** Current of each port by harmonic, r.m.s. phasors; harmonic 0 is the mean. */
  currentRe: Float64Array[]
  currentIm: Float64Array[]
}

/**
 * What half-waves do to a network whose solution without its diodes is `re`, `im` (fundamental, r.m.s. phasors).
 *
 * Seen from the diodes the rest is linear: v(t) = v₀(t) − Z·i(t), with v₀ the voltage across the open diode and Z the
 * impedance of the network and the resistor at each harmonic. A diode conducts where that would be positive: the
 * complementarity problem 0 ≤ i ⊥ R·i − v ≥ 0 over the samples of one cycle, solved by its active set. It has one
 * solution since Z is passive. The forward drop of the diode is left out. Returns undefined where no diode is driven.
 */
export function halfWave(
  network: Network,
  ports: readonly DiodePort[],
  re: Float64Array,
  im: Float64Array,
): HalfWave | undefined {
  const { row, fixed } = network
  const driven = drivenPorts(network, ports, re, im)
  if (driven.length === 0) return undefined
  const n = network.unknown.length
  const d = driven.length

  // The answer of the network to one ampere taken out at the anode and put in at the cathode, by harmonic and port.
  const basisRe: Float64Array[][] = []
  const basisIm: Float64Array[][] = []
  for (let k = 0; k <= top; k++) {
    const equations = new Equations(network, k, false)
    basisRe.push([])
    basisIm.push([])
    for (const { anode, cathode } of driven) {
      const xr = new Float64Array(n)
      const xi = new Float64Array(n)
      if (row[anode] >= 0) xr[row[anode]] -= 1
      if (row[cathode] >= 0) xr[row[cathode]] += 1
      equations.solve(xr, xi)
      basisRe[k].push(xr)
      basisIm[k].push(xi)
    }
  }
  const across = (x: Float64Array, { anode, cathode }: DiodePort) =>
    (row[anode] < 0 ? 0 : x[row[anode]]) - (row[cathode] < 0 ? 0 : x[row[cathode]])

  // Impulse response from port to port: the inverse transform of −(voltage per ampere), the resistor on the diagonal.
  const response = driven.map((to) =>
    driven.map((_, from) => {
      const c = new Float64Array(samples)
      const zr = basisRe.map((basis) => -across(basis[from], to))
      const zi = basisIm.map((basis) => -across(basis[from], to))
      for (let m = 0; m < samples; m++) {
        let sum = zr[0]
        for (let k = 1; k <= top; k++) {
          const at = (k * m) % samples
          sum += (k === top ? 1 : 2) * (zr[k] * cosines[at] - (k === top ? 0 : zi[k] * sines[at]))
        }
        c[m] = sum / samples
      }
      return c
    }),
  )
  driven.forEach(({ ohms }, p) => (response[p][p][0] += ohms))

  const open = new Float64Array(d * samples)
  driven.forEach((port, p) => {
    const vr =
      across(re, port) +
      (row[port.anode] < 0 ? fixed[port.anode] : 0) -
      (row[port.cathode] < 0 ? fixed[port.cathode] : 0)
    const vi = across(im, port)
    for (let m = 0; m < samples; m++) {
      open[p * samples + m] = Math.SQRT2 * (vr * cosines[m] - vi * sines[m])
    }
  })
  const size = d * samples
  const matrix = new Float64Array(size * size)
  for (let to = 0; to < d; to++)
    for (let from = 0; from < d; from++) {
      const c = response[to][from]
      for (let x = 0; x < samples; x++)
        for (let y = 0; y < samples; y++)
          matrix[(to * samples + x) * size + from * samples + y] = c[(x - y + samples) % samples]
    }
  const bled = driven.map((port) => -across(basisRe[0][driven.indexOf(port)], port) < sealedOhms)
  const current = new Float64Array(size)
  if (bled.every(Boolean)) current.set(complementary(open, matrix))
  else {
    const points = [...current.keys()].filter((x) => bled[Math.floor(x / samples)])
    const part = Float64Array.from(points.flatMap((x) => points.map((y) => matrix[x * size + y])))
    const solved = complementary(
      Float64Array.from(points, (x) => open[x]),
      part,
    )
    points.forEach((x, i) => (current[x] = solved[i]))
  }
  driven.forEach((port, p) => {
    if (bled[p]) return
    const wave = open.subarray(p * samples, (p + 1) * samples)
    const peak = wave.reduce((most, volts) => Math.max(most, volts), 0)
    current.fill(peak / -across(basisRe[0][p], port), p * samples, (p + 1) * samples)
  })

  const result: HalfWave = { ports: [...driven], re: [], im: [], currentRe: [], currentIm: [] }
  for (let k = 0; k <= top; k++) {
    const ir = new Float64Array(d)
    const ii = new Float64Array(d)
    // r.m.s. of a cosine is its amplitude over √2; direct current and the highest harmonic stand once in the series.
    const scale = (k === 0 || k === top ? 1 : Math.SQRT2) / samples
    for (let p = 0; p < d; p++)
      for (let m = 0; m < samples; m++) {
        const at = (k * m) % samples
        ir[p] += current[p * samples + m] * cosines[at] * scale
        ii[p] -= current[p * samples + m] * sines[at] * scale
      }
    const xr = new Float64Array(n)
    const xi = new Float64Array(n)
    for (let p = 0; p < d; p++)
      for (let i = 0; i < n; i++) {
        xr[i] += basisRe[k][p][i] * ir[p] - basisIm[k][p][i] * ii[p]
        xi[i] += basisRe[k][p][i] * ii[p] + basisIm[k][p][i] * ir[p]
      }
    result.re.push(xr)
    result.im.push(xi)
    result.currentRe.push(ir)
    result.currentIm.push(ii)
  }
  return result
}

/** Rounds without progress before points are flipped one by one. */
const patient = 10

/** Volts left across an open diode that count as forward: what rounding leaves where only the leak holds a net. */
const forwardVolts = 1e-6

/**
 * The current 0 ≤ i with v − C·i ≤ 0 wherever i is 0, and = 0 elsewhere: block principal pivoting (Júdice and Pires 1994).
 * Points that would carry a negative current are let go, points with a voltage left over are taken in, all at once while
 * that brings their number down, else the last one alone, which ends for any passive network. The first guess is where the
 * open diode would stand forward; a few rounds suffice, but where a net hangs on nothing but capacitance.
 */
function complementary(v: Float64Array, matrix: Float64Array): Float64Array {
  const size = v.length
  const current = new Float64Array(size)
  const conducting = Uint8Array.from(v, (volts) => (volts > 0 ? 1 : 0))
  let fewest = Infinity
  let patience = patient
  for (let round = 0; round < 20 * samples; round++) {
    const active: number[] = []
    for (let x = 0; x < size; x++) if (conducting[x]) active.push(x)
    const solved = solveReal(
      active.map((x) => Float64Array.from(active, (y) => matrix[x * size + y])),
      Float64Array.from(active, (x) => v[x]),
    )
    current.fill(0)
    active.forEach((x, i) => (current[x] = solved[i]))
    const wrong: number[] = []
    for (let x = 0; x < size; x++) {
      if (conducting[x]) {
        if (current[x] < 0) wrong.push(x)
        continue
      }
      let left = v[x]
      for (const y of active) left -= matrix[x * size + y] * current[y]
      if (left > forwardVolts) wrong.push(x)
    }
    if (wrong.length === 0) break
    if (wrong.length < fewest) {
      fewest = wrong.length
      patience = patient
    } else patience--
    for (const x of patience > 0 ? wrong : wrong.slice(-1)) conducting[x] = conducting[x] ? 0 : 1
  }
  for (let i = 0; i < size; i++) if (current[i] < 0) current[i] = 0
  return current
}

/** Gaussian elimination with partial pivoting; the matrix is used up. */
function solveReal(a: Float64Array[], b: Float64Array): Float64Array {
  const n = b.length
  for (let j = 0; j < n; j++) {
    let pivot = j
    for (let i = j + 1; i < n; i++) if (Math.abs(a[i][j]) > Math.abs(a[pivot][j])) pivot = i
    ;[a[j], a[pivot]] = [a[pivot], a[j]]
    ;[b[j], b[pivot]] = [b[pivot], b[j]]
    for (let i = j + 1; i < n; i++) {
      const factor = a[i][j] / a[j][j]
      if (factor === 0) continue
      for (let k = j; k < n; k++) a[i][k] -= factor * a[j][k]
      b[i] -= factor * b[j]
    }
  }
  for (let j = n - 1; j >= 0; j--) {
    for (let k = j + 1; k < n; k++) b[j] -= a[j][k] * b[k]
    b[j] /= a[j][j]
  }
  return b
}
