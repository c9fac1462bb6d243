import { type AtomId, feedsOf, type Circuit } from '../circuit'
import { loadEnds } from './demands'
import type { Way } from './paths'
import type { Run } from './runs'
import { waysFrom } from './ways'

/** The way back of a load, or the way of its device's earth: from the pole to the terminal it is at. */
export interface ReturnWay {
  pole: 'neutral' | 'earth'
  /** The atom of the device. */
  at: AtomId
  /** Empty where nothing leads to it. */
  way: Way
}

/** What a run's load needs beside its signal: its neutral (or the return of its transformer), and its device's earth. */
export function returnsOf(circuit: Circuit, run: Run): ReturnWay[] {
  const { back } = loadEnds(circuit, run.load)
  const neutrals = feedsOf(circuit).map((f) => f.neutral)
  const [neutral = []] = waysFrom(circuit, neutrals, back)
  const owner = circuit.devices[circuit.loads[run.load].device].device.id
  const earths = circuit.atoms.flatMap((atom, i) =>
    atom.owner === owner && atom.role === 'earth' ? [i as AtomId] : [],
  )
  const origins = circuit.sources.map((s) => s.earth)
  return [
    { pole: 'neutral', at: back, way: neutral },
    ...earths.map((at): ReturnWay => ({ pole: 'earth', at, way: waysFrom(circuit, origins, at)[0] ?? [] })),
  ]
}
