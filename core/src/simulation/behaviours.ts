/** A named behaviour: what a device does that contacts and timers alone do not tell. */
export interface BehaviourState {
  phase: string
  /** Simulated time in ms at which the phase ends by itself; Infinity where it does not. */
  until: number
}

export interface Behaviour {
  initial: BehaviourState
  /** The state that follows, given which watched loads are energised. Called until it returns the state it was given. */
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

export const behaviours: Record<string, Behaviour> = { 'boiler-sequence': boilerSequence }
