import type { BehaviourPart } from '../catalogue'

/** A named behaviour: what a device does that contacts and timers alone do not tell. */
export interface BehaviourState {
  phase: string
  /** Simulated time in ms at which the phase ends by itself; Infinity where it does not. */
  until: number
}

export interface Behaviour {
  initial: BehaviourState
  /** The state that follows, given which of the watched conditions hold. Called until it returns the state it was given. */
  react(
    state: BehaviourState,
    seen: Record<string, boolean>,
    figures: Record<string, number>,
    now: number,
  ): BehaviourState
}

const stay = (phase: string): BehaviourState => ({ phase, until: Infinity })

/**
 * Call → pump and self-check → firing; call lost → burner off → overrun → idle. The pump relay's contact follows the
 * phase. A second input, for hot water, calls as well as the first. Flow is taken as proven: there is no water model beneath this yet.
 */
const boilerSequence: Behaviour = {
  initial: stay('off'),
  react(state, { powered, call: heating, hotWater }, { selfCheckSeconds, overrunMinutes }, now) {
    const call = heating || hotWater
    if (!powered) return state.phase === 'off' ? state : stay('off')
    switch (state.phase) {
      case 'off':
        return stay('idle')
      case 'lockout':
        return stay('idle')
      case 'idle':
        return call ? { phase: 'self-check', until: now + selfCheckSeconds * 1000 } : state
      case 'self-check':
        if (!call) return stay('idle')
        return now >= state.until ? stay('firing') : state
      case 'firing':
        return call ? state : { phase: 'overrun', until: now + overrunMinutes * 60_000 }
      default:
        if (call) return { phase: 'self-check', until: now + selfCheckSeconds * 1000 }
        return now >= state.until ? stay('idle') : state
    }
  },
}

/** A boiler that keeps its own water hot: what is called is its circulator; the burner follows the water alone. */
const circulatorCall: Behaviour = {
  initial: stay('off'),
  react(state, { powered, call }) {
    const phase = !powered ? 'off' : call ? 'circulating' : 'idle'
    return phase === state.phase ? state : stay(phase)
  },
}

export const behaviours: Record<BehaviourPart['behaviour'], Behaviour> = {
  'boiler-sequence': boilerSequence,
  'circulator-call': circulatorCall,
}

/** Phases in which a boiler shows that it answers a call. */
export const calledPhases: ReadonlySet<string> = new Set(['self-check', 'firing', 'circulating'])

/** What a sequence does that has locked itself out: nothing, until somebody resets it. */
export function lockedOut(state: BehaviourState, { powered }: Record<string, boolean>): BehaviourState {
  const phase = powered ? 'lockout' : 'off'
  return state.phase === phase ? state : stay(phase)
}
