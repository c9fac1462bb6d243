import type { WaterCircuit } from '../circuit'
import { mixed } from './shares'

/** The air round a pipe, °C, and the time in which what stands in it loses most of its warmth, ms: a bare 22 mm pipe, usual. */
const air = 18
const coolsMs = 20 * 60_000
/** Water that moves no faster cools as if it stood, l/h. */
const still = 10

/** How a pipe feels to a hand: too hot to hold for long, warm, or neither. */
export type Feel = 'hot' | 'warm' | 'cold'
/** °C from which a hand calls it so: usual values. */
const hotFrom = 45
const warmFrom = 28
export const feelOf = (celsius: number): Feel => (celsius >= hotFrom ? 'hot' : celsius >= warmFrom ? 'warm' : 'cold')

/** °C of what stands in the ways that make and take heat. */
export interface Warmth {
  /** A source's water, by its way; null where it is not heated and cools; undefined where the way is no source. */
  source(way: number): number | null | undefined
  /** Behind an emitter, by its way and what goes into it; undefined where the way is none. */
  behind(way: number, inlet: number): number | undefined
}

/**
 * The temperature of the pipes at both ends of every way. Water that moves brings its own; what stands cools towards the air.
 * Pipes give nothing back: the heat in them is counted with the water of boiler and emitters.
 */
export class Pipes {
  /** °C at `from` and at `to` of each way, when last looked at. */
  private readonly celsius: Float64Array
  private since = 0

  constructor(
    private readonly water: WaterCircuit,
    from?: Pipes,
  ) {
    this.celsius = from ? from.celsius.slice() : new Float64Array(water.ways.length * 2).fill(air)
    this.since = from?.since ?? 0
  }

  /** Temperatures at `time` (ms), with the flows there have been since it was last looked at. */
  at(time: number, flows: Float64Array, warmth: Warmth): Float64Array {
    const { ways, nets } = this.water
    const left = Math.exp(-(time - this.since) / coolsMs)
    const passed = (way: number, inlet: number) => {
      const source = warmth.source(way)
      if (source === null) return air + (this.celsius[2 * way + 1] - air) * left
      return source ?? warmth.behind(way, inlet) ?? inlet
    }
    const net = mixed(ways, nets, flows, passed, air)
    return this.celsius.map((before, i) => {
      const way = i >> 1
      const { from, to } = ways[way]
      if (Math.abs(flows[way]) < still) return air + (before - air) * left
      const inlet = net[flows[way] >= 0 ? from : to]
      const isInlet = ((i & 1) === 0) === flows[way] >= 0
      return isInlet ? inlet : passed(way, inlet)
    })
  }

  /** They are as warm as those of another such system, °C by way and end. */
  takeOver(celsius: Float64Array, time: number): void {
    this.celsius.set(celsius)
    this.since = time
  }

  /** Remembers how the pipes are, before flows change or a source ceases or begins to heat. */
  remember(time: number, flows: Float64Array, warmth: Warmth): void {
    this.celsius.set(this.at(time, flows, warmth))
    this.since = time
  }
}
