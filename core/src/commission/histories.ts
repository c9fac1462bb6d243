import type { Circuit } from '../circuit'
import { demandActions } from '../inputs'
import { Simulation, type Action } from '../simulation'

/** Valves have come to their end by then, and contacts have followed. */
export const settledMs = 30_000

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
    if (last) perform(sim, demandActions(circuit, [last.id]), settledMs)
    // Long enough for whatever runs on.
    if (last) perform(sim, off, 20 * 60_000)
    return sim
  })
}
