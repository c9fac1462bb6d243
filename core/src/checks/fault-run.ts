import type { Circuit } from '../circuit'
import { faultsOf, type Fault } from '../hypotheses'
import { flagsOf } from '../simulation'
import { breachKey, explore, type Breach } from '../states'
import { severityOf } from './all-states'

/** A single device fault, and the danger it ends in; none where it ends in none. */
export interface FaultEnd {
  fault: Pick<Fault, 'name' | 'label' | 'remedy'>
  danger?: Breach
  /** All its states were looked at, or a danger was found before. */
  complete: boolean
}

/** Dangers of an installation with something broken: those of all states, and a cylinder that warms past its thermostat. */
function isDanger(circuit: Circuit, breach: Breach): boolean {
  if (severityOf(breach) === 'danger') return true
  const { property, demands } = breach
  const kinds = circuit.installation.intent.demands.filter((d) => demands.includes(d.id)).map((d) => d.kind)
  return property === 'no-heat-without-demand' && kinds.includes('hot-water')
}

/** States of one fault after which it is left, where nothing else is said. */
const mostEach = 20_000

export interface FaultRunOptions {
  /** Whether zones that are alike, with what is broken in them, are counted together; left out, they are. */
  together?: boolean
  /** Which faults are tried; left out, every device fault. */
  only?: (fault: Fault) => boolean
  /** States of one fault after which it is left; left out, 20,000. */
  mostStates?: number
}

/**
 * The deeper run: every state with each single device fault in turn. A generator: each pause gives how many faults are done,
 * of how many; leave it to cancel. What is wrong without any fault is not told again.
 */
export function* faultRun(
  circuit: Circuit,
  { together, only = () => true, mostStates = mostEach }: FaultRunOptions = {},
): Generator<{ done: number; of: number }, FaultEnd[]> {
  const faults = faultsOf(circuit).filter((f) => f.subject.kind === 'device' && only(f))
  const whole = yield* paced(explore(circuit, { mostStates, together }), () => ({ done: 0, of: faults.length }))
  const known = new Set(whole.breaches.map((b) => breachKey(b.breach)))
  const ends: FaultEnd[] = []
  for (const fault of faults) {
    const flags = flagsOf(circuit, fault.defects)
    const isNew = (breach: Breach) => isDanger(circuit, breach) && !known.has(breachKey(breach))
    const run = explore(circuit, { mostStates, flags, together, until: isNew })
    const found = yield* paced(run, () => ({ done: ends.length, of: faults.length }))
    const danger = found.breaches.find((b) => isNew(b.breach))?.breach
    const { name, label, remedy } = fault
    ends.push({
      fault: { name, label, remedy },
      ...(danger && { danger }),
      complete: danger !== undefined || found.complete,
    })
    yield { done: ends.length, of: faults.length }
  }
  return ends
}

/** Drives a run on, saying something else at its pauses. */
function* paced<T, P>(run: Generator<unknown, T>, say: () => P): Generator<P, T> {
  for (;;) {
    const { done, value } = run.next()
    if (done) return value
    yield say()
  }
}
