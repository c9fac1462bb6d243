import { answerOf, type ElectricalAnswer } from './answer'
import type { Circuit } from './circuit'
import { Electrics } from './electrics'
import type { CircuitState } from './nets'
import { Remembered } from './remembered'

/** What is remembered of a family of circuits: one installation and its variants, which share their devices. */
interface Memory {
  electrics: Remembered<Electrics>
  answers: Remembered<ElectricalAnswer>
  /** The state solved last: whoever has just read its answer may ask for all of it. */
  last?: { key: string; electrics: Electrics }
  /** Tells the circuits of the family apart. */
  circuits: number
}
const memories = new WeakMap<Circuit['devices'], Memory>()
const numbers = new WeakMap<Circuit, number>()

/** Bytes that one family may take: whole electrical states, and answers. */
const mostElectricsBytes = 24 * 2 ** 20
const mostAnswersBytes = 32 * 2 ** 20

/** About what a whole electrical state holds: arrays by terminals, and its branches. */
const bytesOf = ({ network: { row, unknown, branches } }: Electrics): number =>
  26 * row.length + 24 * unknown.length + 8 * branches.length + 1500
const answerBytes = ({ levels, linked }: ElectricalAnswer): number => 600 + 3 * levels.length + linked.length

function memoryOf(circuit: Circuit): { memory: Memory; number: number } {
  let memory = memories.get(circuit.devices)
  if (!memory) {
    memory = {
      electrics: new Remembered(mostElectricsBytes, bytesOf),
      answers: new Remembered(mostAnswersBytes, answerBytes),
      circuits: 0,
    }
    memories.set(circuit.devices, memory)
  }
  let number = numbers.get(circuit)
  if (number === undefined) numbers.set(circuit, (number = memory.circuits++))
  return { memory, number }
}

/**
 * The electrical answer for a state, remembered within the bytes that an installation and its variants share. `key` must say
 * everything that is in the state; the state itself is asked for where it is not known, and copied, since simulations write into theirs.
 */
export function electricsOf(circuit: Circuit, key: string, state: () => CircuitState): Electrics {
  const { memory, number } = memoryOf(circuit)
  const full = `${number}|${key}`
  return memory.electrics.get(full, () =>
    memory.last?.key === full ? memory.last.electrics : new Electrics(circuit, copyState(state())),
  )
}

/**
 * As {@link electricsOf}, what the parts answer to: where it is known, nothing is solved. Whole states that nobody asks for are
 * not kept: of the thousands that all variants and all states of an installation come to, few are ever looked at.
 */
export function answerFor(circuit: Circuit, key: string, state: () => CircuitState): ElectricalAnswer {
  const { memory, number } = memoryOf(circuit)
  const full = `${number}|${key}`
  return memory.answers.get(full, () => {
    const electrics = new Electrics(circuit, copyState(state()))
    memory.last = { key: full, electrics }
    return answerOf(electrics)
  })
}

const copyState = (state: CircuitState): CircuitState => ({
  closed: state.closed.slice(),
  blown: state.blown.slice(),
  brokenEdges: state.brokenEdges.slice(),
  openLoads: state.openLoads.slice(),
  openTransformers: state.openTransformers.slice(),
  failedInsulation: state.failedInsulation.slice(),
  openDiodes: state.openDiodes.slice(),
  shortedDiodes: state.shortedDiodes.slice(),
})
