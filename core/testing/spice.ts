import { spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

/** What ngspice answers for one node: the fundamental, r.m.s., and the mean. */
export interface SpiceVolts {
  re: number
  im: number
  mean: number
}

/** Runs a netlist through ngspice. Throws with what it said where it is missing or gives no result. */
export function runSpice(text: string, frequency: number): Map<string, SpiceVolts> {
  const folder = mkdtempSync(join(tmpdir(), 'nobbet-spice-'))
  try {
    const [input, raw] = [join(folder, 'net.cir'), join(folder, 'out.raw')]
    writeFileSync(input, text)
    const { error, stderr } = spawnSync('ngspice', ['-b', '-r', raw, input], {
      env: { ...process.env, SPICE_ASCIIRAWFILE: '1' },
      encoding: 'utf8',
    })
    if (error) throw new Error(`ngspice could not be run: install Debian's package ngspice (${error.message})`)
    try {
      return readRaw(readFileSync(raw, 'utf8'), frequency)
    } catch (cause) {
      throw new Error(`ngspice gave no result: ${stderr.slice(-400)}`, { cause })
    }
  } finally {
    rmSync(folder, { recursive: true })
  }
}

function readRaw(text: string, frequency: number): Map<string, SpiceVolts> {
  const [head, body] = text.split('Values:\n')
  const complex = head.includes('Flags: complex')
  const names = head
    .slice(head.lastIndexOf('Variables:'))
    .split('\n')
    .slice(1)
    .map((line) => line.trim().split(/\s+/)[1])
    .filter((name) => name !== undefined)
  const numbers = body
    .trim()
    .split('\n')
    .map((line) => line.trim().split(/\s+/).at(-1)!)
  const rows: string[][] = []
  // Each point is its index and values, one a line, the first value beside the index, and an empty line.
  const values = numbers.filter((x) => x !== '')
  for (let i = 0; i + names.length <= values.length; i += names.length) rows.push(values.slice(i, i + names.length))
  const result = new Map<string, SpiceVolts>()
  names.forEach((name, column) => {
    const node = /^v\((.+)\)$/.exec(name)?.[1]
    if (!node) return
    if (complex) {
      const [re, im] = rows[0][column].split(',').map(Number)
      result.set(node, { re, im, mean: 0 })
    } else {
      const points = rows.map((row) => ({ t: Number(row[0]), v: Number(row[column]) }))
      result.set(node, fourier(points, frequency))
    }
  })
  return result
}

/** Mean and fundamental over whole cycles, by the trapezoidal rule; r.m.s. phasor against a sine of the supply. */
function fourier(points: readonly { t: number; v: number }[], frequency: number): SpiceVolts {
  const omega = 2 * Math.PI * frequency
  const start = points[0].t
  const span = Math.round((points.at(-1)!.t - start) * frequency) / frequency
  let [mean, sine, cosine] = [0, 0, 0]
  for (let i = 1; i < points.length; i++) {
    const [p, q] = [points[i - 1], points[i]]
    const w = (q.t - p.t) / 2 / span
    mean += w * (p.v + q.v)
    sine += w * (p.v * Math.sin(omega * p.t) + q.v * Math.sin(omega * q.t))
    cosine += w * (p.v * Math.cos(omega * p.t) + q.v * Math.cos(omega * q.t))
  }
  return { re: sine * Math.SQRT2, im: cosine * Math.SQRT2, mean }
}
