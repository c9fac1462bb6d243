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

/** Fires with no flow: it has this long, by its own water and metal alone, from the temperature it stands at to its limit. */
const untilLimit = ({ ownWater, leastWatts, limit, aim }: Record<string, number>): number =>
  (ownWater * 3_600_000 * Math.max(1, limit - aim)) / leastWatts

/**
 * Call → pump and self-check → flow proven → firing; call lost → burner off → overrun → idle. Its burner stays off for a least time:
 * called for heating within it, it waits with its pump running; hot water does not wait. The pump relay's contact follows
 * the phase. A second input, for hot water, calls as well as the first. Flow that does not come, or is lost for as long as
 * its water takes to overheat, locks it out. Where a model of heat minds its water, that says when it overheats.
 */
const boilerSequence: Behaviour = {
  initial: stay('off'),
  react(state, seen, figures, now) {
    const { powered, locked } = seen
    // Undefined where nothing watches it.
    const flow = seen.flow as boolean | undefined
    const call = seen.call || seen.hotWater
    if (!powered) return state.phase === 'off' ? state : stay('off')
    if (locked || state.phase === 'lockout') {
      if (locked) return state.phase === 'lockout' ? state : stay('lockout')
      return stay('idle')
    }
    switch (state.phase) {
      case 'off':
        return stay('idle')
      case 'idle':
        if (state.until < Infinity) return burnerOff(state, { call, waits: call && !seen.hotWater }, figures, now)
        return call ? { phase: 'self-check', until: now + figures.selfCheckSeconds * 1000 } : state
      case 'self-check':
      case 'no-flow':
        if (!call) return stay('idle')
        if (state.phase === 'self-check' && now < state.until) return state
        if (flow !== false) return stay('firing')
        if (state.phase === 'no-flow') return now >= state.until ? stay('lockout') : state
        return { phase: 'no-flow', until: now + figures.provingSeconds * 1000 }
      case 'firing':
        if (!call) return { phase: 'overrun', until: now + overrunMs(figures) }
        if (seen.overheated || now >= state.until) return stay('lockout')
        if (flow !== false || seen.minded) return state.until === Infinity ? state : stay('firing')
        return state.until < Infinity ? state : { phase: 'firing', until: Math.ceil(now + untilLimit(figures)) }
      default:
        return burnerOff(state, { call, waits: call && !seen.hotWater }, figures, now)
    }
  },
}

const overrunMs = ({ overrunMinutes }: Record<string, number>): number => overrunMinutes * 60_000

/** After its burner has gone out: it overruns, it is idle and may not fire yet, or it is called and waits until it may. */
function burnerOff(
  state: BehaviourState,
  { call, waits }: { call: boolean; waits: boolean },
  figures: Record<string, number>,
  now: number,
): BehaviourState {
  const leastOffMs = (figures.leastOffMinutes ?? 0) * 60_000
  const wentOut = state.until - (state.phase === 'overrun' ? overrunMs(figures) : leastOffMs)
  const [overrun, mayFire] = [wentOut + overrunMs(figures), wentOut + leastOffMs]
  const to = (phase: string, until: number) => (phase === state.phase ? state : { phase, until })
  if (call && (!waits || now >= mayFire)) return { phase: 'self-check', until: now + figures.selfCheckSeconds * 1000 }
  if (call) return to('waits-off', mayFire)
  if (now < overrun) return to('overrun', overrun)
  return now < mayFire ? to('idle', mayFire) : stay('idle')
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

/** Phases in which what a boiler is called for comes: its burner fires, or where it keeps its own water hot its circulator runs. */
export const firingPhases: ReadonlySet<string> = new Set(['firing', 'circulating'])

/** Phases in which a boiler shows that it answers a call. */
export const calledPhases: ReadonlySet<string> = new Set([
  'waits-off',
  'self-check',
  'no-flow',
  'firing',
  'circulating',
])

/** What a sequence does that has locked itself out: nothing, until somebody resets it. */
export function lockedOut(state: BehaviourState, { powered }: Record<string, boolean>): BehaviourState {
  const phase = powered ? 'lockout' : 'off'
  return state.phase === phase ? state : stay(phase)
}
