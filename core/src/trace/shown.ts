import { demandActions } from '../inputs'
import { Rig, type PutIn } from '../hypotheses'
import type { Circuit } from '../circuit'
import { ActionError, type Action } from '../simulation'
import { effectsOf, type Effect } from './causes'

/** What something wrong shows, and with how little: a demand alone, nothing wanted, or only with all of them. */
export interface Shown {
  effect: Effect | { is: 'fuse-blows' } | { is: 'hunts' }
  when: 'nothing' | 'alone' | 'together'
}

/** Long enough for everything to have come to rest, overrun and all. */
const restMs = 30 * 60_000

/** What a customer would notice of something wrong that is put in at rest: with nothing wanted, each demand alone, and all together. */
export function shownBy(circuit: Circuit, { name }: Pick<PutIn, 'name'>): Shown[] {
  const ids = circuit.installation.intent.demands.map((d) => d.id)
  const states: { wanted: string[]; when: Shown['when'] }[] = [
    { wanted: [], when: 'nothing' },
    ...ids.map((id) => ({ wanted: [id], when: 'alone' as const })),
    ...(ids.length > 1 ? [{ wanted: ids, when: 'together' as const }] : []),
  ]
  const found = new Map<string, Shown>()
  for (const { wanted, when } of states) {
    const acts: Action[] = [...demandActions(circuit, wanted), { do: 'wait', ms: restMs }]
    const before = new Set(effectsIn(circuit, acts).map(keyOf))
    for (const effect of effectsIn(circuit, [{ do: 'fault', fault: name }, ...acts])) {
      const key = keyOf(effect)
      if (!before.has(key) && !found.has(key)) found.set(key, { effect, when })
    }
  }
  return [...found.values()]
}

const keyOf = (effect: Shown['effect']) => JSON.stringify(effect)

function effectsIn(circuit: Circuit, acts: readonly Action[]): Shown['effect'][] {
  let rig: Rig
  try {
    rig = Rig.after(circuit, acts)
  } catch (error) {
    if (error instanceof ActionError) return []
    throw error
  }
  const { simulation } = rig
  return [
    ...(simulation.history.some((event) => event.kind === 'fuse') ? [{ is: 'fuse-blows' } as const] : []),
    ...(simulation.hunting ? [{ is: 'hunts' } as const] : []),
    ...effectsOf(simulation),
  ]
}
