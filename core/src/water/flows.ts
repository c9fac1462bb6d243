import type { Circuit, WaterCircuit } from '../circuit'
import { solveSymmetric } from './solve'

/** How the ways stand and what drives the water. */
export interface WaterState {
  /** Of every way: shut, open, or shut and passing. */
  gates: Uint8Array
  /** Of every way: its pump runs. */
  pumps: Uint8Array
  /** Of every emitter: its water and the boiler's are far enough apart for warmth to drive it. */
  rising: Uint8Array
}
export const SHUT = 0
export const OPEN = 1
export const PASSING = 2

/** A worn seat lets by about a thirtieth of what the open port does: a thousand times its resistance. A usual value. */
const passingFactor = 1000
/** Less than this many l/h nobody feels. */
export const feltFlow = 10
/** What warmth drives per metre of height: 30 K apart, density falls by about 0.045 % a kelvin (water at 50 °C); kPa. */
const risePerMetre = (1000 * 0.00045 * 30 * 9.81) / 1000
/** Flows are told apart from here, m³/h. */
const smallest = 1e-4
const rounds = 60

/**
 * The flow through every way, l/h, positive from its `from` to its `to`. Pressure is lost with the square of the flow; a
 * pump gives head·(1 − (q/most)²). Solved by successive linearisation: each round takes the resistance at the flow of the
 * last, half way to its new value.
 */
export function solveFlows(water: WaterCircuit, state: WaterState): Float64Array {
  const { ways, nets } = water
  const flow = new Float64Array(ways.length)
  const rises = new Float64Array(ways.length)
  water.emitters.forEach(({ way, rise }, i) => {
    if (state.rising[i]) rises[way] += rise * risePerMetre
  })
  const driven = ways.some((way, i) => (way.pump && state.pumps[i]) || rises[i] > 0)
  if (!driven) return flow
  const resistance = ways.map((way, i) => {
    if (state.gates[i] === SHUT) return Infinity
    const own = way.kpa * (state.gates[i] === PASSING ? passingFactor : 1)
    return way.pump && state.pumps[i] ? own + way.pump.head / (way.pump.most / 1000) ** 2 : own
  })
  const push = ways.map((way, i) => (way.pump && state.pumps[i] ? way.pump.head : 0) + rises[i] - way.opensAt)
  /** Ways that open by themselves, or only one way: do they stand open? */
  const lifted = new Uint8Array(ways.length).fill(1)
  const q = new Float64Array(ways.length).fill(0.5)
  const pressure = new Float64Array(nets)
  const matrix = new Float64Array(nets * nets)
  for (let round = 0; round < rounds; round++) {
    matrix.fill(0)
    pressure.fill(0)
    // A trace of conductance holds every net, so that none is without a pressure.
    for (let n = 0; n < nets; n++) matrix[n * nets + n] = 1e-9
    ways.forEach(({ from, to }, i) => {
      if (resistance[i] === Infinity || !lifted[i] || from === to) return
      const g = 1 / (resistance[i] * Math.max(Math.abs(q[i]), smallest))
      matrix[from * nets + from] += g
      matrix[to * nets + to] += g
      matrix[from * nets + to] -= g
      matrix[to * nets + from] -= g
      pressure[from] -= g * push[i]
      pressure[to] += g * push[i]
    })
    solveSymmetric(matrix, pressure)
    let change = 0
    ways.forEach(({ from, to, oneWay, opensAt }, i) => {
      if (resistance[i] === Infinity) return (q[i] = 0)
      const drive = pressure[from] - pressure[to] + push[i]
      const selfActing = oneWay || opensAt > 0
      const wasLifted = lifted[i]
      if (selfActing) lifted[i] = drive > 0 ? 1 : 0
      if (!lifted[i]) {
        if (wasLifted) change = 1
        return (q[i] = 0)
      }
      const next = drive / (resistance[i] * Math.max(Math.abs(q[i]), smallest))
      const size = (Math.abs(q[i]) + Math.abs(next)) / 2
      const now = Math.sign(next) * size
      change = Math.max(change, Math.abs(now - q[i]) / (Math.abs(now) + 0.01), wasLifted ? 0 : 1)
      q[i] = now
      return undefined
    })
    if (change < 1e-4) break
  }
  for (let i = 0; i < flow.length; i++) flow[i] = Math.abs(q[i]) * 1000 < 1 ? 0 : q[i] * 1000
  return flow
}

const remembered = new WeakMap<WaterCircuit, Map<string, Float64Array>>()

/** As {@link solveFlows}, remembered by the state: do not write to the answer. */
export function flowsOf({ water }: Circuit, state: WaterState): Float64Array {
  let known = remembered.get(water)
  if (!known) remembered.set(water, (known = new Map<string, Float64Array>()))
  const { gates, pumps, rising } = state
  const bytes = new Uint8Array(2 * gates.length + rising.length)
  bytes.set(gates)
  bytes.set(pumps, gates.length)
  bytes.set(rising, 2 * gates.length)
  const key = String.fromCharCode.apply(null, bytes as unknown as number[])
  let flows = known.get(key)
  if (!flows) {
    if (known.size > 4000) known.clear()
    known.set(key, (flows = solveFlows(water, state)))
  }
  return flows
}
