import type { WaterCircuit } from '../circuit'

/** Flows below this carry nothing, l/h. */
const still = 1

/**
 * Of the water that enters each emitter, the share that comes from each heat source: `shares[emitter][source]`, 0 to 1. What
 * goes round without passing a source belongs to none.
 */
export function sharesOf(water: WaterCircuit, flows: Float64Array): number[][] {
  const { ways, emitters, nets } = water
  return water.sources.reduce<number[][]>(
    (all, { way: sourceWay }, s) => {
      if (sourceWay === undefined || Math.abs(flows[sourceWay]) < still) return all
      const share = mixed(ways, nets, flows, (way, inlet) => (way === sourceWay ? 1 : isSource(water, way) ? 0 : inlet))
      emitters.forEach(({ way }, e) => {
        const inlet = flows[way] >= 0 ? ways[way].from : ways[way].to
        if (Math.abs(flows[way]) >= still) all[e][s] = share[inlet]
      })
      return all
    },
    emitters.map(() => water.sources.map(() => 0)),
  )
}

const isSource = (water: WaterCircuit, way: number) => water.sources.some((s) => s.way === way)

/**
 * A property that water carries and mixes, in every net of pipes: `passed` says what it is behind a way, given what it is
 * before. Worked round by round; water that stands keeps `standing`.
 */
export function mixed(
  ways: WaterCircuit['ways'],
  nets: number,
  flows: Float64Array,
  passed: (way: number, inlet: number) => number,
  standing = 0,
): Float64Array {
  const now = new Float64Array(nets).fill(standing)
  for (let round = 0; round <= nets; round++) {
    const sum = new Float64Array(nets)
    const weight = new Float64Array(nets)
    ways.forEach(({ from, to }, i) => {
      const q = Math.abs(flows[i])
      if (q < still) return
      const [inlet, outlet] = flows[i] >= 0 ? [from, to] : [to, from]
      sum[outlet] += q * passed(i, now[inlet])
      weight[outlet] += q
    })
    let change = 0
    for (let n = 0; n < nets; n++) {
      if (weight[n] === 0) continue
      const next = sum[n] / weight[n]
      change = Math.max(change, Math.abs(next - now[n]))
      now[n] = next
    }
    if (change < 1e-9) break
  }
  return now
}
