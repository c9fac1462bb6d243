import type { Circuit } from '../circuit'
import { demandActions } from '../inputs'
import { Simulation, type Action } from '../simulation'

/** So long at least is waited until everything is looked at: contacts have followed, and a boiler has answered. */
const leastMs = 30_000
const stepMs = 5000
/** No valve of the catalogue travels longer. */
const mostMs = 300_000
const settled = new WeakMap<Circuit, number>()

/** How long it takes until every valve has come to its end, whatever is asked for after whatever else, ms: tried out. */
export function settledMs(circuit: Circuit): number {
  const known = settled.get(circuit)
  if (known !== undefined) return known
  const ids = circuit.installation.intent.demands.map(({ id }) => id)
  const states = [...ids.flatMap((id) => [[id], []]), ...ids.map((id) => [id]), ids, ...ids.map((id) => [id]), []]
  const sim = new Simulation(circuit)
  let longest = leastMs
  for (const wanted of states) {
    perform(sim, demandActions(circuit, wanted))
    const at = () => circuit.actuators.map((_, i) => sim.actuatorPosition(i)).join()
    for (let ms = stepMs, before = at(); ms <= mostMs; ms += stepMs) {
      sim.run(stepMs)
      const now = at()
      if (now !== before) longest = Math.max(longest, ms + stepMs)
      // What takes its time to begin is waited for as well.
      if (now === before && ms >= leastMs) break
      before = now
    }
  }
  settled.set(circuit, longest)
  return longest
}

export function perform(sim: Simulation, acts: readonly Action[], ms = 0): void {
  for (const act of acts)
    if (act.do === 'set') sim.set(act.device, act.control, act.value)
    else if (act.do === 'wait') sim.run(act.ms)
  sim.run(ms)
}

/**
 * The installation as somebody may come to it: at rest, or after any one demand that was asked for last and is over. A valve that stays where
 * it was driven stands otherwise in one than in another, and nobody can say in which of them it is.
 */
export function histories(circuit: Circuit): Simulation[] {
  const off = demandActions(circuit, [])
  const { demands } = circuit.installation.intent
  return [undefined, ...demands].map((last) => {
    const sim = new Simulation(circuit)
    if (last) perform(sim, demandActions(circuit, [last.id]), settledMs(circuit))
    // Long enough for whatever runs on.
    if (last) perform(sim, off, 20 * 60_000)
    return sim
  })
}
